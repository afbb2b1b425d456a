#pragma once
#include <array>
#include <cstddef>
#include <optional>
#include <string_view>
#include <vector>

namespace butte::core {

/// The ions that data/pitzer.csv has parameters for, as EquilibriumData names their species.
inline constexpr std::array<std::string_view, 10> pitzerCations{"Na+", "K+",   "NH4+", "Mg+2", "Ca+2",
                                                                "H+",  "Fe+2", "Mn+2", "Zn+2", "Cu+2"};
inline constexpr std::array<std::string_view, 9> pitzerAnions{"Cl-",    "NO3-",  "SO4-2", "HSO4-", "H2PO4-",
                                                              "HPO4-2", "HCO3-", "CO3-2", "OH-"};
inline constexpr std::array<int, pitzerCations.size()> pitzerCationCharges{1, 1, 1, 2, 2, 1, 2, 2, 2, 2};
inline constexpr std::array<int, pitzerAnions.size()> pitzerAnionCharges{1, 1, 2, 1, 1, 2, 1, 2, 1};

/// What two ions of opposite sign do to each other, at one temperature (kg/mol; c in kg2/mol2).
struct PitzerPair {
  double beta0 = 0, beta1 = 0, beta2 = 0;
  double c = 0; ///< C-phi over 2 sqrt(|z z'|)
  bool isKnown = false;
};

/// What a third ion adds to two of one sign, kg2/mol2: psi.
struct PitzerTriple {
  std::size_t first, second, other; ///< two of one sign, ascending; one of the other
  double psi;
};

/// All parameters at one temperature.
struct PitzerParameters {
  std::array<std::array<PitzerPair, pitzerAnions.size()>, pitzerCations.size()> pairs;
  std::array<std::array<double, pitzerCations.size()>, pitzerCations.size()> cationTheta{}; ///< symmetric
  std::array<std::array<double, pitzerAnions.size()>, pitzerAnions.size()> anionTheta{};    ///< symmetric
  std::vector<PitzerTriple> cationTriples, anionTriples;
};

/// data/pitzer.csv at this temperature: each row
///   p = a1 + a2 (1/T - 1/T0) + a3 ln(T/T0) + a4 (T - T0) + a5 (T^2 - T0^2) + a6 (1/T^2 - 1/T0^2),
/// T in K, T0 = 298.15 K; a row without temperature terms holds at all.
PitzerParameters pitzerParametersAt(double celsius);

std::optional<std::size_t> pitzerCation(std::string_view species);
std::optional<std::size_t> pitzerAnion(std::string_view species);

} // namespace butte::core
