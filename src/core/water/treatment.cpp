#include "water/treatment.h"

#include "base/decimal.h"
#include "chem/ions.h"
#include "solution/acid_dose.h"
#include "units/constants.h"
#include "water/water_solutes.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double sodiumMgPerMmol = 22.99; // IUPAC abridged atomic weight

/// How much more (or less) passes than of sodium and chloride. Usual thin-film membranes at neutral pH, from
/// memory of makers' data; boron is an uncharged acid there and passes by about half.
double passageAgainstSodium(Nutrient n) {
  switch (n) {
  case Nutrient::Ca:
  case Nutrient::Mg:
  case Nutrient::Fe:
  case Nutrient::Mn:
  case Nutrient::Zn:
  case Nutrient::Cu:
    return 0.3;
  case Nutrient::S:
  case Nutrient::P:
    return 0.2;
  case Nutrient::NNitrate:
    return 2.0;
  case Nutrient::NAmmonium:
    return 1.3;
  case Nutrient::NUrea:
    return 10;
  case Nutrient::B:
    return 16;
  case Nutrient::Si:
    return 0.7;
  default:
    return 1;
  }
}

/// Dissolved carbon dioxide (mol/L) of a water: total carbonate less what its alkalinity holds as
/// bicarbonate. Good below pH 8.3; above there is none to speak of.
double carbonDioxide(const Water& water) {
  if (!water.ph) return 0;
  const auto solutes = waterSolutes(water).perLitre;
  return std::max(0.0, solutes.of(Component::Carbonate) - std::max(0.0, solutes.alkalinityEq));
}

/// pH of a water with this much carbonate beside its alkalinity.
std::optional<double> phWith(const Water& water, double carbonateMol) {
  Water plain = water;
  plain.ph.reset();
  auto solutes = waterSolutes(plain).perLitre;
  solutes.of(Component::Carbonate) = carbonateMol;
  EquilibriumConditions conditions;
  conditions.temperature = temperatureOf(water);
  const auto settled = equilibrate(solutes.scaled(1 / constant::freshWaterKgPerLitre), conditions);
  return settled ? std::optional(settled->ph) : std::nullopt;
}

double unbalanced(const Water& water) {
  const auto ions = ionBalance(water.milligramsPerLitre, water.alkalinityMeqPerL.value_or(0));
  return ions.cationsMeqPerL() - ions.anionsMeqPerL();
}

} // namespace

double passage(Nutrient n, const ReverseOsmosis& plant) {
  if (const auto own = plant.rejectionOf.find(n); own != plant.rejectionOf.end())
    return std::clamp(1 - own->second / 100, 0.0, 1.0);
  return std::clamp((1 - plant.rejectionPercent / 100) * passageAgainstSodium(n), 0.0, 1.0);
}

double Permeate::passedOf(const Water& feed, Nutrient n) const {
  const double before = feed.milligramsPerLitre.of(n);
  return before > 0 ? water.milligramsPerLitre.of(n) / before : 0;
}

Permeate throughMembrane(const Water& feed, const ReverseOsmosis& plant) {
  Permeate out;
  out.water = out.concentrate = feed;
  out.water.milligramsPerLitre = out.water.plusMinusMgPerL = {};
  out.concentrate.milligramsPerLitre = {};
  const double recovery = std::clamp(plant.recoveryPercent / 100, 0.01, 0.99);
  const double salts = std::clamp(1 - plant.rejectionPercent / 100, 0.0, 1.0);
  out.wasteLitresPerLitre = (1 - recovery) / recovery;
  const auto rest = [&](double before, double behind) {
    return (before - recovery * behind) / (1 - recovery);
  };
  for (const auto n : allNutrients) {
    if (n == Nutrient::N) continue;
    const double share = passage(n, plant), before = feed.milligramsPerLitre.of(n);
    out.water.milligramsPerLitre.add(n, before * share);
    out.water.plusMinusMgPerL.add(n, feed.plusMinusMgPerL.of(n) * share);
    out.concentrate.milligramsPerLitre.add(n, rest(before, before * share));
  }
  const auto scale = [&](std::optional<double>& behind, std::optional<double>& waste) {
    if (!behind) return;
    const double before = *behind;
    behind = before * salts;
    waste = rest(before, *behind);
  };
  scale(out.water.conductivityMsPerCm, out.concentrate.conductivityMsPerCm);
  for (std::size_t i = 0; i < waterExtraCount; ++i) {
    const bool passesWhole = static_cast<WaterExtra>(i) == WaterExtra::FreeChlorine ||
                             static_cast<WaterExtra>(i) == WaterExtra::Chloramine;
    if (!passesWhole) scale(out.water.extras[i], out.concentrate.extras[i]);
  }
  out.water.alkalinityPlusMinusMeqPerL *= salts;
  if (!feed.alkalinityMeqPerL) return out;
  // What the report left unbalanced passes like salt; bicarbonate closes the rest.
  out.water.alkalinityMeqPerL = 0.0;
  const double open = unbalanced(out.water) - salts * unbalanced(feed);
  out.water.alkalinityMeqPerL = std::max(0.0, open);
  if (open < 0) {
    // Nitrate passes best, and takes sodium along where no bicarbonate is left to make room.
    out.water.milligramsPerLitre.add(Nutrient::Na, -open * sodiumMgPerMmol);
    out.concentrate.milligramsPerLitre.add(
        Nutrient::Na,
        rest(feed.milligramsPerLitre.of(Nutrient::Na), out.water.milligramsPerLitre.of(Nutrient::Na)) -
            out.concentrate.milligramsPerLitre.of(Nutrient::Na));
  }
  out.concentrate.alkalinityMeqPerL = rest(*feed.alkalinityMeqPerL, *out.water.alkalinityMeqPerL);
  const double dissolved = carbonDioxide(feed);
  out.water.ph = phWith(out.water, *out.water.alkalinityMeqPerL / 1000 + dissolved);
  out.concentrate.ph = phWith(out.concentrate, *out.concentrate.alkalinityMeqPerL / 1000 + dissolved);
  return out;
}

Water softened(const Water& feed, double hardnessLeftMeqPerL) {
  Water out = feed;
  const auto before = ionBalance(feed.milligramsPerLitre, 0);
  const double hardness = before.of(Ion::Ca) + before.of(Ion::Mg);
  if (hardness <= hardnessLeftMeqPerL) return out;
  const double share = hardness > 0 ? hardnessLeftMeqPerL / hardness : 0;
  const double calcium = feed.milligramsPerLitre.of(Nutrient::Ca),
               magnesium = feed.milligramsPerLitre.of(Nutrient::Mg);
  out.milligramsPerLitre.add(Nutrient::Ca, calcium * (share - 1));
  out.milligramsPerLitre.add(Nutrient::Mg, magnesium * (share - 1));
  out.milligramsPerLitre.add(Nutrient::Na, (hardness - hardnessLeftMeqPerL) * sodiumMgPerMmol);
  out.conductivityMsPerCm.reset(); // sodium conducts otherwise than calcium: the old reading no longer holds
  return out;
}

Result<Acidified> acidified(const Water& feed, const Composition& product, double alkalinityLeftMeqPerL) {
  if (!feed.alkalinityMeqPerL) return problemAt(ProblemCode::NotDeterminable, "alkalinity");
  const double away = *feed.alkalinityMeqPerL - alkalinityLeftMeqPerL;
  if (away < 0 || (away > 0 && product.alkalinityMeqPerGram >= 0))
    return problemAt(ProblemCode::CannotReach, "alkalinity_left", {decimalText(alkalinityLeftMeqPerL)});
  Acidified out;
  out.water = feed;
  if (away == 0) return out;
  out.gramsPerLitre = away / -product.alkalinityMeqPerGram;
  const auto solutes = waterSolutes(feed).perLitre;
  out.water.milligramsPerLitre.addScaled(product.massFraction, out.gramsPerLitre * 1000);
  out.water.alkalinityMeqPerL = alkalinityLeftMeqPerL;
  out.water.conductivityMsPerCm.reset(); // the pen read the raw water
  if (feed.ph) out.water.ph = phWith(out.water, solutes.of(Component::Carbonate));
  return out;
}

} // namespace butte::core
