#include "dose/uneven_feed.h"

namespace butte::core {

std::optional<UnevenFeed> unevenFeed(const Delivery& delivery, const std::vector<double>& draws,
                                     const std::vector<double>& strengths,
                                     std::optional<Conductivity> setpoint) {
  const auto at = [](const std::vector<double>& list, std::size_t i) {
    return i < list.size() ? list[i] : 1;
  };
  UnevenFeed out;
  for (std::size_t t = 0; t < delivery.tankCount(); ++t)
    out.gives.push_back(at(draws, t) * at(strengths, t));
  if (!setpoint) {
    out.feed = delivery.feed(out.gives);
    return out;
  }
  auto held = atSetpoint(delivery, out.gives, *setpoint);
  if (!held) return std::nullopt;
  out.pace = held->strength;
  out.feed = std::move(held->feed);
  return out;
}

} // namespace butte::core
