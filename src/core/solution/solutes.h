#pragma once
#include <array>
#include <cstddef>
#include <string_view>

namespace butte::core {

/// The building blocks that every dissolved species is written in: free ions, and the uncharged acids of
/// boron and silicon.
enum class Component {
  Na,
  K,
  NH4,
  Ca,
  Mg,
  NO3,
  Cl,
  SO4,
  Carbonate,
  Phosphate,
  Boron,
  Silicon,
  Fe,
  Mn,
  Zn,
  Cu,
  Molybdate,
  Citrate,
  Acetate
};
inline constexpr std::size_t componentCount = 19;
inline constexpr std::array<Component, componentCount> allComponents{
    Component::Na,    Component::K,         Component::NH4,     Component::Ca,        Component::Mg,
    Component::NO3,   Component::Cl,        Component::SO4,     Component::Carbonate, Component::Phosphate,
    Component::Boron, Component::Silicon,   Component::Fe,      Component::Mn,        Component::Zn,
    Component::Cu,    Component::Molybdate, Component::Citrate, Component::Acetate};

/// The species that stands for the component in data/equilibria.csv: "Ca+2", "CO3-2", "B(OH)3".
std::string_view componentSpecies(Component component);

/// What is dissolved: totals of each component, however it is bound, in mol; and the net alkalinity in mol of
/// charge (equivalents). Per litre, per kilogram of water or per gram of a product: the owner says which.
///
/// Alkalinity here is counted against CO2, H2PO4-, NH4+, B(OH)3, H4SiO4, SO4-2 and the whole citric and
/// acetic acid, so that it only changes when acid or base is added: HCO3- counts 1, CO3-2 and HPO4-- likewise
/// what they hold above that, strong acid counts negative.
struct Solutes {
  std::array<double, componentCount> mol{};
  double alkalinityEq = 0;
  /// Metal chelates by the number of their negative charges, 1 to 3: inert, they keep their metal.
  std::array<double, 3> chelateMol{};

  double of(Component c) const { return mol[static_cast<std::size_t>(c)]; }
  double& of(Component c) { return mol[static_cast<std::size_t>(c)]; }
  void addScaled(const Solutes& other, double factor);
  Solutes scaled(double factor) const;
  /// Charge that no counter-ion in these totals balances, in equivalents: 0 for whole salts, what a report
  /// leaves open for a water.
  double unbalancedEq() const;
  bool operator==(const Solutes&) const = default;
};

} // namespace butte::core
