#pragma once
#include "product/catalogue.h"
#include "target/target.h"
#include "water/water.h"

#include <string>
#include <vector>

namespace butte::core {

/// What one acid would mean for a water.
struct AcidChoice {
  const CatalogueProduct* product = nullptr;
  double gramsPerLitre = 0;       ///< as sold, to leave the alkalinity asked for
  double millilitresPerLitre = 0; ///< liquids only
  NutrientAmounts bringsMgPerL;
  /// The element that it brings most of against the target: its share of the target's row; 0 where none.
  Nutrient mostOf = Nutrient::N;
  double shareOfTarget = 0;
  bool weak = false; ///< eaten by microbes, so that the pH comes back (citric, acetic)
};

/// The shipped acids side by side, each bringing the water down to this alkalinity. None where the water's
/// alkalinity is not known or stands lower already.
std::vector<AcidChoice> acidChoices(const Water& water, double alkalinityLeftMeqPerL,
                                    const std::vector<TargetRow>& target);

} // namespace butte::core
