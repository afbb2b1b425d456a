#include "table/fields.h"

#include "chem/nutrient.h"
#include "product/product.h"
#include "text/atoms.h"
#include "water/report_row.h"
#include "water/water.h"

#include <algorithm>
#include <array>

namespace butte::reading {
namespace {

using Fields = std::vector<Field>;
using enum FieldSort;

void addKeys(Fields& fields, const std::vector<std::string>& keys, const std::string& unit) {
  for (const auto& key : keys)
    fields.push_back({folded(key + " (" + unit + ")"), Key, unit, key, ""});
}

Fields products() {
  Fields out{{"product", Text, "", "", "product name"},
             {"formula", Text, "", "", "formula"},
             {"purity (%)", Amount, "%", "", "purity"},
             {"price (per kg)", Price, "kg", "", "price"},
             {"density (kg/l)", Amount, "kg/L", "", "density"},
             {"bag (kg)", Amount, "kg", "", "bag"},
             {"currency", Text, "", "", "currency"},
             {"colour", Text, "", "", ""},
             {"hatch", Text, "", "", ""},
             {"hazards", Text, "", "", "hazards"},
             {"note", Text, "", "", "note"}};
  addKeys(out, core::labelKeys(), "%");
  return out;
}

Fields waters() {
  Fields out{{"water", Text, "", "", "water name vessel"},
             {"date", Date, "", "", "date time"},
             {"laboratory", Text, "", "", "laboratory"},
             {"ph", Number, "", "", "ph"},
             {"ec (ms/cm)", Amount, "mS/cm", "", "ec"}};
  addKeys(out, core::waterKeys(), "mg/L");
  return out;
}

Fields targets() {
  Fields out{{"target", Text, "", "", "target name formula"},
             {"crop", Text, "", "", "crop"},
             {"stage", Text, "", "", "stage"},
             {"season", Text, "", "", "season"},
             {"from_week", Text, "", "", "week"},
             {"note", Text, "", "", "note"}};
  std::vector<std::string> keys;
  for (const auto nutrient : core::allNutrients)
    keys.emplace_back(core::nutrientKey(nutrient));
  addKeys(out, keys, "mg/L");
  for (const auto& key : keys)
    out.push_back({folded(key + " (band %)"), Number, "", "", ""});
  return out;
}

Fields batches() {
  return {{"batch", Text, "", "", "batch"},
          {"time", Date, "", "", "time date"},
          {"clock", Clock, "", "", "clock"},
          {"formula", Text, "", "", "formula name target"},
          {"crop", Text, "", "", "crop"},
          {"water", Text, "", "", "water"},
          {"volume (l)", Amount, "L", "", "volume level"},
          {"ec planned (ms/cm)", Amount, "mS/cm", "", "ec-planned"},
          {"ec read (ms/cm)", Amount, "mS/cm", "", "ec"},
          {"ph read", Number, "", "", "ph"},
          {"who", Text, "", "", "who"},
          {"note", Text, "", "", "note"},
          {"product", Text, "", "", "product"},
          {"tank", Text, "", "", "tank vessel"},
          {"planned (g)", Amount, "g", "", "planned"},
          {"actual (g)", Amount, "g", "", "actual"},
          {"lot", Text, "", "", "lot"}};
}

Fields readings() {
  return {{"vessel", Text, "", "", "vessel tank name water"},
          {"time", Date, "", "", "time date"},
          {"clock", Clock, "", "", "clock"},
          {"quantity", Text, "", "", "quantity"},
          {"value", Number, "", "", "value"},
          {"unit", Text, "", "", "unit"},
          {"ec", Amount, "mS/cm", "", "ec"},
          {"ph", Number, "", "", "ph"},
          {"temperature", Amount, "C", "", "temperature"},
          {"level", Amount, "L", "", "level volume"}};
}

} // namespace

std::span<const Field> fieldsOf(TableOf table) {
  static const std::array<Fields, tableOfCount> all{products(), waters(), targets(), batches(), readings()};
  return all[static_cast<std::size_t>(table)];
}

const Field* fieldNamed(TableOf table, std::string_view column) {
  const auto fields = fieldsOf(table);
  const auto it =
      std::find_if(fields.begin(), fields.end(), [&](const auto& f) { return f.column == column; });
  return it == fields.end() ? nullptr : &*it;
}

std::vector<std::string> unitsOf(const Field& field) {
  if (field.sort == FieldSort::Key) {
    if (field.unit == "%") return {"%", "g/kg", "mg/kg"};
    return core::reportUnits();
  }
  if (field.sort == FieldSort::Price) return {"kg", "g", "lb", "oz", "bag"};
  static const std::vector<std::vector<std::string>> together{
      {"mS/cm", "uS/cm", "ppm500", "ppm640", "ppm700"},
      {"C", "F"},
      {"L", "gal_us", "gal_imp", "m3", "mL"},
      {"kg", "g", "lb", "oz"},
      {"g", "kg", "lb", "oz", "mg"},
      {"kg/L", "g/mL"}};
  for (const auto& units : together) {
    if (units.front() == field.unit) return units;
  }
  return field.unit.empty() ? std::vector<std::string>() : std::vector<std::string>{field.unit};
}

} // namespace butte::reading
