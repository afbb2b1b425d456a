#include "product/role.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <string_view>

namespace butte::core {
namespace {

double organicCarbon(const ChemicalFormula& f) {
  return f.count("C") - f.carbonateCount - f.ureaNitrogenCount / 2;
}

bool hasChelatedMetal(const ChemicalFormula& f) {
  const double metals = f.count("Fe") + f.count("Mn") + f.count("Zn") + f.count("Cu");
  return metals > 0 && organicCarbon(f) > 0.5;
}

/// Charges of the cations that a salt of an organic acid may hold in the place of its hydrogen.
double saltCations(const ChemicalFormula& f) {
  return f.count("Na") + f.count("K") + f.ammoniumCount + 2 * (f.count("Ca") + f.count("Mg"));
}

/// Equivalents of acid per mole up to pH 5.8. Source: pKa of citric (3.13, 4.76, 6.40) and acetic acid
/// (4.76), CRC Handbook, from memory; 2.120 and 0.917 computed from them at ionic strength 0.
double organicAcidEquivalents(const OrganicPart& part) {
  return part.perMole * (part.acid == OrganicAcid::Citric ? 2.120 : 0.917);
}

} // namespace

std::optional<OrganicPart> organicPartOf(const ChemicalFormula& f) {
  for (const auto& [symbol, count] : f.atoms) {
    constexpr std::array<std::string_view, 8> known{"C", "H", "O", "N", "Na", "K", "Ca", "Mg"};
    if (std::find(known.begin(), known.end(), symbol) == known.end()) return std::nullopt;
  }
  const double carbon = organicCarbon(f), oxygen = f.count("O") - f.hydrateWaterCount;
  const double acidHydrogen = f.count("H") - 2 * f.hydrateWaterCount - 4 * f.ammoniumCount;
  const double hydrogen = acidHydrogen + saltCations(f); // as the whole acid would have it
  if (carbon != f.count("C") || f.count("N") != f.ammoniumCount || carbon <= 0) return std::nullopt;
  const auto isMade = [&](double ofCarbon, double ofHydrogen, double ofOxygen) {
    // Sugars and lactic acid have the proportions of acetic acid: parts must be whole, and a whole acid one.
    const double parts = carbon / ofCarbon;
    if (std::abs(parts - std::round(parts)) > 1e-9 || (saltCations(f) == 0 && parts != 1)) return false;
    return std::abs(hydrogen - parts * ofHydrogen) < 1e-9 && std::abs(oxygen - parts * ofOxygen) < 1e-9;
  };
  if (isMade(6, 8, 7)) return OrganicPart{OrganicAcid::Citric, carbon / 6};
  if (isMade(2, 4, 2)) return OrganicPart{OrganicAcid::Acetic, carbon / 2};
  return std::nullopt;
}

bool isAcidityKnown(const ChemicalFormula& f) {
  if (hasChelatedMetal(f) || organicPartOf(f)) return true;
  const double boundOtherwise = f.count("N") - f.nitrateCount - f.ammoniumCount - f.ureaNitrogenCount;
  return organicCarbon(f) < 0.5 && boundOtherwise < 0.5;
}

bool holdsPhosphite(const ChemicalFormula& f) {
  constexpr double leastOxygenOfPhosphate = 3.4; // per phosphorus: 3.5 in diphosphate, 3 in phosphite
  const double phosphorus = f.count("P");
  if (phosphorus <= 0 || organicCarbon(f) > 0.5) return false;
  const double oxygen = f.count("O") - f.hydrateWaterCount - 3 * f.nitrateCount - 4 * f.count("S") -
                        3 * f.carbonateCount - f.ureaNitrogenCount / 2;
  const double hydrogen =
      f.count("H") - 2 * f.hydrateWaterCount - 4 * f.ammoniumCount - 2 * f.ureaNitrogenCount;
  return hydrogen > 0.5 && oxygen / phosphorus < leastOxygenOfPhosphate;
}

double alkalinityEquivalentsPerMole(const ChemicalFormula& f) {
  if (const auto organic = organicPartOf(f)) return saltCations(f) - organicAcidEquivalents(*organic);
  if (hasChelatedMetal(f)) return 0;
  const double cations =
      f.count("Na") + f.count("K") + f.ammoniumCount +
      2 * (f.count("Ca") + f.count("Mg") + f.count("Fe") + f.count("Mn") + f.count("Zn") + f.count("Cu"));
  const double anions = f.nitrateCount + f.count("Cl") + 2 * f.count("S") + f.count("P") + 2 * f.count("Mo");
  return cations - anions;
}

ProductRole roleOf(const ChemicalFormula& f) {
  if (hasChelatedMetal(f)) return ProductRole::Chelate;
  const double alkalinity = alkalinityEquivalentsPerMole(f);
  // Silicate and trace salts (molybdic acid, borax) are dosed for their element, not for their alkalinity.
  if (f.count("Si") > 0) return alkalinity > 0.5 ? ProductRole::Silicate : ProductRole::Salt;
  if (f.count("B") > 0 || f.count("Mo") > 0) return ProductRole::Salt;
  if (alkalinity < -0.5) return ProductRole::Acid;
  // K2HPO4 and (NH4)2HPO4 are fertilizers that also lift the pH; K3PO4 is a base.
  if (alkalinity - f.count("P") > 0.5) return ProductRole::Base;
  return ProductRole::Salt;
}

StockSide stockSideOf(const Composition& c) {
  constexpr double meaningful =
      0.002; // 0.2 % by mass: less is an impurity or a trace in a blend (common practice)
  const auto& m = c.massFraction;
  if (c.role == ProductRole::Acid || c.role == ProductRole::Base || c.role == ProductRole::Silicate)
    return StockSide::Apart;
  const bool calcium = m.of(Nutrient::Ca) > meaningful;
  const bool sulfateOrPhosphate = m.of(Nutrient::S) > meaningful || m.of(Nutrient::P) > meaningful;
  if (calcium && sulfateOrPhosphate) return StockSide::Apart;
  if (calcium) return StockSide::Calcium;
  if (sulfateOrPhosphate) return StockSide::SulfatePhosphate;
  const bool ironOnly = m.of(Nutrient::Fe) > meaningful;
  if (ironOnly) return StockSide::Calcium; // iron chelate stays away from phosphate
  const bool trace =
      m.of(Nutrient::Mn) + m.of(Nutrient::Zn) + m.of(Nutrient::B) + m.of(Nutrient::Cu) + m.of(Nutrient::Mo) >
      meaningful;
  return trace ? StockSide::SulfatePhosphate : StockSide::Either;
}

} // namespace butte::core
