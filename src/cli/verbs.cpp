#include "verbs.h"

#include "base/decimal.h"
#include "quantity/typed_quantity.h"
#include "units/convert.h"
#include "verb_json.h"
#include "words.h"

#include <cmath>

namespace butte::cli {

using namespace core;
using exchange::ScriptInput;

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

Result<Outcome> convertTyped(const std::string& text, const std::string& to, const std::string& substance) {
  const auto read = reading::typedQuantity(text, to, substance);
  if (!read) {
    auto problem = read.problem();
    problem.where = "TEXT";
    return problem;
  }
  if (!std::isfinite(read->value)) return problemAt(ProblemCode::OutOfRange, "TEXT", {text, "smaller"});
  Outcome outcome;
  outcome.json["value"] = read->value;
  return outcome;
}

Result<Outcome> mix(const ScriptInput& input) {
  if (!input.weights)
    return problemAt(ProblemCode::MissingKey, "weights_g", {"mix needs the grams of each product"});
  const auto& request = input.given.request;
  Outcome outcome;
  const auto feed = core::mix(request.water, request.shelf, weightsOf(input), request.volume);
  addMix(outcome.json, feed);
  if (const auto problem = addDirect(outcome.json, input.given, request, weightsOf(input))) return *problem;
  outcome.json["warnings"] = inputWarnings(input);
  addFeedWarnings(outcome.json["warnings"], feed);
  return outcome;
}

} // namespace butte::cli
