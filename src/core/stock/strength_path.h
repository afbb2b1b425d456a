#pragma once
#include "solution/equilibrium.h"

#include <compare>
#include <optional>
#include <vector>

namespace butte::core {

/// Where a solid stood at one multiple of a tank's strength.
struct SaturationSeen {
  double lnMultiple = 0;
  double lnSaturation = 0; ///< ion product over solubility product
  auto operator<=>(const SaturationSeen&) const = default;
  bool isReached() const;
};

/// ln of the multiple at which a solid is just saturated, from what was seen in ascending order: on a curve
/// through the three nearest looks where they enclose it, else on the straight line beyond them. Nothing
/// where nothing was seen, or an ion is missing.
std::optional<double> lnMultipleAtSaturation(const std::vector<SaturationSeen>& seen);

/// The states that one solution went through as it was made stronger or weaker.
class StrengthPath {
public:
  void add(double lnMultiple, Equilibrium settled);
  bool knows(double lnMultiple) const;
  /// The state to expect at another strength, to start from: a curve through the nearest three that are
  /// known. Nothing before the first.
  std::optional<Equilibrium> expected(double lnMultiple, const Solutes& totals) const;

private:
  struct Known {
    double lnMultiple;
    Equilibrium settled;
  };
  std::vector<Known> m_known;
};

} // namespace butte::core
