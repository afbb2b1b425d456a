#include "formula/formula_answer.h"

#include "solve/check.h"

namespace butte::core {

Result<Answer> compute(const Given& given) {
  const auto& request = given.request;
  auto solution = solve(request);
  if (!solution) return solution.problem();
  Answer answer;
  answer.solution = std::move(solution).value();
  answer.checked = checkAnswer(request, answer.solution) == AnswerFault::None;
  auto grams = answer.solution.grams;
  grams.resize(request.shelf.size()); // impossible: show the water alone
  answer.feed = mix(request.water, request.shelf, grams, request.volume);
  answer.water = mix(request.water, {}, {}, Volume::fromLitres(1));
  answer.stock = planStock(request.shelf, grams, request.volume, given.stock);
  return answer;
}

} // namespace butte::core
