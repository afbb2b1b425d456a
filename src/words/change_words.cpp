#include "change_words.h"

#include "base/decimal.h"
#include "chem/nutrient.h"
#include "deed_words.h"
#include "language.h"
#include "measures.h"
#include "water_words.h"
#include "words.h"

#include <cmath>

namespace butte::words {
namespace {

using core::ChangeCode;
using Values = std::vector<std::string>;

struct Phrase {
  const char *key, *english;
};

/// Places of a formula or a thing. {0} is whose place it is: a source, a tank.
constexpr Phrase places[] = {{"name", "name"},
                             {"note", "note"},
                             {"crop", "crop"},
                             {"stage", "stage"},
                             {"season", "season"},
                             {"currency", "currency"},
                             {"bag", "bag"},
                             {"colour", "colour"},
                             {"hatch", "hatch"},
                             {"hazards", "hazards"},
                             {"formula", "formula"},
                             {"purity_percent", "purity in %"},
                             {"price_per_kg", "price per kg"},
                             {"density_kg_per_l", "density in kg/L"},
                             {"date", "date"},
                             {"water", "water"},
                             {"water_ph", "{} pH"},
                             {"water_ec", "{} EC"},
                             {"treatment", "{} treatment"},
                             {"rejection", "{} rejection in %"},
                             {"share", "{} share"},
                             {"acid_first", "acid before use"},
                             {"acid_first_left", "alkalinity left by it"},
                             {"drain", "drain"},
                             {"target", "target"},
                             {"aim", "aim"},
                             {"at_most", "at most so many products"},
                             {"alkalinity_left", "alkalinity left"},
                             {"acid", "acid"},
                             {"ph_wanted", "pH wanted"},
                             {"batch", "batch"},
                             {"stock_factor", "stock factor"},
                             {"coldest", "coldest night"},
                             {"tank_volume", "tank {} volume"},
                             {"tank_use", "tank {} use"},
                             {"tank_made_with", "tank {} water"},
                             {"tank_own_factor", "tank {} ratio"},
                             {"volume", "volume"}};

/// Lists of figures. {0} is whose list, {1} the row.
constexpr Phrase tables[] = {{"target", "target {1}"},
                             {"band", "band of {1}"},
                             {"cap", "cap on {1}"},
                             {"label", "label {1}"},
                             {"water", "{0} {1}"}};

template <std::size_t N> std::string englishOf(const Phrase (&list)[N], const std::string& key) {
  for (const auto& [known, english] : list) {
    if (key == known) return text(english);
  }
  return key;
}

std::string at(const Values& values, std::size_t i) {
  return i < values.size() ? values[i] : std::string();
}

double number(const Values& values, std::size_t i) {
  return core::parseDecimal(at(values, i)).value_or(0);
}

std::string placeName(const Values& v) {
  const auto whose = v.size() > 1 && !v[1].empty() ? v[1] : text("water");
  return filled(englishOf(places, at(v, 0)), fmt::make_format_args(whose));
}

std::string rowName(const Values& v) {
  const auto whose = at(v, 1).empty() ? text("water") : v[1];
  const auto nutrient = core::nutrientFromKey(at(v, 2));
  const auto row = nutrient ? nutrientSymbol(*nutrient) : reportKeyName(at(v, 2));
  return filled(englishOf(tables, at(v, 0)), fmt::make_format_args(whose, row));
}

/// A figure with its unit; "none" where there is none.
std::string figureWithUnit(const std::string& digits, const std::string& unit) {
  if (digits.empty()) return text("none");
  return figureText(digits) + (unit.empty() ? "" : " " + unitName(unit));
}

/// "205 to 250 mg/L": the unit once where both have it.
std::string fromTo(const std::string& a, const std::string& unitA, const std::string& b,
                   const std::string& unitB) {
  const bool once = unitA == unitB && !a.empty() && !b.empty();
  return said("{} to {}", once ? figureText(a) : figureWithUnit(a, unitA), figureWithUnit(b, unitB));
}

std::string weight(double grams) {
  if (measures().mass == MassShown::Metric && grams >= 1000) return figure(grams / 1000) + " kg";
  return measures().text(core::Mass::fromGrams(grams));
}

/// The unit once where both have it.
std::string weights(double before, double after) {
  auto from = weight(before);
  const auto to = weight(after);
  const auto unit = from.rfind(' ');
  if (from.substr(unit) == to.substr(to.rfind(' '))) from.erase(unit);
  return said("{} to {}", from, to);
}

/// An effect is told in two digits: "+4", "+0.35".
std::string twoDigits(double value) {
  const double size = std::abs(value);
  if (!(size > 0)) return "0";
  const double scale = std::pow(10.0, 1 - std::floor(std::log10(size)));
  return (value > 0 ? "+" : "−") + figureText(core::decimalText(std::round(size * scale) / scale));
}

/// ": K +4 mg/L, S +1.6 mg/L" from pairs of element and mg/L.
std::string effect(const Values& v, std::size_t from) {
  std::string out;
  for (std::size_t i = from; i + 1 < v.size(); i += 2) {
    const auto nutrient = core::nutrientFromKey(v[i]);
    const double more = number(v, i + 1);
    out += (out.empty() ? ": " : ", ") + (nutrient ? nutrientSymbol(*nutrient) : v[i]) + " " +
           twoDigits(more) + " mg/L";
  }
  return out;
}

std::string textOr(const std::string& value) {
  return value.empty() ? text("none") : text(value);
}

std::string productChange(const core::Change& change) {
  const auto& v = change.values;
  switch (change.code) {
  case ChangeCode::ProductNew:
    return said("{} new, {}", at(v, 0), weight(number(v, 1))) + effect(v, 2);
  case ChangeCode::ProductWeight:
    return at(v, 0) + " " + weights(number(v, 1), number(v, 2)) + effect(v, 3);
  case ChangeCode::ProductLeftOut:
    return said("{} left out (was {})", at(v, 0), weight(number(v, 1))) + effect(v, 2);
  default:
    return {};
  }
}

} // namespace

std::string changeText(const core::Change& change) {
  const auto& v = change.values;
  switch (change.code) {
  case ChangeCode::Told:
    return at(v, 0);
  case ChangeCode::FirstVersion:
    return text("first version");
  case ChangeCode::Renamed:
    return said("renamed from “{}” to “{}”", at(v, 0), at(v, 1));
  case ChangeCode::Text:
    return placeName(v) + " " + said("{} to {}", textOr(at(v, 2)), textOr(at(v, 3)));
  case ChangeCode::Figure:
    return placeName(v) + " " + fromTo(at(v, 2), at(v, 3), at(v, 4), at(v, 5));
  case ChangeCode::RowNew:
    return said("{} new: {}", rowName(v), figureWithUnit(at(v, 3), at(v, 4)));
  case ChangeCode::RowGone:
    return said("{} taken out (was {})", rowName(v), figureWithUnit(at(v, 3), at(v, 4)));
  case ChangeCode::RowChanged:
    return rowName(v) + " " + fromTo(at(v, 3), at(v, 4), at(v, 5), at(v, 6));
  case ChangeCode::ProductNew:
  case ChangeCode::ProductWeight:
  case ChangeCode::ProductLeftOut:
    return productChange(change);
  case ChangeCode::TankAdded:
    return said("tank {} added", at(v, 0));
  case ChangeCode::TankTakenAway:
    return said("tank {} taken away", at(v, 0));
  case ChangeCode::SaltsMovedByHand:
    return text("salts moved between tanks by hand");
  case ChangeCode::Conductivity:
    return said("EC {} to {}", measures().digits(core::Conductivity::fromMilliSiemensPerCm(number(v, 0))),
                measures().text(core::Conductivity::fromMilliSiemensPerCm(number(v, 1))));
  case ChangeCode::ReportAdded:
    return said("report of {} added", at(v, 0));
  case ChangeCode::ReportsTakenOut:
    return at(v, 0) == "1" ? text("1 report taken out") : said("{} reports taken out", at(v, 0));
  }
  return {};
}

std::string changesText(const std::vector<core::Change>& changes) {
  constexpr std::size_t mostInOneLine = 4;
  std::string out;
  for (std::size_t i = 0; i < changes.size() && i < mostInOneLine; ++i)
    out += (i ? "; " : "") + changeText(changes[i]);
  if (changes.size() > mostInOneLine) out += "; " + said("and {} more", changes.size() - mostInOneLine);
  return out.empty() ? text("nothing that changes the feed") : out;
}

std::string versionReasonText(const std::string& why) {
  static constexpr Phrase reasons[] = {{"used", "used"},
                                       {"printed", "printed"},
                                       {"named", "named"},
                                       {"brought in", "brought in"},
                                       {"gone back", "gone back"}};
  return englishOf(reasons, why);
}

} // namespace butte::words
