#include "stations/book/copies_panel.h"

#include "book/copies.h"
#include "document/book_desk.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/prompts.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QDir>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

CopiesPanel::CopiesPanel(BookDesk& desk, Prompts& prompts, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_prompts(prompts), m_where(new WrappedLabel),
      m_changes(new WrappedLabel), m_list(new QListWidget), m_copy(new QPushButton(tr("Make a copy now"))),
      m_back(new QPushButton(tr("Go back to this copy…"))) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  m_where->setProperty("soft", true);
  m_changes->setObjectName("copyChanges");
  m_changes->setAlignment(Qt::AlignTop);
  m_list->setObjectName("copies");
  m_copy->setObjectName("copyNow");
  m_copy->setProperty("primary", true);
  m_back->setObjectName("goBackCopy");
  auto* buttons = new QHBoxLayout;
  buttons->addWidget(m_copy);
  buttons->addWidget(m_back);
  buttons->addStretch();
  column->addWidget(m_where);
  column->addLayout(buttons);
  column->addWidget(m_list, 2);
  auto* heading = new PlainLabel(tr("What would change"));
  heading->setFont(faceOf(13, true));
  column->addWidget(heading);
  column->addWidget(m_changes, 1);
  connect(m_copy, &QPushButton::clicked, this, &CopiesPanel::copyNow);
  connect(m_back, &QPushButton::clicked, this, &CopiesPanel::goBack);
  connect(m_list, &QListWidget::currentRowChanged, this, &CopiesPanel::look);
}

void CopiesPanel::refresh() {
  m_list->clear();
  m_changes->clear();
  if (!m_desk.isOpen()) return;
  const auto path = m_desk.path().toStdString();
  m_where->setText(
      tr("A copy is made every day on which the book is open, and thinned as it ages: every day of the last "
         "week, then one a week for eight weeks, one a month for two years, one a year after that. They lie "
         "in %1. A copy on another disk keeps the farm safe from more than power cuts.")
          .arg(QDir::toNativeSeparators(qtext(book::copiesFolder(path)))));
  for (const auto& copy : book::copiesOf(path)) {
    auto* item =
        new QListWidgetItem(QString("%1     %2     %3 MB")
                                .arg(whenText(copy.at), qtext(copy.why))
                                .arg(QLocale().toString(static_cast<double>(copy.bytes) / 1048576, 'f', 1)));
    item->setData(Qt::UserRole, qtext(copy.path));
    m_list->addItem(item);
  }
  m_copy->setEnabled(!m_desk.isReadOnly());
  m_back->setEnabled(false);
  if (m_list->count() == 0) m_changes->setText(tr("No copy yet."));
}

QString CopiesPanel::chosen() const {
  return m_list->currentItem() ? m_list->currentItem()->data(Qt::UserRole).toString() : QString();
}

void CopiesPanel::copyNow() {
  const auto made = book::makeCopy(m_desk.book(), "by hand");
  if (!made) return emit message(qtext(words::problemText(made.problem())));
  refresh();
  emit message(tr("Copied: %1").arg(QDir::toNativeSeparators(qtext(*made))));
}

void CopiesPanel::look() {
  if (chosen().isEmpty()) return;
  const auto changes = book::whatGoingBackChanges(m_desk.book(), chosen().toStdString());
  m_back->setEnabled(changes && !m_desk.isReadOnly());
  if (!changes)
    return m_changes->setText(
        tr("This copy can't be used: %1").arg(qtext(words::problemText(changes.problem()))));
  QStringList lines;
  for (const auto& line : goingBackWords(*changes))
    lines << "· " + line;
  m_changes->setText(lines.isEmpty() ? tr("Nothing: the book stands as in this copy.") : lines.join("\n"));
}

void CopiesPanel::goBack() {
  const auto copy = chosen();
  if (copy.isEmpty()) return;
  if (!m_prompts.goOn(tr("Go back to this copy"),
                      tr("%1\n\nThe book as it stands now is kept as a copy first.").arg(m_changes->text()),
                      tr("Go back")))
    return;
  const auto trouble = m_desk.reopenAfter(
      [&](const QString& path) { return book::goBackTo(path.toStdString(), copy.toStdString()); });
  if (trouble) return emit message(qtext(words::problemText(*trouble)));
  refresh();
  emit message(tr("Gone back. The book as it was stands among the copies."));
}

} // namespace butte::app
