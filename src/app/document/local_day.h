#pragma once
#include "book/moment.h"
#include "calendar/agenda.h"

#include <QDateTime>

namespace butte::app {

/// The person's own day of a moment: by the clock on the wall here.
inline core::Day localDay(book::Moment at) {
  const auto date = QDateTime::fromSecsSinceEpoch(at.seconds).date();
  return core::Day(std::chrono::year(date.year()) / date.month() / date.day());
}

inline QDate dateOf(core::Day day) {
  const std::chrono::year_month_day date(day);
  return {static_cast<int>(date.year()), static_cast<int>(static_cast<unsigned>(date.month())),
          static_cast<int>(static_cast<unsigned>(date.day()))};
}

inline core::Day dayOf(const QDate& date) {
  return core::Day(std::chrono::year(date.year()) / date.month() / date.day());
}

} // namespace butte::app
