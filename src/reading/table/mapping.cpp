#include "table/mapping.h"

#include "base/decimal.h"
#include "chem/nutrient.h"
#include "product/oxides.h"
#include "table/column_heading.h"
#include "text/atoms.h"
#include "water/report_row.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace butte::reading {
namespace {

constexpr std::size_t rowsLookedAt = 400;

bool saysWord(const Field& field, std::string_view meaning) {
  std::string_view rest = field.words;
  while (!rest.empty()) {
    const auto end = std::min(rest.find(' '), rest.size());
    if (rest.substr(0, end) == meaning) return true;
    rest.remove_prefix(std::min(end + 1, rest.size()));
  }
  return false;
}

/// A column's figures, as far as they are plain.
std::vector<double> figuresOf(const ForeignTable& table, std::size_t column) {
  std::vector<double> out;
  for (std::size_t i = 0; i < table.rows.size() && i < rowsLookedAt; ++i) {
    const auto& cells = table.rows[i].cells;
    if (column >= cells.size()) continue;
    if (const auto number = numberIn(cells[column], table.mark)) out.push_back(number->value);
  }
  return out;
}

double largestOf(const std::vector<double>& figures) {
  return figures.empty() ? 0 : *std::max_element(figures.begin(), figures.end());
}

class Proposer {
public:
  Proposer(const ForeignTable& table, TableOf sort) : m_table(table) { m_out.table = sort; }

  TableMapping propose() {
    m_out.mark = m_table.mark;
    m_out.columns.resize(m_table.header.size());
    for (std::size_t i = 0; i < m_table.header.size(); ++i)
      m_headings.push_back(columnHeadingOf(m_table.header[i]));
    for (std::size_t i = 0; i < m_table.header.size(); ++i)
      m_out.columns[i] = meaningOf(i);
    keepFirstOfEach();
    dateByItsCells();
    nameByItsPlace();
    orderDates();
    return std::move(m_out);
  }

private:
  ColumnMeaning meaningOf(std::size_t column) {
    const auto& text = m_table.header[column];
    const auto* own = fieldNamed(m_out.table, folded(text));
    if (const auto when = whenMeaning(column, own); !when.field.empty()) return when;
    if (own) return {own->column, own->unit, 1, true};
    const auto& heading = m_headings[column];
    if (auto key = keyMeaning(column, heading); !key.field.empty()) return key;
    for (const auto& word : heading.words) {
      for (const auto& field : fieldsOf(m_out.table)) {
        if (saysWord(field, spelled(word))) return withUnit(column, field, heading, heading.whole);
      }
    }
    if (heading.analyte) {
      // What a meter reads is an analyte of a report too.
      const auto meter = folded(heading.analyte->key);
      for (const auto& field : fieldsOf(m_out.table)) {
        if (saysWord(field, meter)) return withUnit(column, field, heading, heading.whole);
      }
    }
    return {};
  }

  /// Dates and clocks are told apart by what stands there: "Time" may head either.
  ColumnMeaning whenMeaning(std::size_t column, const Field* own) const {
    const auto& fields = fieldsOf(m_out.table);
    const auto date =
        std::find_if(fields.begin(), fields.end(), [](const Field& f) { return f.sort == FieldSort::Date; });
    if (date == fields.end()) return {};
    const auto& words = m_headings[column].words;
    const bool said = (own && (own->sort == FieldSort::Date || own->sort == FieldSort::Clock)) ||
                      std::any_of(words.begin(), words.end(),
                                  [&](const auto& word) { return word == "clock" || saysWord(*date, word); });
    if (!said) return {};
    std::size_t dates = 0, clocks = 0;
    for (std::size_t i = 0; i < m_table.rows.size() && i < rowsLookedAt; ++i) {
      const auto& cells = m_table.rows[i].cells;
      if (column >= cells.size()) continue;
      const bool isDate =
          dateIn(cells[column], DateOrder::DayFirst) || dateIn(cells[column], DateOrder::MonthFirst);
      dates += isDate;
      clocks += !isDate && clockIn(cells[column]);
    }
    const bool clock = clocks > dates;
    if (clock && !fieldNamed(m_out.table, "clock")) return {};
    return {clock ? "clock" : date->column, {}, 1, own || m_headings[column].whole};
  }

  static std::string spelled(std::string word) {
    std::replace(word.begin(), word.end(), ' ', '-');
    return word;
  }

  std::string unitOf(std::size_t column, const ColumnHeading& heading) const {
    if (!heading.unit.empty()) return heading.unit;
    return column < m_table.units.size() ? unitAlone(m_table.units[column]) : std::string();
  }

  /// Keys of a label, of a report or of a target.
  ColumnMeaning keyMeaning(std::size_t column, const ColumnHeading& heading) const {
    if (heading.empty()) return {};
    for (const auto& key : keysOf(heading)) {
      for (const auto& field : fieldsOf(m_out.table)) {
        if (field.sort == FieldSort::Key && field.key == key)
          return withUnit(column, field, heading, heading.whole);
      }
    }
    return {};
  }

  /// The likeliest first.
  std::vector<std::string> keysOf(const ColumnHeading& heading) const {
    std::vector<std::string> out;
    const auto add = [&](const std::string& key) {
      if (!key.empty()) out.push_back(key);
    };
    if (m_out.table == TableOf::Products)
      add(heading.labelKey), add(heading.analyte ? heading.analyte->key : "");
    if (m_out.table == TableOf::Waters && heading.analyte && !heading.analyte->aside)
      add(heading.analyte->key);
    if (m_out.table != TableOf::Targets) return out;
    if (core::nutrientFromKey(heading.labelKey)) add(heading.labelKey);
    if (heading.analyte && core::nutrientFromKey(heading.analyte->key)) add(heading.analyte->key);
    for (const auto& stated : {heading.labelKey, heading.analyte ? heading.analyte->key : std::string()}) {
      if (const auto form = core::statedFormFor(stated)) add(std::string(core::nutrientKey(form->nutrient)));
    }
    return out;
  }

  ColumnMeaning withUnit(std::size_t column, const Field& field, const ColumnHeading& heading,
                         bool sure) const {
    ColumnMeaning out{field.column, field.unit, 1, sure};
    const auto stated = unitOf(column, heading);
    const auto units = unitsOf(field);
    const bool known = std::find(units.begin(), units.end(), stated) != units.end();
    if (field.sort == FieldSort::Price) return priced(out, heading, stated, known);
    if (units.empty()) return out;
    if (known) {
      out.unit = stated;
      if (heading.per && field.column != "bag (kg)")
        out.sure = false; // "10 L": nothing that a column can be in
      return out;
    }
    if (!stated.empty()) out.sure = false; // a unit that such a thing can't have: to be looked at
    return bySize(column, field, out);
  }

  static ColumnMeaning priced(ColumnMeaning out, const ColumnHeading& heading, const std::string& stated,
                              bool known) {
    const bool forBag = std::find(heading.words.begin(), heading.words.end(), "bag") != heading.words.end();
    if (known && !heading.per) out.unit = stated;
    if (known && heading.per) out.unit = stated, out.per = *heading.per;
    if (!known && forBag) out.unit = "bag";
    if (!known && !forBag) out.sure = false; // "price": for what?
    return out;
  }

  /// Without a stated unit the size of the figures says it, where it can be only one.
  ColumnMeaning bySize(std::size_t column, const Field& field, ColumnMeaning out) const {
    const double largest = largestOf(figuresOf(m_table, column));
    constexpr double mostMilliSiemens = 20, mostCelsius = 45;
    if (field.unit == "mS/cm" && largest > mostMilliSiemens) out.unit = "uS/cm", out.sure = false;
    if (field.unit == "C" && largest > mostCelsius) out.unit = "F", out.sure = false;
    return out;
  }

  void keepFirstOfEach() {
    for (std::size_t i = 0; i < m_out.columns.size(); ++i) {
      auto& column = m_out.columns[i];
      const auto earlier = std::find_if(m_out.columns.begin(), m_out.columns.begin() + static_cast<long>(i),
                                        [&](const auto& c) { return c.field == column.field; });
      const bool twice = earlier != m_out.columns.begin() + static_cast<long>(i);
      if (column.field.empty() || !twice) continue;
      // An own name before the guesses of others.
      if (!earlier->sure && column.sure) std::swap(*earlier, column);
      column = {{}, {}, 1, false};
    }
  }

  /// Where no column is called so ("Wann", "Stamp"), the first one whose cells are written as dates.
  void dateByItsCells() {
    const auto& fields = fieldsOf(m_out.table);
    const auto date =
        std::find_if(fields.begin(), fields.end(), [](const Field& f) { return f.sort == FieldSort::Date; });
    const bool dated = std::any_of(m_out.columns.begin(), m_out.columns.end(), [&](const auto& c) {
      return date != fields.end() && c.field == date->column;
    });
    if (date == fields.end() || dated) return;
    for (std::size_t i = 0; i < m_out.columns.size(); ++i) {
      if (!m_out.columns[i].field.empty() || !isWrittenAsDates(i)) continue;
      m_out.columns[i] = {date->column, {}, 1, false};
      return;
    }
  }

  /// All that stands there are dates, and none a bare number that counts days or seconds.
  bool isWrittenAsDates(std::size_t column) const {
    std::size_t all = 0;
    for (std::size_t i = 0; i < m_table.rows.size() && i < rowsLookedAt; ++i) {
      const auto& cells = m_table.rows[i].cells;
      if (column >= cells.size() || cells[column].empty()) continue;
      const auto& cell = cells[column];
      const bool bare = core::parseDecimal(cell) || numberIn(cell, m_table.mark);
      if (bare || (!dateIn(cell, DateOrder::DayFirst) && !dateIn(cell, DateOrder::MonthFirst))) return false;
      ++all;
    }
    return all > 0;
  }

  /// Where no column is called so, the first one of texts names the things.
  void nameByItsPlace() {
    const auto& name = fieldsOf(m_out.table).front().column;
    const bool named = std::any_of(m_out.columns.begin(), m_out.columns.end(),
                                   [&](const auto& c) { return c.field == name; });
    // A list of batches has no names of its own, and a logger's file is of one vessel.
    if (named || m_out.table == TableOf::Batches || m_out.table == TableOf::Readings) return;
    for (std::size_t i = 0; i < m_out.columns.size(); ++i) {
      if (!m_out.columns[i].field.empty() || !isText(i)) continue;
      m_out.columns[i] = {name, {}, 1, false};
      return;
    }
  }

  bool isText(std::size_t column) const {
    std::size_t texts = 0, all = 0;
    for (std::size_t i = 0; i < m_table.rows.size() && i < rowsLookedAt; ++i) {
      const auto& cells = m_table.rows[i].cells;
      if (column >= cells.size() || cells[column].empty()) continue;
      ++all;
      texts += !numberIn(cells[column], m_table.mark) && !dateIn(cells[column], DateOrder::DayFirst);
    }
    return all > 0 && texts * 2 > all;
  }

  void orderDates() {
    for (std::size_t i = 0; i < m_out.columns.size(); ++i) {
      const auto* field = fieldNamed(m_out.table, m_out.columns[i].field);
      if (!field || field->sort != FieldSort::Date) continue;
      m_out.dates = dateOrderIn(m_table, i).order;
    }
  }

public:
  static DateOrderFound dateOrderIn(const ForeignTable& table, std::size_t column) {
    // Of a long table so many from its whole length: what they do not settle is asked.
    constexpr std::size_t mostCells = 5000;
    const auto step = table.rows.size() / mostCells + 1;
    std::vector<std::string> cells;
    for (std::size_t i = 0; i < table.rows.size(); i += step) {
      if (column < table.rows[i].cells.size()) cells.push_back(table.rows[i].cells[column]);
    }
    return dateOrderOf(cells);
  }

private:
  const ForeignTable& m_table;
  std::vector<ColumnHeading> m_headings;
  TableMapping m_out;
};

/// How much the columns speak for it: what names such a table counts most.
double scoreOf(const TableMapping& mapping) {
  double score = 0;
  const auto has = [&](std::string_view field) {
    return std::any_of(mapping.columns.begin(), mapping.columns.end(),
                       [&](const auto& c) { return c.field == field; });
  };
  for (const auto& column : mapping.columns)
    score += column.field.empty() ? 0 : column.sure ? 1 : 0.6;
  const auto& first = fieldsOf(mapping.table).front().column;
  if (has(first)) score += 0.5;
  switch (mapping.table) {
  case TableOf::Products:
    score += has("product") && (has("price (per kg)") || has("formula") || has("bag (kg)")) ? 2 : 0;
    break;
  case TableOf::Waters:
    score += has("date") ? 0.7 : -1.5;
    score -= !has("ca (mg/l)") && !has("na (mg/l)") && !has("hco3 (mg/l)") ? 2 : 0;
    break;
  case TableOf::Targets:
    score += has("crop") || has("stage") ? 2 : 0;
    break;
  case TableOf::Batches:
    score += has("actual (g)") || has("planned (g)") ? 2 : -1;
    score -= !has("product") && !has("formula") && !has("batch") ? 3 : 0;
    break;
  case TableOf::Readings:
    score += has("time") && (has("value") || has("ec") || has("ph") || has("temperature")) ? 1.5 : -1.5;
    break;
  }
  return score;
}

bool hasSort(const TableMapping& mapping, FieldSort sort) {
  return std::any_of(mapping.columns.begin(), mapping.columns.end(), [&](const auto& column) {
    const auto* field = fieldNamed(mapping.table, column.field);
    return field && field->sort == sort;
  });
}

bool hasField(const TableMapping& mapping, std::string_view name) {
  return std::any_of(mapping.columns.begin(), mapping.columns.end(),
                     [&](const auto& column) { return column.field == name; });
}

/// Whether there is anything to take besides who and when.
bool hasContent(const TableMapping& mapping) {
  if (mapping.table == TableOf::Batches)
    return hasField(mapping, "actual (g)") || hasField(mapping, "planned (g)") ||
           hasField(mapping, "volume (l)") || hasField(mapping, "batch");
  if (mapping.table == TableOf::Products && hasField(mapping, "formula")) return true;
  if (mapping.table == TableOf::Readings && hasField(mapping, "value")) return hasField(mapping, "quantity");
  return std::any_of(mapping.columns.begin(), mapping.columns.end(), [&](const auto& column) {
    const auto* field = fieldNamed(mapping.table, column.field);
    return field && field->sort != FieldSort::Text && field->sort != FieldSort::Date &&
           field->sort != FieldSort::Clock && column.field != "value";
  });
}

} // namespace

TableMapping proposedMapping(const ForeignTable& table, std::optional<TableOf> wanted) {
  if (wanted) return Proposer(table, *wanted).propose();
  // Our own tables say in their first column what they are.
  const auto first = table.header.empty() ? std::string() : folded(table.header.front());
  TableMapping best;
  double most = -1e9;
  for (int i = 0; i < tableOfCount; ++i) {
    auto one = Proposer(table, static_cast<TableOf>(i)).propose();
    const bool own = fieldsOf(one.table).front().column == first && isOwnTable(table, one);
    const double score = own ? 1e6 : scoreOf(one);
    if (score > most) {
      most = score;
      best = std::move(one);
    }
  }
  return best;
}

namespace {

/// Every column is called what the farm's own tables call it.
bool isNamedAsOurs(const ForeignTable& table, const TableMapping& mapping) {
  for (std::size_t i = 0; i < table.header.size(); ++i) {
    const auto* field = fieldNamed(mapping.table, folded(table.header[i]));
    if (!field || mapping.columns[i].field != field->column) return false;
  }
  return !table.header.empty();
}

} // namespace

std::vector<MappingQuestion> openQuestions(const ForeignTable& table, const TableMapping& mapping) {
  std::vector<MappingQuestion> out;
  if (!hasContent(mapping) && !isNamedAsOurs(table, mapping)) out.push_back(MappingQuestion::NothingToTake);
  const auto& name = fieldsOf(mapping.table).front().column;
  if (mapping.table != TableOf::Batches && !hasField(mapping, name) && mapping.nameForAll.empty() &&
      !(mapping.table == TableOf::Targets && hasField(mapping, "crop")))
    out.push_back(MappingQuestion::NoName);
  const bool dated = mapping.table == TableOf::Waters || mapping.table == TableOf::Batches ||
                     mapping.table == TableOf::Readings;
  if (dated && !hasSort(mapping, FieldSort::Date)) out.push_back(MappingQuestion::NoDate);
  for (std::size_t i = 0; i < mapping.columns.size(); ++i) {
    const auto* field = fieldNamed(mapping.table, mapping.columns[i].field);
    if (!field) continue;
    if (field->sort == FieldSort::Date && mapping.dates == DateOrder::Unknown &&
        Proposer::dateOrderIn(table, i).matters)
      out.push_back(MappingQuestion::DayOrMonth);
    if (field->sort == FieldSort::Price && !mapping.columns[i].sure)
      out.push_back(MappingQuestion::PriceForWhat);
    if (field->sort == FieldSort::Price && mapping.columns[i].unit == "bag" && !hasField(mapping, "bag (kg)"))
      out.push_back(MappingQuestion::BagNotKnown);
  }
  if (table.markUnclear && mapping.mark == DecimalMark::Unknown) out.push_back(MappingQuestion::WhatComma);
  return out;
}

bool isOwnTable(const ForeignTable& table, const TableMapping& mapping) {
  if (!table.units.empty() || !table.before.empty() || !mapping.nameForAll.empty()) return false;
  if (table.header.empty() || mapping.columns.empty() ||
      mapping.columns.front().field != fieldsOf(mapping.table).front().column)
    return false;
  for (std::size_t i = 0; i < table.header.size(); ++i) {
    const auto* field = fieldNamed(mapping.table, folded(table.header[i]));
    if (!field || mapping.columns[i] != ColumnMeaning{field->column, field->unit, 1, true}) return false;
  }
  return openQuestions(table, mapping).empty();
}

} // namespace butte::reading
