#include "chem/ions.h"

#include "chem/atomic_weights.h"

#include <cstdlib>

namespace butte::core {
namespace {

struct IonInfo {
  std::string_view key;
  int charge;
  Nutrient nutrient; ///< meaningless for HCO3 and H
};
// Charges by definition; P as H2PO4, S as SO4 (docs/chemistry.md).
constexpr std::array<IonInfo, ionCount> infos{{{"NO3", -1, Nutrient::NNitrate},
                                               {"NH4", 1, Nutrient::NAmmonium},
                                               {"K", 1, Nutrient::K},
                                               {"Ca", 2, Nutrient::Ca},
                                               {"Mg", 2, Nutrient::Mg},
                                               {"Na", 1, Nutrient::Na},
                                               {"H2PO4", -1, Nutrient::P},
                                               {"SO4", -2, Nutrient::S},
                                               {"Cl", -1, Nutrient::Cl},
                                               {"HCO3", -1, Nutrient::N},
                                               {"H", 1, Nutrient::N}}};

const IonInfo& info(Ion ion) {
  return infos[static_cast<std::size_t>(ion)];
}

} // namespace

std::string_view ionKey(Ion ion) {
  return info(ion).key;
}
int chargeNumber(Ion ion) {
  return info(ion).charge;
}

double IonBalance::cationsMeqPerL() const {
  double sum = 0;
  for (const auto ion : allIons) {
    if (chargeNumber(ion) > 0) sum += of(ion);
  }
  return sum;
}

double IonBalance::anionsMeqPerL() const {
  double sum = 0;
  for (const auto ion : allIons) {
    if (chargeNumber(ion) < 0) sum += of(ion);
  }
  return sum;
}

IonBalance ionBalance(const NutrientAmounts& milligramsPerLitre, double netAlkalinityMeqPerL) {
  static const auto meqPerMilligram = [] {
    std::array<double, ionCount> factors{};
    for (const auto ion : allIons) {
      if (ion == Ion::HCO3 || ion == Ion::H) continue;
      factors[static_cast<std::size_t>(ion)] =
          std::abs(chargeNumber(ion)) / *atomicWeight(elementSymbol(info(ion).nutrient));
    }
    return factors;
  }();
  IonBalance balance;
  for (const auto ion : allIons) {
    const auto i = static_cast<std::size_t>(ion);
    if (ion == Ion::HCO3)
      balance.meqPerL[i] = netAlkalinityMeqPerL > 0 ? netAlkalinityMeqPerL : 0;
    else if (ion == Ion::H)
      balance.meqPerL[i] = netAlkalinityMeqPerL < 0 ? -netAlkalinityMeqPerL : 0;
    else
      balance.meqPerL[i] = milligramsPerLitre.of(info(ion).nutrient) * meqPerMilligram[i];
  }
  return balance;
}

} // namespace butte::core
