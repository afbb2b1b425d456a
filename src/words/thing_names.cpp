/// What places of the book's things are called: units, what meters read, facts, what was done to a vessel.
#include "deed_words.h"
#include "named.h"

#include <algorithm>

namespace butte::words {
namespace {

constexpr Named units[] = {{"gal_us", "US gal"},
                           {"g/gal_us", "g/gal"},
                           {"oz/gal_us", "oz/gal"},
                           {"lb/gal_us", "lb/gal"},
                           {"lb/gal_imp", "lb/imp gal"},
                           {"gal_imp", "imp gal"},
                           {"floz_us", "fl oz"},
                           {"floz_imp", "imp fl oz"},
                           {"C", "°C"},
                           {"F", "°F"},
                           {"uS/cm", "µS/cm"},
                           {"ppm500", "ppm (scale 500)"},
                           {"ppm640", "ppm (scale 640)"},
                           {"ppm700", "ppm (scale 700)"}};
constexpr Named quantities[] = {{"ec", "EC"},
                                {"ph", "pH"},
                                {"level", "level"},
                                {"temperature", "temperature"},
                                {"ph_drops", "pH by drops"},
                                {"ph_strip", "pH by strip"},
                                {"air", "air"},
                                {"ec_drain", "EC of the drain"},
                                {"ph_drain", "pH of the drain"},
                                {"ec_drip", "EC of the drip"},
                                {"ph_drip", "pH of the drip"},
                                {"ec_root", "EC of the root zone"},
                                {"ph_root", "pH of the root zone"},
                                {"given", "given"},
                                {"drain", "drained"}};
constexpr Named facts[] = {{"crop", "crop"},
                           {"stage", "stage"},
                           {"season", "season"},
                           {"from_week", "from week"},
                           {"note", "note"},
                           {"bag", "bag"},
                           {"hazards", "hazards"},
                           {"colour", "colour"},
                           {"hatch", "hatch"},
                           {"report_date", "date of the report"},
                           {"laboratory", "laboratory"},
                           {"upkeep", "upkeep"},
                           {"name", "name"},
                           {"volume", "full mark"},
                           {"low", "low mark"},
                           {"drunk_per_day", "drunk in a day"},
                           {"ground", "area of the plants"},
                           {"plants", "number of plants"},
                           {"usual_temperature", "usual temperature"},
                           {"climate", "climate"},
                           {"formula", "what fills it"},
                           {"filled_with_water", "filled with water of"},
                           {"batch", "filled with a batch"},
                           {"southern", "south of the equator"},
                           {"stick_full", "float stick at the full mark"},
                           {"stick_low", "float stick at the low mark"},
                           {"shot", "given at once"},
                           {"first_hour", "first turn, hour"},
                           {"last_hour", "last turn, hour"},
                           {"drain_percent", "share that drains, %"},
                           {"root_percent", "root zone over the feed, %"},
                           {"drains_to_waste", "drains to waste"},
                           {"open_to_rain", "open to rain"},
                           {"measures", "measures"},
                           {"rule_high_ec", "rule of thumb, EC above"},
                           {"rule_low_ec", "rule of thumb, EC below"},
                           {"rule_high_percent", "rule of thumb, refill above in %"},
                           {"rule_low_percent", "rule of thumb, refill below in %"},
                           {"rule_high_ph", "rule of thumb, pH above"},
                           {"rule_low_ph", "rule of thumb, pH below"}};
constexpr Named dids[] = {{"filled", "filled to"},
                          {"poured", "poured in"},
                          {"salts", "weighed in"},
                          {"drained", "drained"},
                          {"emptied", "emptied"},
                          {"rained", "rain"},
                          {"bleeds", "let off every day"},
                          {"medium", "brought by the medium"},
                          {"analysed", "a laboratory's figures"},
                          {"planted", "planted"},
                          {"calibrated", "pen calibrated"},
                          {"cups", "cups of feed"},
                          {"noted", "noted"},
                          {"read", "read"}};
constexpr Named dosings[] = {{"feed_per_day", "feed used per day"},
                             {"feed_per_hour", "feed used per hour"},
                             {"fill_days", "days that a fill should last"},
                             {"season_days", "days of the season"},
                             {"drawn_feed", "feed made meanwhile"},
                             {"line_for", "volume whose line is sought"},
                             {"setpoint", "setpoint of the controller"},
                             {"cold_water", "cold water"},
                             {"hot_water", "hot water"},
                             {"wanted", "temperature wanted"},
                             {"reservoir/volume", "volume of the vessel"},
                             {"reservoir/present", "what is in it"},
                             {"reservoir/last_water", "water that comes last"},
                             {"reservoir/reading", "what the meter reads"},
                             {"reservoir/target", "EC wanted"},
                             {"reservoir/cautious", "in careful steps"},
                             {"reservoir/with_acid", "acid with it"},
                             {"reservoir/by_readings", "as strong as the readings say"}};
/// Places in a list; the number is counted from one.
constexpr Named numbered[] = {{"pumps/ml_per_run", "mL per run of pump {}"},
                              {"pumps/ml_per_minute", "mL per minute of pump {}"},
                              {"drawn/volume", "drawn from tank {}"},
                              {"drawn/of_plan_percent", "salts in tank {}, in % of the plan"},
                              {"readings/ml_per_l", "dose of reading {}"},
                              {"readings/ec", "reading {}"}};

} // namespace

std::string factName(const std::string& key) {
  return named(facts, key);
}

std::string unitName(const std::string& key) {
  return named(units, key);
}

std::string quantityName(const std::string& code) {
  return named(quantities, code);
}

std::string tankDidName(const std::string& code) {
  return named(dids, code);
}

std::string dosingName(const std::string& place) {
  const auto first = place.find('/'), last = place.rfind('/');
  const bool isNumbered = first != std::string::npos && last > first + 1 &&
                          std::all_of(place.begin() + static_cast<std::ptrdiff_t>(first) + 1,
                                      place.begin() + static_cast<std::ptrdiff_t>(last),
                                      [](unsigned char c) { return c >= '0' && c <= '9'; });
  if (!isNumbered || last - first > 5) return named(dosings, place);
  const auto key = place.substr(0, first) + place.substr(last);
  for (const auto& [known, english] : numbered) {
    if (key != known) continue;
    const int number = std::stoi(place.substr(first + 1, last - first - 1)) + 1;
    return filled(english, fmt::make_format_args(number));
  }
  return place;
}

} // namespace butte::words
