#include "stations/formula/mend_list.h"

#include "mends/mend_finder.h"
#include "paint/fitted_text.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "wording/tr.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr int lookPadding = 5; // of a row's style below, with its border
}

MendList::MendList(MendFinder& finder, QWidget* parent)
    : QWidget(parent), m_finder(finder), m_column(new QVBoxLayout(this)), m_wait(new PlainLabel) {
  setObjectName("mendList");
  m_column->setContentsMargins(8, 4, 6, 4);
  m_column->setSpacing(2);
  m_wait->setText(tr("looking for what would help …"));
  m_wait->setProperty("soft", true);
  m_wait->setWordWrap(true);
  m_column->addWidget(m_wait);
  m_column->addStretch();
  connect(&finder, &MendFinder::changed, this, &MendList::refresh);
  refresh();
}

/// What did not go in when it was narrow.
void MendList::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  refresh();
}

void MendList::addRow() {
  const int index = static_cast<int>(m_rows.size());
  Row row{new QWidget, new QPushButton, new PlainLabel, new QPushButton(tr("Take it"))};
  auto* line = new QHBoxLayout(row.box);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(4);
  row.look->setObjectName(QString("mend%1").arg(index));
  row.look->setFlat(true);
  row.look->setStyleSheet("text-align: left; padding: 1px 4px;");
  row.look->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
  connect(row.look, &QPushButton::clicked, this,
          [this, index] { m_finder.preview(m_finder.previewed() == index ? -1 : index); });
  row.effect->setFont(faceOf(11));
  row.effect->setProperty("soft", true);
  row.take->setObjectName(QString("takeMend%1").arg(index));
  row.take->setFont(faceOf(12, true));
  row.take->setStyleSheet("padding: 1px 8px;");
  connect(row.take, &QPushButton::clicked, this, [this, index] { m_finder.take(index); });
  line->addWidget(row.look, 1);
  line->addWidget(row.effect);
  line->addWidget(row.take);
  m_column->insertWidget(m_column->count() - 1, row.box);
  m_rows.push_back(row);
}

void MendList::refresh() {
  const auto& offers = m_finder.offers();
  while (m_rows.size() < offers.size())
    addRow();
  for (std::size_t i = 0; i < m_rows.size(); ++i) {
    const auto& row = m_rows[i];
    row.box->setVisible(i < offers.size());
    if (i >= offers.size()) continue;
    const bool shown = m_finder.previewed() == static_cast<int>(i);
    row.look->setFont(faceOf(12, shown));
    row.look->setText(fittedText(row.look->fontMetrics(), (shown ? "● " : "○ ") + offers[i].words,
                                 row.look->width() - 2 * lookPadding));
    row.look->setToolTip(
        tr("%1: %2.\nPress to see it over the lanes.").arg(offers[i].words, offers[i].effect));
    row.effect->setText(offers[i].mend.offAfter == 0 ? tr("none off")
                                                     : tr("%1 off").arg(offers[i].mend.offAfter));
    row.take->setVisible(shown);
  }
  m_wait->setVisible(offers.empty() && m_finder.isSearching());
}

} // namespace butte::app
