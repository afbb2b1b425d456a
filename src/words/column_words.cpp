#include "column_words.h"

#include "base/decimal.h"
#include "deed_words.h"
#include "language.h"
#include "water_words.h"

#include <algorithm>
#include <array>

namespace butte::words {

using reading::Field;
using reading::FieldSort;
using reading::MappingQuestion;
using reading::TableOf;

namespace {

struct ColumnName {
  std::string_view column;
  const char* english;
};
constexpr std::array<ColumnName, 40> names{{{"product", "name of the product"},
                                            {"formula", "formula"},
                                            {"purity (%)", "purity"},
                                            {"price (per kg)", "price"},
                                            {"density (kg/l)", "density"},
                                            {"bag (kg)", "what a bag holds"},
                                            {"currency", "currency"},
                                            {"colour", "colour in pictures"},
                                            {"hatch", "hatch in pictures"},
                                            {"hazards", "hazard codes"},
                                            {"note", "note"},
                                            {"water", "name of the water"},
                                            {"date", "date of the report"},
                                            {"laboratory", "laboratory"},
                                            {"ph", "pH"},
                                            {"ec (ms/cm)", "EC"},
                                            {"target", "name of the target"},
                                            {"crop", "crop"},
                                            {"stage", "stage"},
                                            {"season", "season"},
                                            {"from_week", "from week"},
                                            {"batch", "number of the batch"},
                                            {"time", "date and time"},
                                            {"clock", "time of day"},
                                            {"volume (l)", "volume"},
                                            {"ec planned (ms/cm)", "EC planned"},
                                            {"ec read (ms/cm)", "EC read"},
                                            {"ph read", "pH read"},
                                            {"who", "who mixed it"},
                                            {"tank", "tank"},
                                            {"planned (g)", "weight planned"},
                                            {"actual (g)", "weight on the scale"},
                                            {"lot", "lot"},
                                            {"vessel", "name of the vessel"},
                                            {"quantity", "what was read"},
                                            {"value", "what the meter said"},
                                            {"unit", "unit"},
                                            {"ec", "EC"},
                                            {"temperature", "temperature"},
                                            {"level", "level"}}};

} // namespace

std::string tableOfText(TableOf table) {
  switch (table) {
  case TableOf::Products:
    return text("products: labels, bags, prices");
  case TableOf::Waters:
    return text("waters: reports, one a row");
  case TableOf::Targets:
    return text("targets: what a crop is to get");
  case TableOf::Batches:
    return text("batches: what was mixed and weighed");
  case TableOf::Readings:
    return text("readings: what meters said, over time");
  }
  return {};
}

std::string fieldText(TableOf table, const std::string& column) {
  const auto* field = reading::fieldNamed(table, column);
  if (!field) return {};
  if (field->sort == FieldSort::Key) return reportKeyName(field->key);
  const auto* it =
      std::find_if(names.begin(), names.end(), [&](const auto& n) { return n.column == column; });
  if (it != names.end()) return text(it->english);
  return table == TableOf::Targets && field->sort == FieldSort::Number
             ? said("band of {}", column.substr(0, column.find(" (")))
             : column;
}

std::string columnUnitText(const Field& field, const std::string& unit, double per) {
  if (field.sort != FieldSort::Price)
    return field.sort == FieldSort::Key && unit != "%" ? reportUnitName(unit) : unitName(unit);
  if (unit == "bag") return text("for a bag");
  const auto name = unitName(unit);
  return per == 1 ? said("for 1 {}", name) : said("for {} {}", figureText(core::decimalText(per)), name);
}

std::string mappingQuestionText(MappingQuestion question, TableOf table) {
  switch (question) {
  case MappingQuestion::NoName:
    return table == TableOf::Readings ? text("Which vessel was read? Say which column names it, or its name.")
           : table == TableOf::Waters ? text("Which water is it? Say which column names it, or its name.")
                                      : text("Say which column has the names.");
  case MappingQuestion::NothingToTake:
    return text("No column has anything that can be taken yet: say above a column what it holds.");
  case MappingQuestion::DayOrMonth:
    return text("Dates such as 3/4 can be read in two ways: say whether day or month comes first.");
  case MappingQuestion::WhatComma:
    return text("Numbers such as 1,250 can be read in two ways: say what the comma is.");
  case MappingQuestion::NoDate:
    return text("Say which column has the dates.");
  case MappingQuestion::BagNotKnown:
    return text("Prices are for a bag: say which column has what a bag holds, or for how much they are.");
  case MappingQuestion::PriceForWhat:
    return text("Say for how much the prices are: choose it above their column.");
  }
  return {};
}

} // namespace butte::words
