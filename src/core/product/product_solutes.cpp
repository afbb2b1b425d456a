#include "product/product_solutes.h"

#include "chem/atomic_weights.h"
#include "product/role.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

struct Carrier {
  Nutrient nutrient;
  Component component;
};
constexpr std::array<Carrier, 16> elementCarriers{{{Nutrient::NNitrate, Component::NO3},
                                                   {Nutrient::NAmmonium, Component::NH4},
                                                   {Nutrient::P, Component::Phosphate},
                                                   {Nutrient::K, Component::K},
                                                   {Nutrient::Ca, Component::Ca},
                                                   {Nutrient::Mg, Component::Mg},
                                                   {Nutrient::S, Component::SO4},
                                                   {Nutrient::Fe, Component::Fe},
                                                   {Nutrient::Mn, Component::Mn},
                                                   {Nutrient::Zn, Component::Zn},
                                                   {Nutrient::B, Component::Boron},
                                                   {Nutrient::Cu, Component::Cu},
                                                   {Nutrient::Mo, Component::Molybdate},
                                                   {Nutrient::Si, Component::Silicon},
                                                   {Nutrient::Na, Component::Na},
                                                   {Nutrient::Cl, Component::Cl}}};
constexpr std::array<Component, 4> chelatedMetals{Component::Fe, Component::Mn, Component::Zn, Component::Cu};

/// Moves the metals into their chelate. Its charge is what the counter-ions in the formula balance.
void chelate(Solutes& solutes, double counterIonsPerMetal) {
  const auto charge = std::clamp(std::lround(counterIonsPerMetal), 1L, 3L);
  for (const auto metal : chelatedMetals) {
    solutes.chelateMol[static_cast<std::size_t>(charge - 1)] += solutes.of(metal);
    solutes.of(metal) = 0;
  }
}

} // namespace

Solutes solutesOfNutrients(const NutrientAmounts& grams) {
  static const auto molPerGram = [] {
    std::array<double, elementCarriers.size()> factors{};
    for (std::size_t i = 0; i < elementCarriers.size(); ++i)
      factors[i] = 1 / *atomicWeight(elementSymbol(elementCarriers[i].nutrient));
    return factors;
  }();
  Solutes out;
  for (std::size_t i = 0; i < elementCarriers.size(); ++i)
    out.of(elementCarriers[i].component) += grams.of(elementCarriers[i].nutrient) * molPerGram[i];
  return out;
}

Solutes solutesOfProduct(const NutrientAmounts& massFraction, double alkalinityMeqPerGram,
                         const ChemicalFormula& formula, double formulaMolPerGram) {
  Solutes out = solutesOfNutrients(massFraction);
  out.alkalinityEq = alkalinityMeqPerGram / 1000;
  out.of(Component::Carbonate) = formula.carbonateCount * formulaMolPerGram;
  if (const auto part = organicPartOf(formula)) {
    out.of(part->acid == OrganicAcid::Citric ? Component::Citrate : Component::Acetate) +=
        part->perMole * formulaMolPerGram;
    // The whole acid is what alkalinity is counted against: each cation in the place of its hydrogen adds
    // one.
    out.alkalinityEq = (out.of(Component::Na) + out.of(Component::K) + out.of(Component::NH4) +
                        2 * (out.of(Component::Ca) + out.of(Component::Mg)));
  }
  if (roleOf(formula) == ProductRole::Chelate) {
    const double metals =
        formula.count("Fe") + formula.count("Mn") + formula.count("Zn") + formula.count("Cu");
    chelate(out, (formula.count("Na") + formula.count("K") + formula.ammoniumCount) / metals);
  }
  return out;
}

Solutes solutesOfLabel(const NutrientAmounts& massFraction) {
  Solutes out = solutesOfNutrients(massFraction);
  out.chelateMol[0] += out.of(Component::Fe);
  out.of(Component::Fe) = 0;
  return out;
}

} // namespace butte::core
