#include "verbs.h"

#include "base/decimal.h"
#include "stock/salt_solids.h"
#include "units/convert.h"
#include "verb_json.h"
#include "words.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace butte::cli {
namespace {

using namespace core;
using exchange::ScriptInput;

/// A salt of the tank that crystallises, under its product's id.
void addFallen(Json& solids, const TankContent& content, const std::string& id, std::size_t salt) {
  for (const auto& solid : content.solids) {
    if (solid.salt == salt && solid.gramsPerLitre > 0)
      solids.push_back({{"name", id}, {"g_per_l", solid.gramsPerLitre}});
  }
}

Json tankObject(const ScriptInput& input, const TankContent& content) {
  Json grams = Json::object(), strengths = Json::object(), saturation = Json::object(),
       solids = Json::array();
  std::set<std::size_t> ownSalts;
  for (const auto& item : content.items) {
    const auto& id = input.given.request.shelf[item.product].id;
    const double gPerL = item.strength.gramsPerLitre();
    grams[id] = item.mass.grams();
    strengths[id] = gPerL;
    const bool finite = item.saturation && std::isfinite(*item.saturation);
    saturation[id] = finite ? Json(*item.saturation) : Json(nullptr);
    const auto& formula = input.given.request.shelf[item.product].composition.formula;
    const auto salt = formula ? saltSolidOf(*formula) : std::nullopt;
    if (salt && ownSalts.insert(*salt).second) addFallen(solids, content, id, *salt);
    if (!salt && item.saturation && *item.saturation > 1)
      solids.push_back({{"name", id}, {"g_per_l", finite ? gPerL * (1 - 1 / *item.saturation) : gPerL}});
  }
  for (const auto& solid : content.solids) {
    if (solid.salt && ownSalts.contains(*solid.salt)) continue;
    saturation[solid.name] = solid.saturation;
    if (solid.gramsPerLitre > 0) solids.push_back({{"name", solid.name}, {"g_per_l", solid.gramsPerLitre}});
  }
  return Json{{"g", grams},
              {"g_per_l", strengths},
              {"saturation", saturation},
              {"solids", solids},
              {"ph", optionalNumber(content.ph)},
              {"max_factor", optionalNumber(content.maxFactor)}};
}

} // namespace

Result<Outcome> composition(const std::string& formula) {
  const auto parsed = parseFormula(formula);
  if (!parsed) return parsed.problem();
  Outcome outcome;
  outcome.json["molar_mass_g_per_mol"] = parsed->molarMassGPerMol;
  outcome.json["mass_fraction"] = nutrientObject(massFractions(*parsed));
  return outcome;
}

Result<Outcome> convert(const std::string& value, const std::string& from, const std::string& to,
                        const std::string& substance) {
  const auto number = parseDecimal(value);
  if (!number) return problemAt(ProblemCode::NotANumber, "VALUE", {value});
  const auto converted = core::convert(*number, from, to, substance);
  if (!converted) return converted.problem();
  if (!std::isfinite(*converted)) return problemAt(ProblemCode::OutOfRange, "VALUE", {value, "smaller"});
  Outcome outcome;
  outcome.json["value"] = *converted;
  return outcome;
}

Result<Outcome> mix(const ScriptInput& input) {
  if (!input.weights)
    return problemAt(ProblemCode::MissingKey, "weights_g", {"mix needs the grams of each product"});
  const auto& request = input.given.request;
  Outcome outcome;
  addMix(outcome.json, core::mix(request.water, request.shelf, weightsOf(input), request.volume));
  outcome.json["warnings"] = inputWarnings(input);
  return outcome;
}

Result<Outcome> stock(const ScriptInput& input) {
  const auto& request = input.given.request;
  std::vector<Mass> grams;
  Outcome outcome;
  Json warnings;
  if (input.hasTarget) {
    const auto answer = core::solve(request);
    if (!answer) return answer.problem();
    if (answer->status == SolveStatus::Impossible) return impossible(input, *answer);
    grams = answer->grams;
    warnings = solveWarnings(input, request, *answer);
  } else if (input.weights) {
    grams = weightsOf(input);
    warnings = inputWarnings(input);
  } else {
    return problemAt(ProblemCode::MissingKey, "weights_g",
                     {"stock needs weights_g, or target_mg_per_l to solve"});
  }
  const auto plan = planStock(request.shelf, grams, request.volume, input.given.stock);
  Json tanks = Json::object();
  for (const auto& content : plan.tanks)
    tanks[content.tank.name] = tankObject(input, content);
  for (const auto& notice : plan.notices)
    warnings.push_back(warning(words::code(notice.kind), words::stockNoticeText(notice)));
  outcome.json["tanks"] = tanks;
  outcome.json["dose_ml_per_l"] = plan.doseMlPerLitre;
  outcome.json["weights_g"] = weightsObject(request, grams);
  outcome.json["warnings"] = warnings;
  return outcome;
}

} // namespace butte::cli
