#include "streams/local_time.h"

#include <QDateTime>

namespace butte::app {

std::int64_t secondsOf(const devices::LoggedTime& at, std::int64_t now,
                       const std::optional<std::int64_t>& previous) {
  if (const auto* seconds = std::get_if<std::int64_t>(&at)) return *seconds;
  const auto* civil = std::get_if<devices::CivilTime>(&at);
  if (!civil) return now;
  constexpr int hour = 3600;
  const QDate date(civil->year, civil->month, civil->day);
  const QTime time(civil->hour, civil->minute, std::min(civil->second, 59));
  const auto guess = QDateTime(date, time).toSecsSinceEpoch();
  if (!previous) return guess;
  // The same hands of the clock an hour apart: the first that does not go back.
  for (const auto other : {guess - hour, guess, guess + hour}) {
    const auto shown = QDateTime::fromSecsSinceEpoch(other);
    if (shown.date() == date && shown.time() == time && other >= *previous) return other;
  }
  return guess;
}

} // namespace butte::app
