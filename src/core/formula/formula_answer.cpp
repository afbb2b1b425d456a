#include "formula/formula_answer.h"

#include "base/last_result.h"
#include "solve/check.h"
#include "solve/choose_products.h"
#include "solve/mends.h"

namespace butte::core {

namespace {

/// The request with the water that the grower's own titration found; nothing where there is none to take.
std::optional<SolveRequest> withTitratedWater(const Given& given, AcidAnswer& acid) {
  if (!given.titration) return std::nullopt;
  SolveRequest request = given.request;
  takeTitration(*given.titration, request.water, acid);
  return acid.titration && given.titration->used ? std::optional(std::move(request)) : std::nullopt;
}

/// The step each weight is read in: its own (a bag), else that of the scale it is weighed on.
std::vector<Mass> stepsOf(const Given& given, const std::vector<Mass>& grams) {
  std::vector<Mass> steps(grams.size());
  if (!given.scales.empty()) {
    for (const auto& step : weighPlan(given.request.shelf, grams, given.scales))
      steps[step.product] = given.scales[step.scale].readability;
  }
  for (std::size_t j = 0; j < steps.size() && j < given.steps.size(); ++j) {
    if (given.steps[j] > Mass{}) steps[j] = given.steps[j];
  }
  return steps;
}

void roundWeights(const Given& given, const SolveRequest& request, Answer& answer) {
  auto& solution = answer.solution;
  if (!given.wholeSteps || solution.status == SolveStatus::Impossible) return;
  answer.rounded = roundTogether(request, solution.grams, stepsOf(given, solution.grams));
  solution.grams = answer.rounded->grams;
  const auto feed = mix(request.water, request.shelf, solution.grams, request.volume).milligramsPerLitre;
  for (std::size_t i = 0; i < request.rows.size(); ++i)
    solution.deviationPercent[i] = request.rows[i].deviationPercent(feed.of(request.rows[i].nutrient));
  solution.status = offBands(request, solution.grams) == 0 ? SolveStatus::Met : SolveStatus::Best;
}

const MixResult& byItself(const Water& water) {
  thread_local LastResult<Water, MixResult> last;
  return last.of(water, [](const Water& w) { return mix(w, {}, {}, Volume::fromLitres(1)); });
}

/// Half a step of the scale for every load.
ErrorLimits withWeighing(const Given& given, const std::vector<Mass>& grams) {
  ErrorLimits errors = given.errors;
  errors.weighing.assign(grams.size(), Mass{});
  if (given.scales.empty()) return errors;
  for (const auto& step : weighPlan(given.request.shelf, grams, given.scales))
    errors.weighing[step.product] = given.scales[step.scale].readability * (0.5 * step.loads);
  return errors;
}

} // namespace

ErrorLimits usualErrors(const std::vector<ShelfProduct>& shelf) {
  ErrorLimits errors;
  for (const auto& p : shelf) {
    errors.contentPercent.push_back(usualContentPercent(p));
    errors.moisturePercent.push_back(usualMoisturePercent(p));
  }
  return errors;
}

Result<Given> withFewProducts(Given given) {
  if (!given.atMostProducts) return given;
  ProductChoice choice;
  choice.atMost = given.atMostProducts;
  const auto chosen = chooseProducts(given.request, choice);
  if (!chosen) return chosen.problem();
  given.request = chosen->request;
  return given;
}

Result<Answer> compute(const Given& given) {
  Answer answer;
  const auto titratedRequest = withTitratedWater(given, answer.acid);
  const auto& request = titratedRequest ? *titratedRequest : given.request;
  auto solution = solve(request);
  if (!solution) return solution.problem();
  answer.solution = std::move(solution).value();
  answer.checked = checkAnswer(request, answer.solution) == AnswerFault::None;
  roundWeights(given, request, answer);
  auto grams = answer.solution.grams;
  grams.resize(request.shelf.size()); // impossible: show the water alone
  answer.feed = mix(request.water, request.shelf, grams, request.volume);
  answer.water = byItself(request.water);
  planAcid(given.acid, given.titration, answer.water, answer.feed, answer.acid);
  answer.errors = withWeighing(given, grams);
  answer.spread = elementSpread(request.water, request.shelf, grams, request.volume, answer.errors);
  answer.stock = planStock(request.shelf, grams, request.volume, given.stock);
  return answer;
}

} // namespace butte::core
