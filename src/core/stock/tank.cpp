#include "stock/tank.h"

#include <algorithm>
#include <array>

namespace butte::core {
namespace {

constexpr std::array<std::string_view, 4> uses{"salts", "traces", "acid", "alone"};

} // namespace

std::string_view tankUseKey(TankUse use) {
  return uses[static_cast<std::size_t>(use)];
}

std::optional<TankUse> tankUseFromKey(std::string_view key) {
  const auto found = std::find(uses.begin(), uses.end(), key);
  if (found == uses.end()) return std::nullopt;
  return static_cast<TankUse>(found - uses.begin());
}

} // namespace butte::core
