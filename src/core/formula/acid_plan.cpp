#include "formula/acid_plan.h"

#include "base/last_result.h"
#include "water/water_solutes.h"

namespace butte::core {
namespace {

/// What a dose follows from.
struct Dosing {
  Solutes perLitre;
  double waterKgPerLitre;
  Temperature temperature;
  Solutes productPerGram;
  double targetPh;
  bool operator==(const Dosing&) const = default;
};

std::optional<AcidDose> doseFor(const Dosing& at) {
  Titrated solution{at.perLitre, at.waterKgPerLitre, {}};
  solution.conditions.temperature = at.temperature;
  const auto dose = doseToReach(solution, at.productPerGram, at.targetPh);
  return dose ? std::optional(*dose) : std::nullopt;
}

Dosing dosing(const MixResult& mix, const Solutes& productPerGram, double targetPh) {
  return {mix.solutesPerLitre, mix.waterKgPerLitre, mix.temperature, productPerGram, targetPh};
}

} // namespace

Titrated titrated(const MixResult& mix) {
  Titrated out{mix.solutesPerLitre, mix.waterKgPerLitre, {}};
  out.conditions.temperature = mix.temperature;
  return out;
}

void takeTitration(const OwnTitration& titration, Water& water, AcidAnswer& answer) {
  TitrationRequest request;
  request.waterPerLitre = waterSolutes(water).perLitre;
  request.temperature = temperatureOf(water);
  request.acidPerUnit = titration.acidPerMl;
  request.unknown = titration.unknown;
  request.readings = titration.readings;
  thread_local LastResult<TitrationRequest, Result<TitrationFit>> last;
  const auto& fit = last.of(request, fitTitration);
  if (!fit) {
    answer.titrationProblem = fit.problem();
    return;
  }
  answer.titration = *fit;
  if (!titration.used || !water.compositionKnown) return;
  water.alkalinityMeqPerL = fit->alkalinityEqPerLitre * 1000;
  water.ph = fit->initialPh;
}

void planAcid(const AcidPlan& plan, const std::optional<OwnTitration>& titration, const MixResult& water,
              const MixResult& feed, AcidAnswer& answer) {
  if (!plan.product) return;
  const bool sameBottle = titration && titration->used && titration->productId == plan.product->id;
  const double strength = sameBottle && answer.titration ? answer.titration->strengthFactor : 1;
  answer.productPerGram = plan.product->composition.solutesPerGram.scaled(strength);
  thread_local LastResult<Dosing, std::optional<AcidDose>> last;
  const auto toWater = dosing(water, answer.productPerGram, plan.targetPh);
  if (water.ph) answer.forWater = last.of(toWater, doseFor);
  if (feed.ph) answer.forFeed = doseFor(dosing(feed, answer.productPerGram, plan.targetPh));
}

} // namespace butte::core
