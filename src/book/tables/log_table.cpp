#include "book/tables/log_table.h"

#include "base/csv.h"
#include "typed_numbers.h"

#include <algorithm>
#include <array>
#include <map>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

namespace {

constexpr std::array columns{"line",
                             "at",
                             "did",
                             "volume",
                             "volume_unit",
                             "left",
                             "left_unit",
                             "liquid",
                             "strength_percent",
                             "formula",
                             "formula_version",
                             "batch",
                             "run",
                             "slope_percent",
                             "about",
                             "who",
                             "text",
                             "item",
                             "amount",
                             "unit"};
constexpr std::size_t mostLines = 100000;

/// Keys of a line that are text alone.
constexpr std::array plainKeys{"at",      "did",   "liquid", "strength_percent",
                               "formula", "batch", "run",    "slope_percent",
                               "about",   "who",   "text"};

std::string textOf(const Json& body, const char* key) {
  const auto found = body.find(key);
  if (found == body.end()) return {};
  return found->is_string() ? found->get<std::string>() : found->dump();
}

/// One cell of a line's first row.
std::string cellOf(const Json& body, const std::string& column) {
  for (const auto* key : {"volume", "left"}) {
    const auto amount = body.find(key);
    if (column == key) return amount == body.end() ? std::string() : textOf(*amount, "amount");
    if (column == key + std::string("_unit"))
      return amount == body.end() ? std::string() : textOf(*amount, "unit");
  }
  return textOf(body, column.c_str());
}

/// "kno3", "120", "g": what was weighed in, or found.
struct Item {
  std::string name, amount, unit;
};

std::vector<Item> itemsOf(const TankLine& line) {
  std::vector<Item> out;
  for (const auto& one : line.weighed)
    out.push_back({one.product, one.amount.digits, one.amount.unit});
  for (const auto& one : line.figures)
    out.push_back({one.element, one.amount.digits, one.amount.unit});
  return out;
}

void putRow(std::string& out, const std::vector<std::string>& cells) {
  for (std::size_t i = 0; i < cells.size(); ++i)
    out += (i == 0 ? "" : ",") + core::csvCell(core::harmlessText(cells[i]));
  out += "\r\n";
}

/// Rows of a table by the names of their columns.
class Rows {
public:
  explicit Rows(std::string_view csv) : m_rows(core::parseCsv(csv)) {}

  Trouble readHead() {
    if (m_rows.empty()) return problemAt(ProblemCode::BadFile, "log", {"it is empty"});
    const auto& head = m_rows.front().cells;
    std::string known;
    for (const auto* column : columns)
      known += (known.empty() ? "" : ", ") + std::string(column);
    for (std::size_t i = 0; i < head.size(); ++i) {
      if (std::find(columns.begin(), columns.end(), head[i]) == columns.end() || m_places.contains(head[i]))
        return problemAt(ProblemCode::NotOneOf, "row 1", {head[i], known});
      m_places[head[i]] = i;
    }
    for (const auto* needed : {"at", "did"})
      if (!m_places.contains(needed)) return problemAt(ProblemCode::MissingKey, "row 1", {needed});
    if (m_rows.size() > mostLines)
      return problemAt(ProblemCode::OutsideLimits, "log",
                       {std::to_string(m_rows.size()), "", std::to_string(mostLines), ""});
    return std::nullopt;
  }
  std::size_t count() const { return m_rows.size() - 1; }
  std::string name(std::size_t row) const { return "row " + std::to_string(m_rows[row + 1].line); }
  std::string cell(std::size_t row, const char* column) const {
    const auto place = m_places.find(column);
    const auto& cells = m_rows[row + 1].cells;
    return place == m_places.end() || place->second >= cells.size() ? std::string()
                                                                    : core::textAsItWas(cells[place->second]);
  }

private:
  std::vector<core::CsvRow> m_rows;
  std::map<std::string, std::size_t> m_places;
};

/// Weighed in are salts and acids, found are elements: the line's own deed says which.
void addItem(Json& body, const Rows& rows, std::size_t row) {
  const auto item = rows.cell(row, "item");
  if (item.empty()) return;
  const auto unit = rows.cell(row, "unit");
  const auto amount = exchange::amountJson(rows.cell(row, "amount"), unit);
  const auto did = body.value("did", std::string());
  if (did == code(TankDid::Analysed) || did == code(TankDid::Medium)) {
    body["figures"].push_back({{"element", item}, {"found", amount}});
    return;
  }
  static constexpr std::array volumes{"mL", "L", "floz_us", "gal_us", "gal_imp", "tsp", "drop", "cup"};
  const bool byVolume = std::find(volumes.begin(), volumes.end(), unit) != volumes.end();
  body["weighed"].push_back({{"product", item}, {byVolume ? "volume" : "weight", amount}});
}

Json bodyOf(const Rows& rows, std::size_t row, const std::string& vesselUid) {
  Json body{{"vessel", vesselUid}};
  for (const auto* key : plainKeys)
    if (const auto text = rows.cell(row, key); !text.empty()) body[key] = text;
  for (const auto* key : {"volume", "left"})
    if (const auto digits = rows.cell(row, key); !digits.empty())
      body[key] = exchange::amountJson(digits, rows.cell(row, (key + std::string("_unit")).c_str()));
  const auto version = rows.cell(row, "formula_version");
  if (!version.empty() && version.size() < 10 && version.find_first_not_of("0123456789") == std::string::npos)
    body["formula_version"] = std::stoi(version);
  else if (!version.empty())
    body["formula_version"] = version; // refused by its name
  addItem(body, rows, row);
  return body;
}

} // namespace

std::string logTable(const std::vector<TankLine>& lines) {
  std::string out;
  putRow(out, {columns.begin(), columns.end()});
  for (std::size_t i = 0; i < lines.size(); ++i) {
    const auto body = toJson(lines[i]);
    auto items = itemsOf(lines[i]);
    if (items.empty()) items.emplace_back();
    for (std::size_t item = 0; item < items.size(); ++item) {
      std::vector<std::string> cells{std::to_string(i + 1)};
      for (std::size_t c = 1; c + 3 < columns.size(); ++c)
        cells.push_back(item == 0 ? cellOf(body, columns[c]) : std::string());
      cells.insert(cells.end(), {items[item].name, items[item].amount, items[item].unit});
      putRow(out, cells);
    }
  }
  return out;
}

core::Result<std::vector<TankLine>> readLogTable(std::string_view csv, const std::string& vesselUid) {
  constexpr std::string_view byteOrderMark = "\xEF\xBB\xBF";
  if (csv.substr(0, byteOrderMark.size()) == byteOrderMark) csv.remove_prefix(byteOrderMark.size());
  Rows rows(csv);
  if (auto trouble = rows.readHead()) return *trouble;
  std::vector<TankLine> out;
  for (std::size_t row = 0; row < rows.count();) {
    const auto name = rows.name(row);
    const auto number = rows.cell(row, "line");
    auto body = bodyOf(rows, row, vesselUid);
    for (++row; row < rows.count() && !number.empty() && rows.cell(row, "line") == number; ++row)
      addItem(body, rows, row);
    auto line = tankLineFromJson(body);
    if (!line) {
      auto problem = line.problem();
      problem.where = name + ", " + problem.where;
      return problem;
    }
    out.push_back(std::move(line).value());
  }
  return out;
}

} // namespace butte::book
