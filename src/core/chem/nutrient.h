#pragma once
#include <array>
#include <cassert>
#include <cstddef>
#include <optional>
#include <string_view>

namespace butte::core {

/// What is counted in a feed, always as the element's mass. `N` is the sum of nitrate, ammonium and urea
/// nitrogen (nitrogen inside a chelate is none of them) and is computed, never stored.
enum class Nutrient { N, NNitrate, NAmmonium, NUrea, P, K, Ca, Mg, S, Fe, Mn, Zn, B, Cu, Mo, Si, Na, Cl };

inline constexpr std::size_t nutrientCount = 18;

/// All nutrients in the order of a feed sheet, the sum N first.
inline constexpr std::array<Nutrient, nutrientCount> allNutrients{
    Nutrient::N,  Nutrient::NNitrate, Nutrient::NAmmonium, Nutrient::NUrea, Nutrient::P,  Nutrient::K,
    Nutrient::Ca, Nutrient::Mg,       Nutrient::S,         Nutrient::Fe,    Nutrient::Mn, Nutrient::Zn,
    Nutrient::B,  Nutrient::Cu,       Nutrient::Mo,        Nutrient::Si,    Nutrient::Na, Nutrient::Cl};

/// The key used in files and scripts: "N", "N_NO3", "N_NH4", "N_urea", "P" ...
std::string_view nutrientKey(Nutrient nutrient);
std::optional<Nutrient> nutrientFromKey(std::string_view key);

/// The element's symbol: "N" for all nitrogen forms.
std::string_view elementSymbol(Nutrient nutrient);

/// True for the elements given in fractions of a mg/L up to a few mg/L (Fe, Mn, Zn, B, Cu, Mo).
bool isTraceElement(Nutrient nutrient);

/// One number per nutrient (mg/L, g per g, ... : the owner says which). Reading N gives the sum of its forms.
class NutrientAmounts {
public:
  constexpr double of(Nutrient n) const {
    if (n == Nutrient::N) return m_values[1] + m_values[2] + m_values[3];
    return m_values[static_cast<std::size_t>(n)];
  }
  /// Adds to a nutrient. The sum N follows from its forms: nothing can be added to it.
  constexpr void add(Nutrient n, double amount) {
    assert(n != Nutrient::N && "N is the sum of its forms: add to one of them");
    m_values[static_cast<std::size_t>(n)] += amount;
  }
  constexpr void addScaled(const NutrientAmounts& other, double factor) {
    for (std::size_t i = 0; i < nutrientCount; ++i)
      m_values[i] += other.m_values[i] * factor;
  }
  constexpr bool operator==(const NutrientAmounts&) const = default;

private:
  std::array<double, nutrientCount> m_values{};
};

} // namespace butte::core
