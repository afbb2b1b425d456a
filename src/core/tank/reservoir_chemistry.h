#pragma once
#include "base/result.h"
#include "solution/solution_state.h"
#include "tank/reservoir_content.h"

#include <optional>
#include <vector>

namespace butte::core {

/// Water in a litre of feed, kg: that of a feed at 20 degC, to 0.3 %.
inline constexpr double feedWaterKgPerLitre = 0.998;

/// Under what a tank stands.
struct ReservoirAir {
  Temperature temperature = Temperature::fromCelsius(20);
  std::optional<double> carbonDioxideAtm = airCarbonDioxideAtm; ///< nothing: closed to the air
};

/// What meters would show of it.
struct ReservoirReadings {
  double ph = 7;
  Conductivity at25;
};

/// Errors as equilibrate(): a tank that is all but empty may be beyond the chemistry.
Result<ReservoirReadings> readingsOf(const FeedContent& content, const ReservoirAir& air);

/// Solids that lie on the floor, in mmol each, by their place in EquilibriumData::solids().
using FloorMillimoles = std::vector<double>;

/// Content and floor once what falls out within hours has fallen, or dissolved again. Mass and charge close.
struct SettledReservoir {
  ReservoirContent content;
  FloorMillimoles floor;
};
Result<SettledReservoir> settledReservoir(const ReservoirContent& content, const FloorMillimoles& floor,
                                          const ReservoirAir& air);

/// What a solid on the floor holds, in mg, and the alkalinity in it.
ReservoirContent contentOfFloor(const FloorMillimoles& floor);

} // namespace butte::core
