#include "shelf/need.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

namespace {

/// Grams of each week from `from` on.
std::vector<double> byWeek(const std::string& product, const std::vector<ShelfEvent>& events,
                           std::int64_t from, int weeks) {
  std::vector<double> out(static_cast<std::size_t>(weeks), 0);
  for (const auto& event : events) {
    const auto* used = std::get_if<shelved::Used>(&event.what);
    if (!used || used->product != product || event.atSeconds < from) continue;
    const auto week = (event.atSeconds - from) / secondsPerWeek;
    if (week < weeks) out[static_cast<std::size_t>(week)] += used->mass.grams();
  }
  return out;
}

double sum(const std::vector<double>& grams) {
  double out = 0;
  for (const double one : grams)
    out += one;
  return out;
}

/// What this year's last weeks are of the same weeks last year; nothing where that tells nothing.
std::optional<double> yearRatio(const std::string& product, const std::vector<ShelfEvent>& events,
                                std::int64_t now) {
  const auto from = now - usualWeeks * secondsPerWeek;
  const double lately = sum(byWeek(product, events, from, usualWeeks));
  const double then = sum(byWeek(product, events, from - weeksPerYear * secondsPerWeek, usualWeeks));
  if (!(then > 0)) return std::nullopt;
  const double ratio = lately / then;
  return ratio >= leastYearRatio && ratio <= mostYearRatio ? std::optional(ratio) : std::nullopt;
}

} // namespace

Need needAhead(const std::string& product, const std::vector<ShelfEvent>& events, std::int64_t now, int weeks,
               const std::vector<Mass>& plannedPerWeek) {
  Need out;
  weeks = std::clamp(weeks, 0, mostWeeksAhead);
  const auto rate = useRateOf(product, events, now);
  const double ofOneWeek = (rate.high - rate.perWeek).grams();
  std::vector<double> mean(static_cast<std::size_t>(weeks), rate.perWeek.grams());
  if (rate.weeks > 0) out.from = NeedFrom::Present;
  // The week after the last 52-week year: the same weeks as those ahead.
  const auto then =
      byWeek(product, events, now - weeksPerYear * secondsPerWeek, std::min(weeks, weeksPerYear));
  if (const auto ratio = yearRatio(product, events, now); ratio && sum(then) > 0) {
    out.from = NeedFrom::LastYear;
    for (std::size_t w = 0; w < mean.size(); ++w)
      mean[w] = then[w % then.size()] * *ratio;
  }
  double total = 0, planned = 0;
  for (std::size_t w = 0; w < mean.size(); ++w) {
    const double plan = w < plannedPerWeek.size() ? plannedPerWeek[w].grams() : 0;
    if (plan > 0) out.from = NeedFrom::Plan;
    const double spread = std::hypot(ofOneWeek, plannedBandShare * plan);
    const double week = mean[w] + plan;
    out.weeks.push_back({Mass::fromGrams(week), Mass::fromGrams(std::max(week - spread, 0.0)),
                         Mass::fromGrams(week + spread)});
    total += week;
    planned += plan;
  }
  // Weeks differ by themselves; that the mean of a few weeks is off, and the weather of a plan, they share.
  const double count = static_cast<double>(weeks);
  const double own = rate.weeks > 0 ? ofOneWeek * std::sqrt(count + count * count / rate.weeks) : 0;
  const double spread = std::hypot(own, plannedBandShare * planned);
  out.mean = Mass::fromGrams(total);
  out.low = Mass::fromGrams(std::max(total - spread, 0.0));
  out.high = Mass::fromGrams(total + spread);
  return out;
}

std::optional<double> weeksUntilOut(Mass left, const Need& need) {
  double weeks = 0;
  for (const auto& week : need.weeks) {
    if (week.mean > left) return weeks + left / week.mean;
    left = left - week.mean;
    ++weeks;
  }
  return std::nullopt;
}

} // namespace butte::core
