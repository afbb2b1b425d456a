#include "stations/stocks/levels_panel.h"

#include "document/formula_editor.h"
#include "document/stock_edits.h"
#include "dose/draw_down.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/stocks/formula_delivery.h"
#include "stock_words.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

using exchange::Json;

namespace {
constexpr std::pair<const char*, const char*> shapes[] = {{"", "vessel…"},
                                                          {"round", "round, across"},
                                                          {"rectangular", "rectangular"},
                                                          {"tapered", "pail, bottom and top"}};
}

LevelsPanel::LevelsPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : StockPanel(editor, units, parent), m_grid(new QGridLayout), m_drawn(new QLabel) {
  m_grid->setHorizontalSpacing(6);
  m_grid->setVerticalSpacing(3);
  const char* heads[] = {"tank",       "its vessel, inside, in cm", "across", "along, top", "high", "line",
                         "drawn since"};
  for (int c = 0; c < 7; ++c)
    m_grid->addWidget(words(heads[c], true), 0, c);
  m_grid->addWidget(unitLabel(Kind::Volume), 0, 7);
  auto* feed = new QHBoxLayout;
  feed->addWidget(words("feed made meanwhile"));
  feed->addWidget(field("feed made meanwhile", "drawnFeed", "drawn_feed", Kind::Volume, 0, 1e8,
                        [] { return QString("?"); }));
  feed->addWidget(unitLabel(Kind::Volume));
  feed->addSpacing(16);
  feed->addWidget(words("where is the line for"));
  feed->addWidget(field("volume whose line is sought", "lineFor", "line_for", Kind::Volume, 0, 1e7,
                        [] { return QString("full"); }));
  feed->addWidget(unitLabel(Kind::Volume));
  feed->addStretch();
  m_drawn->setObjectName("drawnVerdict");
  m_drawn->setWordWrap(true);
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

void LevelsPanel::keepVessel(std::size_t tank, const std::string& key, const QString& digits) {
  const auto& stored = m_editor.json()["stock"]["tanks"][tank];
  Json vessel =
      stored.contains("vessel") && stored["vessel"].is_object() ? stored["vessel"] : Json{{"shape", "round"}};
  if (digits.isEmpty())
    vessel.erase(key);
  else
    vessel[key] = digits.toStdString();
  StockEdits(m_editor).setTank(tank, "vessel of the tank", "vessel", vessel);
}

void LevelsPanel::makeRows() {
  const auto count = m_editor.document().tanks.size();
  while (m_rows.size() < count) {
    const auto i = m_rows.size();
    const int line = static_cast<int>(i) + 1;
    const auto size = [&](const char* key, const QString& name) {
      auto* made = new NumberField({name, "cm", 0, 1e5, true});
      made->setObjectName(QString("vessel_%1%2").arg(key).arg(i));
      made->setFixedWidth(54);
      made->onTyped = [this, i, key](const QString& digits) { keepVessel(i, key, digits); };
      made->onMessage = [this](const QString& words) { emit message(words); };
      return made;
    };
    Row row{new QLabel,
            new QLabel,
            new QComboBox,
            size("across_cm", "across, or at the bottom"),
            size("along_cm", "along, or at the top"),
            size("height_cm", "inner height"),
            field(QString("drawn from tank %1").arg(line), QString("drawn%1").arg(i),
                  "drawn/" + std::to_string(i) + "/volume", Kind::Volume, 0, 1e7,
                  [] { return QString("—"); })};
    row.shape->setObjectName(QString("vesselShape%1").arg(i));
    row.shape->setAccessibleName("shape of the vessel");
    for (const auto& [key, words] : shapes)
      row.shape->addItem(words, key);
    connect(row.shape, &QComboBox::activated, this, [this, i, box = row.shape] {
      const auto key = box->currentData().toString();
      if (key.isEmpty()) return StockEdits(m_editor).setTank(i, "vessel not known", "vessel", Json(), false);
      keepVessel(i, "shape", key);
    });
    row.line->setObjectName(QString("vesselLine%1").arg(i));
    QWidget* widgets[] = {row.name, row.shape, row.across, row.along, row.height, row.line, row.drawn};
    for (int c = 0; c < 7; ++c)
      m_grid->addWidget(widgets[c], line, c);
    m_rows.push_back(row);
  }
  for (std::size_t i = 0; i < m_rows.size(); ++i) {
    for (QWidget* w : {static_cast<QWidget*>(m_rows[i].name), static_cast<QWidget*>(m_rows[i].line),
                       static_cast<QWidget*>(m_rows[i].shape), static_cast<QWidget*>(m_rows[i].across),
                       static_cast<QWidget*>(m_rows[i].along), static_cast<QWidget*>(m_rows[i].height),
                       static_cast<QWidget*>(m_rows[i].drawn)})
      w->setVisible(i < count);
  }
}

void LevelsPanel::refreshRow(std::size_t tank) {
  const auto& content = m_editor.answer().stock.tanks[tank];
  const auto& row = m_rows[tank];
  row.name->setText(
      QString("<b>%1</b>")
          .arg(QString::fromStdString(words::tankTitle(m_editor.document().given.request.shelf, content))
                   .toHtmlEscaped()));
  const auto& vessel = m_editor.document().tanks[tank].vessel;
  const auto& stored = m_editor.json()["stock"]["tanks"][tank];
  const auto text = [&](const char* key) {
    return vessel && stored["vessel"].contains(key)
               ? QString::fromStdString(stored["vessel"][key].get<std::string>())
               : QString();
  };
  row.shape->setCurrentIndex(vessel ? static_cast<int>(vessel->shape) + 1 : 0);
  row.across->show(text("across_cm"));
  row.along->show(text("along_cm"));
  row.height->show(text("height_cm"));
  const bool along = vessel && vessel->shape != core::VesselShape::Round;
  row.along->setEnabled(along);
  row.across->setEnabled(vessel.has_value());
  row.height->setEnabled(vessel.has_value());
  if (!vessel) return row.line->setText("—");
  const auto mark = m_editor.document().dosing.lineFor.value_or(content.tank.volume);
  const auto cm = core::heightForVolume(*vessel, mark);
  row.line->setText(cm ? QString("%1 at <b>%2 cm</b>").arg(m_units.text(mark), localNumber(*cm, 1))
                       : "▲ " + QString::fromStdString(words::problemText(cm.problem())));
}

QString LevelsPanel::drawnText() const {
  const auto& document = m_editor.document();
  const auto& answer = m_editor.answer();
  std::vector<core::Volume> drawn;
  std::vector<double> factors;
  std::vector<std::size_t> tanks;
  for (std::size_t t = 0; t < answer.stock.tanks.size(); ++t) {
    if (!document.dosing.drawn[t]) continue;
    drawn.push_back(*document.dosing.drawn[t]);
    factors.push_back(answer.stock.tanks[t].factor);
    tanks.push_back(t);
  }
  if (drawn.size() < 2)
    return "Note the level of each tank, let a day go by, note it again, and type what was drawn. A "
           "controller hides a clogged line: the "
           "meter reads right while the plants get only one side. The levels tell.";
  const auto verdict = core::judgeDrawDown(drawn, factors, document.dosing.drawnFeed);
  if (!verdict) return "▲ " + QString::fromStdString(words::problemText(verdict.problem()));
  QStringList parts;
  for (std::size_t i = 0; i < tanks.size(); ++i) {
    const auto name = QString::fromStdString(answer.stock.tanks[tanks[i]].tank.name);
    parts << (verdict->dueKnown
                  ? QString("%1 gave <b>%2 %</b> of its due (1:%3)")
                        .arg(name, localNumber(100 * verdict->ofDue[i], 0),
                             verdict->ofDue[i] > 0 ? localNumber(factors[i] / verdict->ofDue[i], 0)
                                                   : QString("∞"))
                  : QString("%1 <b>%2 %</b>").arg(name, localNumber(100 * verdict->ofDue[i], 0)));
  }
  QString text = parts.join(", ") + (verdict->dueKnown ? "." : " of the fullest.");
  if (!verdict->weak) return text + "<br>They draw alike.";
  const auto weak = QString::fromStdString(answer.stock.tanks[tanks[*verdict->weak]].tank.name);
  text += QString("<br><b>▲ Tank %1 %2.</b> Look at its suction screen, filter and valve.")
              .arg(weak,
                   verdict->shut ? "gives next to nothing: its line is shut or clogged" : "gives too little");
  std::vector<double> draws(answer.stock.tanks.size(), 1.0);
  for (std::size_t i = 0; i < tanks.size(); ++i)
    draws[tanks[i]] = verdict->ofDue[i];
  const auto delivery = deliveryOf(m_editor);
  const bool setpoint = document.dosing.device == exchange::DosingDevice::Setpoint && !verdict->dueKnown;
  auto feed = delivery.feed(draws);
  if (setpoint) {
    if (const auto held =
            core::atSetpoint(delivery, draws, document.dosing.setpoint.value_or(answer.feed.conductivity)))
      feed = held->feed;
  }
  QStringList got;
  for (const auto n : {core::Nutrient::N, core::Nutrient::P, core::Nutrient::K, core::Nutrient::Ca,
                       core::Nutrient::Mg, core::Nutrient::S}) {
    const double due = answer.feed.milligramsPerLitre.of(n);
    if (due > 0)
      got << QString("%1 %2 of %3")
                 .arg(QString::fromStdString(words::nutrientSymbol(n)),
                      localFigure(feed.milligramsPerLitre.of(n)), localFigure(due));
  }
  return text + QString("<br>The plants got, in mg/L: %1. EC %2.")
                    .arg(got.join(", "), m_units.text(feed.conductivity));
}

void LevelsPanel::refresh() {
  makeRows();
  for (std::size_t t = 0; t < m_editor.document().tanks.size(); ++t)
    refreshRow(t);
  m_drawn->setText(drawnText());
}

} // namespace butte::app
