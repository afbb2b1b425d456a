#pragma once
#include "tank/reservoir_balance.h"
#include "tank/tank_filter.h"
#include "target/target.h"

#include <optional>
#include <vector>

namespace butte::core {

/// How a tank is kept from now on.
struct TankPlan {
  RefillRule rule;
  FeedContent refill;
  Volume full;
  Volume bledDaily{}; ///< let off every day, before its refill
};

/// Day by day from the filter's own day, the first entry as it stands now; each after its refill.
std::vector<TankEstimate> forecastOf(TankFilter now, const TankPlan& plan, int days);

/// Where an element is heading.
struct ElementCourse {
  Nutrient nutrient{};
  double perDayMgPerL = 0; ///< over the forecast
  bool rises = false;      ///< which edge of its band it goes for
  /// Days from now until the likeliest course leaves the band; and until the first of nine in ten may have.
  std::optional<double> leavesAfterDays, mayLeaveAfterDays;
  bool outside = false; ///< of its band already
};

/// For each row with a band, and each cap.
std::vector<ElementCourse> coursesOf(const std::vector<TankEstimate>& forecast,
                                     const std::vector<TargetRow>& rows, const std::vector<Cap>& caps);

/// What moves the alkalinity, and with it the pH, in a day: meq per litre of what stands in the tank.
struct AlkalinityBudget {
  std::array<double, nutrientCount> byUptake{}; ///< anions give, cations take; by Nutrient
  double byRefill = 0;                          ///< what the refill brings over what stands there
  double total() const;
  double ofUptake() const;
};
AlkalinityBudget alkalinityBudget(const ReservoirContent& content, const ReservoirFlow& flow,
                                  const FeedContent& refill);

/// The same with another share of ammonium in the nitrogen that plants take (0 to 1), their nitrogen in all
/// unchanged: each mole from nitrate to ammonium takes two equivalents more.
double alkalinityPerDayAt(double ammoniumShare, const AlkalinityBudget& budget);

} // namespace butte::core
