#pragma once
#include "product/product.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// A product of the shipped catalogue (data/products.csv).
struct CatalogueProduct {
  std::string id;
  std::string name;
  std::string shortName;
  std::string formulaText;
  bool liquid = false;
  double purityPercent = 100;
  bool fromLabel = false; ///< the label is nearer to what is sold than the formula
  std::vector<LabelRow> label;
  std::optional<double> densityKgPerL;  ///< of a liquid
  std::string signalWord;               ///< GHS: "Danger", "Warning" or empty
  std::vector<std::string> hazardCodes; ///< GHS H-codes without letters' meaning: "H272"
  bool oxidiser = false;
  bool hygroscopic = false;
  std::string cautions;
  std::string remark;
  std::string source;
  std::string confidence;
  Composition composition;
};

/// The shipped products, read once. A row that does not parse is a fault of the build; tests read every row.
const std::vector<CatalogueProduct>& catalogue();

/// What a gram of a product holds whose formula is known and, when given, whose label is nearer to what is
/// sold: the label gives the nutrients, the formula the hydrate water and the solid that forms. Errors: those
/// of compositionFromFormula() and compositionFromLabel().
Result<Composition> compositionAsSold(std::string_view formula, double purityPercent,
                                      const std::vector<LabelRow>& label);

/// Null when the catalogue has no such id.
const CatalogueProduct* findInCatalogue(std::string_view id);

/// The catalogue's product of the same substance (same atoms, hydrate included); null when there is none. For
/// the hazards of a product that a grower typed by its formula.
const CatalogueProduct* findSameSubstance(const ChemicalFormula& formula);

} // namespace butte::core
