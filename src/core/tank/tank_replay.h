#pragma once
#include "tank/reservoir_balance.h"
#include "tank/tank_log.h"

#include <vector>

namespace butte::core {

/// A log replayed from its start, without learning from EC or pH: what was drunk follows from the levels that
/// were read, where there are any (evenly between two of them), else from the flow.
/// Entry n is the state at the end of day n, after that day's lines; 0 is the start, with the lines of day 0.
/// `refilled` and `drained` are what that day's lines and flow poured and took.
std::vector<BalanceDay> replayed(const BalancePlan& plan, const std::vector<TankEntry>& log);

} // namespace butte::core
