#pragma once
#include "base/result.h"
#include "tank/reservoir_balance.h"
#include "tank/root_zone.h"
#include "tank/tank_log.h"
#include "tank/tank_priors.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::exchange {

/// What had to be taken for granted.
enum class BalanceRemark {
  StartIsFeed,       ///< no start: the vessel is filled with the mix of weights_g
  RefillIsStart,     ///< no refill: what it was filled with
  StartAlkalinity,   ///< start without alkalinity: what balances its ions
  RefillAlkalinity,  ///< the same of the refill
  AlkalinityOfWater, ///< a water of unknown alkalinity counts as having none
};

/// What `butte-cli balance` is asked (docs/formats/script.md).
struct BalanceScript {
  core::BalancePlan plan;
  std::optional<std::vector<core::TankEntry>> log; ///< the days follow it
  bool estimate = false;                           ///< with bands; readings correct the state
  core::TankPriors priors;                         ///< for the estimate
  std::vector<BalanceRemark> remarks;
};

/// What `butte-cli steer` is asked.
struct SteerScript {
  core::SteerRequest request;
};

/// Reads and checks the whole object; every problem names its key.
core::Result<BalanceScript> readBalanceScript(std::string_view text);
core::Result<SteerScript> readSteerScript(std::string_view text);

} // namespace butte::exchange
