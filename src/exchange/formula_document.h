#pragma once
#include "base/result.h"
#include "bench/weigh_plan.h"
#include "formula/formula_answer.h"
#include "json_reader.h"
#include "stock_document.h"
#include "target_document.h"
#include "typed_numbers.h"
#include "water_document.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

/// One formula as a grower keeps it: every number as it was typed, in the unit it was typed in
/// (docs/formats/formula.md). The document is the JSON itself; this reads it strictly.
namespace butte::exchange {

inline constexpr int formulaFormatVersion =
    6; ///< 2 added acid and water.titration, 3 crop and as_shipped, 4 parts and units of waters, looks of
       ///< products, 5 units, ratios and caps of targets, aim, accuracy, 6 any set of
       ///< tanks, what stands in them by hand, dosing; earlier ones are read
inline constexpr std::string_view formulaFormatName = "butte-formula";

/// What the window needs of a product beside the core's view of it.
struct DocumentProduct {
  std::string id;
  std::string name;
  std::string catalogueId; ///< empty for the grower's own
  bool own = false;
  std::string colour;               ///< "#5b7fa6", the grower's own choice; empty: the program's
  std::string code;                 ///< a short mark of the grower's own: "KN"
  std::string hatch;                ///< one of hatchNames(); empty: the program's
  std::vector<std::string> hazards; ///< GHS codes from the label: "H272"
  bool on = true;
  std::optional<Amount> held;
  std::optional<Amount> step;           ///< weighed in whole steps of this: a bag, a scoop
  std::optional<double> contentPercent; ///< how far its label may be off, relative; empty: the usual
};

/// What the formula is solved for.
struct FormulaAim {
  bool cheapest = false; ///< asked for; given.request says whether it can be (every product has a price)
  std::optional<int> atMostProducts;
  bool wholeSteps = false; ///< weights in the scales' steps, chosen together
};

/// How exactly the grower works; empty: the usual figures (core/formula/uncertainty.h).
struct FormulaAccuracy {
  std::optional<double> volumePercent, dosingPercent, waterPercent;
};

/// A crop that shares the formula's stocks.
struct DocumentCrop {
  std::string name;
  std::vector<core::TargetRow> rows;
};

struct FormulaDocument {
  std::string name, crop;
  std::string waterName, targetName;
  WaterDocument water;
  std::vector<DocumentProduct> products;       ///< parallel to the document's shelf
  std::vector<core::ShelfProduct> allProducts; ///< parallel: also those switched off
  std::vector<std::size_t> active;             ///< index into products for each of given.request.shelf
  core::Given given;
  FormulaAim aim;
  std::vector<std::string> withoutPrice; ///< names of active products, where the cheapest is asked for
  FormulaAccuracy accuracy;
  std::vector<DocumentCrop> crops;
  std::vector<DocumentTank> tanks; ///< parallel to given.stock.tanks
  DosingDocument dosing;
  std::vector<core::Scale> scales;
  std::vector<core::LabelRemark> labelRemarks;
};

/// Reads a formula document. Every problem names the key's path.
core::Result<FormulaDocument> readFormulaDocument(const Json& json);

/// Text of a file to JSON, checked to be a formula that this program knows: BadJson, WrongType, NewerFormat
/// ...
core::Result<Json> parseFormulaText(std::string_view text);

/// The file's text: indented, keys in the document's order, a line break at the end.
std::string formulaText(const Json& json);

/// An empty formula: pure water, no target, no products, two tanks.
Json emptyFormula();

/// Writes into every shipped product of a shelf (or of a whole formula) what the catalogue says of it today,
/// unless it stands there already: a later catalogue then changes nothing that a grower made.
void keepShippedFigures(Json& shelfOrFormula);

/// A shipped target as it stands in a formula.
Json targetJson(const core::CatalogueTarget& target);
/// A shipped product as it comes onto a shelf, switched on.
Json shelfEntry(const std::string& catalogueId);

/// plain, rising, falling, upright, level, crossed, dotted
const std::vector<std::string>& hatchNames();
/// Reads `colour`, `hatch` and `hazards` of a product; problems go to the reader.
void readLook(ObjectReader& reader, DocumentProduct& product);

/// {"amount": digits, "unit": unit}
Json amountJson(const std::string& digits, const std::string& unit);

} // namespace butte::exchange
