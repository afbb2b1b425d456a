#include "document/tank_story.h"

#include "document/tank_liquids.h"

#include <algorithm>
#include <cmath>

namespace butte::app {

using namespace core;

namespace {

constexpr double secondsPerDay = 86400;
/// Guesses where nobody said anything (common practice): a vessel's plants drink this share of it in a day,
/// give or take; a start that nobody wrote down may be so far off.
constexpr double guessedShareDrunk = 0.05, guessedWaterSd = 0.8, guessedStartSd = 0.3;
constexpr double unknownUptakeSd = 0.4, saidWaterSd = 0.25;
constexpr double penPhSd = 0.1, dropsPhSd = 0.25, stripPhSd = 0.5;
/// A glass whose slope falls is trusted less: in full down to 95 %, to two and a half times the error at 80
/// %, where it is cleaned or replaced (common practice).
double glassError(double slopePercent) {
  constexpr double good = 95, perFold = 10, most = 4;
  return std::clamp(1 + (good - slopePercent) / perFold, 1.0, most);
}
constexpr double openWaterLPerM2Day = 2; ///< off an open surface under glass, common practice

/// Temperatures, and what is read of the drain, move nothing that is followed here.
bool isTaken(const book::Reading& reading) {
  const auto& quantity = reading.quantity;
  return quantity == "ec" || quantity == "level" || quantity == "ph" || quantity == "ph_drops" ||
         quantity == "ph_strip";
}

/// South of the equator the year is half a year further.
WaterSeason seasonOf(std::int64_t seconds, bool southern) {
  constexpr double yearDays = 365.25;
  const double day = static_cast<double>(seconds) / secondsPerDay + (southern ? yearDays / 2 : 0);
  const auto month = static_cast<int>(std::fmod(day, yearDays) / 30.44);
  if (month < 2 || month > 9) return WaterSeason::Winter;
  return month >= 4 && month <= 7 ? WaterSeason::Summer : WaterSeason::SpringOrAutumn;
}

class Teller {
public:
  explicit Teller(const TankGiven& given) : m_given(given), m_liquids(given) {}

  TankStory tell() {
    m_full = m_given.facts.fullVolume();
    if (!(m_full > Volume{})) return without(NoStory::NoVolume);
    const auto now = m_liquids.made(m_given.facts.formulaUid, 0);
    if (!now) return without(NoStory::NoFormula);
    m_now = *now;
    if (m_given.facts.filledWithWater) m_now.feed = m_now.water;
    // What was mixed is the batch's; what can be weighed and is wanted now stays the formula's own.
    if (const auto batch = m_liquids.madeOfBatch(m_given.facts.batchUid)) {
      m_now.feed = batch->feed;
      m_now.water = batch->water;
    }
    setPriors();
    if (!setStart()) return without(NoStory::NoLog);
    const auto history = historyOf(m_start, entries(), true);
    m_out.none = NoStory::None;
    m_out.estimates = history.estimates;
    m_out.checks = history.checks;
    m_out.conductivity = history.conductivity;
    m_out.ph = history.ph;
    m_out.level = history.level;
    auto filter = history.now;
    filter.advanceTo(dayOf(m_given.now.seconds));
    m_out.estimates.push_back(filter.estimate());
    lookAhead(filter);
    rememberDoses();
    return std::move(m_out);
  }

private:
  TankStory without(NoStory why) {
    m_out.none = why;
    return std::move(m_out);
  }

  double dayOf(std::int64_t seconds) const {
    return std::max(static_cast<double>(seconds - m_out.start) / secondsPerDay, 0.0);
  }

  void setPriors() {
    auto& priors = m_start.priors;
    const auto& facts = m_given.facts;
    const auto climate = facts.climate == "warm" ? UptakeClimate::Warm : UptakeClimate::Cool;
    const auto& crop = facts.crop.empty() ? m_now.document->crop : facts.crop;
    if (const auto* known = uptakeOf(crop, climate)) {
      const double ground = facts.groundM2() > 0 ? facts.groundM2() : known->groundOf(facts.plantCount());
      priors = priorsFor(*known, ground, seasonOf(m_given.now.seconds, facts.southern));
      m_out.cropKnown = true;
      for (const auto& limit : known->ballast)
        m_caps.push_back({limit.nutrient, limit.mostMillimolesPerLitre.value * molarMass(limit.nutrient)});
    } else {
      // Nothing is known of it: it may well take what it is given.
      for (const auto n : keptNutrients) {
        if (n == Nutrient::Na || n == Nutrient::Cl || n == Nutrient::NUrea) continue;
        priors.flow.uptake.millimolesPerLitre.add(n, m_now.feed.milligramsPerLitre.of(n) / molarMass(n));
        priors.uptakeSd.add(n, unknownUptakeSd);
      }
    }
    priors.full = m_full;
    if (!facts.usualTemperature.isEmpty())
      priors.air.temperature =
          Temperature::fromCelsius(std::clamp(amountIn(facts.usualTemperature, "C"), 0.0, 45.0));
    setWater(priors);
  }

  void setWater(TankPriors& priors) {
    const auto& facts = m_given.facts;
    if (facts.drunkLPerDay() > 0) {
      priors.flow.transpirationLPerDay = facts.drunkLPerDay();
      priors.transpirationSd = saidWaterSd;
    } else if (!(priors.flow.transpirationLPerDay > 0)) {
      priors.flow.transpirationLPerDay = guessedShareDrunk * m_full.litres();
      priors.transpirationSd = guessedWaterSd;
      m_out.waterGuessed = true;
    }
    if (facts.openToRain && facts.measures && facts.measures->acrossCm > 0) {
      const auto per10Cm = volumeAtHeight(*facts.measures, 10);
      if (per10Cm) priors.flow.evaporationLPerDay = openWaterLPerM2Day * per10Cm->cubicMetres() / 0.1;
    }
    // What drains to waste leaves as it stands: the plants do not work on what stays.
    if (facts.drainsToWaste) {
      priors.flow.drainLPerDay = priors.flow.transpirationLPerDay;
      priors.flow.transpirationLPerDay = 0;
    }
  }

  /// The first line that fills it begins the log; else the first reading does, of whatever was in it.
  bool setStart() {
    const auto fills =
        std::find_if(m_given.lines.begin(), m_given.lines.end(), [](const book::TankLine& line) {
          return line.did == book::TankDid::Filled || line.did == book::TankDid::Poured;
        });
    const auto read = std::find_if(m_given.readings.begin(), m_given.readings.end(), isTaken);
    const bool readFirst =
        read != m_given.readings.end() && (fills == m_given.lines.end() || read->at < fills->at);
    if (fills == m_given.lines.end() && !readFirst) return false;
    m_out.startGuessed = readFirst;
    m_out.start = readFirst ? read->at.seconds : fills->at.seconds;
    if (readFirst) {
      m_start.content.pour(m_now.feed, m_full);
      m_start.relativeSd = guessedStartSd;
    } else {
      m_start.content.pour(m_liquids.liquidOf(*fills, m_now),
                           Volume::fromLitres(amountIn(fills->volume, "L")));
      m_firstFill = &*fills;
    }
    return true;
  }

  std::optional<TankDeed> deedOf(const book::TankLine& line) {
    const auto volume = Volume::fromLitres(amountIn(line.volume, "L"));
    switch (line.did) {
    case book::TankDid::Filled:
      return logged::FilledTo{m_liquids.liquidOf(line, m_now), volume};
    case book::TankDid::Poured:
      return logged::Poured{m_liquids.liquidOf(line, m_now), volume};
    case book::TankDid::Salts:
      return m_liquids.weighedIn(line, m_now);
    case book::TankDid::Drained:
      return logged::Drained{volume};
    case book::TankDid::Emptied:
      return logged::Emptied{};
    case book::TankDid::Rained:
      return logged::Rained{volume};
    case book::TankDid::Medium:
      return mediumCharge(line);
    case book::TankDid::Analysed: {
      if (!line.about.empty()) return std::nullopt; // of drain or root zone, not of what stands in it
      logged::Analysed out;
      for (const auto& one : line.figures)
        if (const auto n = nutrientFromKey(one.element)) {
          out.named.push_back(*n);
          out.milligramsPerLitre.add(*n, milligramsOf(one));
        }
      return out;
    }
    default:
      return std::nullopt;
    }
  }

  /// Readings of one moment are one entry.
  void addReading(std::vector<TankEntry>& out, const book::Reading& reading) {
    const double day = dayOf(reading.at.seconds);
    if (out.empty() || out.back().day != day || !std::holds_alternative<logged::Read>(out.back().deed))
      out.push_back({day, logged::Read{}});
    auto& read = std::get<logged::Read>(out.back().deed);
    if (reading.quantity == "ec") read.at25 = Conductivity::fromMilliSiemensPerCm(reading.value);
    // What is common practice to trust each to; a pen that was read at the same moment counts.
    if (reading.quantity == "ph") read.ph = reading.value, read.phSd = penPhSd * m_glassError;
    if (!read.ph && reading.quantity == "ph_drops") read.ph = reading.value, read.phSd = dropsPhSd;
    if (!read.ph && reading.quantity == "ph_strip") read.ph = reading.value, read.phSd = stripPhSd;
    if (reading.quantity == "level") read.level = Volume::fromLitres(reading.value);
  }

  /// What was done after what was read, where both stand at one moment: one reads first, then pours.
  std::vector<TankEntry> entries() {
    std::vector<TankEntry> out;
    std::size_t r = 0;
    const auto readUpTo = [&](std::int64_t seconds) {
      for (; r < m_given.readings.size() && m_given.readings[r].at.seconds <= seconds; ++r)
        if (m_given.readings[r].at.seconds >= m_out.start && isTaken(m_given.readings[r]))
          addReading(out, m_given.readings[r]);
    };
    std::int64_t bledUpTo = m_out.start;
    const auto bleedUpTo = [&](std::int64_t seconds) {
      constexpr auto aDay = static_cast<std::int64_t>(secondsPerDay);
      for (; bledUpTo + aDay <= seconds; bledUpTo += aDay) {
        if (!(m_bleed > Volume{})) continue;
        readUpTo(bledUpTo + aDay);
        out.push_back({dayOf(bledUpTo + aDay), logged::Drained{m_bleed}});
      }
    };
    for (const auto& line : m_given.lines) {
      if (&line == m_firstFill || line.at.seconds < m_out.start) continue;
      bleedUpTo(line.at.seconds);
      readUpTo(line.at.seconds);
      if (line.did == book::TankDid::Bleeds) {
        m_bleed = Volume::fromLitres(amountIn(line.volume, "L"));
        bledUpTo = line.at.seconds;
      }
      if (line.did == book::TankDid::Calibrated && line.about == "ph" && !line.slopePercent.isEmpty())
        m_glassError = glassError(line.slopePercent.value());
      if (auto deed = deedOf(line)) out.push_back({dayOf(line.at.seconds), std::move(*deed)});
    }
    bleedUpTo(m_given.now.seconds);
    readUpTo(m_given.now.seconds);
    return out;
  }

  void lookAhead(const TankFilter& filter) {
    auto& request = m_out.request;
    request.stands = filter.content();
    request.flow = filter.flow();
    // What drains to waste went through the plants.
    m_out.drunkLPerDay =
        m_given.facts.drainsToWaste ? request.flow.drainLPerDay : request.flow.transpirationLPerDay;
    request.air = m_start.priors.air;
    request.flow.drainLPerDay += m_bleed.litres();
    const auto low = m_given.facts.lowVolume();
    request.plan = {{low > Volume{} ? RefillRule::When::Below : RefillRule::When::Daily, low},
                    m_now.feed,
                    m_full,
                    m_bleed};
    request.water = m_now.water;
    const auto& given = m_now.document->given;
    request.rows = given.request.rows;
    request.caps = m_caps;
    request.shelf = given.request.shelf;
    if (given.acid.product) request.shelf.push_back(*given.acid.product);
    request.wantedPh = given.acid.targetPh;
    request.rule = m_given.facts.growersRule();
    request.hasStocks = !given.direct;
    for (const auto& product : request.shelf)
      m_out.productIds.push_back(product.id);
    m_out.forecast = forecastOf(filter, request.plan, forecastDays);
    m_out.courses = coursesOf(m_out.forecast, request.rows, request.caps);
    m_out.budget = alkalinityBudget(request.stands, request.flow, m_now.feed);
    findNeutralShare();
    m_out.advice = adviceFor(request);
  }

  /// What a dose did to the pH: the last reading before it, the first one after, with nothing poured between.
  void rememberDoses() {
    constexpr std::int64_t before = 86400, after = 2 * 86400;
    for (std::size_t i = 0; i < m_given.lines.size(); ++i) {
      const auto& line = m_given.lines[i];
      if (line.did != book::TankDid::Salts || std::abs(m_liquids.weighedIn(line, m_now).alkalinityMeq) < 1e-6)
        continue;
      std::optional<double> stood;
      for (const auto& reading : m_given.readings) {
        if (reading.quantity != "ph" || reading.at.seconds < line.at.seconds - before) continue;
        if (reading.at.seconds <= line.at.seconds) {
          stood = reading.value;
          continue;
        }
        if (reading.at.seconds > line.at.seconds + after || !stood || pouredBetween(i, reading.at)) break;
        m_out.doses.push_back(
            {line.at.seconds, i, *stood, reading.value, expectedPh(reading.at.seconds), otherWaterOf(line)});
        break;
      }
    }
  }

  /// A dose works as its water's alkalinity lets it: the name of that water, where it is another one now.
  std::string otherWaterOf(const book::TankLine& line) {
    constexpr double alike = 0.1, alikeMeqPerL = 0.2; // a water's own swing over a year, common practice
    const auto then = m_liquids.made(line.formulaUid, line.formulaVersion);
    if (!then) return {};
    const double now = m_now.water.alkalinityMeqPerL, was = then->water.alkalinityMeqPerL;
    if (std::abs(was - now) <= std::max(alikeMeqPerL, alike * now)) return {};
    return then->document->waterName;
  }

  bool pouredBetween(std::size_t line, book::Moment until) const {
    for (auto i = line + 1; i < m_given.lines.size() && m_given.lines[i].at < until; ++i)
      if (m_given.lines[i].did != book::TankDid::Noted) return true;
    return false;
  }

  std::optional<double> expectedPh(std::int64_t seconds) const {
    for (const auto& check : m_out.checks)
      if (check.kind == ReadingKind::Ph && std::abs(check.day - dayOf(seconds)) < 1e-6)
        return check.expected.value;
    return std::nullopt;
  }

  /// The budget runs straight in the share.
  void findNeutralShare() {
    const double none = alkalinityPerDayAt(0, m_out.budget), all = alkalinityPerDayAt(1, m_out.budget);
    m_out.neutralAmmoniumShare = none > 0 && all < none ? std::min(none / (none - all), 1.0) : 0;
  }

  const TankGiven& m_given;
  TankStory m_out;
  TankStart m_start;
  Volume m_full;
  TankLiquids m_liquids;
  Made m_now;
  std::vector<Cap> m_caps;
  const book::TankLine* m_firstFill = nullptr;
  Volume m_bleed;          ///< every day, by the last line that says so
  double m_glassError = 1; ///< of the pH pen, by its last calibration
};

} // namespace

TankStory tankStory(const TankGiven& given) {
  return Teller(given).tell();
}

} // namespace butte::app
