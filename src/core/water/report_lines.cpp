#include "water/report_lines.h"

#include <algorithm>
#include <cctype>

namespace butte::core {
namespace {

bool isFigure(char c) {
  return std::isdigit(static_cast<unsigned char>(c)) != 0;
}

/// Where each character of the line stands inside quotes; none does where a quote is never closed.
std::vector<bool> quotedPlaces(std::string_view line) {
  std::vector<bool> out(line.size(), false);
  if (std::count(line.begin(), line.end(), '"') % 2 != 0) return out;
  bool inside = false;
  for (std::size_t i = 0; i < line.size(); ++i) {
    if (line[i] == '"') inside = !inside;
    out[i] = inside;
  }
  return out;
}

/// "14,2": a bare figure in front of the comma, from the last blank or parting on, and a digit behind it.
/// Behind a comma that parts cells a figure begins anew ("Ca,52,5"); one that was decimal itself ends it.
bool isDecimalComma(std::string_view line, std::size_t at, std::size_t lastDecimal) {
  if (at + 1 >= line.size() || !isFigure(line[at + 1])) return false;
  std::size_t from = at;
  while (from > 0 && isFigure(line[from - 1]))
    --from;
  if (from == at) return false;
  static constexpr std::string_view before = " \t\"<>,;|=+-";
  return from == 0 || (before.find(line[from - 1]) != std::string_view::npos && from - 1 != lastDecimal);
}

std::string cellFrom(std::string_view text) {
  text = trimmed(text);
  const bool quoted = text.size() >= 2 && text.front() == '"' && text.back() == '"';
  if (!quoted) return std::string(text);
  std::string out;
  text = trimmed(text.substr(1, text.size() - 2));
  for (std::size_t i = 0; i < text.size(); ++i) {
    out += text[i];
    if (text[i] == '"' && i + 1 < text.size() && text[i + 1] == '"') ++i; // a doubled quote is one
  }
  return out;
}

} // namespace

std::string_view trimmed(std::string_view text) {
  while (!text.empty() && std::isspace(static_cast<unsigned char>(text.front())))
    text.remove_prefix(1);
  while (!text.empty() && std::isspace(static_cast<unsigned char>(text.back())))
    text.remove_suffix(1);
  return text;
}

std::vector<std::string> reportCells(std::string_view line, std::size_t columns) {
  const auto quoted = quotedPlaces(line);
  char delimiter = 0;
  for (const char c : {'\t', ';', '|'}) {
    for (std::size_t i = 0; i < line.size() && delimiter == 0; ++i) {
      if (line[i] == c && !quoted[i]) delimiter = c;
    }
  }
  std::size_t commas = 0;
  for (std::size_t i = 0; i < line.size(); ++i)
    commas += line[i] == ',' && !quoted[i];
  const bool everyComma = columns > 1 && commas + 1 == columns;
  std::vector<std::string> out;
  std::size_t from = 0;
  const auto end = [&](std::size_t to) {
    auto cell = cellFrom(line.substr(from, to - from));
    from = to + 1;
    if (!cell.empty() || delimiter != 0 || everyComma) out.push_back(std::move(cell));
  };
  std::size_t lastDecimal = line.size();
  for (std::size_t i = 0; i < line.size(); ++i) {
    if (quoted[i]) continue;
    const bool wide = delimiter == 0 && line[i] == ' ' && i + 1 < line.size() && line[i + 1] == ' ';
    const bool comma = delimiter == 0 && line[i] == ',';
    const bool decimal = comma && !everyComma && isDecimalComma(line, i, lastDecimal);
    if (decimal) lastDecimal = i;
    if ((delimiter != 0 && line[i] == delimiter) || wide || (comma && !decimal)) end(i);
  }
  end(line.size());
  return out;
}

bool isSpreadsheetFormula(std::string_view cell) {
  cell = trimmed(cell);
  return cell.size() > 1 && (cell.front() == '=' || cell.front() == '#' || cell.front() == '@');
}

} // namespace butte::core
