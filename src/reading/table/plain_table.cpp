#include "table/plain_table.h"

#include "base/decimal.h"
#include "chem/nutrient.h"
#include "product/oxides.h"
#include "quantity/typed_quantity.h"
#include "report/analyte.h"
#include "table/column_heading.h"
#include "text/atoms.h"
#include "units/convert.h"
#include "water/report_row.h"
#include "words/vocabulary.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace butte::reading {

using core::CsvRow;

namespace {

constexpr std::array<std::string_view, 4> wideQuantities{"ec", "ph", "temperature", "level"};

bool isWide(std::string_view column) {
  return std::find(wideQuantities.begin(), wideQuantities.end(), column) != wideQuantities.end();
}

/// Nine figures are more than any scale or meter gives, and hide what a factor adds behind them.
std::string nineFigures(double value) {
  if (value == 0 || !std::isfinite(value)) return "0";
  const double scale = std::pow(10.0, 8 - std::floor(std::log10(std::abs(value))));
  const double nine = std::round(value * scale) / scale;
  return core::decimalText(std::isfinite(nine) ? nine : value);
}

/// A cell with a number: sign of "less than", value, its digits where they can stand as they are.
struct CellNumber {
  bool below = false;
  double value = 0;
  std::string digits;
  std::string unit; ///< stands in the cell itself
};

std::string digitsOf(std::string_view text, DecimalMark mark) {
  std::string out;
  const char thousands = mark == DecimalMark::Comma ? '.' : ',';
  for (const char c : text) {
    if (c == thousands || c == '\'' || c == ' ') continue;
    out += c == ',' ? '.' : c;
  }
  return out;
}

std::optional<CellNumber> cellNumber(std::string text, const TableMapping& mapping, const std::string& unit) {
  CellNumber out;
  if (text.starts_with('<')) {
    out.below = true;
    text.erase(0, 1);
  }
  if (unit == "%" && text.ends_with('%')) text.pop_back();
  while (text.starts_with(' '))
    text.erase(0, 1);
  while (text.ends_with(' '))
    text.pop_back();
  bool negative = false;
  auto bare = text;
  if (bare.starts_with('-')) negative = true, bare.erase(0, 1);
  if (const auto number = numberIn(bare, mapping.mark)) {
    const auto shown = markShownBy(bare);
    const bool odd =
        mapping.mark != DecimalMark::Unknown && shown != DecimalMark::Unknown && shown != mapping.mark;
    if (number->otherwise || odd) return std::nullopt;
    out.value = negative ? -number->value : number->value;
    out.digits = (negative ? "-" : "") + digitsOf(bare, mapping.mark);
    if (core::parseDecimal(out.digits) != out.value) out.digits = core::decimalText(out.value);
    return out;
  }
  // "25 kg", "14,5 %": with its unit in the cell.
  if (unit.empty()) return std::nullopt;
  auto atoms = atomsOf(text);
  const auto number = atoms.empty() ? std::nullopt : numberIn(atoms.front().text, mapping.mark);
  if (!number || number->otherwise || atoms.size() < 2) return std::nullopt;
  out.unit = unitAlone(std::string_view(text).substr(atoms[1].from));
  if (out.unit.empty()) return std::nullopt;
  out.value = number->value;
  out.digits = digitsOf(atoms.front().text, mapping.mark);
  return out;
}

/// mg/L of a nutrient from what a target states in another form or unit.
std::optional<double> nutrientMilligrams(const std::string& key, double value, const std::string& unit,
                                         const std::string& stated) {
  const auto milligrams = core::milligramsPerLitre({stated, value, unit, false});
  if (!milligrams) {
    const auto element = core::convert(value, unit, "mg/L", core::elementSymbol(*core::nutrientFromKey(key)));
    return element ? std::optional(*element) : std::nullopt;
  }
  const auto form = core::nutrientFromKey(stated) ? std::nullopt : core::statedFormFor(stated);
  return form ? *milligrams * core::elementShare(*form) : *milligrams;
}

class Writer {
public:
  Writer(const ForeignTable& table, const TableMapping& mapping) : m_table(table), m_mapping(mapping) {
    for (const auto& column : mapping.columns)
      m_fields.push_back(fieldNamed(mapping.table, column.field));
    for (const auto& text : table.header)
      m_headings.push_back(columnHeadingOf(text));
  }

  PlainTable write() {
    m_currency = findCurrency();
    makeHeader();
    for (const auto& row : m_table.rows)
      m_mapping.table == TableOf::Readings&& isWideTable() ? wideRow(row) : plainRow(row);
    return std::move(m_out);
  }

private:
  bool isWideTable() const {
    return std::any_of(m_mapping.columns.begin(), m_mapping.columns.end(),
                       [](const auto& c) { return isWide(c.field); });
  }

  void makeHeader() {
    if (m_mapping.table == TableOf::Readings) {
      m_out.header = {"vessel", "time", "quantity", "value", "unit"};
      return;
    }
    m_out.header.push_back(fieldsOf(m_mapping.table).front().column);
    for (const auto* field : m_fields) {
      if (!field || field->sort == FieldSort::Clock) continue;
      if (column(field->column) == m_out.header.size()) m_out.header.push_back(field->column);
    }
    if (m_mapping.table == TableOf::Products && !m_currency.empty() &&
        column("currency") == m_out.header.size())
      m_out.header.push_back("currency");
  }

  std::size_t column(std::string_view name) const {
    return static_cast<std::size_t>(std::find(m_out.header.begin(), m_out.header.end(), name) -
                                    m_out.header.begin());
  }

  std::string findCurrency() const {
    for (std::size_t i = 0; i < m_fields.size(); ++i) {
      if (!m_fields[i] || m_fields[i]->sort != FieldSort::Price) continue;
      if (!m_headings[i].currency.empty()) return m_headings[i].currency;
      for (const auto& row : m_table.rows) {
        if (i < row.cells.size() && !row.cells[i].empty()) return moneyIn(row.cells[i]).currency;
      }
    }
    return {};
  }

  std::string textOf(const CsvRow& row, std::string_view field) const {
    for (std::size_t i = 0; i < m_fields.size() && i < row.cells.size(); ++i) {
      if (m_fields[i] && m_fields[i]->column == field) return row.cells[i];
    }
    return {};
  }

  /// The date with the clock of its neighbour.
  std::string dateOf(const CsvRow& row, const std::string& cell) const {
    auto date = dateIn(cell, m_mapping.dates);
    const auto clock = textOf(row, "clock");
    if (!date) return cell.empty() || clock.empty() ? cell : cell + " " + clock;
    if (m_mapping.table == TableOf::Waters) date->secondOfDay = {}, date->offsetMinutes = {};
    if (clock.empty()) return date->iso();
    const auto seconds = clockIn(clock);
    if (!seconds) return cell + " " + clock;
    date->secondOfDay = seconds;
    return date->iso();
  }

  std::optional<double> bagKilograms(const CsvRow& row) const {
    for (std::size_t i = 0; i < m_fields.size() && i < row.cells.size(); ++i) {
      if (!m_fields[i] || m_fields[i]->column != "bag (kg)") continue;
      return core::parseDecimal(amountOf(i, row.cells[i]));
    }
    return std::nullopt;
  }

  std::string priceOf(const CsvRow& row, std::size_t i) const {
    const auto& cell = row.cells[i];
    const auto money = moneyIn(cell);
    auto rest = money.rest;
    rest.erase(0, std::min(rest.find_first_not_of(' '), rest.size()));
    rest.erase(rest.find_last_not_of(' ') + 1);
    if (rest.empty()) return {};
    const auto number = cellNumber(rest, m_mapping, "");
    if (!number || number->below) return cell;
    const auto& meaning = m_mapping.columns[i];
    const auto kilograms = meaning.unit == "bag" ? bagKilograms(row) : inKilograms(meaning);
    if (!kilograms || *kilograms <= 0) return cell;
    return *kilograms == 1 ? number->digits : nineFigures(number->value / *kilograms);
  }

  static std::optional<double> inKilograms(const ColumnMeaning& meaning) {
    const auto one = core::convert(meaning.per, meaning.unit, "kg");
    return one ? std::optional(*one) : std::nullopt;
  }

  /// In the field's own unit; the cell as it stands where it does not read.
  std::string amountOf(std::size_t i, const std::string& cell) const {
    const auto& field = *m_fields[i];
    const auto number = cellNumber(cell, m_mapping, field.unit);
    if (!number) return cell;
    const auto& unit = number->unit.empty() ? m_mapping.columns[i].unit : number->unit;
    const std::string sign = number->below ? "<" : "";
    if (field.sort == FieldSort::Key) {
      const auto turned = keyAmount(i, *number, unit);
      return turned.empty() ? cell : sign + turned;
    }
    if (unit == field.unit || unit.empty()) return sign + number->digits;
    const auto turned = core::convert(number->value, unit, field.unit);
    return turned ? sign + nineFigures(*turned) : cell;
  }

  std::string keyAmount(std::size_t i, const CellNumber& number, const std::string& unit) const {
    const auto& field = *m_fields[i];
    if (field.unit == "%") {
      const double factor = unit == "g/kg" ? 0.1 : unit == "mg/kg" ? 1e-4 : unit == "%" ? 1 : 0;
      if (factor == 0) return {};
      return factor == 1 ? number.digits : nineFigures(number.value * factor);
    }
    const auto stated = statedKey(i);
    const double asStated = number.value * statedFactor(i);
    if (m_mapping.table == TableOf::Waters) {
      if (unit == "mg/L" && statedFactor(i) == 1 && !countsCarbonate(i)) return number.digits;
      const auto& in = countsCarbonate(i) && unit == "mg/L" ? std::string("mg/L_CaCO3") : unit;
      const auto turned = core::milligramsPerLitre({field.key, asStated, in, false});
      return turned ? nineFigures(*turned) : std::string();
    }
    if (unit == "mg/L" && stated == field.key) return number.digits;
    const auto turned = nutrientMilligrams(field.key, asStated, unit, stated);
    return turned ? nineFigures(*turned) : std::string();
  }

  bool countsCarbonate(std::size_t i) const {
    return m_headings[i].analyte && m_headings[i].analyte->key == m_fields[i]->key &&
           m_headings[i].analyte->asCalciumCarbonate;
  }
  double statedFactor(std::size_t i) const {
    const auto& analyte = m_headings[i].analyte;
    return analyte && analyte->key == m_fields[i]->key ? analyte->factor : 1;
  }
  /// The form that a target's heading states: "NO3" of which N is wanted.
  std::string statedKey(std::size_t i) const {
    const auto& heading = m_headings[i];
    const auto& key = m_fields[i]->key;
    if (m_mapping.table != TableOf::Targets || heading.labelKey == key) return key;
    if (heading.analyte && heading.analyte->key == key) return key;
    for (const auto& stated : {heading.labelKey, heading.analyte ? heading.analyte->key : std::string()}) {
      const auto form = core::statedFormFor(stated);
      if (form && core::nutrientKey(form->nutrient) == key) return stated;
    }
    return key;
  }

  std::string cellOf(const CsvRow& row, std::size_t i) const {
    const auto& cell = row.cells[i];
    if (cell.empty()) return {};
    const auto sort = m_fields[i]->sort;
    if (sort == FieldSort::Text) return cell;
    if (sort == FieldSort::Date) return dateOf(row, cell);
    if (wholeWord(WordKind::None, cell)) return {};
    if (sort == FieldSort::Price) return priceOf(row, i);
    if (sort == FieldSort::Number) {
      const auto number = cellNumber(cell, m_mapping, "");
      return number && !number->below ? number->digits : cell;
    }
    return amountOf(i, cell);
  }

  bool isTooLong(const CsvRow& row) const { return row.cells.size() > m_table.header.size(); }

  void plainRow(const CsvRow& row) {
    CsvRow out{row.line, std::vector<std::string>(m_out.header.size())};
    for (std::size_t i = 0; i < m_fields.size() && i < row.cells.size(); ++i) {
      if (!m_fields[i] || m_fields[i]->sort == FieldSort::Clock) continue;
      if (const auto at = column(m_fields[i]->column); at < out.cells.size()) out.cells[at] = cellOf(row, i);
    }
    if (m_mapping.table == TableOf::Readings) out.cells[2] = quantityCode(out.cells[2]);
    name(row, out);
    if (m_mapping.table == TableOf::Readings && !out.cells[4].empty()) out.cells[4] = unitCode(out.cells[4]);
    if (m_mapping.table == TableOf::Products && !m_currency.empty()) {
      auto& cell = out.cells[column("currency")];
      if (cell.empty()) cell = m_currency;
    }
    if (isTooLong(row)) out.cells.resize(out.cells.size() + 1);
    m_out.rows.push_back(std::move(out));
  }

  void name(const CsvRow& row, CsvRow& out) const {
    auto& first = out.cells.front();
    if (!first.empty()) return;
    first = m_mapping.nameForAll;
    if (m_mapping.table == TableOf::Targets && first.empty()) {
      first = textOf(row, "crop");
      const auto stage = textOf(row, "stage");
      if (!stage.empty()) first += (first.empty() ? "" : ", ") + stage;
    }
    if (m_mapping.table == TableOf::Batches) {
      const auto time = out.cells[column("time") < out.cells.size() ? column("time") : 0];
      first = "sheet " + time + " " + textOf(row, "formula");
    }
  }

  static std::string quantityCode(const std::string& text) {
    const auto small = folded(text);
    if (isWide(small)) return small;
    const auto heading = columnHeadingOf(text);
    for (const auto& word : heading.words) {
      if (isWide(word)) return word;
    }
    const auto key = heading.analyte ? folded(heading.analyte->key) : std::string();
    return isWide(key) ? key : text;
  }

  static std::string unitCode(const std::string& text) {
    const auto unit = unitAlone(text);
    return unit.empty() ? text : unit == "pH" ? std::string() : unit;
  }

  void wideRow(const CsvRow& row) {
    const auto vessel = textOf(row, "vessel");
    for (std::size_t i = 0; i < m_fields.size() && i < row.cells.size(); ++i) {
      if (!m_fields[i] || !isWide(m_fields[i]->column) || row.cells[i].empty()) continue;
      if (wholeWord(WordKind::None, row.cells[i])) continue;
      auto digits = row.cells[i];
      auto unit = m_mapping.columns[i].unit;
      if (const auto number = cellNumber(digits, m_mapping, m_fields[i]->unit); number && !number->below) {
        digits = number->digits;
        if (!number->unit.empty()) unit = number->unit;
      }
      CsvRow out{row.line,
                 {vessel.empty() ? m_mapping.nameForAll : vessel, dateOf(row, textOf(row, "time")),
                  m_fields[i]->column, digits, unit}};
      if (isTooLong(row)) out.cells.emplace_back();
      m_out.rows.push_back(std::move(out));
    }
  }

  const ForeignTable& m_table;
  const TableMapping& m_mapping;
  std::vector<const Field*> m_fields;
  std::vector<ColumnHeading> m_headings;
  std::string m_currency;
  PlainTable m_out;
};

} // namespace

PlainTable plainTable(const ForeignTable& table, const TableMapping& mapping) {
  return Writer(table, mapping).write();
}

} // namespace butte::reading
