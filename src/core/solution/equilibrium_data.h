#pragma once
#include "solution/solutes.h"
#include "units/quantity.h"

#include <bitset>
#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// How strongly a reaction runs, and how that changes with temperature.
struct ReactionConstant {
  double log10At25C = 0;
  std::optional<double> enthalpyKJPerMol;
  std::optional<std::array<double, 5>> analytic; ///< log10 K = A1 + A2 T + A3/T + A4 log10 T + A5/T^2, T in K

  double log10At(double kelvin) const;
};

class CsvTable;
/// The constant in a row's columns log_k_25c, delta_h_kj_per_mol and analytic_a1_to_a5.
ReactionConstant reactionConstant(const CsvTable& csv, std::size_t row);

/// Stoichiometry over hydrogen ion, water and the components.
struct Stoichiometry {
  double hydrogen = 0;
  double water = 0;
  std::vector<std::pair<std::size_t, double>> components; ///< index of Component, coefficient
};

/// The components that a species or solid is made of, one bit each.
using ComponentSet = std::bitset<componentCount>;
ComponentSet componentsOf(const Stoichiometry& made);

/// What the activity coefficient of a species follows from.
struct ActivityKind {
  int charge = 0;
  double sizeAngstrom = 0;
  double linearTerm = 0; ///< kg/mol
  bool operator==(const ActivityKind&) const = default;
};

/// A dissolved species, formed from the components. Components themselves have constant 0.
struct SpeciesRecord {
  std::string name;
  int charge = 0;
  Stoichiometry made;
  double sizeAngstrom = 0;
  double linearTerm = 0;        ///< kg/mol
  double conductivityAt25C = 0; ///< limiting molar conductivity, S cm2/mol of ion
  double conductivityPercentPerK = 0;
  ComponentSet parts{};         ///< componentsOf(made)
  std::size_t activityKind = 0; ///< index into EquilibriumData::activityKinds()
};

/// How soon a solid that stands above its solubility is seen, by common experience.
enum class FormsWithin { Minutes, Hours, Days, Months, NeverFirst };

/// A solid, dissolving into components.
struct SolidRecord {
  std::string name;
  Stoichiometry dissolved;
  double molarMassGPerMol = 0;
  FormsWithin formsWithin = FormsWithin::Minutes;
  ComponentSet parts{}; ///< componentsOf(dissolved)
};

/// All constants at one temperature, as natural logarithms.
struct ConstantsAt {
  double celsius = 25;
  std::vector<double> lnFormation;  ///< from the components, parallel to EquilibriumData::species()
  std::vector<double> lnSolubility; ///< solubility products over the components, parallel to solids()
  /// (activity of CO3-2 times the square of that of H+) over the partial pressure of CO2 in atm and the
  /// activity of water.
  double lnCarbonDioxideGas = 0;
};

/// data/equilibria.csv and data/ions.csv, read once. Every row with its source and confidence stands there.
class EquilibriumData {
public:
  static const EquilibriumData& instance();

  const std::vector<SpeciesRecord>& species() const { return m_species; }
  const std::vector<SolidRecord>& solids() const { return m_solids; }
  /// Many species share one; each is worked out once.
  const std::vector<ActivityKind>& activityKinds() const { return m_activityKinds; }
  /// Conductivity of a chelate by the number of its negative charges (1 to 3).
  const SpeciesRecord& chelate(std::size_t charges) const { return m_chelates[charges - 1]; }
  std::optional<std::size_t> speciesIndex(std::string_view name) const;
  std::optional<std::size_t> solidIndex(std::string_view name) const;

  /// The species that a species' own row is written over, with their coefficients; empty for components.
  const std::vector<std::pair<std::size_t, double>>& formedFrom(std::size_t species) const {
    return m_reactions[species].others;
  }

  const ReactionConstant& formationConstant(std::size_t species) const {
    return m_reactions[species].constant;
  }

  /// Index into species() of the species that stands for a component.
  std::size_t speciesOf(Component c) const { return m_componentSpecies[static_cast<std::size_t>(c)]; }

  /// The constants at a temperature. The reference stays good until this thread has asked for eight other
  /// temperatures: a function of the temperature, kept so that titrations need not work it out anew.
  const ConstantsAt& at(Temperature temperature) const;

private:
  EquilibriumData();
  /// A reaction as the source states it, over other species; resolved to components by following them.
  struct Reaction {
    ReactionConstant constant;
    std::vector<std::pair<std::size_t, double>> others; ///< species index, coefficient
  };
  ConstantsAt workOut(double celsius) const;
  Stoichiometry resolve(const std::string& text, Reaction& reaction) const;
  void readSpecies();
  void readConductivities();
  void findParts();

  std::vector<SpeciesRecord> m_species;
  std::vector<ActivityKind> m_activityKinds;
  std::vector<Reaction> m_reactions; ///< parallel to m_species; empty for components
  std::vector<SolidRecord> m_solids;
  std::vector<Reaction> m_dissolutions; ///< parallel to m_solids
  Reaction m_gas;
  std::array<SpeciesRecord, 3> m_chelates;
  std::array<std::size_t, componentCount> m_componentSpecies{};
};

} // namespace butte::core
