#include "tank/reservoir_balance.h"

#include <algorithm>

namespace butte::core {
namespace {

void settle(BalanceDay& day, const BalancePlan& plan) {
  if (!plan.precipitate) return;
  if (const auto settled = settledReservoir(day.content, day.floor, plan.air)) {
    day.content = settled->content;
    day.floor = settled->floor;
  }
}

void read(BalanceDay& day, const BalancePlan& plan) {
  const auto perLitre = day.content.perLitre();
  if (!perLitre) return;
  if (const auto readings = readingsOf(*perLitre, plan.air)) day.readings = *readings;
}

} // namespace

Volume refillNow(const RefillRule& rule, Volume stands, Volume full) {
  if (rule.when == RefillRule::When::Never) return {};
  if (rule.when == RefillRule::When::Below && !(stands < rule.below)) return {};
  return std::max(full - stands, Volume{});
}

std::vector<BalanceDay> balanceOf(const BalancePlan& plan) {
  std::vector<BalanceDay> out;
  BalanceDay day;
  day.content = plan.start;
  settle(day, plan);
  read(day, plan);
  out.push_back(day);
  for (int n = 1; n <= plan.days; ++n) {
    const auto run = passed(day.content, plan.flow, 1);
    day.content = run.content;
    day.drained = run.drained;
    day.ranDry = run.dryAfterDays.has_value();
    day.refilled = refillNow(plan.rule, day.content.volume, plan.full);
    day.content.pour(plan.refill, day.refilled);
    settle(day, plan);
    day.readings.reset();
    read(day, plan);
    out.push_back(day);
  }
  return out;
}

} // namespace butte::core
