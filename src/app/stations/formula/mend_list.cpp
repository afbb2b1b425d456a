#include "stations/formula/mend_list.h"

#include "document/mend_finder.h"
#include "paint/theme.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

MendList::MendList(MendFinder& finder, QWidget* parent)
    : QWidget(parent), m_finder(finder), m_rows(new QVBoxLayout(this)) {
  setObjectName("mendList");
  m_rows->setContentsMargins(8, 4, 6, 4);
  m_rows->setSpacing(2);
  connect(&finder, &MendFinder::changed, this, &MendList::refresh);
  refresh();
}

void MendList::refresh() {
  while (auto* item = m_rows->takeAt(0)) {
    if (item->widget()) {
      item->widget()->hide();
      item->widget()->deleteLater();
    }
    delete item;
  }
  const auto& offers = m_finder.offers();
  for (std::size_t i = 0; i < offers.size(); ++i) {
    const int index = static_cast<int>(i);
    const bool shown = m_finder.previewed() == index;
    auto* row = new QWidget;
    auto* line = new QHBoxLayout(row);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(4);
    auto* look = new QPushButton((shown ? "● " : "○ ") + offers[i].words);
    look->setObjectName(QString("mend%1").arg(index));
    look->setFlat(true);
    look->setFont(faceOf(12, shown));
    look->setStyleSheet("text-align: left; padding: 1px 4px;");
    look->setToolTip(offers[i].words + ": " + offers[i].effect + ".\nPress to see it over the lanes.");
    look->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    connect(look, &QPushButton::clicked, this,
            [this, index, shown] { m_finder.preview(shown ? -1 : index); });
    auto* effect = new QLabel(offers[i].mend.offAfter == 0 ? QString("none off")
                                                           : QString("%1 off").arg(offers[i].mend.offAfter));
    effect->setFont(faceOf(11));
    effect->setProperty("soft", true);
    line->addWidget(look, 1);
    line->addWidget(effect);
    if (shown) {
      auto* take = new QPushButton("Take it");
      take->setObjectName(QString("takeMend%1").arg(index));
      take->setFont(faceOf(12, true));
      take->setStyleSheet("padding: 1px 8px;");
      connect(take, &QPushButton::clicked, this, [this, index] { m_finder.take(index); });
      line->addWidget(take);
    }
    m_rows->addWidget(row);
  }
  if (offers.empty() && m_finder.isSearching()) {
    auto* wait = new QLabel("looking for what would help …");
    wait->setProperty("soft", true);
    m_rows->addWidget(wait);
  }
  m_rows->addStretch();
}

} // namespace butte::app
