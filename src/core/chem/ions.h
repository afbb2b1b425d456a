#pragma once
#include "chem/nutrient.h"

#include <array>
#include <string_view>

namespace butte::core {

/// The ions of a feed, as a report lists them. Trace elements are left out; phosphorus counts as H2PO4 (one
/// charge); HCO3 is what alkalinity is left after acid, and acid beyond it stands as H.
enum class Ion { NO3, NH4, K, Ca, Mg, Na, H2PO4, SO4, Cl, HCO3, H };
inline constexpr std::size_t ionCount = 11;
inline constexpr std::array<Ion, ionCount> allIons{Ion::NO3,   Ion::NH4, Ion::K,  Ion::Ca,   Ion::Mg, Ion::Na,
                                                   Ion::H2PO4, Ion::SO4, Ion::Cl, Ion::HCO3, Ion::H};

std::string_view ionKey(Ion ion);
/// Signed charge number: Ca +2, NO3 -1.
int chargeNumber(Ion ion);

struct IonBalance {
  std::array<double, ionCount> meqPerL{}; ///< all positive
  double of(Ion ion) const { return meqPerL[static_cast<std::size_t>(ion)]; }
  double cationsMeqPerL() const;
  double anionsMeqPerL() const;
  bool operator==(const IonBalance&) const = default;
};

/// Ions from elements in mg/L and the net alkalinity in meq/L (negative: free acid).
IonBalance ionBalance(const NutrientAmounts& milligramsPerLitre, double netAlkalinityMeqPerL);

} // namespace butte::core
