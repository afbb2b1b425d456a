/// `butte-cli water`: what a report says, whether it can be right, and what it is good for.
#include "chem/ions.h"
#include "reading_words.h"
#include "verb_json.h"
#include "water_script.h"
#include "water_words.h"

namespace butte::cli {

using namespace core;

namespace {

/// The water in normal form; what was not measured is null.
Json waterObject(const Water& water) {
  Json elements = Json::object(), spread = Json::object(), ions = Json::object();
  for (const auto n : allNutrients) {
    const double range = water.plusMinusMgPerL.of(n);
    const bool known = water.measured[static_cast<std::size_t>(n)] || range > 0;
    const auto key = std::string(nutrientKey(n));
    if (n != Nutrient::N) elements[key] = known ? Json(water.milligramsPerLitre.of(n)) : Json(nullptr);
    if (range > 0) spread[key] = range;
  }
  const auto balance = ionBalance(water.milligramsPerLitre, water.alkalinityMeqPerL.value_or(0));
  for (const auto ion : allIons)
    ions[std::string(ionKey(ion))] = balance.of(ion);
  Json remarks = Json::array();
  for (const auto remark : water.remarks)
    remarks.push_back(warning(words::code(remark), words::waterRemarkText(remark)));
  return Json{{"elements_mg_per_l", elements},
              {"plus_minus_mg_per_l", spread},
              {"ions_meq_per_l", ions},
              {"alkalinity_meq_per_l", optionalNumber(water.alkalinityMeqPerL)},
              {"alkalinity_plus_minus_meq_per_l", water.alkalinityPlusMinusMeqPerL},
              {"ec_ms_per_cm", optionalNumber(water.conductivityMsPerCm)},
              {"ph", optionalNumber(water.ph)},
              {"temperature_c", optionalNumber(water.temperatureCelsius)},
              {"warnings", remarks}};
}

Json checksObject(const Examination& found) {
  Json doubts = Json::array(), readings = Json::array();
  for (const auto& doubt : found.doubts)
    doubts.push_back(
        {{"code", words::code(doubt.doubt)}, {"text", words::doubtText(doubt)}, {"figures", doubt.figures}});
  for (const auto& way : found.rereadings)
    readings.push_back({{"text", words::rereadingText(way)},
                        {"from", way.from},
                        {"to", way.to},
                        {"value", way.value},
                        {"difference_meq_per_l", way.differenceMeqPerL}});
  return Json{{"cations_meq_per_l", found.cationsMeqPerL},
              {"anions_meq_per_l", found.anionsMeqPerL},
              {"allowed_difference_meq_per_l", found.allowedMeqPerL},
              {"ec_computed_ms_per_cm_25c", optionalNumber(found.conductivityComputedMsPerCm)},
              {"doubts", doubts},
              {"would_balance", readings}};
}

std::string levelKey(VerdictLevel level) {
  switch (level) {
  case VerdictLevel::Fine:
    return "fine";
  case VerdictLevel::Watch:
    return "watch";
  case VerdictLevel::TooHigh:
    return "too_high";
  case VerdictLevel::NotMeasured:
    return "not_measured";
  }
  return {};
}

Json unplacedArray(const std::vector<reading::UnplacedRow>& rows) {
  Json out = Json::array();
  for (const auto& row : rows) {
    Json couldBe = Json::array();
    for (const auto& one : row.couldBe)
      couldBe.push_back({{"key", one.key}, {"value", one.value}, {"unit", one.unit}});
    out.push_back({{"line", row.place.line},
                   {"name", row.name},
                   {"value", row.value},
                   {"unit", row.unit},
                   {"why", words::code(row.why)},
                   {"could_be", couldBe}});
  }
  return out;
}

Json verdictArray(const exchange::WaterScript& script, const Water& water) {
  Json out = Json::array();
  for (const auto& v : verdictsOn(water, script.use, script.target)) {
    Json row{{"property", v.property},
             {"unit", v.unit},
             {"value", optionalNumber(v.value)},
             {"level", levelKey(v.level)},
             {"at_worst", levelKey(v.atWorst)}};
    if (v.limit) {
      row["on"] = v.limit->use == "overhead" ? "leaves" : "roots";
      row["fine_below"] = v.limit->fineBelow;
      row["too_high_above"] = v.limit->tooHighAbove;
      row["why"] = v.limit->why;
      row["what_to_do"] = v.limit->whatToDo;
      row["source"] = v.limit->source;
    }
    row["target_mg_per_l"] = optionalNumber(v.targetMgPerL);
    out.push_back(row);
  }
  return out;
}

/// The general words for "can't reach" speak of a pH.
std::string reachText(const Problem& problem, const char* otherwise) {
  return problem.code == ProblemCode::CannotReach ? otherwise : words::problemText(problem);
}

Json treatedObject(const PartAnswer& part) {
  Json out = waterObject(part.treated);
  out["waste_l_per_l"] = part.share > 0 ? Json(part.wasteLitresPerLitre / part.share) : Json(nullptr);
  return out;
}

} // namespace

Result<Outcome> water(const exchange::WaterScript& script) {
  const auto plan = planWater(script.plan);
  if (!plan) return plan.problem();
  Outcome outcome;
  Json sources = Json::array();
  for (std::size_t i = 0; i < plan->parts.size(); ++i) {
    const auto& part = plan->parts[i];
    const auto examined = examineReport(script.plan.parts[i].report);
    if (!examined) return examined.problem();
    Json source{{"name", script.names[i]}, {"share", part.share}};
    source["water"] = waterObject(part.raw);
    source["checks"] = checksObject(*examined);
    const bool treated = !std::holds_alternative<std::monostate>(script.plan.parts[i].treatment);
    if (treated) source["treated"] = treatedObject(part);
    sources.push_back(source);
  }
  outcome.json["sources"] = sources;
  outcome.json["water"] = waterObject(plan->water);
  outcome.json["verdicts"] = verdictArray(script, plan->water);
  if (script.plan.acid) {
    if (plan->acidProblem) outcome.exitCode = 3;
    outcome.json["acid_g_per_l"] = plan->acidProblem ? Json(nullptr) : Json(plan->acidGramsPerLitre);
    if (plan->acidProblem)
      outcome.json["acid_problem"] = reachText(
          *plan->acidProblem, "the alkalinity stands lower already, or this product can't bring it there");
  }
  if (script.wanted) {
    std::vector<BlendPart> parts;
    for (const auto& part : plan->parts)
      parts.push_back({part.treated, part.share});
    const auto share = largestShare(parts, script.wanted->part, script.wanted->limit);
    if (!share) outcome.exitCode = 3;
    outcome.json["largest_share"] = share ? Json(*share) : Json(nullptr);
    if (!share)
      outcome.json["share_problem"] =
          reachText(share.problem(), "the other waters alone are beyond the limit");
  }
  outcome.json["unplaced"] = unplacedArray(script.unplaced);
  return outcome;
}

} // namespace butte::cli
