#include "stations/book/trail_panel.h"

#include "book/kinds/kind_info.h"
#include "change_words.h"
#include "document/book_desk.h"
#include "document/side_by_side.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/prompts.h"
#include "stations/book/thing_facts.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QAbstractTextDocumentLayout>
#include <QGridLayout>
#include <QLabel>
#include <QListWidget>
#include <QPainter>
#include <QPushButton>
#include <QStyledItemDelegate>
#include <QTextDocument>
#include <QVBoxLayout>

namespace butte::app {

using book::Kind;

namespace {

/// One step of the trail: its first line bold, the rest wrapped below.
class TrailDelegate : public QStyledItemDelegate {
public:
  using QStyledItemDelegate::QStyledItemDelegate;

  void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const auto& t = theme();
    const bool chosen = option.state & QStyle::State_Selected;
    p->save();
    p->fillRect(option.rect, chosen ? t.accent : t.card);
    p->setPen(t.line);
    p->drawLine(option.rect.bottomLeft(), option.rect.bottomRight());
    p->translate(option.rect.topLeft() + QPoint(pad, pad));
    QTextDocument text;
    lay(text, index, option.rect.width());
    QAbstractTextDocumentLayout::PaintContext context;
    context.palette.setColor(QPalette::Text, chosen ? t.accentInk : t.ink);
    text.documentLayout()->draw(p, context);
    p->restore();
  }

  QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    QTextDocument text;
    const auto* view = qobject_cast<const QListWidget*>(option.widget);
    const int width = view ? view->viewport()->width() : 360;
    lay(text, index, width);
    return {width, static_cast<int>(text.size().height()) + 2 * pad};
  }

private:
  static constexpr int pad = 5;
  static void lay(QTextDocument& text, const QModelIndex& index, int width) {
    const auto words = index.data().toString();
    text.setDocumentMargin(0);
    text.setDefaultFont(faceOf(13));
    text.setHtml("<b>" + words.section('\n', 0, 0).toHtmlEscaped() + "</b><br>" +
                 words.section('\n', 1).toHtmlEscaped().replace('\n', "<br>"));
    text.setTextWidth(width - 2 * pad);
  }
};

QString nameOf(const book::Record& record) {
  if (record.ref.kind == Kind::Batch)
    return tr("batch of %1").arg(qtext(record.body.value("formula_name", std::string("?"))));
  return record.body.contains("name") ? qtext(record.body.value("name", std::string())) : tr("(no name)");
}

} // namespace

TrailPanel::TrailPanel(BookDesk& desk, Prompts& prompts, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_prompts(prompts), m_title(new WrappedLabel), m_facts(new WrappedLabel),
      m_heading(new PlainLabel(tr("How it came to be (mark one or two)"))), m_known(new ThingFacts(desk)),
      m_trail(new QListWidget), m_use(new QPushButton), m_name(new QPushButton(tr("Name this version…"))),
      m_bin(new QPushButton), m_compare(new QPushButton(tr("Compare"))),
      m_back(new QPushButton(tr("Go back to it"))) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  m_title->setFont(faceOf(15, true));
  m_title->setObjectName("trailTitle");
  m_facts->setProperty("soft", true);
  m_use->setObjectName("useThing");
  m_use->setProperty("primary", true);
  m_name->setObjectName("nameVersion");
  m_bin->setObjectName("binThing");
  m_compare->setObjectName("compareVersions");
  m_back->setObjectName("goBackVersion");
  auto* top = new QGridLayout;
  top->addWidget(m_use, 0, 0, 1, 2);
  top->addWidget(m_name, 1, 0);
  top->addWidget(m_bin, 1, 1);
  auto* heading = m_heading;
  heading->setFont(faceOf(13, true));
  m_trail->setObjectName("trail");
  m_trail->setSelectionMode(QAbstractItemView::ExtendedSelection);
  m_trail->setItemDelegate(new TrailDelegate(m_trail));
  m_trail->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  auto* below = new QGridLayout;
  below->addWidget(m_compare, 0, 0);
  below->addWidget(m_back, 0, 1);
  column->addWidget(m_title);
  column->addWidget(m_facts);
  column->addLayout(top);
  column->addWidget(m_known);
  column->addSpacing(6);
  column->addWidget(heading);
  column->addWidget(m_trail, 1000);
  column->addLayout(below);
  column->addStretch(); // an empty trail leaves its words at the top
  connect(m_known, &ThingFacts::message, this, &TrailPanel::message);
  connect(m_use, &QPushButton::clicked, this, [this] { emit useAsked(m_ref); });
  connect(m_name, &QPushButton::clicked, this, &TrailPanel::nameVersion);
  connect(m_bin, &QPushButton::clicked, this, &TrailPanel::moveBin);
  connect(m_compare, &QPushButton::clicked, this, &TrailPanel::compare);
  connect(m_back, &QPushButton::clicked, this, &TrailPanel::goBack);
  connect(m_trail, &QListWidget::itemSelectionChanged, this, &TrailPanel::buttons);
}

void TrailPanel::show(const book::Ref& ref) {
  m_ref = ref;
  const auto record = ref.uid.empty()
                          ? core::Result<std::optional<book::Record>>(std::optional<book::Record>())
                          : m_desk.book().record(ref);
  const bool there = record && *record;
  m_record = there ? **record : book::Record{};
  for (auto* button : {m_use, m_name, m_bin, m_compare, m_back})
    button->setVisible(there);
  m_trail->setVisible(there);
  m_known->setVisible(there && !m_record.binnedAt);
  m_heading->setVisible(there);
  if (!there) {
    m_title->setText(tr("Nothing chosen"));
    m_facts->setText(tr("Choose a line on the left to see how it came to be."));
    return;
  }
  m_title->setText(nameOf(m_record));
  m_known->show(m_record);
  m_use->setVisible(ref.kind != Kind::Batch && ref.kind != Kind::ReadingImport && ref.kind != Kind::Vessel &&
                    ref.kind != Kind::PaperLayout);
  fillVersions();
  const auto kind = kindText(ref.kind);
  m_facts->setText(QString("%1 · %2%3")
                       .arg(kind,
                            m_versions.empty()
                                ? tr("no version kept yet")
                                : counted(m_versions.size(), tr("%1 version kept"), tr("%1 versions kept")),
                            m_record.binnedAt ? tr(" · in the bin since %1").arg(whenText(*m_record.binnedAt))
                                              : QString()));
  m_use->setText(ref.kind == Kind::Formula   ? tr("Open this formula")
                 : ref.kind == Kind::Product ? tr("Put it on this formula's shelf")
                                             : tr("Use it in the open formula"));
  m_bin->setText(m_record.binnedAt ? tr("Take it out of the bin") : tr("Into the bin"));
  buttons();
}

void TrailPanel::fillVersions() {
  m_trail->clear();
  m_versions.clear();
  if (auto versions = m_desk.book().store().versions(m_ref.uid)) m_versions = std::move(versions).value();
  if (!m_versions.empty() && m_versions.front().body != m_record.body) {
    auto* now = new QListWidgetItem(tr("now, since version %1\n%2")
                                        .arg(QString::number(m_versions.front().number),
                                             qtext(words::changesText(book::changesBetween(
                                                 m_ref.kind, m_versions.front().body, m_record.body)))));
    now->setData(Qt::UserRole, 0);
    m_trail->addItem(now);
  }
  for (const auto& v : m_versions) {
    QString text = tr("version %1%2 · %3")
                       .arg(v.number)
                       .arg(v.name.empty() ? QString() : " “" + qtext(v.name) + "”",
                            qtext(words::versionReasonText(v.why)));
    text += "\n" + whenText(v.at) + (v.who.empty() ? QString() : " · " + qtext(v.who));
    if (!v.changes.empty()) text += "\n" + qtext(words::changesText(v.changes));
    auto* item = new QListWidgetItem(text);
    item->setData(Qt::UserRole, v.number);
    m_trail->addItem(item);
  }
}

void TrailPanel::choose(int version) {
  for (int i = 0; i < m_trail->count(); ++i) {
    if (m_trail->item(i)->data(Qt::UserRole).toInt() == version) m_trail->setCurrentRow(i);
  }
}

void TrailPanel::buttons() {
  const auto chosen = m_trail->selectedItems();
  const bool binned = m_record.binnedAt.has_value(), writes = !m_desk.isReadOnly();
  m_compare->setEnabled(m_ref.kind == Kind::Formula && (chosen.size() == 1 || chosen.size() == 2));
  m_compare->setText(chosen.size() == 2 ? tr("Compare the two") : tr("Compare with now"));
  m_back->setEnabled(writes && !binned && chosen.size() == 1 &&
                     chosen.front()->data(Qt::UserRole).toInt() > 0);
  m_use->setEnabled(!binned && (writes || m_ref.kind == Kind::Formula));
  m_name->setEnabled(writes && !binned);
  m_bin->setEnabled(writes);
}

void TrailPanel::compare() {
  std::vector<ComparedSide> sides;
  for (int i = m_trail->count(); i-- > 0;) {
    auto* item = m_trail->item(i);
    if (!item->isSelected()) continue;
    const int number = item->data(Qt::UserRole).toInt();
    if (number == 0) sides.push_back({tr("now"), &m_record.body});
    for (const auto& v : m_versions) {
      if (v.number == number && number > 0)
        sides.push_back({v.name.empty() ? tr("version %1").arg(number)
                                        : tr("version %1 “%2”").arg(number).arg(qtext(v.name)),
                         &v.body});
    }
  }
  if (sides.size() == 1) sides.push_back({tr("now"), &m_record.body});
  if (sides.size() == 2) emit compareAsked(compared(sides[0], sides[1]));
}

void TrailPanel::goBack() {
  const int number = m_trail->selectedItems().value(0)->data(Qt::UserRole).toInt();
  const auto version = m_desk.book().store().version(m_ref.uid, number);
  if (!version || !*version) return;
  // What stands now is kept first.
  if (const auto kept = m_desk.book().makeVersion(m_ref, "gone back"); !kept)
    return emit message(qtext(words::problemText(kept.problem())));
  if (const auto trouble = m_desk.book().replaceBody(
          m_ref, (*version)->body, {core::DeedCode::BackToVersion, {std::to_string(number)}}))
    return emit message(qtext(words::problemText(*trouble)));
  emit message(tr("Gone back to version %1. Ctrl+Z takes that back.").arg(number));
  refresh();
}

void TrailPanel::nameVersion() {
  const auto name = m_prompts.words(tr("Name this version"),
                                    tr("As it stands now it is kept for good under this name:"), {});
  if (name.isEmpty()) return;
  const auto number = m_desk.book().makeVersion(m_ref, "named", name.toStdString());
  if (!number) return emit message(qtext(words::problemText(number.problem())));
  refresh();
}

void TrailPanel::moveBin() {
  const auto name = nameOf(m_record).toStdString();
  const auto trouble =
      m_record.binnedAt ? m_desk.book().takeFromBin(m_ref, name) : m_desk.book().moveToBin(m_ref, name);
  if (trouble) return emit message(qtext(words::problemText(*trouble)));
  emit message(m_record.binnedAt ? tr("Out of the bin again.")
                                 : tr("In the bin. Ctrl+Z takes it out again."));
}

} // namespace butte::app
