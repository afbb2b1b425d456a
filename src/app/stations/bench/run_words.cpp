#include "stations/bench/run_words.h"

#include "bench/weigh_plan.h"
#include "cautions.h"
#include "edits/bench_edits.h"
#include "language.h"
#include "print/hazard_facts.h"
#include "services/units_shown.h"
#include "units/convert.h"
#include "wording/direct_words.h"
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

bool isBag(const BenchEdits& run) {
  return run.plan().vessels[run.at().vessel].isBag;
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

/// "It rests for 3 min 05 s of 10 min; "
QString resting(const BenchEdits& run, qint64 nowMilliseconds) {
  const auto& since = run.state().vessels[run.state().next.vessel].fullAtMilliseconds;
  if (!since) return {};
  constexpr int secondsPerMinute = 60;
  return tr("it rests for %1 of %2 min; ")
      .arg(lasting(nowMilliseconds - *since))
      .arg(core::usualRestSeconds / secondsPerMinute);
}

/// What goes on beside what is weighed.
QString waiting(const BenchEdits& run, qint64 nowMilliseconds) {
  if (run.state().next.phase == RunPhase::Dissolve) return dissolving(run, nowMilliseconds);
  const auto& since = run.state().vessels[run.state().next.vessel].fullAtMilliseconds;
  return tr("%1 rests for %2")
      .arg(qtext(run.plan().vessels[run.state().next.vessel].name),
           lasting(since ? nowMilliseconds - *since : 0));
}

/// " or 492 mL by jug": of a liquid whose density is known.
QString byJug(const core::ShelfProduct& product, core::Mass mass, const UnitsShown& units) {
  if (!product.liquid || !product.densityKgPerL) return {};
  return tr(" (%1 by jug)")
      .arg(units.liquidText(core::Volume::fromLitres(mass.kilograms() / *product.densityKgPerL)));
}

} // namespace

core::Volume waterToBeginWith(const BenchEdits& run) {
  return core::waterFirst(run.plan().vessels[run.at().vessel]) * run.state().ratio;
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

/// As the sheet has it: on which scale, in which steps; so much of the product in hand.
static std::optional<core::WeighStep> weighedNow(const BenchEdits& run, core::Mass mass) {
  const auto next = run.at();
  std::vector<core::Mass> weights(run.plan().shelf.size());
  weights[run.plan().vessels[next.vessel].steps[next.step].product] = mass;
  const auto plan = core::weighPlan(run.plan().shelf, weights, run.document().scales);
  return plan.empty() ? std::nullopt : std::optional(plan.front());
}

std::optional<core::WeighStep> spoonsNow(const BenchEdits& run) {
  const auto next = run.at();
  const auto step = weighedNow(run, core::toWeighNow(run.state(), run.plan(), next.vessel, next.step));
  return step && step->teaspoons > 0 ? step : std::nullopt;
}

/// Of the scale that the sheet weighs it on too; the person's own unit where that is a set of spoons.
OnDisplay shownNow(const BenchEdits& run, const UnitsShown& units) {
  const auto& step = run.plan().vessels[run.at().vessel].steps[run.at().step];
  const auto plan = weighedNow(run, core::wantedOf(run.state(), step));
  const auto& scales = run.document().scales;
  constexpr int usualDecimals = 2;
  if (!plan || scales[plan->scale].spoons) return {units.massUnit().toStdString(), usualDecimals};
  const auto& scale = scales[plan->scale];
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
    if (isBag(run)) return tr("Close and label: %1").arg(vesselOf(run));
    return tr("Tip the %1 into %2").arg(run.nameOf(productOf(run)), vesselOf(run));
  case RunPhase::Dissolve:
    if (run.plan().shelf[productOf(run)].liquid)
      return tr("Stir until the %1 is mixed in").arg(run.nameOf(productOf(run)));
    return tr("Stir until the %1 is wholly dissolved").arg(run.nameOf(productOf(run)));
  case RunPhase::TopUp:
    return tr("Make up %1 to its mark").arg(vesselOf(run));
  case RunPhase::Measure:
    return tr("Stir, wait, then read %1").arg(vesselOf(run));
  case RunPhase::Done:
    break;
  }
  if (run.sort() == RunSort::Bags) return tr("All bags are filled");
  if (run.sort() == RunSort::Practice) return tr("Practice: how it went");
  return tr("All is in");
}

QString runFigure(const BenchEdits& run, const UnitsShown& units) {
  const auto& state = run.state();
  const auto next = run.at();
  switch (next.phase) {
  case RunPhase::Pour:
    return units.stockText(waterToBeginWith(run));
  case RunPhase::Weigh:
    if (const auto spoons = spoonsNow(run)) return weighText(*spoons, run.document().scales, units);
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
    if (!live) return spoonsNow(run) ? tr("level") : tr("to weigh");
    return (live->state == devices::WatchState::TooMuch ? tr("too much\n%1 on it")
                                                        : tr("still to pour\n%1 on it"))
        .arg(displayOf(*live).text(live->fresh));
  case RunPhase::Pour:
    return tr("of water");
  case RunPhase::Decide:
    return tr("too much");
  case RunPhase::Tip:
    return isBag(run) ? tr("in the bag") : tr("in the cup");
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
    const auto meanwhile = run.isMeanwhile() ? waiting(run, nowMilliseconds) + "\n" : QString();
    if (const auto spoons = spoonsNow(run))
      return meanwhile +
             tr("struck off level; about %1, off by up to %2 %. A weight typed below counts instead.")
                 .arg(units.text(spoons->shown), localNumber(spoons->errorPercent, 0));
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
    return isBag(run) ? tr("what it is, its weight, what it makes, the day, initials")
                      : tr("then rinse the cup into the vessel");
  case RunPhase::Dissolve:
    return dissolving(run, nowMilliseconds) + (run.plan().shelf[productOf(run)].liquid
                                                   ? tr("; nothing more goes in before it is mixed")
                                                   : tr("; nothing more goes in before it is clear"));
  case RunPhase::TopUp:
    return tr("at the eye's height; stir again");
  case RunPhase::Measure: {
    const auto patience =
        resting(run, nowMilliseconds) + tr("mixing goes on for minutes to an hour; pH settles last");
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
    return spoonsNow(run) ? tr("So many spoons are in the cup") : tr("That lies on the scale");
  case RunPhase::Tip:
    return isBag(run) ? tr("Closed and labelled") : tr("Tipped and rinsed");
  case RunPhase::Dissolve:
    return run.plan().shelf[productOf(run)].liquid ? tr("It is mixed in") : tr("It is clear");
  case RunPhase::TopUp:
    return tr("Made up to %1").arg(units.stockText(fullOf(run)));
  case RunPhase::Measure:
    return tr("Keep the readings");
  case RunPhase::Decide:
    return {};
  case RunPhase::Done:
    break;
  }
  if (run.sort() == RunSort::Batch) return tr("Into the book as a batch");
  return run.state().finished ? tr("Back to the bench") : tr("Done with it");
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

QString runCautions(const BenchEdits& run) {
  const auto facts = hazardFacts(run.document(), run.plan().shelf[productOf(run)]);
  QStringList lines;
  for (const auto& caution : words::cautionsFor({facts}))
    lines << "⚠ " + qtext(caution.text);
  return lines.mid(0, 2).join("\n");
}

QString meanwhileWords(const BenchEdits& run) {
  const bool rests = run.state().next.phase == RunPhase::Measure;
  if (run.isMeanwhile()) return rests ? tr("Back to what rests") : tr("Back to what dissolves");
  return rests ? tr("Go on with the next vessel meanwhile") : tr("Weigh the next one meanwhile");
}

bool hasRested(const BenchEdits& run, qint64 nowMilliseconds) {
  if (run.state().next.phase != RunPhase::Measure) return false;
  const auto& since = run.state().vessels[run.state().next.vessel].fullAtMilliseconds;
  constexpr qint64 millisecondsPerSecond = 1000;
  return since && nowMilliseconds - *since >= core::usualRestSeconds * millisecondsPerSecond;
}

} // namespace butte::app
