#include "water/estimate.h"

#include "chem/ions.h"
#include "water/report_row.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

/// A figure and how far it may be off, in meq/L.
struct Guess {
  double middle = 0, plusMinus = 0;
};

// All common practice, ranges wide on purpose.
constexpr double meqPerMilliSiemens = 10;  // the growers' rule: cations in meq/L are ten times the EC
constexpr double doubtOfRule = 0.12;       // share; bicarbonate waters conduct less than chloride ones
constexpr double middlingTapMsPerCm = 0.5; // between soft and hard public supplies
constexpr double doubtOfTap = 0.7;         // share: 0.15 to 0.85 mS/cm
constexpr double calciumShare = 0.75, doubtOfCalciumShare = 0.15;  // of the hardness
constexpr double hardShare = 0.7, doubtOfHardShare = 0.3;          // hardness of all cations
constexpr double alkalineShare = 0.6, doubtOfAlkalineShare = 0.35; // alkalinity of all anions
constexpr double chlorideShare = 0.5, nitrateShare = 0.1;          // of the anions beside bicarbonate

bool known(const Water& water, Nutrient n) {
  return water.measured[static_cast<std::size_t>(n)];
}

void put(Water& water, Nutrient n, std::string_view key, const Guess& guess) {
  if (known(water, n)) return;
  const double perEquivalent = *milligramsPerMillimole(key) / reportCharge(key);
  water.milligramsPerLitre.add(n,
                               std::max(0.0, guess.middle) * perEquivalent - water.milligramsPerLitre.of(n));
  water.plusMinusMgPerL.add(n, guess.plusMinus * perEquivalent - water.plusMinusMgPerL.of(n));
}

/// All cations, from the meter or, without one, from what a tap may hold.
Guess allCations(const Water& water, const Guess& atLeast) {
  Guess out;
  if (water.conductivityMsPerCm) {
    out.middle = *water.conductivityMsPerCm * meqPerMilliSiemens;
    out.plusMinus = out.middle * doubtOfRule + 0.1;
  } else {
    out.middle = middlingTapMsPerCm * meqPerMilliSiemens;
    out.plusMinus = out.middle * doubtOfTap;
  }
  out.middle = std::max(out.middle, atLeast.middle);
  return out;
}

void estimateHardness(Water& water, const Guess& all, const IonBalance& ions) {
  const bool calcium = known(water, Nutrient::Ca), magnesium = known(water, Nutrient::Mg);
  if (calcium && magnesium) return;
  const double stated = ions.of(Ion::Ca) + ions.of(Ion::Mg);
  // A stated hardness has already been split (normaliseWater); only its range is missing.
  Guess hardness{stated, 0.03 * stated};
  const bool open = std::find(water.remarks.begin(), water.remarks.end(),
                              WaterRemark::HardnessSplitAssumed) == water.remarks.end();
  if (open) {
    const double rest = std::max(0.0, all.middle - stated);
    hardness = {stated + hardShare * rest, doubtOfHardShare * rest + hardShare * all.plusMinus};
  }
  if (calcium)
    return put(water, Nutrient::Mg, "Mg",
               {std::max(0.0, hardness.middle - ions.of(Ion::Ca)), hardness.plusMinus});
  if (magnesium)
    return put(water, Nutrient::Ca, "Ca",
               {std::max(0.0, hardness.middle - ions.of(Ion::Mg)), hardness.plusMinus});
  const double split = doubtOfCalciumShare * hardness.middle;
  put(water, Nutrient::Ca, "Ca", {calciumShare * hardness.middle, split + calciumShare * hardness.plusMinus});
  put(water, Nutrient::Mg, "Mg",
      {(1 - calciumShare) * hardness.middle, split + (1 - calciumShare) * hardness.plusMinus});
}

} // namespace

void estimateRest(Water& water) {
  auto ions = ionBalance(water.milligramsPerLitre, 0);
  const auto all =
      allCations(water, {std::max(ions.cationsMeqPerL(), water.alkalinityMeqPerL.value_or(0)), 0});
  estimateHardness(water, all, ions);
  ions = ionBalance(water.milligramsPerLitre, 0);
  const double hardness = ions.of(Ion::Ca) + ions.of(Ion::Mg);
  const double others = ions.of(Ion::K) + ions.of(Ion::NH4);
  put(water, Nutrient::Na, "Na",
      {std::max(0.0, all.middle - hardness - others), all.plusMinus + 0.1 * hardness});
  if (!water.alkalinityMeqPerL) {
    water.alkalinityMeqPerL = alkalineShare * all.middle;
    water.alkalinityPlusMinusMeqPerL = doubtOfAlkalineShare * all.middle + alkalineShare * all.plusMinus;
  }
  const double rest = std::max(0.0, all.middle - *water.alkalinityMeqPerL);
  // Anything from none to all of the rest may be the one or the other.
  const double doubt = all.plusMinus + water.alkalinityPlusMinusMeqPerL;
  put(water, Nutrient::Cl, "Cl", {chlorideShare * rest, 0.8 * chlorideShare * rest + 0.5 * doubt});
  put(water, Nutrient::NNitrate, "N_NO3", {nitrateShare * rest, nitrateShare * rest + 0.1 * doubt});
  put(water, Nutrient::S, "S",
      {(1 - chlorideShare - nitrateShare) * rest,
       0.8 * (1 - chlorideShare - nitrateShare) * rest + 0.4 * doubt});
  water.compositionKnown = true;
  std::erase(water.remarks, WaterRemark::OnlyConductivity);
  std::erase(water.remarks, WaterRemark::CompositionUnknown);
  std::erase(water.remarks, WaterRemark::Pure);
  water.remarks.push_back(WaterRemark::Estimated);
}

} // namespace butte::core
