#include "water/shares.h"

namespace butte::core {

std::vector<double> withShareOf(const std::vector<double>& shares, std::size_t index, double share) {
  double others = 0;
  for (std::size_t i = 0; i < shares.size(); ++i)
    others += i == index ? 0 : shares[i];
  const double even = shares.size() > 1 ? 1.0 / static_cast<double>(shares.size() - 1) : 0;
  std::vector<double> out;
  for (std::size_t i = 0; i < shares.size(); ++i)
    out.push_back(i == index ? share : (1 - share) * (others > 0 ? shares[i] / others : even));
  return out;
}

} // namespace butte::core
