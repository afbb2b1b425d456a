#include "table/foreign_table.h"

#include "base/encoding.h"
#include "report/line_items.h"
#include "table/column_heading.h"
#include "table/dates.h"
#include "table/fields.h"
#include "text/atoms.h"
#include "text/trimmed.h"

#include <algorithm>
#include <array>
#include <map>

namespace butte::reading {

using core::CsvRow;
using core::problemAt;
using core::ProblemCode;

namespace {

constexpr std::size_t mostRows = 200000;
constexpr std::size_t headingWithin = 60; ///< rows above which a heading is looked for
constexpr std::size_t mostColumns = 400;

/// What parts most of the first lines into the same number of cells.
char delimiterOf(std::string_view text) {
  const auto sample = text.substr(0, 20000);
  char best = ',';
  std::size_t most = 0;
  for (const char c : {'\t', ';', ',', '|'}) {
    std::map<std::size_t, std::size_t> counts;
    for (const auto& row : core::parseCsv(sample, c))
      ++counts[row.cells.size()];
    std::size_t score = 0;
    for (const auto& [cells, rows] : counts) {
      if (cells > 1) score = std::max(score, rows * 10 + std::min<std::size_t>(cells, 9));
    }
    if (score > most) {
      most = score;
      best = c;
    }
  }
  return best;
}

bool isNumberish(std::string_view cell) {
  return !cell.empty() && cell.find_first_of("0123456789") != std::string_view::npos &&
         cell.find_first_not_of("0123456789.,-+<>eE '%\xC2\xA0") == std::string_view::npos;
}

/// "|---|---|" below a heading of Markdown.
bool isRuler(const CsvRow& row) {
  return std::all_of(row.cells.begin(), row.cells.end(),
                     [](const auto& cell) { return cell.find_first_not_of("-:= ") == std::string::npos; });
}

bool isOurs(const std::string& cell) {
  const auto small = folded(cell);
  for (int i = 0; i < tableOfCount; ++i) {
    if (fieldNamed(static_cast<TableOf>(i), small)) return true;
  }
  return false;
}

/// How much a row looks like a heading: words that are known, no figures.
double headingScore(const CsvRow& row) {
  double score = 0;
  for (const auto& cell : row.cells) {
    if (cell.empty()) continue;
    if (isNumberish(cell) ||
        (cell.front() >= '0' && cell.front() <= '9' && dateIn(cell, DateOrder::DayFirst)))
      score -= 2;
    else if (const auto heading = columnHeadingOf(cell); isOurs(cell) || (!heading.empty() && heading.whole))
      score += 2;
    else
      score += heading.empty() ? 0.1 : 0.8;
  }
  return score;
}

std::size_t widthOf(const std::vector<CsvRow>& rows) {
  std::size_t out = 0;
  for (std::size_t i = 0; i < rows.size() && i < headingWithin; ++i)
    out = std::max(out, rows[i].cells.size());
  return out;
}

std::size_t headingRow(const std::vector<CsvRow>& rows) {
  // A line of one cell above a table is a title.
  const auto wide = std::max<std::size_t>(1, widthOf(rows) / 2);
  std::size_t best = 0;
  double most = -1e9;
  for (std::size_t i = 0; i < rows.size() && i < headingWithin; ++i) {
    if (rows[i].cells.size() < wide) continue;
    const double score = headingScore(rows[i]);
    if (score > most + 0.5) {
      most = score;
      best = i;
    }
  }
  return best;
}

bool isUnitRow(const CsvRow& row) {
  std::size_t units = 0;
  for (const auto& cell : row.cells) {
    if (cell.empty() || cell == "-") continue;
    // "Unit | mg/L | mg/L": the row says itself what it is.
    const bool title =
        &cell == &row.cells.front() && columnHeadingOf(cell).words == std::vector<std::string>{"unit"};
    if (!title && unitAlone(cell).empty()) return false;
    units += !title;
  }
  return units > 0;
}

/// Names that go down instead of across ("Element | Tomato | Lettuce"): rows and columns change places.
bool namesGoDown(const std::vector<CsvRow>& rows, std::size_t heading) {
  if (rows.size() >= mostColumns) return false;
  std::size_t named = 0, all = 0, across = 0;
  for (auto i = heading + 1; i < rows.size(); ++i) {
    const auto& first = rows[i].cells.front();
    if (first.empty()) continue;
    ++all;
    const auto read = columnHeadingOf(first);
    named += (read.analyte || !read.labelKey.empty()) && read.whole;
  }
  for (const auto& cell : rows[heading].cells) {
    const auto read = columnHeadingOf(cell);
    across += read.analyte || !read.labelKey.empty();
  }
  // A long list of readings names its quantity row by row; there a name comes again.
  std::vector<std::string> firsts;
  for (auto i = heading + 1; i < rows.size() && i < heading + 80; ++i)
    firsts.push_back(rows[i].cells.front());
  std::sort(firsts.begin(), firsts.end());
  const bool twice = std::adjacent_find(firsts.begin(), firsts.end()) != firsts.end();
  return all >= 3 && named * 3 >= all * 2 && across <= 1 && !twice;
}

std::vector<CsvRow> turned(const std::vector<CsvRow>& rows, std::size_t heading) {
  const auto width = rows[heading].cells.size();
  std::vector<CsvRow> out(width);
  for (std::size_t column = 0; column < width; ++column) {
    out[column].line = rows[heading].line;
    for (auto i = heading; i < rows.size(); ++i)
      out[column].cells.push_back(column < rows[i].cells.size() ? rows[i].cells[column] : std::string());
  }
  return out;
}

void trim(std::vector<CsvRow>& rows, char delimiter) {
  for (auto& row : rows) {
    for (auto& cell : row.cells)
      cell = core::textAsItWas(trimmed(cell));
    if (delimiter != '|') continue;
    if (!row.cells.empty() && row.cells.front().empty()) row.cells.erase(row.cells.begin());
    if (!row.cells.empty() && row.cells.back().empty()) row.cells.pop_back();
  }
  std::erase_if(rows, [&](const CsvRow& row) {
    const bool empty =
        std::all_of(row.cells.begin(), row.cells.end(), [](const auto& cell) { return cell.empty(); });
    return empty || (delimiter == '|' && isRuler(row));
  });
}

void readMark(ForeignTable& table) {
  std::size_t commas = 0, points = 0, unclear = 0;
  for (const auto& row : table.rows) {
    for (const auto& cell : row.cells) {
      if (!isNumberish(cell) || (cell.find('.') == std::string::npos && cell.find(',') == std::string::npos))
        continue;
      auto digits = std::string_view(cell);
      while (!digits.empty() && std::string_view("<>+- ").find(digits.front()) != std::string_view::npos)
        digits.remove_prefix(1);
      if (digits.ends_with("%")) digits.remove_suffix(1);
      const auto shown = markShownBy(digits);
      commas += shown == DecimalMark::Comma;
      points += shown == DecimalMark::Point;
      const auto number = numberIn(digits, DecimalMark::Unknown);
      unclear += number && number->otherwise;
    }
  }
  if (commas != points) table.mark = commas > points ? DecimalMark::Comma : DecimalMark::Point;
  table.markUnclear = unclear > 0 && commas == points;
}

} // namespace

std::string ForeignTable::layout() const {
  std::string out;
  for (const auto& cell : header)
    out += folded(cell) + "\x1f";
  for (const auto& unit : units)
    out += folded(unit) + "\x1e";
  return out;
}

core::Result<ForeignTable> readForeignTable(std::string_view bytes) {
  const auto text = core::utf8From(bytes);
  if (text.find('\0') != std::string::npos)
    return problemAt(ProblemCode::BadFile, "table", {"this is no text: it holds zero bytes"});
  ForeignTable out;
  out.delimiter = delimiterOf(text);
  auto rows = core::parseCsv(text, out.delimiter);
  if (rows.size() > mostRows)
    return problemAt(ProblemCode::BadFile, "table",
                     {"it has " + std::to_string(rows.size()) + " rows; 200000 at most, split it"});
  trim(rows, out.delimiter);
  if (rows.empty()) return problemAt(ProblemCode::BadFile, "table", {"it is empty"});
  auto heading = headingRow(rows);
  out.before.assign(rows.begin(), rows.begin() + static_cast<std::ptrdiff_t>(heading));
  if (namesGoDown(rows, heading)) {
    rows = turned(rows, heading);
    heading = 0;
  }
  out.header = rows[heading].cells;
  rows.erase(rows.begin(), rows.begin() + static_cast<std::ptrdiff_t>(heading) + 1);
  if (!rows.empty() && isUnitRow(rows.front())) {
    out.units = std::move(rows.front().cells);
    out.units.resize(out.header.size());
    rows.erase(rows.begin());
  }
  out.rows = std::move(rows);
  readMark(out);
  return out;
}

} // namespace butte::reading
