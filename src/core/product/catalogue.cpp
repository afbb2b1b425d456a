#include "product/catalogue.h"

#include "base/csv.h"
#include "base/decimal.h"
#include "base/embedded.h"
#include "product/product_solutes.h"

#include <algorithm>
#include <cassert>
#include <sstream>

namespace butte::core {
namespace {

std::vector<LabelRow> readLabelCell(const std::string& cell) {
  std::vector<LabelRow> rows;
  std::istringstream stream(cell);
  for (std::string entry; std::getline(stream, entry, ';');) {
    const auto equals = entry.find('=');
    if (equals == std::string::npos) continue;
    rows.emplace_back(entry.substr(0, equals), parseDecimal(entry.substr(equals + 1)).value_or(0));
  }
  return rows;
}

CatalogueProduct readRow(const CsvTable& table, std::size_t row) {
  CatalogueProduct p;
  p.id = table.cell(row, "id");
  p.name = table.cell(row, "name");
  p.shortName = table.cell(row, "short_name");
  p.formulaText = table.cell(row, "formula");
  p.liquid = table.cell(row, "state") == "liquid";
  p.purityPercent = table.number(row, "purity_percent").value_or(100);
  p.fromLabel = table.cell(row, "composition_from") == "label";
  p.label = readLabelCell(table.cell(row, "label_percent"));
  p.densityKgPerL = table.number(row, "solution_density_g_per_ml");
  if (const auto& signal = table.cell(row, "ghs_signal"); signal != "none") p.signalWord = signal;
  std::istringstream codes(table.cell(row, "ghs_h_codes"));
  for (std::string code; codes >> code;)
    p.hazardCodes.push_back(code);
  p.oxidiser = table.cell(row, "oxidiser") == "yes";
  p.hygroscopic = table.cell(row, "hygroscopic") == "yes";
  p.cautions = table.cell(row, "cautions");
  p.remark = table.cell(row, "remark");
  p.source = table.cell(row, "source");
  p.confidence = table.cell(row, "confidence");
  auto composition =
      compositionAsSold(p.formulaText, p.purityPercent, p.fromLabel ? p.label : std::vector<LabelRow>());
  assert(composition);
  p.composition = std::move(composition).value();
  return p;
}

} // namespace

Result<Composition> compositionAsSold(std::string_view formula, double purityPercent,
                                      const std::vector<LabelRow>& label) {
  auto byFormula = compositionFromFormula(formula, purityPercent);
  if (!byFormula || label.empty()) return byFormula;
  auto composition = std::move(byFormula).value();
  const auto byLabel = compositionFromLabel(label);
  if (!byLabel) return byLabel.problem();
  composition.massFraction = byLabel->composition.massFraction;
  composition.solutesPerGram =
      solutesOfProduct(composition.massFraction, composition.alkalinityMeqPerGram, *composition.formula,
                       purityPercent / 100 / composition.formula->molarMassGPerMol);
  return composition;
}

const std::vector<CatalogueProduct>& catalogue() {
  static const std::vector<CatalogueProduct> products = [] {
    const CsvTable table(embedded::products());
    std::vector<CatalogueProduct> out;
    for (std::size_t row = 0; row < table.rowCount(); ++row)
      out.push_back(readRow(table, row));
    return out;
  }();
  return products;
}

const CatalogueProduct* findInCatalogue(std::string_view id) {
  const auto& all = catalogue();
  const auto it = std::find_if(all.begin(), all.end(), [&](const auto& p) { return p.id == id; });
  return it == all.end() ? nullptr : &*it;
}

const CatalogueProduct* findSameSubstance(const ChemicalFormula& formula) {
  const auto& all = catalogue();
  const auto it = std::find_if(all.begin(), all.end(),
                               [&](const auto& p) { return p.composition.formula->atoms == formula.atoms; });
  return it == all.end() ? nullptr : &*it;
}

} // namespace butte::core
