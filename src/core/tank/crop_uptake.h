#pragma once
#include "base/nine_in_ten.h"
#include "tank/reservoir_flow.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// A figure that publications give within limits.
struct PublishedRange {
  double value = 0, low = 0, high = 0;
  std::string source, confidence;
};

/// Where a crop's uptake was found: in warm, bright places plants drink more for the same growth, so that
/// each litre takes less along. Both schools are published; data/crop_uptake.csv has their sources.
enum class UptakeClimate { Cool, Warm };

enum class WaterSeason { Winter, SpringOrAutumn, Summer };

struct ElementUptake {
  Nutrient nutrient{};
  PublishedRange millimolesPerLitre;
};

/// What of sodium or chloride a crop takes with its water at the most that its roots stand.
struct BallastLimit {
  Nutrient nutrient{};
  PublishedRange takenMillimolesPerLitre; ///< at the most that the root zone may hold
  PublishedRange mostMillimolesPerLitre;  ///< that the root zone may hold
  /// Uptake rises with the concentration (Sonneveld & Voogt 2009, from memory): this share of it is taken.
  double shareOfConcentration() const { return takenMillimolesPerLitre.value / mostMillimolesPerLitre.value; }
};

/// What a crop takes up, as published.
struct CropUptake {
  std::string crop;
  UptakeClimate climate = UptakeClimate::Cool;
  std::vector<ElementUptake> elements;
  std::vector<BallastLimit> ballast;
  std::vector<PublishedRange> waterLitresPerM2Day; ///< of a full-grown stand, by WaterSeason
  std::optional<PublishedRange> plantsPerM2;       ///< of a full-grown stand

  Uptake uptake() const;
  /// The ground that so many plants stand on, m2; 0 where it is not known how close they stand.
  double groundOf(double plants) const { return plantsPerM2 ? plants / plantsPerM2->value : 0; }
};

/// data/crop_uptake.csv: a set for each crop and climate.
const std::vector<CropUptake>& cropUptakes();

/// The set for a crop as a grower calls it ("Strawberry, fruiting"): the climate's own, else the other one;
/// nothing where the crop is not known.
const CropUptake* uptakeOf(std::string_view crop, UptakeClimate climate = UptakeClimate::Cool);

/// Crops that are known, each once.
std::vector<std::string> cropsWithUptake();

/// Published ranges hold some 90 % of what is found: this many standard deviations to each side.
inline constexpr double sigmasOfRange = sigmasOfNineInTen;

} // namespace butte::core
