#include "stations/stocks/levels_panel.h"

#include "document/formula_editor.h"
#include "edits/stock_edits.h"
#include "paint/fitted_label.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "stations/stocks/uneven_text.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

namespace {
constexpr int leastNameWidth = 70;
constexpr std::pair<const char*, const char*> shapes[] = {
    {"", QT_TRANSLATE_NOOP("butte", "vessel…")},
    {"round", QT_TRANSLATE_NOOP("butte", "round, across")},
    {"rectangular", QT_TRANSLATE_NOOP("butte", "rectangular")},
    {"tapered", QT_TRANSLATE_NOOP("butte", "pail, bottom and top")}};
} // namespace

LevelsPanel::LevelsPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : StockPanel(editor, units, parent), m_grid(new QGridLayout), m_drawn(new WrappedLabel) {
  m_grid->setHorizontalSpacing(6);
  m_grid->setVerticalSpacing(3);
  const char* heads[] = {
      QT_TRANSLATE_NOOP("butte", "tank"),   QT_TRANSLATE_NOOP("butte", "its vessel, inside, in cm"),
      QT_TRANSLATE_NOOP("butte", "across"), QT_TRANSLATE_NOOP("butte", "along, top"),
      QT_TRANSLATE_NOOP("butte", "high"),   QT_TRANSLATE_NOOP("butte", "line")};
  for (int c = 0; c < 6; ++c)
    m_grid->addWidget(words(app::tr(heads[c]), true), 0, c);
  auto* drawn = new QHBoxLayout;
  drawn->setSpacing(4);
  drawn->addWidget(words(tr("drawn,"), true));
  drawn->addWidget(unitLabel(Kind::Volume));
  drawn->addStretch();
  m_grid->addLayout(drawn, 0, 6);
  m_grid->addWidget(words(tr("salts, % of plan"), true), 0, 7);
  auto* feed = new FlowRow;
  feed->addTogether({words(tr("feed made meanwhile")),
                     field(tr("feed made meanwhile"), "drawnFeed", "drawn_feed", Kind::Volume, 0, 1e8,
                           [] { return QString("?"); }),
                     unitLabel(Kind::Volume)});
  feed->addTogether({words(tr("where is the line for")),
                     field(tr("volume whose line is sought"), "lineFor", "line_for", Kind::Volume, 0, 1e7,
                           [] { return QString("full"); }),
                     unitLabel(Kind::Volume)});
  m_drawn->setObjectName("drawnVerdict");
  m_drawn->setTextFormat(Qt::RichText);
  m_drawn->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  m_drawn->setFont(faceOf(13));
  auto* left = new QVBoxLayout;
  left->addLayout(m_grid);
  left->addLayout(feed);
  left->addStretch();
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(24);
  row->addLayout(left);
  row->addWidget(m_drawn, 1);
}

std::vector<QWidget*> LevelsPanel::Row::widgets() const {
  return {name, shape, across, along, height, line, drawn, ofPlan};
}

void LevelsPanel::makeRows() {
  const auto count = m_editor.document().tanks.size();
  while (m_rows.size() < count) {
    const auto i = m_rows.size();
    const int line = static_cast<int>(i) + 1;
    const auto size = [&](const char* key, const QString& name,
                          void (StockEdits::*put)(std::size_t, const QString&)) {
      auto* made = new NumberField({name, "cm", 0, 1e5, true});
      made->setObjectName(QString("vessel_%1%2").arg(key).arg(i));
      made->setFixedWidth(54);
      made->onTyped = [this, i, put](const QString& digits) { (StockEdits(m_editor).*put)(i, digits); };
      made->onMessage = [this](const QString& words) { emit message(words); };
      return made;
    };
    Row row{new FittedLabel,
            new PlainLabel,
            new QComboBox,
            size("across_cm", tr("across, or at the bottom"), &StockEdits::setVesselAcross),
            size("along_cm", tr("along, or at the top"), &StockEdits::setVesselAlong),
            size("height_cm", tr("inner height"), &StockEdits::setVesselHeight),
            field(tr("drawn from tank %1").arg(line), QString("drawn%1").arg(i),
                  "drawn/" + std::to_string(i) + "/volume", Kind::Volume, 0, 1e7,
                  [] { return QString("—"); }),
            field(tr("salts in tank %1, in % of the plan").arg(line), QString("ofPlan%1").arg(i),
                  "drawn/" + std::to_string(i) + "/of_plan_percent", Kind::Plain, 0, 1000,
                  [] { return QString("100"); })};
    row.name->setFont(faceOf(13, true));
    row.name->setMinimumWidth(leastNameWidth);
    row.line->setTextFormat(Qt::RichText);
    row.shape->setObjectName(QString("vesselShape%1").arg(i));
    row.shape->setAccessibleName(tr("shape of the vessel"));
    for (const auto& [key, words] : shapes)
      row.shape->addItem(app::tr(words), key);
    connect(row.shape, &QComboBox::activated, this, [this, i, box = row.shape] {
      const auto shape = core::vesselShapeFromKey(box->currentData().toString().toStdString());
      StockEdits edits(m_editor);
      shape ? edits.setVesselShape(i, *shape) : edits.setVesselUnknown(i);
    });
    row.line->setObjectName(QString("vesselLine%1").arg(i));
    const auto widgets = row.widgets();
    for (int c = 0; c < static_cast<int>(widgets.size()); ++c)
      m_grid->addWidget(widgets[static_cast<std::size_t>(c)], line, c);
    m_rows.push_back(row);
  }
  for (std::size_t i = 0; i < m_rows.size(); ++i) {
    for (auto* w : m_rows[i].widgets())
      w->setVisible(i < count);
  }
}

void LevelsPanel::refreshRow(std::size_t tank) {
  const auto& content = m_editor.answer().stock.tanks[tank];
  const auto& row = m_rows[tank];
  row.name->setText(
      QString::fromStdString(words::tankTitle(m_editor.document().given.request.shelf, content)));
  row.name->setToolTip(row.name->text());
  const auto& vessel = m_editor.document().tanks[tank].vessel;
  const auto typed = StockEdits(m_editor).vessel(tank);
  row.shape->setCurrentIndex(vessel ? static_cast<int>(vessel->shape) + 1 : 0);
  row.across->show(QString::fromStdString(typed.across));
  row.along->show(QString::fromStdString(typed.along));
  row.height->show(QString::fromStdString(typed.height));
  const bool along = vessel && vessel->shape != core::VesselShape::Round;
  row.along->setEnabled(along);
  row.across->setEnabled(vessel.has_value());
  row.height->setEnabled(vessel.has_value());
  if (!vessel) return row.line->setText("—");
  const auto mark = m_editor.document().dosing.lineFor.value_or(content.tank.volume);
  const auto cm = core::heightForVolume(*vessel, mark);
  row.line->setText(cm ? tr("%1 at <b>%2 cm</b>").arg(m_units.text(mark), localNumber(*cm, 1))
                       : "▲ " + QString::fromStdString(words::problemText(cm.problem())).toHtmlEscaped());
}

void LevelsPanel::refresh() {
  makeRows();
  for (std::size_t t = 0; t < m_editor.document().tanks.size(); ++t)
    refreshRow(t);
  m_drawn->setText(unevenText(m_editor, m_units));
}

} // namespace butte::app
