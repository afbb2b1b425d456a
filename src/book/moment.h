#pragma once
#include <compare>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace butte::book {

/// A point in time: whole seconds since 1970-01-01 UTC. Screens turn it into local time.
struct Moment {
  std::int64_t seconds = 0;
  auto operator<=>(const Moment&) const = default;

  static Moment now();
  /// "2026-03-02T07:15:00Z", also without a time (midnight UTC) or with an offset; nothing when it is no such
  /// text.
  static std::optional<Moment> fromIso(std::string_view text);
  /// "2026-03-02T07:15:00Z"
  std::string iso() const;
};

} // namespace butte::book
