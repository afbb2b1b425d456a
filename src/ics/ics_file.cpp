#include "ics_file.h"

#include "repeats.h"

#include <libical/ical.h>
#include <memory>

namespace butte::ics {

using core::Day;

namespace {

struct ComponentGone {
  void operator()(icalcomponent* component) const { icalcomponent_free(component); }
};
using Component = std::unique_ptr<icalcomponent, ComponentGone>;

icaltimetype dateOf(Day day) {
  const std::chrono::year_month_day date(day);
  icaltimetype out{};
  out.is_date = 1;
  out.year = static_cast<int>(date.year());
  out.month = static_cast<int>(static_cast<unsigned>(date.month()));
  out.day = static_cast<int>(static_cast<unsigned>(date.day()));
  return out;
}

/// A text as it may stand in a file: no control characters but line breaks.
std::string clean(const std::string& text) {
  std::string out;
  for (const char letter : text)
    if (static_cast<unsigned char>(letter) >= 0x20 || letter == '\n') out += letter;
  return out;
}

icalcomponent* eventOf(const Entry& entry, std::int64_t stamp) {
  auto* event = icalcomponent_new(ICAL_VEVENT_COMPONENT);
  const auto add = [&](icalproperty* property) { icalcomponent_add_property(event, property); };
  add(icalproperty_new_uid(clean(entry.uid).c_str()));
  add(icalproperty_new_dtstamp(
      icaltime_from_timet_with_zone(static_cast<time_t>(stamp), 0, icaltimezone_get_utc_timezone())));
  add(icalproperty_new_dtstart(dateOf(entry.starts)));
  add(icalproperty_new_dtend(dateOf(entry.starts + std::chrono::days(1))));
  add(icalproperty_new_summary(clean(entry.summary).c_str()));
  if (!entry.description.empty()) add(icalproperty_new_description(clean(entry.description).c_str()));
  if (entry.instead) add(icalproperty_new_recurrenceid(dateOf(*entry.instead)));
  if (!entry.rule.empty()) add(icalproperty_new_rrule(icalrecurrencetype_from_string(entry.rule.c_str())));
  for (const auto day : entry.without)
    add(icalproperty_new_exdate(dateOf(day)));
  add(icalproperty_new_transp(ICAL_TRANSP_TRANSPARENT));
  return event;
}

/// A bare time counts as it stands; one in a zone as the farm's day at that moment.
std::optional<Day> dayOf(const icaltimetype& time, const LocalDay& localDay) {
  constexpr int firstYear = 1900, lastYear = 2300;
  if (icaltime_is_null_time(time) || time.year < firstYear || time.year > lastYear) return std::nullopt;
  const auto asItStands = std::chrono::year(time.year) / time.month / time.day;
  if (!asItStands.ok()) return std::nullopt;
  if (time.is_date || (!time.zone && !icaltime_is_utc(time))) return Day(asItStands);
  return localDay(icaltime_as_timet_with_zone(time, time.zone));
}

class Reader {
public:
  explicit Reader(const LocalDay& localDay) : m_localDay(localDay) {}

  void read(icalcomponent* calendar) {
    for (auto* inner = icalcomponent_get_first_component(calendar, ICAL_ANY_COMPONENT); inner;
         inner = icalcomponent_get_next_component(calendar, ICAL_ANY_COMPONENT)) {
      const auto kind = icalcomponent_isa(inner);
      if (kind == ICAL_VEVENT_COMPONENT || kind == ICAL_VTODO_COMPONENT) take(inner);
    }
  }
  Read done() { return std::move(m_out); }

private:
  static std::string text(icalcomponent* event, icalproperty_kind kind) {
    auto* property = icalcomponent_get_first_property(event, kind);
    const auto* value = property ? icalproperty_get_value_as_string(property) : nullptr;
    return value ? value : "";
  }

  void take(icalcomponent* event) {
    if (m_out.entries.size() >= mostEntries) {
      ++m_out.passedOver;
      return;
    }
    Entry entry;
    if (const auto* uid = icalcomponent_get_uid(event)) entry.uid = uid;
    if (const auto* summary = icalcomponent_get_summary(event)) entry.summary = clean(summary);
    if (const auto* description = icalcomponent_get_description(event))
      entry.description = clean(description);
    auto start = icalcomponent_get_dtstart(event);
    if (icaltime_is_null_time(start)) start = icalcomponent_get_due(event);
    const auto day = dayOf(start, m_localDay);
    const auto rule = text(event, ICAL_RRULE_PROPERTY);
    if (!day || entry.summary.empty() || (!rule.empty() && !checkedRule(rule))) {
      ++m_out.passedOver;
      return;
    }
    entry.starts = *day;
    entry.rule = rule;
    for (auto* property = icalcomponent_get_first_property(event, ICAL_EXDATE_PROPERTY); property;
         property = icalcomponent_get_next_property(event, ICAL_EXDATE_PROPERTY))
      if (const auto without = dayOf(icalproperty_get_exdate(property), m_localDay))
        entry.without.push_back(*without);
    entry.instead = dayOf(icalcomponent_get_recurrenceid(event), m_localDay);
    m_out.entries.push_back(std::move(entry));
  }

  const LocalDay& m_localDay;
  Read m_out;
};

} // namespace

std::string icsText(const std::vector<Entry>& entries, std::int64_t stampSeconds) {
  icalerror_set_errors_are_fatal(0);
  const Component calendar(icalcomponent_new(ICAL_VCALENDAR_COMPONENT));
  icalcomponent_add_property(calendar.get(), icalproperty_new_version("2.0"));
  icalcomponent_add_property(calendar.get(), icalproperty_new_prodid("-//Butte//farm calendar//EN"));
  for (const auto& entry : entries)
    icalcomponent_add_component(calendar.get(), eventOf(entry, stampSeconds));
  const std::unique_ptr<char, decltype(&std::free)> text(icalcomponent_as_ical_string_r(calendar.get()),
                                                         std::free);
  return text ? text.get() : "";
}

core::Result<Read> readIcs(std::string_view text, const LocalDay& localDay) {
  const auto bad = [](const char* why) {
    return core::problemAt(core::ProblemCode::BadFile, "calendar", {why});
  };
  if (text.size() > longestIcs) return bad("it is too long");
  if (text.find("BEGIN:VCALENDAR") == std::string_view::npos) return bad("it holds no calendar");
  icalerror_set_errors_are_fatal(0);
  const Component parsed(icalparser_parse_string(std::string(text).c_str()));
  if (!parsed) return bad("it holds no calendar");
  Reader reader(localDay);
  if (icalcomponent_isa(parsed.get()) == ICAL_VCALENDAR_COMPONENT) {
    reader.read(parsed.get());
  } else {
    for (auto* one = icalcomponent_get_first_component(parsed.get(), ICAL_VCALENDAR_COMPONENT); one;
         one = icalcomponent_get_next_component(parsed.get(), ICAL_VCALENDAR_COMPONENT))
      reader.read(one);
  }
  return reader.done();
}

} // namespace butte::ics
