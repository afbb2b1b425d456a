#include "chem/atomic_weights.h"

#include <algorithm>
#include <array>

namespace butte::core {
namespace {

struct Entry {
  std::string_view symbol;
  double gramsPerMole;
};

// Source: IUPAC "Standard atomic weights of the elements 2021", abridged to five figures
// (Prohaska et al., Pure Appl. Chem. 94 (2022) 573), from memory; sorted by symbol.
// The nutrient elements were checked once more against GNU units and Open Babel (tests/core).
constexpr std::array<Entry, 84> table{{
    {"Ag", 107.87}, {"Al", 26.982}, {"Ar", 39.95},  {"As", 74.922}, {"Au", 196.97}, {"B", 10.81},
    {"Ba", 137.33}, {"Be", 9.0122}, {"Bi", 208.98}, {"Br", 79.904}, {"C", 12.011},  {"Ca", 40.078},
    {"Cd", 112.41}, {"Ce", 140.12}, {"Cl", 35.45},  {"Co", 58.933}, {"Cr", 51.996}, {"Cs", 132.91},
    {"Cu", 63.546}, {"Dy", 162.50}, {"Er", 167.26}, {"Eu", 151.96}, {"F", 18.998},  {"Fe", 55.845},
    {"Ga", 69.723}, {"Gd", 157.25}, {"Ge", 72.630}, {"H", 1.0080},  {"He", 4.0026}, {"Hf", 178.49},
    {"Hg", 200.59}, {"Ho", 164.93}, {"I", 126.90},  {"In", 114.82}, {"Ir", 192.22}, {"K", 39.098},
    {"Kr", 83.798}, {"La", 138.91}, {"Li", 6.94},   {"Lu", 174.97}, {"Mg", 24.305}, {"Mn", 54.938},
    {"Mo", 95.95},  {"N", 14.007},  {"Na", 22.990}, {"Nb", 92.906}, {"Nd", 144.24}, {"Ne", 20.180},
    {"Ni", 58.693}, {"O", 15.999},  {"Os", 190.23}, {"P", 30.974},  {"Pa", 231.04}, {"Pb", 207.2},
    {"Pd", 106.42}, {"Pr", 140.91}, {"Pt", 195.08}, {"Rb", 85.468}, {"Re", 186.21}, {"Rh", 102.91},
    {"Ru", 101.07}, {"S", 32.06},   {"Sb", 121.76}, {"Sc", 44.956}, {"Se", 78.971}, {"Si", 28.085},
    {"Sm", 150.36}, {"Sn", 118.71}, {"Sr", 87.62},  {"Ta", 180.95}, {"Tb", 158.93}, {"Te", 127.60},
    {"Th", 232.04}, {"Ti", 47.867}, {"Tl", 204.38}, {"Tm", 168.93}, {"U", 238.03},  {"V", 50.942},
    {"W", 183.84},  {"Xe", 131.29}, {"Y", 88.906},  {"Yb", 173.05}, {"Zn", 65.38},  {"Zr", 91.224},
}};

} // namespace

std::optional<double> atomicWeight(std::string_view symbol) {
  const auto it = std::lower_bound(table.begin(), table.end(), symbol,
                                   [](const Entry& e, std::string_view s) { return e.symbol < s; });
  if (it == table.end() || it->symbol != symbol) return std::nullopt;
  return it->gramsPerMole;
}

} // namespace butte::core
