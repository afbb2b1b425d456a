#pragma once
#include "formula/mix.h"

#include <array>
#include <optional>
#include <vector>

namespace butte::core {

/// How far each thing that goes into a feed may be off. All are limits either way, taken as rectangular (type
/// B of the "Guide to the expression of uncertainty in measurement", JCGM 100:2008): standard deviation =
/// limit / sqrt 3.
struct ErrorLimits {
  std::vector<double> contentPercent;  ///< per product: purity or label, relative
  std::vector<double> moisturePercent; ///< per product: water it may have drawn, 0 to this
  std::vector<Mass> weighing; ///< per product, in the batch volume: half the scale's step for each load
  double volumePercent = 1;   ///< marks of batch or tank
  double dosingPercent = 0;   ///< injector or syringe; 0 for a direct batch
  double waterPercent = 5;    ///< of a measured figure of the water
};

enum class ErrorSource { Content, Moisture, Weighing, Volume, Dosing, Water };

/// One source's part of a figure's +-.
struct ErrorPart {
  ErrorSource source{};
  std::optional<std::size_t> product; ///< index into the shelf
  double plusMinus = 0;               ///< as if it were alone: two standard deviations
};

/// A figure's +- : two standard deviations (about 95 %).
struct Spread {
  double plusMinus = 0;
  std::vector<ErrorPart> parts; ///< the largest first
};

struct FeedSpread {
  std::array<Spread, nutrientCount> nutrients; ///< mg/L
  Spread conductivity;                         ///< mS/cm at 25 degC
  const Spread& of(Nutrient n) const { return nutrients[static_cast<std::size_t>(n)]; }
};

/// First-order propagation of the limits through the sums (exact for the elements to second order) and, by
/// differences, through the conductivity.
FeedSpread feedSpread(const Water& water, const std::vector<ShelfProduct>& shelf,
                      const std::vector<Mass>& grams, Volume volume, const ErrorLimits& limits);

/// The same for the elements only: microseconds instead of milliseconds.
std::array<Spread, nutrientCount> elementSpread(const Water& water, const std::vector<ShelfProduct>& shelf,
                                                const std::vector<Mass>& grams, Volume volume,
                                                const ErrorLimits& limits);

/// The +- that would be left with one part halved.
double withHalved(const Spread& spread, std::size_t part);

/// Usual limits: single salts 1 % (common practice), labelled blends 5 % of each figure (common practice;
/// fertilizer laws allow some tenths of a percentage point, see the local one), liquids 3 %; hygroscopic
/// salts up to 3 % of drawn water (common practice).
double usualContentPercent(const ShelfProduct& product);
double usualMoisturePercent(const ShelfProduct& product);

} // namespace butte::core
