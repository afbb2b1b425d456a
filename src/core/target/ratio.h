#pragma once
#include "chem/nutrient.h"
#include "target/target.h"

#include <cmath>
#include <optional>
#include <vector>

namespace butte::core {

/// What a ratio counts: mg, mmol or meq.
enum class RatioBasis { Mass, Moles, Equivalents };

/// A wish for a ratio in the finished feed: K : Ca by mass, K : (Ca + Mg) in equivalents.
struct RatioWish {
  std::vector<Nutrient> above, below;
  double value = 1;
  RatioBasis basis = RatioBasis::Mass;
  double tolerancePercent = 10;
  double weight = 1;

  double low() const { return value * (1 - tolerancePercent / 100); }
  double high() const { return value * (1 + tolerancePercent / 100); }
  /// Edges count as inside, to 1e-9.
  bool contains(double ratio) const {
    return ratio >= low() - 1e-9 * value && ratio <= high() + 1e-9 * value;
  }
};

/// What one mg of the element's mass is on this basis: 1, mmol or meq (phosphorus as one charge, as H2PO4).
double amountPerMilligram(Nutrient nutrient, RatioBasis basis);

/// One side of a ratio in a feed.
double ratioSide(const std::vector<Nutrient>& side, RatioBasis basis,
                 const NutrientAmounts& milligramsPerLitre);

/// The ratio as it stands; nothing where there is none of what it counts against.
std::optional<double> ratioOf(const RatioWish& wish, const NutrientAmounts& milligramsPerLitre);

/// What a miss of a ratio is measured against: what its upper side is wanted to be, on its basis. Nothing
/// where neither side has a target.
std::optional<double> ratioDivisor(const std::vector<TargetRow>& rows, const RatioWish& wish);

} // namespace butte::core
