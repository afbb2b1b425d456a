#pragma once
#include "tank/reservoir_chemistry.h"
#include "tank/reservoir_flow.h"

#include <optional>
#include <vector>

namespace butte::core {

/// When a tank is filled up to its full mark, at a day's end.
struct RefillRule {
  enum class When { Daily, Below, Never } when = When::Daily;
  Volume below; ///< with Below: only once it holds less
};

/// A tank left to run by the same figures every day.
struct BalancePlan {
  ReservoirContent start;
  Volume full;
  FeedContent refill;
  RefillRule rule;
  ReservoirFlow flow;
  ReservoirAir air;
  bool precipitate = true; ///< false: what is over-saturated stays in solution
  int days = 0;
};

/// The tank at a day's end, after the refill.
struct BalanceDay {
  ReservoirContent content;
  std::optional<ReservoirReadings> readings; ///< nothing where the chemistry finds none
  Volume refilled, drained;
  FloorMillimoles floor;
  bool ranDry = false;
};

/// Day 0 is the start, entry n the state after day n's refill.
std::vector<BalanceDay> balanceOf(const BalancePlan& plan);

/// What a refill by this rule pours; nothing where it is not yet time or the tank is full.
Volume refillNow(const RefillRule& rule, Volume stands, Volume full);

} // namespace butte::core
