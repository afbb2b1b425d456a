#include "formula/strength.h"

#include "base/decimal.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

Result<double> factorOnWeights(const Water& water, const std::vector<ShelfProduct>& shelf,
                               const std::vector<Mass>& grams, Volume volume, Conductivity wanted) {
  const auto read = [&](double factor) {
    auto scaled = grams;
    for (auto& weight : scaled)
      weight = weight * factor;
    return mix(water, shelf, scaled, volume).conductivity;
  };
  constexpr double mostFactor = 1000;
  const auto least = read(0);
  double high = 1;
  while (high < mostFactor && read(high) < wanted)
    high *= 2;
  if (!(wanted > least) || read(high) < wanted)
    return problemAt(ProblemCode::OutOfRange, "ec",
                     {decimalText(wanted.milliSiemensPerCm()),
                      decimalText(std::round(1000 * least.milliSiemensPerCm()) / 1000) + " to " +
                          decimalText(std::round(1000 * read(high).milliSiemensPerCm()) / 1000) + " mS/cm"});
  // More salt always conducts more in a feed; halving is as sure as it is quick.
  double low = 0;
  constexpr int halvings = 40;
  for (int i = 0; i < halvings; ++i) {
    const double middle = (low + high) / 2;
    (read(middle) < wanted ? low : high) = middle;
  }
  return (low + high) / 2;
}

} // namespace butte::core
