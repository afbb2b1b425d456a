#include "dose/dosing.h"

#include <array>

namespace butte::core {
namespace {
constexpr std::array<std::string_view, 5> deviceKeys{"injector", "series", "pumps", "setpoint", "hand"};
}

std::string_view deviceKey(DosingDevice device) {
  return deviceKeys[static_cast<std::size_t>(device)];
}

} // namespace butte::core
