#include "formula/formula_answer.h"

#include "solve/check.h"

namespace butte::core {

namespace {

/// The request with the water that the grower's own titration found; nothing where there is none to take.
std::optional<SolveRequest> withTitratedWater(const Given& given, AcidAnswer& acid) {
  if (!given.titration) return std::nullopt;
  SolveRequest request = given.request;
  takeTitration(*given.titration, request.water, acid);
  return acid.titration && given.titration->used ? std::optional(std::move(request)) : std::nullopt;
}

} // namespace

Result<Answer> compute(const Given& given) {
  Answer answer;
  const auto titratedRequest = withTitratedWater(given, answer.acid);
  const auto& request = titratedRequest ? *titratedRequest : given.request;
  auto solution = solve(request);
  if (!solution) return solution.problem();
  answer.solution = std::move(solution).value();
  answer.checked = checkAnswer(request, answer.solution) == AnswerFault::None;
  auto grams = answer.solution.grams;
  grams.resize(request.shelf.size()); // impossible: show the water alone
  answer.feed = mix(request.water, request.shelf, grams, request.volume);
  answer.water = mix(request.water, {}, {}, Volume::fromLitres(1));
  planAcid(given.acid, given.titration, answer.water, answer.feed, answer.acid);
  answer.stock = planStock(request.shelf, grams, request.volume, given.stock);
  return answer;
}

} // namespace butte::core
