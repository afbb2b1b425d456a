#include "shelf/use_rate.h"

#include "base/nine_in_ten.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

namespace {

template <class Visit>
void eachUse(const std::string& product, const std::vector<ShelfEvent>& events, Visit visit) {
  for (const auto& event : events)
    if (const auto* used = std::get_if<shelved::Used>(&event.what); used && used->product == product)
      visit(event.atSeconds, used->mass);
}

} // namespace

UseRate useRateOf(const std::string& product, const std::vector<ShelfEvent>& events, std::int64_t nowSeconds,
                  int mostWeeks) {
  std::vector<double> grams(static_cast<std::size_t>(std::max(mostWeeks, 1)), 0);
  int weeks = 0;
  eachUse(product, events, [&](std::int64_t at, Mass mass) {
    if (at > nowSeconds) return;
    const auto week = (nowSeconds - at) / secondsPerWeek;
    if (week >= static_cast<std::int64_t>(grams.size())) {
      weeks = static_cast<int>(grams.size());
      return;
    }
    grams[static_cast<std::size_t>(week)] += mass.grams();
    weeks = std::max(weeks, static_cast<int>(week) + 1);
  });
  UseRate out;
  grams.resize(static_cast<std::size_t>(weeks));
  double sum = 0, squares = 0;
  for (const double week : grams)
    sum += week;
  if (!(sum > 0)) return out;
  const double mean = sum / weeks;
  for (const double week : grams)
    squares += (week - mean) * (week - mean);
  const double deviation = weeks > 1 ? std::sqrt(squares / (weeks - 1)) : mean;
  out.weeks = weeks;
  out.perWeek = Mass::fromGrams(mean);
  const double spread = sigmasOfNineInTenOfFew(weeks) * deviation;
  out.low = Mass::fromGrams(std::max(mean - spread, 0.0));
  out.high = Mass::fromGrams(mean + spread);
  return out;
}

std::optional<Mass> usedAYearAgo(const std::string& product, const std::vector<ShelfEvent>& events,
                                 std::int64_t nowSeconds, int weeksAhead) {
  const std::int64_t from = nowSeconds - weeksPerYear * secondsPerWeek,
                     to = from + weeksAhead * secondsPerWeek;
  Mass sum;
  eachUse(product, events, [&](std::int64_t at, Mass mass) {
    if (at >= from && at < to) sum = sum + mass;
  });
  return sum > Mass{} ? std::optional(sum) : std::nullopt;
}

std::optional<double> weeksLeft(Mass left, const UseRate& rate) {
  return rate.perWeek > Mass{} ? std::optional(left / rate.perWeek) : std::nullopt;
}

} // namespace butte::core
