#include "units/typed_unit.h"

#include "base/decimal.h"
#include "units/convert.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <utility>

namespace butte::core {
namespace {

constexpr int figuresOfAConversion = 9;

// Lower case, blanks, dots and "per" aside (plain() below). Common practice.
constexpr std::array<std::pair<std::string_view, std::string_view>, 68> names{{
    {"kg", "kg"},
    {"kilo", "kg"},
    {"kilos", "kg"},
    {"kilogram", "kg"},
    {"kilograms", "kg"},
    {"g", "g"},
    {"gr", "g"},
    {"gram", "g"},
    {"grams", "g"},
    {"gramme", "g"},
    {"mg", "mg"},
    {"lb", "lb"},
    {"lbs", "lb"},
    {"pound", "lb"},
    {"pounds", "lb"},
    {"oz", "oz"},
    {"ounce", "oz"},
    {"ounces", "oz"},
    {"m3", "m3"},
    {"m³", "m3"},
    {"l", "L"},
    {"litre", "L"},
    {"litres", "L"},
    {"liter", "L"},
    {"liters", "L"},
    {"ml", "mL"},
    {"cc", "mL"},
    {"gal", "gal_us"},
    {"gallon", "gal_us"},
    {"gallons", "gal_us"},
    {"usgal", "gal_us"},
    {"gal_us", "gal_us"},
    {"galus", "gal_us"},
    {"usgallons", "gal_us"},
    {"impgal", "gal_imp"},
    {"gal_imp", "gal_imp"},
    {"galimp", "gal_imp"},
    {"ukgal", "gal_imp"},
    {"imperialgallons", "gal_imp"},
    {"floz", "floz_us"},
    {"tsp", "tsp"},
    {"teaspoon", "tsp"},
    {"teaspoons", "tsp"},
    {"tbsp", "tbsp"},
    {"tablespoon", "tbsp"},
    {"cup", "cup"},
    {"cups", "cup"},
    {"g/l", "g/L"},
    {"mg/l", "mg/L"},
    {"ppm", "ppm"},
    {"ug/l", "ug/L"},
    {"µg/l", "ug/L"},
    {"mmol/l", "mmol/L"},
    {"mmol", "mmol/L"},
    {"umol/l", "umol/L"},
    {"µmol/l", "umol/L"},
    {"meq/l", "meq/L"},
    {"meq", "meq/L"},
    {"ms/cm", "mS/cm"},
    {"ms", "mS/cm"},
    {"us/cm", "uS/cm"},
    {"µs/cm", "uS/cm"},
    {"ppm500", "ppm500"},
    {"ppm640", "ppm640"},
    {"ppm700", "ppm700"},
    {"°c", "C"},
    {"°f", "F"},
    {"%", "%"},
}};

std::string plain(std::string_view text) {
  std::string out;
  for (const char letter : text) {
    if (letter != ' ' && letter != '.')
      out += static_cast<char>(std::tolower(static_cast<unsigned char>(letter)));
  }
  return out;
}

std::string withoutEnds(std::string_view text) {
  const auto first = text.find_first_not_of(" \t");
  if (first == std::string_view::npos) return {};
  return std::string(text.substr(first, text.find_last_not_of(" \t") - first + 1));
}

} // namespace

std::optional<TypedFigure> typedFigure(std::string_view text) {
  const auto whole = withoutEnds(text);
  // The longest beginning that is a number: "1e3 L" is a thousand litres, "5 e" is five of an unknown unit.
  for (auto end = whole.size(); end > 0; --end) {
    const bool letterBehind = end < whole.size() && std::isdigit(static_cast<unsigned char>(whole[end]));
    if (letterBehind || !parseDecimal(whole.substr(0, end))) continue;
    return TypedFigure{withoutEnds(whole.substr(0, end)), withoutEnds(whole.substr(end))};
  }
  return std::nullopt;
}

std::optional<std::string> unitTyped(std::string_view text) {
  const auto wanted = plain(text);
  if (wanted == "c" || wanted == "f") return wanted == "c" ? "C" : "F";
  const auto it =
      std::find_if(names.begin(), names.end(), [&](const auto& name) { return name.first == wanted; });
  return it == names.end() ? std::nullopt : std::optional(std::string(it->second));
}

std::optional<std::string> digitsIn(const TypedFigure& typed, std::string_view unit,
                                    std::string_view substance) {
  const auto value = parseDecimal(typed.number);
  if (!value) return std::nullopt;
  if (typed.unit.empty()) return normalisedDecimal(typed.number);
  auto from = unitTyped(typed.unit);
  if (!from) return std::nullopt;
  const bool anyGallon = plain(typed.unit).starts_with("gal") && !plain(typed.unit).ends_with("us");
  if (anyGallon && unit == "gal_imp") from = "gal_imp"; // a bare gallon in a field of imperial ones
  if (*from == "ppm" && unit == "mg/L")
    from = "mg/L"; // of a dilute feed the same; of a meter it needs its scale
  if (*from == unit) return normalisedDecimal(typed.number);
  const auto converted = convert(*value, *from, unit, substance);
  if (!converted) return std::nullopt;
  const double scale =
      *converted == 0 ? 1
                      : std::pow(10, figuresOfAConversion - 1 - std::floor(std::log10(std::abs(*converted))));
  return decimalText(std::round(*converted * scale) / scale);
}

} // namespace butte::core
