#include "tank/tank_forecast.h"

#include <algorithm>

namespace butte::core {
namespace {

/// The first moment at which `figure` of a day passes `edge` upwards, in days from the first entry; straight
/// between days.
template <class Figure>
std::optional<double> passesAbove(const std::vector<TankEstimate>& days, double edge, Figure figure) {
  for (std::size_t d = 1; d < days.size(); ++d) {
    const double before = figure(days[d - 1]), after = figure(days[d]);
    if (before <= edge && after > edge)
      return days[d - 1].day - days.front().day +
             (edge - before) / (after - before) * (days[d].day - days[d - 1].day);
  }
  return std::nullopt;
}

ElementCourse courseOf(const std::vector<TankEstimate>& days, Nutrient n, double low, double high) {
  ElementCourse out;
  out.nutrient = n;
  if (days.empty()) return out;
  const auto& first = days.front().of(n);
  const auto& last = days.back().of(n);
  const double span = days.back().day - days.front().day;
  out.perDayMgPerL = span > 0 ? (last.value - first.value) / span : 0;
  out.rises = last.value >= first.value;
  out.outside = first.value < low || first.value > high;
  // Falling is rising with the signs turned.
  const double sign = out.rises ? 1 : -1, edge = out.rises ? high : -low;
  out.leavesAfterDays = passesAbove(days, edge, [&](const TankEstimate& d) { return sign * d.of(n).value; });
  out.mayLeaveAfterDays =
      passesAbove(days, edge, [&](const TankEstimate& d) { return out.rises ? d.of(n).high : -d.of(n).low; });
  return out;
}

} // namespace

std::vector<TankEstimate> forecastOf(TankFilter now, const TankPlan& plan, int days) {
  std::vector<TankEstimate> out{now.estimate()};
  const double start = now.day();
  for (int d = 1; d <= days; ++d) {
    now.advanceTo(start + d);
    if (plan.bledDaily > Volume{}) now.take(logged::Drained{plan.bledDaily});
    if (refillNow(plan.rule, now.content().volume, plan.full) > Volume{})
      now.take(logged::FilledTo{plan.refill, plan.full});
    out.push_back(now.estimate());
  }
  return out;
}

std::vector<ElementCourse> coursesOf(const std::vector<TankEstimate>& forecast,
                                     const std::vector<TargetRow>& rows, const std::vector<Cap>& caps) {
  std::vector<ElementCourse> out;
  for (const auto& row : rows)
    if (row.nutrient != Nutrient::N)
      out.push_back(courseOf(forecast, row.nutrient, row.bandLow(), row.bandHigh()));
  for (const auto& cap : caps)
    out.push_back(courseOf(forecast, cap.nutrient, -1, cap.milligramsPerLitre));
  return out;
}

double AlkalinityBudget::ofUptake() const {
  double out = 0;
  for (const double one : byUptake)
    out += one;
  return out;
}

double AlkalinityBudget::total() const {
  return ofUptake() + byRefill;
}

AlkalinityBudget alkalinityBudget(const ReservoirContent& content, const ReservoirFlow& flow,
                                  const FeedContent& refill) {
  AlkalinityBudget out;
  const double litres = content.volume.litres();
  if (!(litres > 0)) return out;
  const auto day = passed(content, flow, 1);
  for (const auto n : keptNutrients)
    out.byUptake[static_cast<std::size_t>(n)] =
        -chargeInFeed(n) * day.takenMilligrams.of(n) / molarMass(n) / litres;
  const double lost = std::max((content.volume - day.content.volume).litres(), 0.0);
  // What is lost as pure water leaves its alkalinity behind: all that the refill holds is gained.
  out.byRefill = (refill.alkalinityMeqPerL * lost - day.drainedAlkalinityMeq) / litres;
  return out;
}

double alkalinityPerDayAt(double ammoniumShare, const AlkalinityBudget& budget) {
  const double nitrate = budget.byUptake[static_cast<std::size_t>(Nutrient::NNitrate)];
  const double ammonium = -budget.byUptake[static_cast<std::size_t>(Nutrient::NAmmonium)];
  const double nitrogen = nitrate + ammonium; // mmol per litre of the tank and day
  return budget.total() - 2 * (ammoniumShare * nitrogen - ammonium);
}

} // namespace butte::core
