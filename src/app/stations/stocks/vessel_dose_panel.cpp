#include "stations/stocks/vessel_dose_panel.h"

#include "document/formula_editor.h"
#include "dose/reservoir_plan.h"
#include "edits/stock_edits.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <QCheckBox>
#include <QLabel>
#include <QVBoxLayout>

namespace butte::app {

VesselDosePanel::VesselDosePanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent)
    : StockPanel(editor, units, parent), m_steps(new WrappedLabel), m_care(new PlainLabel) {
  const auto target = [this] {
    return localNumber(m_units.conductivityIn(m_editor.answer().feed.conductivity),
                       m_units.conductivity() == ConductivityShown::MilliSiemens ? 2 : 0);
  };
  auto* row = new FlowRow;
  row->addTogether(
      {words(tr("Full mark")),
       field(tr("volume of the vessel at the full mark"), "vesselFull", "reservoir/volume", Kind::Volume,
             0.001, 1e8, [this] { return localFigure(m_units.volumeIn(core::Volume::fromLitres(100))); }),
       unitLabel(Kind::Volume)});
  row->addTogether({words(tr("· in it now")),
                    field(tr("in the vessel now"), "vesselNow", "reservoir/present", Kind::Volume, 0, 1e8,
                          [] { return QString("0"); }),
                    unitLabel(Kind::Volume)});
  row->addTogether({words(tr("· reading")),
                    field(tr("reading of what is in it"), "vesselReading", "reservoir/reading",
                          Kind::Conductivity, 0, 30000, [] { return QString("—"); }),
                    unitLabel(Kind::Conductivity)});
  row->addTogether({words(tr("· wanted")),
                    field(tr("reading that is wanted"), "vesselTarget", "reservoir/target",
                          Kind::Conductivity, 0, 30000, target),
                    unitLabel(Kind::Conductivity)});
  row->addTogether({words(tr("· keep back")),
                    field(tr("raw water kept back for the end"), "vesselLast", "reservoir/last_water",
                          Kind::Volume, 0, 1e8, [] { return QString("0"); }),
                    unitLabel(Kind::Volume)});
  m_cautious = flag(tr("cautious steps"), "vesselCautious", "reservoir/cautious");
  m_byReadings = flag(tr("by my readings"), "vesselByReadings", "reservoir/by_readings");
  m_acid = flag(tr("acid last"), "vesselAcid", "reservoir/with_acid");
  for (auto* box : {m_cautious, m_acid, m_byReadings})
    row->addWidget(box);
  m_care->setProperty("soft", true);
  m_care->setFont(faceOf(12));
  m_care->setText(tr("Stir and wait: mixing takes minutes to an hour, the pH longer."));
  m_steps->setObjectName("vesselSteps");
  m_steps->setTextFormat(Qt::RichText);
  m_steps->setFont(faceOf(12));
  m_steps->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  column->addLayout(row);
  column->addWidget(scrolled(m_steps), 1);
  column->addWidget(m_care);
}

QCheckBox* VesselDosePanel::flag(const QString& words, const QString& id, const std::string& path) {
  auto* box = new QCheckBox(words);
  box->setObjectName(id);
  connect(box, &QCheckBox::clicked, this,
          [this, path](bool on) { StockEdits(m_editor).switchDosing(path, on); });
  return box;
}

QString VesselDosePanel::stepsText(double stockStrength) const {
  const auto& document = m_editor.document();
  const auto& reservoir = document.dosing.reservoir;
  const auto& answer = m_editor.answer();
  core::ReservoirGiven given;
  given.finished = reservoir.volume;
  given.present = reservoir.present;
  given.lastWater = reservoir.lastWater;
  given.reading = reservoir.reading.value_or(core::Conductivity{});
  given.target = reservoir.target.value_or(answer.feed.conductivity);
  given.cautious = reservoir.cautious;
  given.stockStrength = stockStrength;
  if (reservoir.withAcid) given.acid = document.given.acid.product;
  given.targetPh = document.given.acid.targetPh;
  if (given.present > core::Volume{} && !reservoir.reading)
    return tr("Type what the meter reads in the vessel now.");
  const auto steps = core::planReservoir(given, answer.stock, answer.water);
  if (!steps) return "▲ " + QString::fromStdString(words::problemText(steps.problem())).toHtmlEscaped();
  const auto& shelf = document.given.request.shelf;
  QString rows = tr("<tr style='color:%1'><td></td><td>do</td><td>then it stands at</td><td>EC should "
                    "read</td><td>pH about</td></tr>")
                     .arg(theme().inkSoft.name());
  int number = 0;
  for (const auto& step : *steps) {
    QString act;
    switch (step.act) {
    case core::ReservoirAct::Drain:
      act = tr("drain <b>%1</b>").arg(m_units.stockText(step.amount));
      break;
    case core::ReservoirAct::Water:
      act = tr("<b>%1</b> of water").arg(m_units.stockText(step.amount));
      break;
    case core::ReservoirAct::LastWater:
      act = tr("the last <b>%1</b> of water").arg(m_units.stockText(step.amount));
      break;
    case core::ReservoirAct::Acid:
      act = tr("<b>%1</b> %2, slowly")
                .arg(step.amount > core::Volume{} ? m_units.stockText(step.amount) : m_units.text(step.mass),
                     QString::fromStdString(given.acid->name).toHtmlEscaped());
      break;
    case core::ReservoirAct::Stock: {
      const auto& content = answer.stock.tanks[step.tank];
      act = tr("<b>%1</b> of %2")
                .arg(m_units.stockText(step.amount),
                     QString::fromStdString(words::tankTitle(shelf, content)).toHtmlEscaped());
      break;
    }
    }
    rows += QString("<tr><td>%1</td><td>%2%3</td><td>%4</td><td><b>%5</b></td><td>%6</td></tr>")
                .arg(++number)
                .arg(act,
                     step.readNow                            ? tr(", stir, <b>read</b>")
                     : step.act == core::ReservoirAct::Stock ? tr(", stir")
                                                             : "",
                     m_units.text(step.volumeAfter), m_units.text(step.expected),
                     step.ph ? localNumber(*step.ph, 1) : tr("not known"));
  }
  return "<table width='100%' cellpadding='0'>" + rows + "</table>";
}

void VesselDosePanel::refresh() {
  const auto& reservoir = m_editor.document().dosing.reservoir;
  m_cautious->setChecked(reservoir.cautious);
  m_acid->setChecked(reservoir.withAcid);
  const auto& readings = m_editor.answer().readings;
  const auto strength = readings ? readings->stockStrength : std::nullopt;
  m_byReadings->setVisible(strength.has_value());
  m_byReadings->setChecked(reservoir.byReadings);
  if (strength)
    m_byReadings->setText(tr("by my readings: stocks at %1 %").arg(localNumber(100 * *strength, 0)));
  m_steps->setText(stepsText(strength && reservoir.byReadings ? *strength : 1));
}

} // namespace butte::app
