#include "formula/acid_plan.h"

#include "water/water_solutes.h"

namespace butte::core {
namespace {

std::optional<AcidDose> doseFor(const MixResult& mix, const Solutes& product, double targetPh) {
  if (!mix.ph) return std::nullopt;
  const auto dose = doseToReach(titrated(mix), product, targetPh);
  return dose ? std::optional(*dose) : std::nullopt;
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
  const auto fit = fitTitration(request);
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
  answer.forWater = doseFor(water, answer.productPerGram, plan.targetPh);
  answer.forFeed = doseFor(feed, answer.productPerGram, plan.targetPh);
}

} // namespace butte::core
