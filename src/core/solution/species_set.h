#pragma once
#include "solution/equilibrium_data.h"

#include <Eigen/Core>

#include <array>
#include <memory>
#include <optional>
#include <vector>

namespace butte::core {

/// Activities that are held from outside, as natural logarithms.
struct HeldActivities {
  std::optional<double> lnHydrogen;
  std::optional<double> lnCarbonateGas; ///< ln(CO3 H^2), the gas's pressure in it
};

/// The unknowns and the species of all solutions that hold the same components, at one temperature.
///
/// The unknowns are the logarithms of the activities of the components that are there, and of hydrogen where
/// its activity is not held. What is held goes into the constants.
class SpeciesSet {
public:
  static constexpr int mostUnknowns = static_cast<int>(componentCount) + 1;
  using Vector = Eigen::Matrix<double, Eigen::Dynamic, 1, 0, mostUnknowns, 1>;

  static constexpr int mostHydrogen = 6; ///< of one species' formation, taken up or given off

  struct Term {
    int unknown;
    double power;
  };
  /// A species over the unknowns only.
  struct Active {
    std::size_t record; ///< index into EquilibriumData::species()
    double lnK;
    double water;
    std::array<Term, 4> terms; ///< in the order of the unknowns
    int termCount = 0;
    int pairCount = 0; ///< of pairs(), in the order of the species
    double halfSquaredCharge = 0;
    std::size_t kind = 0; ///< index into kinds()
  };
  /// Two terms of one species, or a term with itself: its place below the diagonal of a matrix of
  /// mostUnknowns columns by rows, and the product of the powers.
  struct Pair {
    std::size_t place;
    double product;
  };
  struct HydrogenUse {
    std::size_t species; ///< index into species()
    double power;        ///< without its sign
  };
  /// A species made of one component alone, or of water, with or without hydrogen.
  struct OwnForm {
    std::size_t species; ///< index into species()
    int unknown;         ///< hydrogenUnknown() for the forms of water
    int hydrogen;
  };
  /// What something is made of, over the unknowns.
  struct Reduced {
    Vector row;        ///< powers
    double lnHeld = 0; ///< what held activities bring; NaN where a component is missing
    double water = 0;
  };

  SpeciesSet(ComponentSet there, const HeldActivities& held, Temperature temperature);

  /// The set for these components. Where no pH is held it is kept for the next solution like it.
  static std::shared_ptr<const SpeciesSet> of(ComponentSet there, const HeldActivities& held,
                                              Temperature temperature);

  int unknowns() const { return m_unknowns; }
  /// -1 where the component is missing, or held.
  int unknownOf(std::size_t component) const { return m_unknownOf[component]; }
  /// -1 where it is held.
  int hydrogenUnknown() const { return m_hydrogenUnknown; }
  const std::vector<Active>& species() const { return m_species; }
  const std::vector<Pair>& pairs() const { return m_pairs; }
  /// The species that take up hydrogen or give it off; none where it is held.
  const std::vector<HydrogenUse>& hydrogenUses() const { return m_hydrogenUses; }
  const std::vector<ActivityKind>& kinds() const { return m_kinds; } ///< those of the species here
  const std::vector<OwnForm>& ownForms() const { return m_ownForms; }
  const HeldActivities& held() const { return m_held; }

  Reduced reduce(const Stoichiometry& made) const;

private:
  void addSpecies(Temperature temperature);
  void addPairs(Active& species);
  void findOwnForms();

  HeldActivities m_held;
  ComponentSet m_there; ///< the gas's carbonate among them
  std::array<int, componentCount> m_unknownOf{};
  int m_hydrogenUnknown = -1;
  int m_unknowns = 0;
  std::vector<Active> m_species;
  std::vector<Pair> m_pairs;
  std::vector<HydrogenUse> m_hydrogenUses;
  std::vector<ActivityKind> m_kinds;
  std::vector<OwnForm> m_ownForms;
};

} // namespace butte::core
