#include "changes/json_changes.h"

#include "base/decimal.h"

#include <map>
#include <utility>

namespace butte::book {

using core::ChangeCode;

namespace {

using Figure = std::pair<std::string, std::string>; // digits, unit

Json placeIn(const Json& json, const std::string& pointer) {
  const Json::json_pointer place(pointer);
  return json.contains(place) ? json[place] : Json();
}

/// {"amount": "200", "unit": "L"}, a text, a number, a switch; empty for everything else.
Figure shown(const Json& value) {
  if (value.is_string()) return {value.get<std::string>(), ""};
  if (value.is_object() && value.contains("amount") && value["amount"].is_string())
    return {value["amount"].get<std::string>(), value.value("unit", "")};
  if (value.is_boolean()) return {value.get<bool>() ? "yes" : "no", ""};
  if (value.is_number()) return {core::decimalText(value.get<double>()), ""};
  return {};
}

bool isFigure(const Json& value) {
  return value.is_object() || value.is_number() ||
         (value.is_string() && core::parseDecimal(value.get<std::string>()));
}

/// "31.9" mg/L, "< 50" ug/L: a row's figure as typed.
Figure figureIn(const Json& row, const char* value, const char* unit) {
  const std::string sign = row.value("below", false) ? "< " : "";
  if (row.contains(value)) return {sign + row.value(value, std::string()), unit};
  if (row.contains("amount"))
    return {sign + row.value("amount", std::string()), row.value("unit", std::string("mg/L"))};
  return {};
}

} // namespace

std::string textAt(const Json& json, const std::string& pointer) {
  const auto value = placeIn(json, pointer);
  return value.is_string() ? value.get<std::string>() : std::string();
}

void Differences::place(const std::string& pointer, const std::string& place,
                        const std::string& whose) const {
  const auto a = placeIn(before, pointer), b = placeIn(after, pointer);
  if (a == b) return;
  const auto was = shown(a), is = shown(b);
  if (isFigure(a) || isFigure(b))
    out.push_back({ChangeCode::Figure, {place, whose, was.first, was.second, is.first, is.second}});
  else
    out.push_back({ChangeCode::Text, {place, whose, was.first, is.first}});
}

void Differences::rows(const Table& table) const {
  std::vector<std::string> order;
  std::map<std::string, std::pair<Figure, Figure>> rows;
  const auto collect = [&](const Json& side, bool first) {
    const auto list = placeIn(side, table.pointer);
    if (!list.is_array()) return;
    for (const auto& row : list) {
      if (!row.is_object()) continue;
      const auto id = row.value(table.key, std::string());
      if (!rows.contains(id)) order.push_back(id);
      (first ? rows[id].first : rows[id].second) = figureIn(row, table.value, table.unit);
    }
  };
  collect(before, true);
  collect(after, false);
  for (const auto& id : order) {
    const auto& [a, b] = rows[id];
    if (a == b) continue;
    if (a.first.empty())
      out.push_back({ChangeCode::RowNew, {table.table, table.whose, id, b.first, b.second}});
    else if (b.first.empty())
      out.push_back({ChangeCode::RowGone, {table.table, table.whose, id, a.first, a.second}});
    else
      out.push_back(
          {ChangeCode::RowChanged, {table.table, table.whose, id, a.first, a.second, b.first, b.second}});
  }
}

} // namespace butte::book
