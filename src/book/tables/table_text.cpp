#include "tables/table_text.h"

#include "base/decimal.h"
#include "base/encoding.h"

#include <QString>
#include <algorithm>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

namespace {

constexpr std::size_t mostRows = 200000;

std::string trimmedLower(const std::string& text) {
  return QString::fromStdString(text).simplified().toLower().toStdString();
}
std::string trimmed(const std::string& text) {
  return QString::fromStdString(text).trimmed().toStdString();
}

/// What stands most often outside of quotes in the first line.
char delimiterOf(const std::string& text) {
  const auto line = text.substr(0, text.find_first_of("\r\n"));
  char best = ',';
  long most = 0;
  for (const char c : {';', '\t', ','}) {
    const auto count = std::count(line.begin(), line.end(), c);
    if (count > most) {
      most = count;
      best = c;
    }
  }
  return best;
}

/// "12,5" or "1.234,5": digits and marks only.
bool looksLikeNumberWith(const std::string& cell, char mark) {
  const auto at = cell.find(mark);
  return at != std::string::npos && cell.find(mark, at + 1) == std::string::npos &&
         cell.find_first_not_of("0123456789.,-+<>eE ") == std::string::npos;
}

} // namespace

std::optional<std::size_t> TableText::column(std::string_view name) const {
  const auto it = std::find(header.begin(), header.end(), name);
  return it == header.end() ? std::nullopt : std::optional(static_cast<std::size_t>(it - header.begin()));
}

std::string TableText::cell(const core::CsvRow& row, std::string_view name) const {
  const auto at = column(name);
  return at && *at < row.cells.size() ? core::textAsItWas(trimmed(row.cells[*at])) : std::string();
}

std::optional<std::string> TableText::digits(const std::string& cell) const {
  auto text = cell;
  if (decimalComma) {
    if (text.find('.') != std::string::npos) return std::nullopt;
    std::replace(text.begin(), text.end(), ',', '.');
  } else if (text.find(',') != std::string::npos) {
    return std::nullopt; // 1,234 or 1,234.5: one can't know
  }
  if (!core::parseDecimal(text)) return std::nullopt;
  return text;
}

core::Result<TableText> readTable(const std::string& bytes) {
  const auto text = core::utf8From(bytes);
  if (text.find('\0') != std::string::npos)
    return problemAt(ProblemCode::BadFile, "table", {"this is no text: it holds zero bytes"});
  TableText out;
  out.delimiter = delimiterOf(text);
  auto rows = core::parseCsv(text, out.delimiter);
  if (rows.empty()) return problemAt(ProblemCode::BadFile, "table", {"it is empty"});
  if (rows.size() > mostRows)
    return problemAt(ProblemCode::BadFile, "table",
                     {"it has " + std::to_string(rows.size()) + " rows; 200000 at most, split it"});
  for (const auto& cell : rows.front().cells)
    out.header.push_back(trimmedLower(cell));
  for (std::size_t i = 0; i < out.header.size(); ++i) {
    if (!out.header[i].empty() && std::find(out.header.begin(), out.header.begin() + static_cast<long>(i),
                                            out.header[i]) != out.header.begin() + static_cast<long>(i))
      return problemAt(ProblemCode::DuplicateKey, "header", {out.header[i], out.header[i]});
  }
  rows.erase(rows.begin());
  std::size_t commas = 0, points = 0;
  for (const auto& row : rows) {
    for (const auto& cell : row.cells) {
      commas += looksLikeNumberWith(cell, ',') && out.delimiter != ',';
      points += looksLikeNumberWith(cell, '.');
    }
  }
  out.decimalComma = commas > points;
  out.rows = std::move(rows);
  return out;
}

} // namespace butte::book
