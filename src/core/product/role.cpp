#include "product/role.h"

namespace butte::core {
namespace {

bool hasChelatedMetal(const ChemicalFormula& f) {
  const double metals = f.count("Fe") + f.count("Mn") + f.count("Zn") + f.count("Cu");
  const double organicCarbon = f.count("C") - f.carbonateCount - f.ureaNitrogenCount / 2;
  return metals > 0 && organicCarbon > 0.5;
}

bool sameAtoms(const ChemicalFormula& f, double carbon, double hydrogen, double oxygen) {
  const double water = f.hydrateWaterCount;
  return f.atoms.size() == 3 && f.count("C") == carbon && f.count("H") - 2 * water == hydrogen &&
         f.count("O") - water == oxygen;
}

/// Equivalents up to pH 5.8, for weak organic acids. Source: pKa of citric (3.13, 4.76, 6.40) and acetic acid
/// (4.76), CRC Handbook, from memory; 2.120 and 0.917 computed from them at ionic strength 0.
double organicAcidEquivalents(const ChemicalFormula& f) {
  const auto acid = organicAcidOf(f);
  if (!acid) return 0;
  return *acid == OrganicAcid::Citric ? 2.120 : 0.917;
}

} // namespace

std::optional<OrganicAcid> organicAcidOf(const ChemicalFormula& f) {
  if (sameAtoms(f, 6, 8, 7)) return OrganicAcid::Citric;
  if (sameAtoms(f, 2, 4, 2)) return OrganicAcid::Acetic;
  return std::nullopt;
}

double alkalinityEquivalentsPerMole(const ChemicalFormula& f) {
  if (const double organic = organicAcidEquivalents(f); organic > 0) return -organic;
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
