#include "stations/tank/tank_words.h"

#include "deed_words.h"
#include "language.h"
#include "services/units_shown.h"
#include "stock_words.h"
#include "tank/warmth.h"
#include "units/convert.h"
#include "wording/reading_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <algorithm>
#include <cmath>

namespace butte::app {

using core::AdviceKind;
using core::NotOpen;
using core::Nutrient;

namespace {

QString daysText(double days) {
  if (days < 1) return tr("less than a day");
  return counted(static_cast<int>(std::lround(days)), tr("%1 day"), tr("%1 days"));
}

QString phAdviceText(core::PhAdvice advice) {
  if (advice == core::PhAdvice::MoreAmmoniumOrAcid) return tr(" · more ammonium or acid in the refill");
  if (advice == core::PhAdvice::NoAmmoniumOrAcid) return tr(" · no ammonium and no acid in the refill");
  return {};
}

QString gramsText(const core::Advice& advice, const TankStory& story, const UnitsShown& units) {
  QStringList out;
  for (std::size_t p = 0; p < advice.grams.size(); ++p)
    if (advice.grams[p] > core::Mass::fromMilligrams(1))
      out << tr("%1 %2").arg(units.text(advice.grams[p]), qtext(story.request.shelf[p].name));
  return out.join(", ");
}

QString stockDose(const core::Advice& advice, const TankGiven& given, const UnitsShown& units) {
  const auto found = given.formulas.find({given.facts.formulaUid, 0});
  if (found == given.formulas.end() || !found->second) return {};
  // At the plan's factor a litre of feed takes 1000 / factor millilitres of each tank.
  const double factor = found->second->given.stock.factor;
  if (!(factor > 0)) return {};
  const auto millilitres = advice.pour * (advice.feedFactor / factor);
  return units.stockText(millilitres);
}

} // namespace

QString noStoryWords(NoStory why) {
  switch (why) {
  case NoStory::NoVolume:
    return tr("Say how much this vessel holds at its full mark (under Vessel): all else follows from it.");
  case NoStory::NoFormula:
    return tr("Say which formula fills this vessel (under Vessel): its feed is what the plants draw on.");
  case NoStory::NoLog:
    return tr(
        "Nothing is in its log yet. Fill it, or read EC and pH: from then on every element is followed.");
  case NoStory::None:
    break;
  }
  return {};
}

QString shortName(Nutrient nutrient) {
  if (nutrient == Nutrient::NNitrate) return tr("NO3-N");
  if (nutrient == Nutrient::NAmmonium) return tr("NH4-N");
  return qtext(std::string(core::elementSymbol(nutrient)));
}

QString adviceTitle(AdviceKind kind) {
  switch (kind) {
  case AdviceKind::RefillAsPlanned:
    return tr("Refill as planned");
  case AdviceKind::RefillByRule:
    return tr("By the rule of thumb");
  case AdviceKind::RefillByStocks:
    return tr("Best strength of stocks");
  case AdviceKind::RefillBySalts:
    return tr("Single salts for the target");
  case AdviceKind::AcidOrBase:
    return tr("Acid or base now");
  case AdviceKind::Bleed:
    return tr("Bleed a little every day");
  case AdviceKind::Dump:
    return tr("Throw away, start fresh");
  case AdviceKind::FeedByUptake:
    break;
  }
  return tr("A feed as plants take it");
}

QString adviceDoing(const core::Advice& a, const TankStory& story, const TankGiven& given,
                    const UnitsShown& units) {
  const auto pour = units.text(a.pour);
  switch (a.kind) {
  case AdviceKind::RefillAsPlanned:
    return tr("Pour in %1 of the feed, up to the full mark.").arg(pour);
  case AdviceKind::RefillByRule:
    return tr("Pour in %1 of the feed at %2 % of its strength%3.")
        .arg(pour, localFigure(100 * a.feedFactor), phAdviceText(a.ph));
  case AdviceKind::RefillByStocks:
    return tr("Pour in %1 of water with %2 of each stock: %3 % of full strength.")
        .arg(pour, stockDose(a, given, units), localFigure(100 * a.feedFactor));
  case AdviceKind::RefillBySalts: {
    const auto salts = gramsText(a, story, units);
    if (salts.isEmpty()) return tr("Pour in %1 of water alone: no salt would bring it nearer.").arg(pour);
    return tr("Pour in %1 of water; weigh in %2.").arg(pour, salts);
  }
  case AdviceKind::AcidOrBase:
    return tr("%1 of %2, half of it first: stir, read, then the rest. Acid into water, never the other way; "
              "gloves and eye protection.")
        .arg(a.acidVolume > core::Volume{} ? units.liquidText(a.acidVolume) : units.text(a.grams[*a.acid]),
             qtext(story.request.shelf[*a.acid].name));
  case AdviceKind::Bleed:
    return tr("Let %1 run off every day and refill: %2 then stays under its cap for ever. Local rules on "
              "nutrient water come first.")
        .arg(units.text(core::Volume::fromLitres(a.bleedLPerDay)), shortName(*a.ballast));
  case AdviceKind::Dump:
    return tr("%1 reaches its cap in %2: throw all away then, and fill anew. Local rules on nutrient water "
              "come "
              "first.")
        .arg(shortName(*a.ballast), daysText(a.afterDays.value_or(0)));
  case AdviceKind::FeedByUptake:
    break;
  }
  return tr("Feed for good what the plants take with each litre: nothing then builds up. As a new target it "
            "goes to the formula.");
}

QString notOpenWords(const core::Advice& advice, const TankStory& story) {
  switch (advice.notOpen) {
  case NotOpen::None:
    return {};
  case NotOpen::Full:
    return tr("it is full");
  case NotOpen::NoWater:
    return tr("nothing is in it that could be read");
  case NotOpen::NoTarget:
    return tr("the crop has no cap, the formula no target");
  case NotOpen::NoSalts:
    return tr("no salts on the formula's shelf");
  case NotOpen::NoStocks:
    return tr("this formula is mixed straight, without stocks");
  case NotOpen::NoAcid:
    return tr("no acid or base on the formula's shelf");
  case NotOpen::WaterAboveCap:
    return tr("the refill itself holds as much: another water");
  case NotOpen::NotNeeded:
    break;
  }
  return advice.kind == AdviceKind::AcidOrBase
             ? tr("the pH is in its band, %1 to %2")
                   .arg(localNumber(story.request.lowPh, 1), localNumber(story.request.highPh, 1))
             : tr("not needed within a year");
}

QString bandWords(const core::Band& band) {
  const double half = (band.high - band.low) / 2;
  // As many digits as the band leaves any sense.
  const int decimals = half >= 3 ? 0 : half >= 0.3 ? 1 : half >= 0.03 ? 2 : 3;
  return tr("%1 ± %2").arg(localNumber(band.value, decimals), localNumber(half, decimals));
}

QString courseWords(const core::ElementCourse& course) {
  const auto name = shortName(course.nutrient);
  const auto moves = course.rises ? tr("%1 rises %2 mg/L a day") : tr("%1 falls %2 mg/L a day");
  // A rate of a day is not known any closer.
  const double perDay = std::abs(course.perDayMgPerL);
  const auto first = moves.arg(name, localNumber(perDay, perDay >= 10 ? 0 : perDay >= 1 ? 1 : 2));
  if (course.outside) return tr("%1 and is out of its band").arg(first);
  if (course.leavesAfterDays)
    return tr("%1 and leaves its band in about %2").arg(first, daysText(*course.leavesAfterDays));
  if (course.mayLeaveAfterDays)
    return tr("%1 and may leave its band in %2").arg(first, daysText(*course.mayLeaveAfterDays));
  return first;
}

QStringList aheadWords(const TankStory& story) {
  QStringList outside, traces, out;
  std::vector<core::ElementCourse> leaving;
  for (const auto& course : story.courses) {
    if (course.outside)
      (isTraceElement(course.nutrient) ? traces : outside) << shortName(course.nutrient);
    else if (course.leavesAfterDays && !isTraceElement(course.nutrient))
      leaving.push_back(course);
  }
  if (!outside.isEmpty()) out << tr("Out of its band: %1.").arg(outside.join(", "));
  if (!traces.isEmpty()) out << tr("Of the trace elements out of band: %1.").arg(traces.join(", "));
  std::stable_sort(leaving.begin(), leaving.end(),
                   [](const auto& a, const auto& b) { return *a.leavesAfterDays < *b.leavesAfterDays; });
  constexpr std::size_t most = 4;
  for (std::size_t i = 0; i < leaving.size() && i < most; ++i)
    out << tr("%1.").arg(courseWords(leaving[i]));
  return out;
}

QString driftWords(const TankStory& story) {
  const double perDay = story.budget.total();
  const auto& days = story.forecast;
  QString out;
  if (days.size() > 3 && days.front().ph && days[3].ph) {
    const double drift = (days[3].ph->value - days.front().ph->value) / 3;
    out = std::abs(drift) < 0.02 ? tr("pH stands.")
          : drift > 0            ? tr("pH climbs about %1 a day.").arg(localNumber(drift, 2))
                                 : tr("pH falls about %1 a day.").arg(localNumber(-drift, 2));
  }
  out +=
      " " + (std::abs(perDay) < 0.01 ? tr("Base and acid of roots and refill are even.")
             : perDay > 0
                 ? tr("The roots give %1 and the refill brings %2 meq/L of base a day.")
                       .arg(localNumber(story.budget.ofUptake(), 2), localNumber(story.budget.byRefill, 2))
                 : tr("The roots take %1 and the refill brings %2 meq/L of base a day.")
                       .arg(localNumber(-story.budget.ofUptake(), 2), localNumber(story.budget.byRefill, 2)));
  if (story.neutralAmmoniumShare > 0)
    out += " " + tr("With %1 % of the nitrogen as ammonium it would stand.")
                     .arg(localNumber(100 * story.neutralAmmoniumShare, 0));
  return out.trimmed();
}

QStringList doseWords(const TankStory& story, const TankGiven& given) {
  constexpr std::size_t remembered = 3;
  constexpr double apart = 0.3; // more than a pen's error
  QStringList out;
  double off = 0;
  int compared = 0;
  const auto first = story.doses.size() > remembered ? story.doses.size() - remembered : 0;
  for (auto i = first; i < story.doses.size(); ++i) {
    const auto& dose = story.doses[i];
    const auto what = weighedText(given.lines[dose.line], given);
    const auto did =
        tr("%1: %2 took the pH from %3 to %4")
            .arg(dayText({dose.at}), what, localNumber(dose.phBefore, 1), localNumber(dose.phAfter, 1));
    if (!dose.otherWater.empty()) {
      out << tr("%1, in another water: %2.").arg(did, qtext(dose.otherWater));
      continue;
    }
    out << (dose.expected ? tr("%1 (reckoned: %2).").arg(did, localNumber(*dose.expected, 1))
                          : tr("%1.").arg(did));
    if (!dose.expected) continue;
    off += dose.phAfter - *dose.expected;
    ++compared;
  }
  if (compared > 1 && std::abs(off / compared) > apart)
    out << tr("Memory and reckoning part by %1 on average: the bottle's strength, the pen, or the water's "
              "alkalinity.")
               .arg(localNumber(std::abs(off / compared), 1));
  return out;
}

QString scoreWords(const TankStory& story, const UnitsShown& units) {
  QStringList out;
  const auto add = [&](const QString& name, const core::ForecastScore& score, const QString& error) {
    if (score.readings < 3) return;
    out << tr("%1: %2 of %3 readings in the band, off by %4 on average")
               .arg(name)
               .arg(score.within)
               .arg(score.readings)
               .arg(error);
  };
  add(tr("EC"), story.conductivity,
      units.text(core::Conductivity::fromMilliSiemensPerCm(story.conductivity.meanAbsError)));
  add(tr("pH"), story.ph, localNumber(story.ph.meanAbsError, 2));
  add(tr("level"), story.level, units.text(core::Volume::fromLitres(story.level.meanAbsError)));
  return out.isEmpty() ? tr("Too few readings yet to say how well it foretells.")
                       : tr("How well it foretold: %1.").arg(out.join(" · "));
}

QStringList doubtWords(const TankStory& story, const UnitsShown& units) {
  QStringList out;
  for (const auto& check : story.checks) {
    if (check.fits) continue;
    const auto when = whenText({story.secondsOf(check.day)});
    if (check.kind == core::ReadingKind::Conductivity)
      out << tr("%1: EC %2 where %3 was expected: a refill or water that nobody wrote down, or the pen.")
                 .arg(when, units.text(core::Conductivity::fromMilliSiemensPerCm(check.read)),
                      units.text(core::Conductivity::fromMilliSiemensPerCm(check.expected.value)));
    else if (check.kind == core::ReadingKind::Ph)
      out << tr("%1: pH %2 where %3 was expected: acid or base that nobody wrote down, or the pen.")
                 .arg(when, localNumber(check.read, 1), localNumber(check.expected.value, 1));
    else
      out << tr("%1: %2 in it where %3 was expected: a refill or a leak that nobody wrote down.")
                 .arg(when, units.text(core::Volume::fromLitres(check.read)),
                      units.text(core::Volume::fromLitres(check.expected.value)));
  }
  return out;
}

QStringList warmthWords(const TankGiven& given) {
  // Roots suffer where warm water holds little oxygen; from about here on growers cool or bubble more (common
  // practice).
  constexpr double warmCelsius = 24;
  constexpr std::int64_t lately = 14 * 86400;
  QStringList out;
  for (auto reading = given.readings.rbegin(); reading != given.readings.rend(); ++reading) {
    if (reading->quantity != "temperature") continue;
    const auto water = core::Temperature::fromCelsius(reading->value);
    if (reading->value < 0 || reading->value > 40) break;
    out << tr("At %1 water holds at most %2 mg/L of oxygen.")
               .arg(readingText(*reading), localNumber(core::oxygenAtSaturation(water), 1));
    if (reading->value > warmCelsius) out << tr("That is warm for roots: cool it, or bring in more air.");
    break;
  }
  const bool rootsNoted =
      std::any_of(given.lines.begin(), given.lines.end(), [&](const book::TankLine& line) {
        return line.did == book::TankDid::Noted && line.about == "roots" &&
               line.at.seconds > given.now.seconds - lately;
      });
  if (rootsNoted)
    out << tr(
        "White roots are good. Brown or black ones: look at oxygen, warmth, pH and drying out before adding "
        "salt.");
  return out;
}

QString markWords(const std::string& mark) {
  if (mark == "stuck") return tr("▲ the same figure for a day, not counted");
  if (mark == "clock") return tr("▲ a time that can't be, not counted");
  return tr("▲ wild, not counted");
}

QStringList guessWords(const TankStory& story) {
  QStringList out;
  if (story.startGuessed)
    out << tr("What was in it at first is not written down: taken for the feed, give or take a third.");
  if (!story.cropKnown)
    out << tr("No published uptake for this crop: taken for what the feed brings, give or take two fifths.");
  if (story.waterGuessed)
    out << tr("Nobody said how much the plants drink: taken for a twentieth of the vessel a day.");
  return out;
}

} // namespace butte::app
