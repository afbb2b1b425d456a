/// The verbs of the tank: balance and steer.
#include "solution/equilibrium_data.h"
#include "tank/tank_filter.h"
#include "tank/tank_replay.h"
#include "verb_json.h"

#include <fmt/format.h>

namespace butte::cli {

using namespace core;

namespace {

Json keptObject(const NutrientAmounts& amounts) {
  Json out = Json::object();
  for (const auto n : keptNutrients)
    out[std::string(nutrientKey(n))] = amounts.of(n);
  return out;
}

Json solidsArray(const FloorMillimoles& floor, Volume volume) {
  Json out = Json::array();
  const auto& solids = EquilibriumData::instance().solids();
  for (std::size_t i = 0; i < floor.size(); ++i) {
    if (!(floor[i] > 0)) continue;
    const double grams = floor[i] / 1000 * solids[i].molarMassGPerMol;
    out.push_back({{"name", solids[i].name},
                   {"g", grams},
                   {"g_per_l", volume > Volume{} ? Json(grams / volume.litres()) : Json(nullptr)}});
  }
  return out;
}

Json dayObject(int number, const BalanceDay& day) {
  const auto perLitre = day.content.perLitre();
  const auto& read = day.readings;
  return {{"day", number},
          {"volume_l", day.content.volume.litres()},
          {"ec_ms_per_cm_25c", read ? Json(read->at25.milliSiemensPerCm()) : Json(nullptr)},
          {"ph", read ? Json(read->ph) : Json(nullptr)},
          {"elements_mg_per_l", keptObject(perLitre ? perLitre->milligramsPerLitre : NutrientAmounts{})},
          {"alkalinity_meq_per_l", perLitre ? Json(perLitre->alkalinityMeqPerL) : Json(nullptr)},
          {"refill_l", day.refilled.litres()},
          {"drain_l", day.drained.litres()},
          {"solids", solidsArray(day.floor, day.content.volume)}};
}

Json remarkWarning(exchange::BalanceRemark remark) {
  using enum exchange::BalanceRemark;
  switch (remark) {
  case StartIsFeed:
    return warning("start_is_feed", "the tank begins with the mix of weights_g in this water");
  case RefillIsStart:
    return warning("refill_is_start", "no refill is given: it is filled with what was in it at the start");
  case StartAlkalinity:
    return warning("start_alkalinity", "start gives no alkalinity: it is what balances its ions");
  case RefillAlkalinity:
    return warning("refill_alkalinity", "refill gives no alkalinity: it is what balances its ions");
  case AlkalinityOfWater:
    break;
  }
  return warning("alkalinity_unknown", "the water's alkalinity is not known and counts as none");
}

/// The first days on which something goes wrong.
void addDayWarnings(Json& warnings, const std::vector<BalanceDay>& days, const BalancePlan& plan) {
  std::optional<std::size_t> dry, fallen, blind, gone;
  for (std::size_t d = 0; d < days.size(); ++d) {
    const auto first = [&](std::optional<std::size_t>& day, bool is) {
      if (is && !day) day = d;
    };
    first(dry, days[d].ranDry);
    first(blind, !days[d].readings);
    first(fallen,
          std::any_of(days[d].floor.begin(), days[d].floor.end(), [](double mmol) { return mmol > 0; }));
    for (const auto n : keptNutrients)
      first(gone, d > 0 && !isTraceElement(n) && plan.flow.uptake.millimolesPerLitre.of(n) > 0 &&
                      days[d].content.milligrams.of(n) == 0);
  }
  const auto add = [&](const std::optional<std::size_t>& day, const char* code, const char* text) {
    if (day) warnings.push_back(warning(code, fmt::format("{} on day {}", text, *day)));
  };
  add(dry, "ran_dry", "the tank runs dry");
  add(fallen, "falls_out", "something falls out for the first time");
  add(gone, "used_up", "an element is used up for the first time");
  add(blind, "no_chemistry", "the tank is beyond the chemistry for the first time");
}

/// The same with the bands that hold nine times in ten.
void addBands(Json& row, const TankEstimate& told) {
  Json low = Json::object(), high = Json::object();
  for (const auto n : keptNutrients) {
    low[std::string(nutrientKey(n))] = told.of(n).low;
    high[std::string(nutrientKey(n))] = told.of(n).high;
  }
  row["low"] = low;
  row["high"] = high;
  const auto band = [&](const char* key, const std::optional<Band>& of) {
    row[std::string(key) + "_low"] = of ? Json(of->low) : Json(nullptr);
    row[std::string(key) + "_high"] = of ? Json(of->high) : Json(nullptr);
  };
  band("volume_l", told.litres);
  band("ec_ms_per_cm_25c", told.at25);
  band("ph", told.ph);
  band("alkalinity_meq_per_l", told.alkalinityMeqPerL);
}

BalanceDay dayOf(const TankFilter& filter, const TankEstimate& told) {
  BalanceDay out;
  out.content = filter.content();
  if (told.at25 && told.ph)
    out.readings = ReservoirReadings{told.ph->value, Conductivity::fromMilliSiemensPerCm(told.at25->value)};
  return out;
}

const char* code(ReadingKind kind) {
  return kind == ReadingKind::Conductivity ? "ec" : kind == ReadingKind::Ph ? "ph" : "level";
}

/// Day by day with what the readings correct; without a log by the rule alone.
void addEstimates(Json& out, const exchange::BalanceScript& script) {
  TankFilter filter(script.priors, script.plan.start);
  const std::vector<TankEntry> none;
  const auto& log = script.log ? *script.log : none;
  Json rows = Json::array(), doubts = Json::array();
  std::size_t next = 0;
  for (int n = 0; n <= script.plan.days; ++n) {
    for (; next < log.size() && log[next].day <= n; ++next) {
      filter.advanceTo(log[next].day);
      for (const auto& check : filter.take(log[next].deed))
        if (!check.fits)
          doubts.push_back({{"day", check.day},
                            {"quantity", code(check.kind)},
                            {"read", check.read},
                            {"expected", check.expected.value}});
    }
    filter.advanceTo(n);
    Volume refilled;
    if (!script.log && n > 0) {
      refilled = refillNow(script.plan.rule, filter.content().volume, script.plan.full);
      if (refilled > Volume{}) filter.take(logged::FilledTo{script.plan.refill, script.plan.full});
    }
    const auto told = filter.estimate();
    auto day = dayOf(filter, told);
    day.refilled = refilled;
    auto row = dayObject(n, day);
    addBands(row, told);
    rows.push_back(std::move(row));
  }
  out["days"] = std::move(rows);
  out["doubts"] = std::move(doubts);
}

const char* code(DrainClass standing) {
  switch (standing) {
  case DrainClass::MuchTooLow:
    return "much_too_low";
  case DrainClass::Low:
    return "low";
  case DrainClass::Good:
    return "good";
  case DrainClass::High:
    return "high";
  case DrainClass::MuchTooHigh:
    return "much_too_high";
  case DrainClass::NotFed:
    return "not_fed";
  case DrainClass::NoTarget:
    break;
  }
  return "no_target";
}

std::string reasonText(const SteeredElement& element, const SteerRequest& request) {
  const auto key = nutrientKey(element.nutrient);
  const auto step = element.feedMgPerL > 0 ? 100 * (element.newMgPerL / element.feedMgPerL - 1) : 0.0;
  if (request.school == SteerSchool::Balance)
    return fmt::format("{}: the drain holds {:.4g} mg/L where {:.4g} are wanted; of what is given {:.3g} % "
                       "drains, so the feed goes from {:.4g} to {:.4g} mg/L{}",
                       key, request.drainMgPerL.of(element.nutrient),
                       request.targetMgPerL.of(element.nutrient), 100 * request.leachingFraction,
                       element.feedMgPerL, element.newMgPerL,
                       element.held ? " (no further at once: between nothing and double)" : "");
  if (element.standing == DrainClass::Good)
    return fmt::format("{}: {:.3g} of what is wanted once both have the same strength: left", key,
                       element.drainOverTarget);
  return fmt::format("{}: {:.3g} of what is wanted once both have the same strength: {:+.0f} %", key,
                     element.drainOverTarget, step);
}

} // namespace

Result<Outcome> balance(const exchange::BalanceScript& script) {
  Outcome out;
  Json warnings = Json::array();
  for (const auto remark : script.remarks)
    warnings.push_back(remarkWarning(remark));
  if (script.estimate) {
    addEstimates(out.json, script);
    out.json["warnings"] = std::move(warnings);
    return out;
  }
  const auto days = script.log ? replayed(script.plan, *script.log) : balanceOf(script.plan);
  addDayWarnings(warnings, days, script.plan);
  Json rows = Json::array();
  for (std::size_t d = 0; d < days.size(); ++d)
    rows.push_back(dayObject(static_cast<int>(d), days[d]));
  out.json["days"] = std::move(rows);
  out.json["warnings"] = std::move(warnings);
  return out;
}

Result<Outcome> steer(const exchange::SteerScript& script) {
  const auto& request = script.request;
  const auto found = steered(request);
  Outcome out;
  Json standing = Json::object(), reasons = Json::array(), warnings = Json::array();
  for (const auto& element : found.elements) {
    const bool named = element.feedMgPerL > 0 || element.standing != DrainClass::NoTarget;
    if (!named) continue;
    standing[std::string(nutrientKey(element.nutrient))] = code(element.standing);
    if (element.standing != DrainClass::NoTarget && element.standing != DrainClass::NotFed)
      reasons.push_back(reasonText(element, request));
  }
  if (std::abs(found.unbalancedMeqPerL) > 0.05)
    warnings.push_back(
        warning("unbalanced", fmt::format("the steps alone leave {:+.2f} meq/L of cations over "
                                          "anions: solve the new feed with salts, which closes it",
                                          found.unbalancedMeqPerL)));
  out.json["feed_mg_per_l"] = keptObject(found.newFeedMgPerL);
  out.json["standing"] = standing;
  out.json["strength_factor"] = found.strengthFactor;
  out.json["leaching_fraction"] = request.leachingFraction;
  out.json["unbalanced_meq_per_l"] = found.unbalancedMeqPerL;
  out.json["reasons"] = reasons;
  out.json["warnings"] = warnings;
  return out;
}

} // namespace butte::cli
