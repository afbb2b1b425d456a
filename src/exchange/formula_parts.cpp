// Formula documents as they are made, not read.
#include "formula_json.h"

#include "base/decimal.h"
#include "product/catalogue.h"

namespace butte::exchange {

using core::decimalText;
using core::findInCatalogue;

std::string formulaText(const Json& json) {
  return json.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

void keepShippedFigures(Json& json) {
  auto* shelf = json.is_object() && json.contains("shelf") ? &json["shelf"] : &json;
  if (!shelf->is_array()) return;
  for (auto& product : *shelf) {
    if (!product.is_object() || product.contains("as_shipped") || !product.contains("catalogue") ||
        !product["catalogue"].is_string())
      continue;
    const auto* entry = findInCatalogue(product["catalogue"].get<std::string>());
    if (!entry) continue;
    Json figures{{"formula", entry->formulaText}, {"purity_percent", decimalText(entry->purityPercent)}};
    if (entry->fromLabel) {
      figures["label"] = Json::array();
      for (const auto& [key, percent] : entry->label)
        figures["label"].push_back({{"key", key}, {"percent", decimalText(percent)}});
    }
    if (entry->liquid) figures["liquid"] = true;
    if (entry->densityKgPerL) figures["density_kg_per_l"] = decimalText(*entry->densityKgPerL);
    product["as_shipped"] = std::move(figures);
  }
}

Json targetJson(const core::CatalogueTarget& target) {
  Json rows = Json::array();
  for (const auto& row : target.rows)
    rows.push_back({{"nutrient", core::nutrientKey(row.nutrient)},
                    {"mg_per_l", decimalText(row.milligramsPerLitre)},
                    {"tolerance_percent", decimalText(row.tolerancePercent)}});
  return Json{{"name", target.name}, {"rows", rows}};
}

Json shelfEntry(const std::string& catalogueId) {
  return Json{{"id", catalogueId}, {"catalogue", catalogueId}, {"on", true}};
}

Json emptyFormula() {
  return Json{{"format", formulaFormatName},
              {"version", formulaFormatVersion},
              {"name", "New formula"},
              {"water", {{"rows", Json::array()}}},
              {"target", {{"name", "No target yet"}, {"rows", Json::array()}}},
              {"shelf", Json::array()},
              {"batch", amountJson("1000", "L")},
              {"alkalinity_left", amountJson("0.5", "meq/L")},
              {"stock",
               {{"factor", "100"},
                {"coldest", amountJson("12", "C")},
                {"tanks",
                 {{{"name", "A"}, {"volume", amountJson("100", "L")}},
                  {{"name", "B"}, {"volume", amountJson("100", "L")}}}}}},
              {"scales",
               {{{"name", "bench scale"},
                 {"readability", amountJson("1", "g")},
                 {"capacity", amountJson("5", "kg")}}}}};
}

} // namespace butte::exchange
