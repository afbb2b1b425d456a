#pragma once
#include "chem/ions.h"
#include "chem/nutrient.h"
#include "product/shelf_product.h"
#include "solution/solution_state.h"
#include "units/quantity.h"
#include "water/water.h"

#include <optional>
#include <vector>

namespace butte::core {

/// What a finished feed holds.
struct MixResult {
  NutrientAmounts milligramsPerLitre;
  IonBalance ions;
  double netAlkalinityMeqPerL = 0; ///< negative: free acid
  Solutes solutesPerLitre;
  double waterKgPerLitre = 1;
  Conductivity conductivity;       ///< at 25 degC
  Conductivity conductivityByRule; ///< cations / 10, beside it
  std::optional<double> cost;      ///< of the whole batch; unknown where a used product has no price
  Temperature temperature;         ///< of the pH and the solids: the water's, else 20 degC
  /// Closed to the air; nothing where the totals are beyond the chemistry: the conductivity is then by the
  /// rule.
  std::optional<SolutionState> state;
  std::optional<double> ph;      ///< as mixed; unknown with a water of unknown alkalinity
  std::optional<double> phInAir; ///< once it has stood open to the air long enough
  bool waterPhContradicts = false;
  /// Ions that labels leave unstated, either way: the conductivity and the pH are as unsure as that.
  double unstatedMeqPerLitre = 0;
  /// What these may add to the conductivity: an equivalent of the usual ions carries 70 to 80 S cm2
  /// (data/ions.csv).
  Conductivity unstatedConductivity() const {
    return Conductivity::fromMilliSiemensPerCm(0.075 * unstatedMeqPerLitre);
  }
  bool acidityKnown = true; ///< false: a product of it holds an acid that the chemistry does not know: no pH
};

/// Water with these products in it. `grams` runs parallel to `shelf` and stands for `volume` of finished
/// feed.
MixResult mix(const Water& water, const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams,
              Volume volume);

} // namespace butte::core
