#include "shelf/moisture.h"

#include <algorithm>

namespace butte::core {

double likelyWaterShare(double secondsOpen) {
  constexpr double secondsPerMonth = 30.4 * 86400, sharePerMonth = 0.01, most = 0.1;
  return std::clamp(secondsOpen / secondsPerMonth * sharePerMonth, 0.0, most);
}

} // namespace butte::core
