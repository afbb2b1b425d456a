#include "water/report_text.h"

#include "base/csv.h"
#include "base/decimal.h"
#include "base/embedded.h"
#include "base/encoding.h"
#include "units/convert.h"
#include "water/report_lines.h"

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

/// "n.d.", "-", nothing at all.
bool isNotMeasured(std::string_view cell) {
  cell = trimmed(cell);
  return cell.empty() || !find(wordsOf("none"), lower(cell)).empty();
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
    auto cells = reportCells(text, m_header.size());
    splitSingle(cells);
    std::vector<Named> found;
    bool numbers = false, formulas = false;
    for (const auto& cell : cells) {
      found.push_back(nameIn(cell));
      numbers = numbers || numberIn(cell);
      formulas = formulas || isSpreadsheetFormula(cell);
    }
    const auto known =
        std::count_if(found.begin(), found.end(), [](const Named& n) { return !n.key.empty(); });
    if (known == 0 && (numbers || formulas) && fitsHeader(cells)) return takeUnderHeader(cells, line);
    if (numbers || formulas) return takeOne(cells, found, line);
    const bool heads = known >= 2 || (known == 1 && cells.size() > 1 && found.front().key.empty());
    if (heads) {
      m_header = found;
      m_headerText = cells;
    } else if (known == 0 && !m_header.empty()) {
      takeUnits(cells);
    } else if (known == 1) {
      takeOne(cells, found, line);
    }
  }

  /// A name in a column of figures begins a row of its own: "Coliforms;0" below "Ca;Mg" is no magnesium.
  bool fitsHeader(const std::vector<std::string>& cells) const {
    if (cells.size() < 2 || cells.size() > m_header.size()) return false;
    const auto& first = cells.front();
    const bool figure = numberIn(first) || isNotMeasured(first) || isSpreadsheetFormula(first);
    return figure || m_header.front().key.empty();
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
      const auto& [key, unit] = m_header[i];
      if (const auto number = numberIn(cells[i])) {
        if (key.empty())
          leave(line, m_headerText[i], cells[i], unit, WhyUnplaced::UnknownName);
        else
          put(key, *number, unit, line, cells[i]);
      } else if (isSpreadsheetFormula(cells[i])) {
        leave(line, m_headerText[i], cells[i], unit, WhyUnplaced::Formula);
      } else if (!key.empty() && !isNotMeasured(cells[i])) {
        leave(line, m_headerText[i], cells[i], unit, WhyUnplaced::NoFigure);
      }
    }
  }

  /// One figure: the first that stands beside the name. A formula in front of it is the figure's place taken.
  void takeOne(const std::vector<std::string>& cells, const std::vector<Named>& found, int line) {
    const auto named =
        std::find_if(found.begin(), found.end(), [](const Named& n) { return !n.key.empty(); });
    const auto at = static_cast<std::size_t>(named - found.begin());
    std::string unit = named == found.end() ? std::string() : named->unit;
    std::optional<Number> number;
    std::string typed, other;
    for (std::size_t i = 0; i < cells.size(); ++i) {
      if (i == at) continue;
      const bool free = !number && !isSpreadsheetFormula(typed);
      const auto unitHere = reportUnitFor(cells[i]);
      if (free && ((number = numberIn(cells[i])) || isSpreadsheetFormula(cells[i])))
        typed = cells[i];
      else if (unit.empty() && !unitHere.empty())
        unit = unitHere;
      else if (unitHere.empty() && other.empty() && !isNotMeasured(cells[i]))
        other = cells[i];
    }
    const auto name = at < cells.size() ? cells[at] : cells.front() == typed ? other : cells.front();
    if (isSpreadsheetFormula(typed)) return leave(line, name, typed, unit, WhyUnplaced::Formula);
    if (named == found.end()) return leave(line, name, typed, unit, WhyUnplaced::UnknownName);
    if (number) return put(named->key, *number, unit, line, typed);
    if (!other.empty()) leave(line, name, other, unit, WhyUnplaced::NoFigure);
  }

  void leave(int line, std::string name, std::string value, std::string unit, WhyUnplaced why) {
    m_out.unplaced.push_back({line, std::move(name), std::move(value), std::move(unit), why});
  }

  void put(std::string key, const Number& number, std::string unit, int line, const std::string& typed) {
    auto& report = m_out.report;
    const auto meter = [&](std::optional<double>& place, const char* usual) {
      const auto value = convert(number.value, unit.empty() ? usual : unit, usual);
      if (place || !value)
        leave(line, key, typed, unit, place ? WhyUnplaced::Twice : WhyUnplaced::BadUnit);
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
        leave(line, key, typed, unit, report.ph ? WhyUnplaced::Twice : WhyUnplaced::BadUnit);
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
      leave(line, key, typed, unit, twice ? WhyUnplaced::Twice : WhyUnplaced::BadUnit);
    else
      report.rows.push_back(std::move(row));
  }

  ReportText m_out;
  std::vector<Named> m_header;
  std::vector<std::string> m_headerText;
};

} // namespace

std::string reportKeyFor(std::string_view name) {
  return find(wordsOf("name"), plain(name, " -_.,:()[]+\t*'\""));
}

std::string reportUnitFor(std::string_view text) {
  return find(wordsOf("unit"), plain(trimmed(text), " ()[]"));
}

ReportText readReportText(std::string_view text) {
  return TextReader().read(utf8From(text));
}

} // namespace butte::core
