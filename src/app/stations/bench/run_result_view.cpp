#include "stations/bench/run_result_view.h"

#include "edits/bench_edits.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "print/bag_labels.h"
#include "refresh/while_seen.h"
#include "run/bag_fills.h"
#include "services/units_shown.h"
#include "stations/bench/deviation_picture.h"
#include "stations/bench/run_choices.h"
#include "stock_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

using core::RunVerdict;

namespace {

constexpr int verdictSize = 20, mostChecks = 3, mostCauses = 3;

/// One decimal; what rounds to nothing has no sign.
QString percentText(double percent) {
  constexpr double nothing = 0.05;
  return localNumber(std::abs(percent) < nothing ? 0 : percent, 1) + " %";
}

QString verdictWords(RunVerdict verdict) {
  switch (verdict) {
  case RunVerdict::AsPlanned:
    return tr("✓ As planned: no element is off by more than it can be known.");
  case RunVerdict::Close:
    return tr("✓ Close: the feed is off by less than plants would show.");
  case RunVerdict::Off:
    return tr("▲ Off: look at this before it is used.");
  case RunVerdict::FallsOut:
    return tr("▲ Something falls out: do not use it before you have looked.");
  case RunVerdict::ReadsOtherwise:
    break;
  }
  return tr("▲ The weights are right, but a meter says otherwise.");
}

/// "K +3.4 %: potassium nitrate in B, 12 g too much"
QString checkWords(const BenchEdits& run, const UnitsShown& units, const core::RunResult& result,
                   const core::ElementResult& element) {
  const auto head =
      QString("%1 %2%3").arg(qtext(words::nutrientSymbol(element.nutrient)),
                             element.offPercent > 0 ? "+" : "", percentText(element.offPercent));
  if (!element.movedBy) return tr("%1: by the volume that it was made up to").arg(head);
  const auto& line = result.deviations[*element.movedBy];
  const bool more = line.actual > line.wanted;
  const auto off = units.text(more ? line.actual - line.wanted : line.wanted - line.actual);
  const auto vessel = qtext(run.plan().vessels[line.vessel].name);
  return (more ? tr("%1: %2 in %3, %4 too much") : tr("%1: %2 in %3, %4 too little"))
      .arg(head, run.nameOf(line.product), vessel, off);
}

QStringList readingWords(const BenchEdits& run, const UnitsShown& units, const core::RunReading& reading) {
  QStringList out{tr("%1 reads EC %2, by what is in it %3.")
                      .arg(qtext(run.plan().vessels[reading.vessel].name), units.text(reading.gap.read),
                           units.text(reading.gap.expected))};
  for (std::size_t i = 0; i < reading.causes.size() && i < mostCauses; ++i)
    out << QString("%1. %2").arg(i + 1).arg(qtext(words::causeText(reading.causes[i], reading.gap, {})));
  return out;
}

QString weightsTable(const BenchEdits& run, const UnitsShown& units, const core::RunResult& result) {
  QString rows = tr("<tr><td>vessel</td><td>product</td><td align='right'>wanted</td><td align='right'>is "
                    "in</td><td align='right'>off</td></tr>");
  for (const auto& line : result.deviations)
    rows += QString("<tr><td>%1</td><td>%2</td><td align='right'>%3</td><td align='right'><b>%4</b></td><td "
                    "align='right'>%5</td></tr>")
                .arg(qtext(run.plan().vessels[line.vessel].name).toHtmlEscaped(),
                     run.nameOf(line.product).toHtmlEscaped(),
                     line.percent ? units.text(line.wanted) : tr("not planned"), units.text(line.actual),
                     line.percent ? percentText(*line.percent) : QString("▲"));
  return QString("<table width='100%' cellpadding='2'>%1</table>").arg(rows);
}

QString fillLine(const BenchEdits& run, const UnitsShown& units, const core::FillStatistics& kind) {
  auto out = tr("<b>%1</b>: %2 of %3 filled, each should be %4 ± %5.")
                 .arg(run.nameOf(kind.product).toHtmlEscaped())
                 .arg(kind.fills.size())
                 .arg(kind.bags)
                 .arg(units.text(kind.wanted), units.text(kind.tolerance));
  if (kind.fills.empty()) return out;
  out +=
      " " +
      tr("Mean %1, from %2 to %3").arg(units.text(kind.mean), units.text(kind.least), units.text(kind.most));
  out += kind.deviation ? tr("; standard deviation %1.").arg(units.text(*kind.deviation)) : QString(".");
  if (kind.isShifted)
    out += " " + tr("<b>▲ All of them lie to one side: look at the tare and at the scale.</b>");
  for (const auto& fill : kind.fills)
    if (fill.isOutside)
      out += "<br>" +
             tr("▲ %1 holds %2: empty it and fill it again.")
                 .arg(qtext(run.plan().vessels[fill.vessel].name).toHtmlEscaped(), units.text(fill.mass));
  return out;
}

} // namespace

RunResultView::RunResultView(const BenchEdits& run, const UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_run(run), m_units(units), m_verdict(new WrappedLabel), m_first(new WrappedLabel),
      m_weights(new WrappedLabel), m_picture(new DeviationPicture),
      m_labels(gloveButton(tr("Labels of the bags as PDF…"), "runBagLabels")),
      m_tankLog(gloveButton(QString(), "runTankLog")) {
  m_verdict->setObjectName("runVerdict");
  m_verdict->setFont(faceOf(verdictSize, true));
  m_first->setObjectName("runCheckFirst");
  m_weights->setObjectName("runResult");
  m_weights->setTextFormat(Qt::RichText);
  m_picture->setObjectName("runElements");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  for (QWidget* part :
       std::initializer_list<QWidget*>{m_verdict, m_first, m_tankLog, m_labels, m_picture, m_weights})
    column->addWidget(part);
  connect(m_labels, &QPushButton::clicked, this, [this] { emit labelsAsked(bagLabels(m_run, m_units)); });
  connect(m_tankLog, &QPushButton::clicked, this, &RunResultView::tankLogAsked);
}

void RunResultView::refresh() {
  const bool bags = m_run.sort() == RunSort::Bags;
  m_picture->setVisible(!bags);
  m_labels->setVisible(bags);
  const auto tank = m_run.tankName();
  m_tankLog->setVisible(bags && !tank.isEmpty());
  if (m_tankLog->isVisibleTo(this)) {
    const bool logged = m_run.isInTankLog();
    const auto water = m_run.tankWater();
    const auto tipped =
        water > core::Volume{}
            ? tr("Tipped into %1 with %2 of water: log it as weighed").arg(tank, m_units.text(water))
            : tr("Tipped into %1: log it as weighed").arg(tank);
    m_tankLog->setEnabled(!logged);
    m_tankLog->setText(logged ? tr("✓ It stands in the log of %1").arg(tank) : tipped);
  }
  bags ? showBags() : showBatch();
  m_first->setVisible(!m_first->text().isEmpty());
}

void RunResultView::showBatch() {
  const auto result = core::runResult(m_run.plan(), m_run.state(), m_run.firstPlan());
  const auto judged = core::judged(m_run.plan(), m_run.state(), result);
  const bool well = judged.verdict == RunVerdict::AsPlanned || judged.verdict == RunVerdict::Close;
  m_verdict->setText(verdictWords(judged.verdict));
  restyle(*m_verdict, QString("color:%1").arg((well ? theme().accent : theme().red).name()));
  QStringList lines;
  for (std::size_t i = 0; i < judged.check.size() && i < mostChecks; ++i)
    lines << checkWords(m_run, m_units, result, result.elements[judged.check[i]]);
  for (const auto vessel : judged.fallenIn)
    lines << tr("Something lies on the floor of %1.").arg(qtext(m_run.plan().vessels[vessel].name));
  for (const auto& reading : judged.readings)
    lines += readingWords(m_run, m_units, reading);
  lines << tr("The feed comes to EC %1 ± %2; planned %3.")
               .arg(m_units.digits(result.actual), m_units.text(result.plusMinus),
                    m_units.text(result.planned));
  m_first->setText(lines.join("\n"));
  std::vector<DeviationPicture::Row> rows;
  for (const auto& one : result.elements) {
    const bool form = one.nutrient == core::Nutrient::NNitrate || one.nutrient == core::Nutrient::NAmmonium ||
                      one.nutrient == core::Nutrient::NUrea;
    if (form || one.plannedMgPerLitre <= 0) continue;
    rows.push_back(
        {qtext(words::nutrientSymbol(one.nutrient)),
         tr("%1, planned %2 mg/L").arg(localFigure(one.actualMgPerLitre), localFigure(one.plannedMgPerLitre)),
         one.offPercent, 100 * one.plusMinusMgPerLitre / one.plannedMgPerLitre});
  }
  m_picture->show(std::move(rows));
  m_weights->setText(weightsTable(m_run, m_units, result));
}

void RunResultView::showBags() {
  const auto kinds = core::bagFills(m_run.plan(), m_run.state());
  std::size_t outside = 0;
  QStringList lines;
  for (const auto& kind : kinds) {
    outside += kind.outside;
    lines << "<p>" + fillLine(m_run, m_units, kind) + "</p>";
  }
  m_verdict->setText(outside == 0 ? tr("✓ Every bag is within its tolerance.")
                                  : counted(outside, tr("▲ %1 bag is out of its tolerance."),
                                            tr("▲ %1 bags are out of their tolerance.")));
  restyle(*m_verdict, QString("color:%1").arg((outside == 0 ? theme().accent : theme().red).name()));
  m_first->setText({});
  m_weights->setText(lines.join(QString()));
}

} // namespace butte::app
