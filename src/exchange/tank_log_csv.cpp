#include "tank_log_csv.h"

#include "base/csv.h"
#include "base/decimal.h"

#include <algorithm>
#include <array>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <map>
#include <string>

namespace butte::exchange {
namespace {

using namespace core;

constexpr std::size_t mostLines = 2'000'000;
constexpr std::array<std::string_view, 8> dids{"read",    "filled", "poured",    "drained",
                                               "emptied", "rained", "dissolved", "analysed"};
constexpr std::array<std::string_view, 11> columns{"day",    "at",      "did",          "liquid",
                                                   "litres", "product", "grams",        "ec_ms_per_cm",
                                                   "ph",     "level_l", "temperature_c"};

std::string listed(auto names) {
  std::string out;
  for (const auto name : names)
    out += (out.empty() ? "" : ", ") + std::string(name);
  return out;
}

/// Days since 1970 of "2026-03-02" with or without "T07:15[:00][Z]"; nothing when it is no such text.
std::optional<double> daysOf(const std::string& text) {
  int year = 0, month = 0, day = 0, hour = 0, minute = 0, second = 0, used = 0;
  if (std::sscanf(text.c_str(), "%4d-%2d-%2d%n", &year, &month, &day, &used) != 3) return std::nullopt;
  auto rest = text.substr(static_cast<std::size_t>(used));
  if (!rest.empty()) {
    if (rest[0] != 'T' && rest[0] != ' ') return std::nullopt;
    int time = 0;
    const int found = std::sscanf(rest.c_str() + 1, "%2d:%2d%n", &hour, &minute, &time);
    if (found != 2) return std::nullopt;
    rest = rest.substr(static_cast<std::size_t>(time) + 1);
    if (std::sscanf(rest.c_str(), ":%2d%n", &second, &time) == 1)
      rest = rest.substr(static_cast<std::size_t>(time));
    if (!rest.empty() && rest != "Z") return std::nullopt;
  }
  const auto when =
      std::chrono::year_month_day{std::chrono::year(year), std::chrono::month(static_cast<unsigned>(month)),
                                  std::chrono::day(static_cast<unsigned>(day))};
  if (!when.ok() || hour > 23 || minute > 59 || second > 60) return std::nullopt;
  return static_cast<double>(std::chrono::sys_days(when).time_since_epoch().count()) + hour / 24.0 +
         minute / 1440.0 + second / 86400.0;
}

class LogReader {
public:
  LogReader(std::string_view csv, const TankLogTerms& terms) : m_rows(parseCsv(csv)), m_terms(terms) {}

  Result<std::vector<TankEntry>> read() {
    if (m_rows.empty())
      return problemAt(ProblemCode::MissingKey, "log", {"a head line with day or at, and did"});
    if (m_rows.size() > mostLines)
      return problemAt(ProblemCode::OutsideLimits, "log",
                       {std::to_string(m_rows.size()), "", std::to_string(mostLines), "lines"});
    readHead();
    std::optional<double> first;
    for (std::size_t i = 1; i < m_rows.size() && !m_problem; ++i) {
      m_row = &m_rows[i];
      const auto moment = readMoment();
      if (m_problem) break;
      // Dates count from the first of them.
      if (!first) first = m_byDate ? std::floor(moment) : 0;
      readLine(moment - *first);
    }
    if (m_problem) return *m_problem;
    std::stable_sort(m_out.begin(), m_out.end(), [](const auto& a, const auto& b) { return a.day < b.day; });
    return std::move(m_out);
  }

private:
  void fail(ProblemCode code, std::string_view column, std::vector<std::string> values) {
    if (m_problem) return;
    const auto line = m_row ? "log[" + std::to_string(m_row->line) + "]." : std::string("log.");
    m_problem = problemAt(code, line + std::string(column), std::move(values));
  }

  void readHead() {
    for (std::size_t c = 0; c < m_rows[0].cells.size(); ++c) {
      const auto& name = m_rows[0].cells[c];
      const auto nutrient = nutrientFromKey(name);
      const bool known = std::find(columns.begin(), columns.end(), name) != columns.end() ||
                         (nutrient && *nutrient != Nutrient::N) || name.starts_with("x_");
      if (!known) return fail(ProblemCode::UnknownKey, name, {listed(columns) + ", element keys"});
      m_columns[name] = c;
    }
    m_byDate = m_columns.contains("at");
    if (!m_byDate && !m_columns.contains("day")) fail(ProblemCode::MissingKey, "day", {"a column day or at"});
    if (!m_columns.contains("did"))
      fail(ProblemCode::MissingKey, "did", {"a column that says what was done"});
  }

  std::string cell(std::string_view column) const {
    const auto found = m_columns.find(column);
    if (found == m_columns.end() || found->second >= m_row->cells.size()) return {};
    return m_row->cells[found->second];
  }

  std::optional<double> number(std::string_view column, double least, double most) {
    const auto text = cell(column);
    if (text.empty()) return std::nullopt;
    const auto value = parseDecimal(text);
    if (!value) {
      fail(ProblemCode::NotANumber, column, {text});
      return std::nullopt;
    }
    if (*value < least || *value > most) {
      fail(ProblemCode::OutsideLimits, column, {text, decimalText(least), decimalText(most), ""});
      return std::nullopt;
    }
    return value;
  }

  double needed(std::string_view column, double least, double most) {
    const auto value = number(column, least, most);
    if (!value) fail(ProblemCode::MissingKey, column, {"how much"});
    return value.value_or(0);
  }

  double readMoment() {
    if (!m_byDate) return needed("day", 0, 1e5);
    const auto text = cell("at");
    const auto days = daysOf(text);
    if (!days)
      fail(ProblemCode::OutOfRange, "at", {"'" + text + "'", "a date and time such as 2026-03-02T07:15"});
    return days.value_or(0);
  }

  FeedContent liquid() {
    const auto text = cell("liquid");
    if (text.empty() || text == "feed") return m_terms.feed;
    if (text != "water") fail(ProblemCode::NotOneOf, "liquid", {text, "feed, water"});
    return m_terms.water;
  }

  logged::Dissolved dissolved() {
    const auto id = cell("product");
    const auto product = std::find_if(m_terms.shelf.begin(), m_terms.shelf.end(),
                                      [&](const ShelfProduct& p) { return p.id == id; });
    const double grams = needed("grams", 0, 1e9);
    logged::Dissolved out;
    if (product == m_terms.shelf.end()) {
      fail(ProblemCode::UnknownProduct, "product", {id});
      return out;
    }
    out.milligrams.addScaled(product->composition.massFraction, grams * 1000);
    out.alkalinityMeq = product->composition.solutesPerGram.alkalinityEq * 1000 * grams;
    return out;
  }

  logged::Read reading() {
    logged::Read out;
    if (const auto ec = number("ec_ms_per_cm", 0, 500)) out.at25 = Conductivity::fromMilliSiemensPerCm(*ec);
    out.ph = number("ph", 0, 14);
    if (const auto level = number("level_l", 0, 1e9)) out.level = Volume::fromLitres(*level);
    number("temperature_c", -50, 100);
    return out;
  }

  logged::Analysed analysed() {
    logged::Analysed out;
    for (const auto n : keptNutrients)
      if (const auto value = number(nutrientKey(n), 0, 1e6)) {
        out.named.push_back(n);
        out.milligramsPerLitre.add(n, *value);
      }
    if (out.named.empty())
      fail(ProblemCode::MissingKey, "did", {"an analysis needs figures in element columns"});
    return out;
  }

  void readLine(double day) {
    const auto did = cell("did");
    const auto litres = [&] { return Volume::fromLitres(needed("litres", 0, 1e9)); };
    TankDeed deed;
    if (did == "read")
      deed = reading();
    else if (did == "filled")
      deed = logged::FilledTo{liquid(), litres()};
    else if (did == "poured")
      deed = logged::Poured{liquid(), litres()};
    else if (did == "drained")
      deed = logged::Drained{litres()};
    else if (did == "emptied")
      deed = logged::Emptied{};
    else if (did == "rained")
      deed = logged::Rained{litres()};
    else if (did == "dissolved")
      deed = dissolved();
    else if (did == "analysed")
      deed = analysed();
    else
      return fail(ProblemCode::NotOneOf, "did", {did, listed(dids)});
    m_out.push_back({day, std::move(deed)});
  }

  std::vector<CsvRow> m_rows;
  const TankLogTerms& m_terms;
  std::map<std::string, std::size_t, std::less<>> m_columns;
  const CsvRow* m_row = nullptr;
  bool m_byDate = false;
  std::optional<Problem> m_problem;
  std::vector<TankEntry> m_out;
};

} // namespace

Result<std::vector<TankEntry>> readTankLog(std::string_view csv, const TankLogTerms& terms) {
  return LogReader(csv, terms).read();
}

} // namespace butte::exchange
