#pragma once
#include "pen/pen_line.h"

#include <cstdint>
#include <deque>
#include <optional>

namespace butte::devices {

struct PenNow {
  bool heard = false;
  std::optional<core::Conductivity> conductivity;
  std::optional<double> ph;
  std::optional<core::Temperature> temperature;
  bool still = false; ///< what it shows has come to rest
};

/// Follows a pen in a vessel. Still means: over the last stillMilliseconds EC moved by less than 1 % (or 0.02
/// mS/cm), pH by less than 0.05; pH settles last (common practice).
class PenWatch {
public:
  static constexpr std::int64_t silentAfterMilliseconds = 5000, stillMilliseconds = 4000;

  void take(const PenReading& reading, std::int64_t atMilliseconds);
  PenNow now(std::int64_t atMilliseconds) const;
  void lost() { m_read.clear(); }

private:
  struct Read {
    std::int64_t at = 0;
    PenReading reading;
  };
  bool isStill() const;
  std::deque<Read> m_read; ///< of the last stillMilliseconds and one before
};

} // namespace butte::devices
