#include "water/report_text.h"

#include "base/csv.h"
#include "base/decimal.h"
#include "base/embedded.h"
#include "units/convert.h"

#include <algorithm>
#include <cctype>
#include <map>
#include <optional>

namespace butte::core {
namespace {

/// Words of laboratories without blanks and signs, in small letters, and what they mean:
/// data/report_words.csv.
using Words = std::map<std::string, std::string, std::less<>>;
const Words& wordsOf(std::string_view kind) {
  static const auto all = [] {
    std::map<std::string, Words, std::less<>> out;
    const CsvTable table(embedded::report_words());
    for (std::size_t row = 0; row < table.rowCount(); ++row)
      out[table.cell(row, "kind")].emplace(table.cell(row, "word"), table.cell(row, "means"));
    return out;
  }();
  return all.find(kind)->second;
}

std::string lower(std::string_view text) {
  std::string out;
  for (const char c : text)
    out += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  return out;
}

/// Small letters without blanks and the signs that reports sprinkle about.
std::string plain(std::string_view text, std::string_view drop) {
  std::string out;
  for (const char c : lower(text)) {
    if (drop.find(c) == std::string_view::npos) out += c;
  }
  return out;
}

std::string find(const Words& words, const std::string& text) {
  const auto it = words.find(text);
  return it == words.end() ? std::string() : it->second;
}

std::string_view trimmed(std::string_view text) {
  while (!text.empty() && std::isspace(static_cast<unsigned char>(text.front())))
    text.remove_prefix(1);
  while (!text.empty() && std::isspace(static_cast<unsigned char>(text.back())))
    text.remove_suffix(1);
  return text;
}

struct Number {
  double value = 0;
  bool below = false;
};

/// "12.5", "12,5", "< 0.02", "n.d." is none.
std::optional<Number> numberIn(std::string_view cell) {
  cell = trimmed(cell);
  Number out;
  for (const std::string_view sign : {"<", "\xE2\x89\xA4"}) {
    if (cell.substr(0, sign.size()) != sign) continue;
    out.below = true;
    cell = trimmed(cell.substr(sign.size()));
  }
  const auto value = parseDecimal(cell);
  if (!value || *value < 0) return std::nullopt;
  out.value = *value;
  return out;
}

/// A cell such as "Calcium (mg/L)" or "Ca [meq/L]": the name and the unit inside it.
struct Named {
  std::string key, unit;
};
Named nameIn(std::string_view cell) {
  Named out;
  const auto open = cell.find_first_of("([");
  if (open != std::string_view::npos) {
    const auto close = cell.find_first_of(")]", open);
    const auto inside = cell.substr(open + 1, close == std::string_view::npos ? close : close - open - 1);
    out.unit = reportUnitFor(inside);
    // "Nitrate (as N)", "Calcium (Ca)": what stands inside may belong to the name.
    out.key = reportKeyFor(std::string(cell.substr(0, open)) + (out.unit.empty() ? std::string(inside) : ""));
    if (out.key.empty()) out.key = reportKeyFor(cell.substr(0, open));
    if (out.key.empty() && out.unit.empty()) out.key = reportKeyFor(inside);
    return out;
  }
  out.key = reportKeyFor(cell);
  if (!out.key.empty()) return out;
  // "Ca mg/L": the last word may be the unit.
  const auto blank = cell.find_last_of(" ,");
  if (blank == std::string_view::npos) return out;
  out.unit = reportUnitFor(cell.substr(blank + 1));
  if (!out.unit.empty()) out.key = reportKeyFor(cell.substr(0, blank));
  return out;
}

std::vector<std::string> cellsOf(std::string_view line) {
  char delimiter = 0;
  for (const char c : {'\t', ';', '|'}) {
    if (line.find(c) != std::string_view::npos) {
      delimiter = c;
      break;
    }
  }
  std::vector<std::string> out;
  std::string cell;
  const auto end = [&] {
    std::string_view text = trimmed(cell);
    if (text.size() >= 2 && text.front() == '"' && text.back() == '"') text = text.substr(1, text.size() - 2);
    out.emplace_back(trimmed(text));
    cell.clear();
  };
  for (std::size_t i = 0; i < line.size(); ++i) {
    const bool wide = !delimiter && line[i] == ' ' && i + 1 < line.size() && line[i + 1] == ' ';
    // A comma parts cells unless it stands between two digits.
    const bool digits = i > 0 && i + 1 < line.size() &&
                        std::isdigit(static_cast<unsigned char>(line[i - 1])) &&
                        std::isdigit(static_cast<unsigned char>(line[i + 1]));
    const bool comma = !delimiter && line[i] == ',' && !digits;
    if ((delimiter && line[i] == delimiter) || wide || comma)
      end();
    else
      cell += line[i];
  }
  end();
  std::erase_if(out, [&](const std::string& text) { return text.empty() && delimiter == 0; });
  return out;
}

class TextReader {
public:
  ReportText read(std::string_view text) {
    int line = 0;
    while (!text.empty()) {
      const auto end = text.find_first_of("\r\n");
      ++line;
      takeLine(text.substr(0, end), line);
      if (end == std::string_view::npos) break;
      const bool both = text[end] == '\r' && end + 1 < text.size() && text[end + 1] == '\n';
      text.remove_prefix(end + (both ? 2 : 1));
    }
    return std::move(m_out);
  }

private:
  void takeLine(std::string_view text, int line) {
    auto cells = cellsOf(text);
    splitSingle(cells);
    std::vector<Named> found;
    bool numbers = false;
    for (const auto& cell : cells) {
      found.push_back(nameIn(cell));
      numbers = numbers || numberIn(cell);
    }
    const auto known =
        std::count_if(found.begin(), found.end(), [](const Named& n) { return !n.key.empty(); });
    if (!numbers) {
      if (known >= 2)
        m_header = found;
      else if (!m_header.empty())
        takeUnits(cells);
      return;
    }
    if (known == 0 && m_header.size() == cells.size()) return takeUnderHeader(cells, line);
    takeOne(cells, found, line);
  }

  /// "Calcium 52 mg/l" typed with single blanks.
  static void splitSingle(std::vector<std::string>& cells) {
    if (cells.size() != 1) return;
    const auto& text = cells.front();
    const auto digit =
        text.find_first_of("<0123456789", text.find(' ') == std::string::npos ? text.size() : text.find(' '));
    if (digit == std::string::npos || digit == 0 || text[digit - 1] != ' ') return;
    const auto after = text.find(
        ' ', text[digit] == '<' && digit + 1 < text.size() && text[digit + 1] == ' ' ? digit + 2 : digit);
    std::vector<std::string> out{std::string(trimmed(std::string_view(text).substr(0, digit))),
                                 text.substr(digit, after == std::string::npos ? after : after - digit)};
    if (after != std::string::npos) out.emplace_back(trimmed(std::string_view(text).substr(after)));
    cells = std::move(out);
  }

  void takeUnits(const std::vector<std::string>& cells) {
    for (std::size_t i = 0; i < cells.size() && i < m_header.size(); ++i) {
      if (const auto unit = reportUnitFor(cells[i]); !unit.empty()) m_header[i].unit = unit;
    }
  }

  void takeUnderHeader(const std::vector<std::string>& cells, int line) {
    for (std::size_t i = 0; i < cells.size(); ++i) {
      const auto number = numberIn(cells[i]);
      if (number && !m_header[i].key.empty()) put(m_header[i].key, *number, m_header[i].unit, line, cells[i]);
    }
  }

  void takeOne(const std::vector<std::string>& cells, const std::vector<Named>& found, int line) {
    std::size_t at = cells.size();
    std::string key, unit;
    for (std::size_t i = 0; i < cells.size() && at == cells.size(); ++i) {
      if (!found[i].key.empty()) at = i;
    }
    if (at < cells.size()) {
      key = found[at].key;
      unit = found[at].unit;
    }
    std::optional<Number> number;
    std::string typed;
    for (std::size_t i = 0; i < cells.size(); ++i) {
      if (i == at) continue;
      if (!number && (number = numberIn(cells[i]))) typed = cells[i];
      if (unit.empty()) unit = reportUnitFor(cells[i]);
    }
    if (!number) return;
    if (key.empty()) {
      m_out.unplaced.push_back({line, cells.front() == typed ? std::string() : cells.front(), typed, unit});
      return;
    }
    put(key, *number, unit, line, typed);
  }

  void put(std::string key, const Number& number, std::string unit, int line, const std::string& typed) {
    auto& report = m_out.report;
    const auto meter = [&](std::optional<double>& place, const char* usual) {
      const auto value = convert(number.value, unit.empty() ? usual : unit, usual);
      if (place || !value)
        m_out.unplaced.push_back({line, key, typed, unit});
      else
        place = *value;
    };
    if (key == "EC") {
      // Laboratories leave the unit out; hundreds can only be uS/cm.
      if (unit.empty() && number.value > 20) unit = "uS/cm";
      return meter(report.conductivityMsPerCm, "mS/cm");
    }
    if (key == "temperature") return meter(report.temperatureCelsius, "C");
    if (key == "pH") {
      if (report.ph || number.value > 14)
        m_out.unplaced.push_back({line, key, typed, unit});
      else
        report.ph = number.value;
      return;
    }
    if (unit == "mg/L_CaCO3" && key.find("CaCO3") != std::string::npos) unit = "mg/L";
    if (unit == "mg/L_CaCO3" && key == "HCO3") {
      key = "alkalinity_as_CaCO3";
      unit = "mg/L";
    }
    const bool twice = std::any_of(report.rows.begin(), report.rows.end(),
                                   [&](const ReportRow& row) { return row.key == key; });
    ReportRow row{key, number.value, unit.empty() ? "mg/L" : unit, number.below};
    if (twice || !milligramsPerLitre(row))
      m_out.unplaced.push_back({line, key, typed, unit});
    else
      report.rows.push_back(std::move(row));
  }

  ReportText m_out;
  std::vector<Named> m_header;
};

} // namespace

std::string reportKeyFor(std::string_view name) {
  return find(wordsOf("name"), plain(name, " -_.:()[]+\t*'\""));
}

std::string reportUnitFor(std::string_view text) {
  return find(wordsOf("unit"), plain(trimmed(text), " ()[]"));
}

ReportText readReportText(std::string_view text) {
  if (text.substr(0, 3) == "\xEF\xBB\xBF") text.remove_prefix(3);
  return TextReader().read(text);
}

} // namespace butte::core
