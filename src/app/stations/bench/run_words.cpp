#include "stations/bench/run_words.h"

#include "bench/weigh_plan.h"
#include "edits/bench_edits.h"
#include "formula/direct_mix.h"
#include "language.h"
#include "services/units_shown.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QDateTime>
#include <QLocale>
#include <cmath>

namespace butte::app {

using core::RunPhase;

namespace {

QString vesselOf(const BenchEdits& run) {
  return qtext(run.plan().vessels[run.at().vessel].name);
}

std::size_t productOf(const BenchEdits& run) {
  const auto next = run.at();
  return run.plan().vessels[next.vessel].steps[next.step].product;
}

core::Volume fullOf(const BenchEdits& run) {
  return run.plan().vessels[run.at().vessel].volume * run.state().ratio;
}

/// "3 min 05 s"
QString lasting(qint64 milliseconds) {
  const auto seconds = std::max<qint64>(0, milliseconds / 1000);
  return tr("%1 min %2 s").arg(seconds / 60).arg(seconds % 60, 2, 10, QChar('0'));
}

/// "calcium nitrate dissolves for 3 min 05 s"
QString dissolving(const BenchEdits& run, qint64 nowMilliseconds) {
  const auto& next = run.state().next;
  const auto product = run.plan().vessels[next.vessel].steps[next.step].product;
  const auto& since = run.state().vessels[next.vessel].of[product].tippedAtMilliseconds;
  return tr("%1 dissolves for %2").arg(run.nameOf(product), lasting(since ? nowMilliseconds - *since : 0));
}

/// One decimal; what rounds to nothing has no sign.
QString percentText(double percent) {
  constexpr double nothing = 0.05;
  return localNumber(std::abs(percent) < nothing ? 0 : percent, 1) + " %";
}

/// " or 492 mL by jug": of a liquid whose density is known.
QString byJug(const core::ShelfProduct& product, core::Mass mass, const UnitsShown& units) {
  if (!product.liquid || !product.densityKgPerL) return {};
  return tr(" (%1 by jug)")
      .arg(units.liquidText(core::Volume::fromLitres(mass.kilograms() / *product.densityKgPerL)));
}

struct EventWords {
  const BenchEdits& run;
  const UnitsShown& units;

  QString vessel(std::size_t v) const { return qtext(run.plan().vessels[v].name); }
  QString operator()(const core::did::Prepared&) const { return tr("all stands ready"); }
  QString operator()(const core::did::Discarded& d) const {
    return tr("%1 poured away").arg(vessel(d.vessel));
  }
  QString operator()(const core::did::Poured& d) const {
    return tr("%1 of water into %2").arg(units.stockText(d.volume), vessel(d.vessel));
  }
  QString operator()(const core::did::Weighed& d) const {
    return d.lot.empty()
               ? tr("%1 %2 weighed").arg(units.text(d.mass), run.nameOf(d.product))
               : tr("%1 %2 weighed, lot %3").arg(units.text(d.mass), run.nameOf(d.product), qtext(d.lot));
  }
  QString operator()(const core::did::TakenOut& d) const {
    return tr("%1 %2 taken out again").arg(units.text(d.mass), run.nameOf(d.product));
  }
  QString operator()(const core::did::Tipped& d) const {
    return tr("%1 tipped into %2").arg(run.nameOf(d.product), vessel(d.vessel));
  }
  QString operator()(const core::did::Clear& d) const {
    return tr("%1 dissolved").arg(run.nameOf(d.product));
  }
  QString operator()(const core::did::Skipped& d) const {
    return tr("%1 skipped").arg(run.nameOf(d.product));
  }
  QString operator()(const core::did::Accepted& d) const {
    return tr("%1 accepted as it is").arg(run.nameOf(d.product));
  }
  QString operator()(const core::did::Rescaled& d) const {
    return tr("all made %1 times the plan").arg(localNumber(d.ratio, 3));
  }
  QString operator()(const core::did::ToppedUp& d) const {
    return tr("%1 made up to %2").arg(vessel(d.vessel), units.stockText(d.volume));
  }
  QString operator()(const core::did::Read& d) const {
    QStringList read;
    if (d.conductivity) read << tr("EC %1").arg(units.text(*d.conductivity));
    if (d.ph) read << tr("pH %1").arg(localNumber(*d.ph, 1));
    return tr("%1 reads %2").arg(vessel(d.vessel), read.join(", "));
  }
  QString operator()(const core::did::Paused&) const { return tr("paused"); }
  QString operator()(const core::did::Resumed&) const { return tr("gone on"); }
  QString operator()(const core::did::HandedOver& d) const {
    return tr("handed over to %1").arg(qtext(d.to));
  }
  QString operator()(const core::did::Struck&) const { return {}; }
  QString operator()(const core::did::Finished&) const { return tr("finished"); }
};

} // namespace

core::Volume waterFirst(const core::RunVessel& vessel) {
  constexpr double ofATank = 0.5;
  return vessel.volume * (vessel.factor > 1 ? ofATank : core::waterBeforeSalts);
}

core::Volume waterToBeginWith(const BenchEdits& run) {
  return waterFirst(run.plan().vessels[run.at().vessel]) * run.state().ratio;
}

core::Mass stepOfScale(const std::vector<core::Scale>& scales, const std::string& name) {
  const auto known = std::find_if(scales.begin(), scales.end(),
                                  [&](const core::Scale& one) { return !one.spoons && one.name == name; });
  return known == scales.end() ? core::Mass{} : known->readability;
}

OnDisplay displayOf(const devices::WatchNow& now) {
  return {now.unit, now.decimals};
}

QString OnDisplay::text(core::Mass mass) const {
  if (unit == "lb:oz") {
    constexpr double ouncesPerPound = 16;
    const double step = std::pow(10.0, -decimals);
    const double ounces = std::round(std::abs(mass.ounces()) / step) * step;
    const double pounds = std::floor(ounces / ouncesPerPound);
    return (mass < core::Mass{} && ounces > 0 ? QString("-") : QString()) +
           QString("%1 lb %2 oz")
               .arg(localNumber(pounds, 0), localNumber(ounces - pounds * ouncesPerPound, decimals));
  }
  const auto value = core::convert(mass.grams(), "g", unit);
  return localNumber(value ? *value : mass.grams(), decimals) + " " + qtext(unit);
}

/// Of the scale that the sheet weighs it on too; the person's own unit where that is a set of spoons.
OnDisplay shownNow(const BenchEdits& run, const UnitsShown& units) {
  const auto next = run.at();
  const auto& step = run.plan().vessels[next.vessel].steps[next.step];
  const auto& scales = run.document().scales;
  std::vector<core::Mass> weights(run.plan().shelf.size());
  weights[step.product] = core::wantedOf(run.state(), step);
  const auto plan = core::weighPlan(run.plan().shelf, weights, scales);
  constexpr int usualDecimals = 2;
  if (plan.empty() || scales[plan.front().scale].spoons)
    return {units.massUnit().toStdString(), usualDecimals};
  const auto& scale = scales[plan.front().scale];
  const auto shown = core::convert(scale.readability.grams(), "g", scale.unit);
  constexpr double nearly = 1e-6;
  const bool known = shown && *shown > 0;
  return {scale.unit,
          known ? std::max(0, static_cast<int>(std::ceil(-std::log10(*shown) - nearly))) : usualDecimals};
}

QString runHeading(const BenchEdits& run) {
  const auto& state = run.state();
  const auto next = run.at();
  if (state.paused) return tr("Paused");
  switch (next.phase) {
  case RunPhase::Prepare:
    return tr("Before you begin");
  case RunPhase::Pour:
    return tr("Water into %1").arg(vesselOf(run));
  case RunPhase::Weigh:
    return tr("Weigh %1").arg(run.nameOf(productOf(run)));
  case RunPhase::Decide:
    return tr("Too much %1").arg(run.nameOf(productOf(run)));
  case RunPhase::Tip:
    return tr("Tip the %1 into %2").arg(run.nameOf(productOf(run)), vesselOf(run));
  case RunPhase::Dissolve:
    return tr("Stir until the %1 is wholly dissolved").arg(run.nameOf(productOf(run)));
  case RunPhase::TopUp:
    return tr("Make up %1 to its mark").arg(vesselOf(run));
  case RunPhase::Measure:
    return tr("Stir, wait, then read %1").arg(vesselOf(run));
  case RunPhase::Done:
    break;
  }
  return tr("All is in");
}

QString runFigure(const BenchEdits& run, const UnitsShown& units) {
  const auto& state = run.state();
  const auto next = run.at();
  switch (next.phase) {
  case RunPhase::Pour:
    return units.stockText(waterToBeginWith(run));
  case RunPhase::Weigh:
    return shownNow(run, units).text(core::toWeighNow(state, run.plan(), next.vessel, next.step));
  case RunPhase::Decide:
    return "+ " + shownNow(run, units)
                      .text(core::Mass{} - core::stillToWeigh(state, run.plan(), next.vessel, next.step));
  case RunPhase::Tip:
    return shownNow(run, units).text(state.cup[productOf(run)]);
  case RunPhase::TopUp:
    return units.stockText(fullOf(run));
  case RunPhase::Prepare:
  case RunPhase::Dissolve:
  case RunPhase::Measure:
  case RunPhase::Done:
    break;
  }
  return {};
}

QString runFigureNote(const BenchEdits& run, const std::optional<devices::WatchNow>& live) {
  switch (run.at().phase) {
  case RunPhase::Weigh:
    if (!live) return tr("to weigh");
    return (live->state == devices::WatchState::TooMuch ? tr("too much\n%1 on it")
                                                        : tr("still to pour\n%1 on it"))
        .arg(displayOf(*live).text(live->fresh));
  case RunPhase::Pour:
    return tr("of water");
  case RunPhase::Decide:
    return tr("too much");
  case RunPhase::Tip:
    return tr("in the cup");
  case RunPhase::TopUp:
    return tr("in all");
  case RunPhase::Prepare:
  case RunPhase::Dissolve:
  case RunPhase::Measure:
  case RunPhase::Done:
    break;
  }
  return {};
}

QString runDetail(const BenchEdits& run, const UnitsShown& units, qint64 nowMilliseconds) {
  const auto& state = run.state();
  const auto next = run.at();
  switch (next.phase) {
  case RunPhase::Weigh: {
    const auto meanwhile = run.isMeanwhile() ? dissolving(run, nowMilliseconds) + "\n" : QString();
    const auto& step = run.plan().vessels[next.vessel].steps[next.step];
    const auto cup = state.cup[step.product];
    const auto display = shownNow(run, units);
    const auto band = tr("%1 in all; ± %2 changes no element by more than 1 %")
                          .arg(units.text(core::wantedOf(state, step)) +
                                   byJug(run.plan().shelf[step.product], core::wantedOf(state, step), units),
                               display.text(step.tolerance * state.ratio));
    const auto loads = core::loadsOf(state, step);
    if (loads > 1) return meanwhile + tr("in %1 loads, as much as the scale takes. %2").arg(loads).arg(band);
    return meanwhile + (cup > core::Mass{}
                            ? tr("%1 lies in the cup, this is still missing. %2").arg(display.text(cup), band)
                            : tr("container on, tare, pour slowly. %1").arg(band));
  }
  case RunPhase::Pour:
    return tr("warm, not boiling; the rest comes last, to the mark of %1").arg(units.stockText(fullOf(run)));
  case RunPhase::Tip:
    return tr("then rinse the cup into the vessel");
  case RunPhase::Dissolve:
    return dissolving(run, nowMilliseconds) + tr("; nothing more goes in before it is clear");
  case RunPhase::TopUp:
    return tr("at the eye's height; stir again");
  case RunPhase::Measure: {
    const auto patience = tr("mixing goes on for minutes to an hour; pH settles last");
    if (run.plan().vessels[next.vessel].factor > 1)
      return patience + tr("; a stock is beyond most EC meters, its pH is not");
    const auto expected = core::expectedReading(run.plan(), state, next.vessel);
    return tr("%1. By what is in it: EC %2").arg(patience, units.text(expected.conductivity)) +
           (expected.ph ? tr(", pH %1").arg(localNumber(*expected.ph, 1)) : QString());
  }
  case RunPhase::Prepare:
  case RunPhase::Decide:
  case RunPhase::Done:
    break;
  }
  return {};
}

QString runDone(const BenchEdits& run, const UnitsShown& units) {
  if (run.state().paused) return tr("Go on");
  switch (run.at().phase) {
  case RunPhase::Prepare:
    return tr("All stands ready: begin");
  case RunPhase::Pour:
    return tr("It is in");
  case RunPhase::Weigh:
    return tr("That lies on the scale");
  case RunPhase::Tip:
    return tr("Tipped and rinsed");
  case RunPhase::Dissolve:
    return tr("It is clear");
  case RunPhase::TopUp:
    return tr("Made up to %1").arg(units.stockText(fullOf(run)));
  case RunPhase::Measure:
    return tr("Keep the readings");
  case RunPhase::Decide:
    return {};
  case RunPhase::Done:
    break;
  }
  return tr("Into the book as a batch");
}

QString acceptedWords(const core::Overshoot& over, const UnitsShown& units) {
  constexpr std::size_t mostElements = 4;
  QStringList shifts;
  for (const auto& [nutrient, percent] : over.shiftsPercent) {
    if (nutrient == core::Nutrient::N) continue; // its forms are told
    if (shifts.size() < static_cast<qsizetype>(mostElements))
      shifts << QString("%1 +%2 %").arg(qtext(words::nutrientSymbol(nutrient)), localNumber(percent, 1));
  }
  return tr("%1; EC %2 instead of %3")
      .arg(shifts.isEmpty() ? tr("no element moves by half a percent") : shifts.join(", "),
           units.text(over.accepted), units.text(over.planned));
}

QString runResultText(const BenchEdits& run, const UnitsShown& units) {
  const auto result = core::runResult(run.plan(), run.state());
  QString rows = tr("<tr><td>vessel</td><td>product</td><td align='right'>wanted</td><td align='right'>is "
                    "in</td><td align='right'>off</td></tr>");
  for (const auto& line : result.deviations) {
    rows += QString("<tr><td>%1</td><td>%2</td><td align='right'>%3</td><td align='right'><b>%4</b></td><td "
                    "align='right'>%5</td></tr>")
                .arg(qtext(run.plan().vessels[line.vessel].name).toHtmlEscaped(),
                     run.nameOf(line.product).toHtmlEscaped(),
                     line.percent ? units.text(line.wanted) : tr("not planned"), units.text(line.actual),
                     line.percent ? percentText(*line.percent) : QString("▲"));
  }
  return tr("<p>The feed comes to EC <b>%1</b>; planned %2.</p><table width='100%' "
            "cellpadding='3'>%3</table>")
      .arg(units.text(result.actual), units.text(result.planned), rows);
}

QStringList runLog(const BenchEdits& run, const UnitsShown& units, int most) {
  const auto& events = run.events();
  std::vector<bool> struck(events.size(), false);
  for (std::size_t i = 0; i < events.size(); ++i)
    if (const auto* strike = std::get_if<core::did::Struck>(&events[i].deed))
      struck[i] = struck[strike->event] = true;
  QStringList out;
  for (auto i = events.size(); i > 0 && out.size() < most; --i) {
    if (struck[i - 1]) continue;
    const auto& event = events[i - 1];
    const auto when = QLocale().toString(QDateTime::fromMSecsSinceEpoch(event.atMilliseconds), "HH:mm");
    const auto by = event.by.empty() ? QString() : " " + qtext(event.by);
    out << when + by + "  " + std::visit(EventWords{run, units}, event.deed);
  }
  return out;
}

} // namespace butte::app
