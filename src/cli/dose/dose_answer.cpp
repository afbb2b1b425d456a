#include "dose/dose_answer.h"

#include "formula/mix.h"

namespace butte::cli {

using namespace core;

DoseAnswer::DoseAnswer(const exchange::ScriptInput& given) : input(given), asked(given.dose) {
  const bool hasFormula = !input.given.request.shelf.empty() && (input.weights || input.hasTarget);
  if (hasFormula) planFormula();
}

void DoseAnswer::planFormula() {
  auto grams = weightsForTanks(input, warnings, unsolved);
  if (!grams) {
    problem = grams.problem();
    return;
  }
  if (unsolved) return;
  const auto& request = input.given.request;
  formula = Formula{std::move(grams).value(), {}, {}};
  formula->stock = planStock(request.shelf, formula->grams, request.volume, input.given.stock);
  formula->water = core::mix(request.water, {}, {}, Volume::fromLitres(1));
}

Delivery DoseAnswer::delivery() const {
  const auto& request = input.given.request;
  return {request.shelf, formula->grams, request.volume, formula->stock, formula->water};
}

bool DoseAnswer::need(bool there, const std::string& key, const char* why) {
  if (!there) problem = problemAt(ProblemCode::MissingKey, key, {why});
  return there;
}

void DoseAnswer::fail(Problem found, const std::string& part) {
  found.where = part + "." + found.where;
  problem = std::move(found);
}

void DoseAnswer::noAnswer(Problem found, const std::string& part) {
  const auto& where = found.where;
  const bool badInput = found.code != ProblemCode::OutOfRange || where == "volume_l" || where == "finished" ||
                        where == "present" || where == "last_water";
  if (badInput) return fail(std::move(found), part);
  found.where = part + "." + where;
  out.exitCode = 3;
  out.json["status"] = "impossible";
  out.json["reasons"] = Json::array({words::problemLine(found)});
}

} // namespace butte::cli
