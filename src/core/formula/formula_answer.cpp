#include "formula/formula_answer.h"

#include "base/last_result.h"
#include "solve/check.h"
#include "solve/choose_products.h"
#include "solve/mends.h"
#include "water/water_solutes.h"

namespace butte::core {

namespace {

/// The request with its water: what the sources came to, or what the grower's own titration found.
SolveRequest withWater(const Given& given, const Water& planned, AcidAnswer& acid) {
  SolveRequest request = given.request;
  request.water = planned;
  if (!given.titration) return request;
  Water titrated = planned;
  takeTitration(*given.titration, titrated, acid);
  if (acid.titration && given.titration->used) request.water = std::move(titrated);
  return request;
}

/// The tanks with the water that each is made up with.
StockPlan withMakeUp(StockPlan plan, const WaterPlanAnswer& waters) {
  for (auto& tank : plan.tanks) {
    const auto& from = tank.makeUp;
    if (from.from == MakeUp::From::Blend) tank.makeUpPerLitre = waterSolutes(waters.blend).perLitre;
    if (from.from == MakeUp::From::Part && from.part < waters.parts.size())
      tank.makeUpPerLitre = waterSolutes(waters.parts[from.part].treated).perLitre;
  }
  return plan;
}

/// The step each weight is read in: its own (a bag), else that of the scale it is weighed on.
std::vector<Mass> stepsOf(const Given& given, const std::vector<Mass>& grams) {
  std::vector<Mass> steps(grams.size());
  if (!given.scales.empty()) {
    for (const auto& step : weighPlan(given.request.shelf, grams, given.scales))
      steps[step.product] = step.step;
  }
  for (std::size_t j = 0; j < steps.size() && j < given.steps.size(); ++j) {
    if (given.steps[j] > Mass{}) steps[j] = given.steps[j];
  }
  // A weight below one step can't be read off that scale at all: it stays as computed, and the weighing plan
  // says that it wants a finer one. Rounded, it would be gone.
  for (std::size_t j = 0; j < steps.size(); ++j) {
    if (grams[j] < steps[j]) steps[j] = Mass{};
  }
  return steps;
}

/// The reasons of the weights as they are rounded: a row that the steps brought back needs none, one that
/// they moved out has these for its own.
void explainRounding(const SolveRequest& request, const std::vector<Mass>& steps, const NutrientAmounts& feed,
                     std::vector<Reason>& reasons) {
  std::erase_if(reasons, [&](const Reason& reason) {
    return std::any_of(request.rows.begin(), request.rows.end(), [&](const TargetRow& row) {
      return row.nutrient == reason.nutrient && row.contains(feed.of(row.nutrient));
    });
  });
  for (const auto& row : request.rows) {
    const bool said = std::any_of(reasons.begin(), reasons.end(),
                                  [&](const Reason& r) { return r.nutrient == row.nutrient; });
    if (said || row.contains(feed.of(row.nutrient))) continue;
    Reason reason;
    reason.kind = ReasonKind::ScaleSteps;
    reason.nutrient = row.nutrient;
    reason.has = feed.of(row.nutrient);
    reason.wants = row.milligramsPerLitre;
    reason.over = reason.has > reason.wants;
    for (std::size_t j = 0; j < steps.size(); ++j)
      if (steps[j] > Mass{} && request.shelf[j].composition.massFraction.of(row.nutrient) > 0)
        reason.products.push_back(request.shelf[j].id);
    reasons.push_back(std::move(reason));
  }
}

void roundWeights(const Given& given, const SolveRequest& request, Answer& answer) {
  auto& solution = answer.solution;
  if (!given.wholeSteps || solution.status == SolveStatus::Impossible) return;
  const auto steps = stepsOf(given, solution.grams);
  answer.rounded = roundTogether(request, solution.grams, steps);
  solution.grams = answer.rounded->grams;
  const auto feed = mix(request.water, request.shelf, solution.grams, request.volume).milligramsPerLitre;
  for (std::size_t i = 0; i < request.rows.size(); ++i)
    solution.deviationPercent[i] = request.rows[i].deviationPercent(feed.of(request.rows[i].nutrient));
  solution.status = offBands(request, solution.grams) == 0 ? SolveStatus::Met : SolveStatus::Best;
  explainRounding(request, steps, feed, solution.reasons);
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
    errors.weighing[step.product] = step.exact * (step.errorPercent / 100);
  return errors;
}

/// The weights of each vessel that salts are weighed into; without any, of the batch.
std::vector<std::vector<Mass>> vesselsOf(const std::vector<Mass>& grams, const Answer& answer) {
  if (answer.direct && *answer.direct) return {(*answer.direct)->grams};
  std::vector<std::vector<Mass>> out;
  for (const auto& tank : answer.stock.tanks) {
    out.emplace_back(grams.size());
    for (const auto& item : tank.items)
      out.back()[item.product] = item.mass;
  }
  if (out.empty()) out.push_back(grams);
  return out;
}

std::vector<std::optional<WeighStep>> worstWeighed(const Given& given, const std::vector<Mass>& grams,
                                                   const Answer& answer) {
  std::vector<std::optional<WeighStep>> out(grams.size());
  if (given.scales.empty()) return out;
  for (const auto& vessel : vesselsOf(grams, answer)) {
    for (const auto& step : weighPlan(given.request.shelf, vessel, given.scales)) {
      auto& worst = out[step.product];
      if (!worst || step.errorPercent > worst->errorPercent) worst = step;
    }
  }
  return out;
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
  auto waters = plannedWaters(given);
  if (!waters) return waters.problem();
  AcidAnswer acid;
  const auto chosen = chooseProducts(withWater(given, waters->water, acid), choice);
  if (!chosen) return chosen.problem();
  const auto source = given.request.water;
  given.request = chosen->request;
  given.request.water = source;
  return given;
}

Result<WaterPlanAnswer> plannedWaters(const Given& given) {
  if (!given.waterPlan) {
    WaterPlanAnswer plain;
    plain.blend = plain.water = given.request.water;
    return plain;
  }
  auto planned = planWater(*given.waterPlan);
  if (planned) return planned;
  auto problem = planned.problem();
  problem.where = problem.where.starts_with("water.") ? problem.where : "water." + problem.where;
  return problem;
}

Delivery deliveryOf(const Given& given, const Answer& answer) {
  auto grams = answer.solution.grams;
  grams.resize(given.request.shelf.size()); // impossible: the water alone
  return {given.request.shelf, grams, given.request.volume, answer.stock, answer.water};
}

RoundedTanks roundedTanks(const Given& given, const Answer& answer) {
  return roundTanksTogether(given.request, answer.solution.grams, answer.stock, given.scales);
}

Result<Answer> compute(const Given& given) {
  Answer answer;
  auto waters = plannedWaters(given);
  if (!waters) return waters.problem();
  answer.waters = std::move(waters).value();
  const auto request = withWater(given, answer.waters.water, answer.acid);
  auto solution = solve(request);
  if (!solution) return solution.problem();
  answer.solution = std::move(solution).value();
  answer.checked = checkAnswer(request, answer.solution) == AnswerFault::None;
  roundWeights(given, request, answer);
  auto grams = answer.solution.grams;
  grams.resize(request.shelf.size()); // impossible: show the water alone
  answer.feed = mix(request.water, request.shelf, grams, request.volume);
  answer.harmful = harmfulLevels(answer.feed.milligramsPerLitre, given.crop);
  answer.water = byItself(request.water);
  answer.contributions =
      contributionsTo(answer.waters.water.milligramsPerLitre, request.shelf, grams, request.volume);
  planAcid(given.acid, given.titration, answer.water, answer.feed, answer.acid);
  answer.errors = withWeighing(given, grams);
  answer.spread = elementSpread(request.water, request.shelf, grams, request.volume, answer.errors);
  if (given.direct)
    answer.direct = mixDirectly(answer.water, request.shelf, grams, request.volume, *given.direct);
  else
    answer.stock = planStock(request.shelf, grams, request.volume, withMakeUp(given.stock, answer.waters));
  answer.weighed = worstWeighed(given, grams, answer);
  if (!given.direct && !given.dosing.readings.empty())
    answer.readings = diagnosed(given.dosing.readings, deliveryOf(given, answer), answer.stock,
                                answer.water.conductivity, given.dosing.reservoir.volume);
  return answer;
}

} // namespace butte::core
