#include "repeats.h"

#include <cstdlib>
#include <libical/ical.h>
#include <memory>

namespace butte::ics {

using core::Day;

namespace {

struct IteratorGone {
  void operator()(icalrecur_iterator* iterator) const { icalrecur_iterator_free(iterator); }
};

icaltimetype timeOf(Day day) {
  const std::chrono::year_month_day date(day);
  icaltimetype out{};
  out.is_date = 1;
  out.year = static_cast<int>(date.year());
  out.month = static_cast<int>(static_cast<unsigned>(date.month()));
  out.day = static_cast<int>(static_cast<unsigned>(date.day()));
  return out;
}

Day dayOf(const icaltimetype& time) {
  return Day(std::chrono::year(time.year) / time.month / time.day);
}

/// Nothing where it does not read, or repeats within a day.
std::optional<icalrecurrencetype> ruleOf(const std::string& text) {
  constexpr std::size_t longest = 500;
  if (text.empty() || text.size() > longest) return std::nullopt;
  icalerror_set_errors_are_fatal(0);
  auto rule = icalrecurrencetype_from_string(text.c_str());
  std::free(rule.rscale); // what it allocates of its own; calendars of other peoples are not repeated by
  rule.rscale = nullptr;
  const bool byDays = rule.freq == ICAL_DAILY_RECURRENCE || rule.freq == ICAL_WEEKLY_RECURRENCE ||
                      rule.freq == ICAL_MONTHLY_RECURRENCE || rule.freq == ICAL_YEARLY_RECURRENCE;
  const bool withinDay = rule.by_hour[0] != ICAL_RECURRENCE_ARRAY_MAX ||
                         rule.by_minute[0] != ICAL_RECURRENCE_ARRAY_MAX ||
                         rule.by_second[0] != ICAL_RECURRENCE_ARRAY_MAX;
  return byDays && !withinDay && rule.interval > 0 ? std::optional(rule) : std::nullopt;
}

} // namespace

core::Result<std::string> checkedRule(std::string_view rule) {
  if (const auto read = ruleOf(std::string(rule))) return std::string(rule);
  return core::problemAt(core::ProblemCode::OutOfRange, "repeat",
                         {"'" + std::string(rule) + "'", "a rule such as FREQ=WEEKLY;INTERVAL=2;BYDAY=MO"});
}

std::vector<Day> repeatDays(const std::string& text, Day starts, Day from, Day to) {
  std::vector<Day> out;
  auto rule = ruleOf(text);
  if (!rule || to < starts) return out;
  const std::unique_ptr<icalrecur_iterator, IteratorGone> iterator(
      icalrecur_iterator_new(*rule, timeOf(starts)));
  if (!iterator) return out;
  // A count counts from the start: every one is walked through.
  constexpr int mostSteps = 200000;
  int steps = 0;
  for (auto time = icalrecur_iterator_next(iterator.get());
       !icaltime_is_null_time(time) && out.size() < mostRepeats && ++steps < mostSteps;
       time = icalrecur_iterator_next(iterator.get())) {
    const auto day = dayOf(time);
    if (day > to) break;
    if (day >= from) out.push_back(day);
  }
  return out;
}

} // namespace butte::ics
