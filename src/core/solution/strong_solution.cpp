#include "solution/strong_solution.h"

#include "solution/activity.h"
#include "solution/pitzer.h"
#include "units/constants.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <vector>

namespace butte::core {
namespace {

/// log10 at 25 degC of a pair that is no more than two ions side by side, where no parameters tell.
constexpr double strongestWholePair = 2;

/// Where gypsum's own constant gives way, mol/kg: both models share it as long as the dilute one counts.
constexpr double gypsumFrom = 0.3, gypsumTo = 0.8;

/// log10 of gypsum's constant in USGS PHREEQC database pitzer.dat (public domain), that its parameters for
/// calcium sulfate were fitted with.
double log10GypsumOfPitzer(double kelvin) {
  return 82.381 - 3804.5 / kelvin - 29.9952 * std::log10(kelvin);
}

struct IonPlace {
  std::optional<std::size_t> cation, anion;
};

/// What a species of the dilute model is in the strong one: one ion, a pair of ions that are counted singly,
/// or something else.
struct Role {
  IonPlace ions;
  bool isWhole() const { return ions.cation || ions.anion; }
};

IonPlace ionNamed(std::string_view species) {
  return {pitzerCation(species), pitzerAnion(species)};
}

Role roleOf(std::size_t species, const PitzerModel& model) {
  const auto& data = EquilibriumData::instance();
  if (const auto ion = ionNamed(data.species()[species].name); ion.cation || ion.anion) return {ion};
  const auto& from = data.formedFrom(species);
  if (from.size() != 2 || from[0].second != 1 || from[1].second != 1) return {};
  const auto first = ionNamed(data.species()[from[0].first].name);
  const auto second = ionNamed(data.species()[from[1].first].name);
  if (!first.cation || !second.anion) return {};
  const bool isWeak = data.formationConstant(species).log10At25C < strongestWholePair;
  if (!isWeak && !model.knows(*first.cation, *second.anion)) return {};
  return {{first.cation, second.anion}};
}

const std::vector<Role>& roles(const PitzerModel& model) {
  static const std::vector<Role> found = [&] {
    std::vector<Role> out;
    for (std::size_t i = 0; i < EquilibriumData::instance().species().size(); ++i)
      out.push_back(roleOf(i, model));
    return out;
  }();
  return found;
}

PitzerSolution wholeIonsOf(const Equilibrium& settled, const std::vector<Role>& roles) {
  const auto& data = EquilibriumData::instance();
  PitzerSolution out;
  const auto addOther = [&](double z, double mol) {
    out.otherStrength += 0.5 * z * z * mol;
    out.otherCharge += z * mol;
    out.otherMol += mol;
  };
  for (std::size_t i = 0; i < settled.molality.size(); ++i) {
    const double mol = settled.molality[i];
    if (mol <= 0) continue;
    const auto& [cation, anion] = roles[i].ions;
    if (cation) out.cations[*cation] += mol;
    if (anion) out.anions[*anion] += mol;
    if (!roles[i].isWhole()) addOther(std::abs(data.species()[i].charge), mol);
  }
  for (std::size_t i = 0; i < settled.given.chelateMol.size(); ++i)
    addOther(static_cast<double>(i + 1), settled.given.chelateMol[i]);
  return out;
}

/// 0 up to the first ionic strength, 1 from the second; level at both ends.
double passage(double ionicStrength, double from, double to) {
  const double way = std::clamp(std::log(ionicStrength / from) / std::log(to / from), 0.0, 1.0);
  return way * way * way * (10 + way * (6 * way - 15));
}

/// An ion in both models.
struct WholeIon {
  explicit WholeIon(std::string_view name)
      : species(*EquilibriumData::instance().speciesIndex(name)), place(ionNamed(name)) {}
  std::size_t species;
  IonPlace place;
};

/// The components that stand for themselves.
std::vector<std::pair<Component, WholeIon>> freeIons() {
  std::vector<std::pair<Component, WholeIon>> out;
  for (const auto component :
       {Component::Na, Component::K, Component::NH4, Component::Ca, Component::Mg, Component::NO3,
        Component::Cl, Component::SO4, Component::Fe, Component::Mn, Component::Zn, Component::Cu})
    out.emplace_back(component, WholeIon(componentSpecies(component)));
  return out;
}

/// How far the activity of single ions stands off from that of the dilute model.
class Comparison {
public:
  Comparison(const Equilibrium& settled, const PitzerSolution& whole, const PitzerModel& model,
             double celsius)
      : m_settled(settled), m_whole(whole), m_strong(model.activities(whole)), m_dilute(celsius) {}

  double lnWater() const { return m_strong.lnWater; }

  /// ln of Pitzer's activity over the dilute one; 0 where the ion is not there.
  double of(const WholeIon& ion) const {
    const double total =
        ion.place.cation ? m_whole.cations[*ion.place.cation] : m_whole.anions[*ion.place.anion];
    const double free = m_settled.molality[ion.species];
    if (!(total > 0) || !(free > 0)) return 0;
    const auto& record = EquilibriumData::instance().species()[ion.species];
    const double strong =
        ion.place.cation ? m_strong.lnCation[*ion.place.cation] : m_strong.lnAnion[*ion.place.anion];
    return std::log(total / free) + strong -
           m_dilute.lnGamma(record.charge, record.sizeAngstrom, record.linearTerm, m_settled.ionicStrength);
  }

private:
  const Equilibrium& m_settled;
  const PitzerSolution& m_whole;
  PitzerActivities m_strong;
  ActivityModel m_dilute;
};

/// Calcium, magnesium or a metal with phosphate or carbonate: Pitzer's parameters do not tell of those, and
/// their solids take the hydrogen of several forms. The dilute model keeps them.
bool isOfPairsThatStay(const Stoichiometry& solid) {
  bool metal = false, acid = false;
  for (const auto& [component, power] : solid.components) {
    const auto c = static_cast<Component>(component);
    metal |= c == Component::Ca || c == Component::Mg || c == Component::Fe || c == Component::Mn ||
             c == Component::Zn || c == Component::Cu;
    acid |= c == Component::Phosphate || c == Component::Carbonate;
  }
  return metal && acid;
}

bool isCalciumSulfate(const Stoichiometry& solid) {
  return solid.components.size() == 2 &&
         std::all_of(solid.components.begin(), solid.components.end(), [](const auto& part) {
           return part.first == static_cast<std::size_t>(Component::Ca) ||
                  part.first == static_cast<std::size_t>(Component::SO4);
         });
}

} // namespace

double StrongCorrection::ofIonProduct(const Stoichiometry& solid) const {
  if (isOfPairsThatStay(solid)) return 0;
  double ln = solid.water * lnWater + (isCalciumSulfate(solid) ? lnGypsum : 0);
  for (const auto& [component, power] : solid.components) {
    const double hydrogen = power != 0 ? solid.hydrogen / power : 0; // of each acid ion
    if (component == static_cast<std::size_t>(Component::Phosphate) && hydrogen > 0.5)
      ln += power * (hydrogen > 1.5 ? lnDihydrogenPhosphate : lnHydrogenPhosphate);
    else if (component == static_cast<std::size_t>(Component::Carbonate) && hydrogen > 0.5)
      ln += power * lnBicarbonate;
    else
      ln += power * lnActivity[component];
  }
  return ln;
}

StrongCorrection strongCorrection(const Equilibrium& settled, double celsius) {
  StrongCorrection out;
  if (settled.ionicStrength < bothHoldFrom / 4) return out; // pairs hide less than that
  const auto& model = PitzerModel::at(celsius);
  const auto whole = wholeIonsOf(settled, roles(model));
  const double strength = whole.ionicStrength();
  const double weight = passage(strength, bothHoldFrom, bothHoldTo);
  if (weight <= 0) return out;
  const Comparison comparison(settled, whole, model, celsius);
  static const auto ions = freeIons();
  for (const auto& [component, ion] : ions)
    out.lnActivity[static_cast<std::size_t>(component)] = weight * comparison.of(ion);
  static const WholeIon carbonate("CO3-2"), bicarbonate("HCO3-"), hydrogenPhosphate("HPO4-2"),
      dihydrogenPhosphate("H2PO4-");
  out.lnActivity[static_cast<std::size_t>(Component::Carbonate)] = weight * comparison.of(carbonate);
  out.lnBicarbonate = weight * comparison.of(bicarbonate);
  out.lnHydrogenPhosphate = weight * comparison.of(hydrogenPhosphate);
  out.lnDihydrogenPhosphate = weight * comparison.of(dihydrogenPhosphate);
  const auto& data = EquilibriumData::instance();
  static const auto gypsum = *data.solidIndex("gypsum");
  const double own = data.at(Temperature::fromCelsius(celsius)).lnSolubility[gypsum];
  out.lnGypsum = passage(strength, gypsumFrom, gypsumTo) *
                 (own - log10GypsumOfPitzer(celsius + 273.15) * constant::ln10);
  out.lnWater = weight * (comparison.lnWater() - std::log(settled.waterActivity));
  return out;
}

} // namespace butte::core
