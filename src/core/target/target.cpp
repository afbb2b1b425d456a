#include "target/target.h"

#include "base/csv.h"
#include "base/embedded.h"

namespace butte::core {
namespace {

// Bands that growers can weigh and meters can follow: 5 % for the majors, 15 % for traces (common practice).
double usualTolerance(Nutrient nutrient) {
  return isTraceElement(nutrient) ? 15 : 5;
}

CatalogueTarget readTarget(const CsvTable& table, std::size_t row) {
  CatalogueTarget t;
  t.id = table.cell(row, "id");
  t.name = table.cell(row, "name");
  t.crop = table.cell(row, "crop");
  t.stage = table.cell(row, "stage");
  t.note = table.cell(row, "note");
  t.source = table.cell(row, "source");
  t.confidence = table.cell(row, "confidence");
  t.conductivityMsPerCm = table.number(row, "EC");
  for (const auto nutrient : {Nutrient::NNitrate, Nutrient::NAmmonium, Nutrient::P, Nutrient::K, Nutrient::Ca,
                              Nutrient::Mg, Nutrient::S, Nutrient::Fe, Nutrient::Mn, Nutrient::Zn,
                              Nutrient::B, Nutrient::Cu, Nutrient::Mo, Nutrient::Si}) {
    const auto value = table.number(row, nutrientKey(nutrient));
    // A published 0 means "none wanted", not a row to hit to the microgram: the element is left free.
    if (value && *value > 0) t.rows.push_back({nutrient, *value, usualTolerance(nutrient), 1});
  }
  return t;
}

} // namespace

const std::vector<CatalogueTarget>& targetCatalogue() {
  static const std::vector<CatalogueTarget> targets = [] {
    const CsvTable table(embedded::targets());
    std::vector<CatalogueTarget> out;
    for (std::size_t row = 0; row < table.rowCount(); ++row)
      out.push_back(readTarget(table, row));
    return out;
  }();
  return targets;
}

const CatalogueTarget* findTarget(const std::string& id) {
  const auto& all = targetCatalogue();
  const auto it = std::find_if(all.begin(), all.end(), [&](const auto& t) { return t.id == id; });
  return it == all.end() ? nullptr : &*it;
}

} // namespace butte::core
