#pragma once
#include "amount.h"
#include "bench/weigh_plan.h"
#include "formula/formula_answer.h"
#include "stock_document.h"
#include "target_document.h"
#include "water_document.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

/// One formula as a grower keeps it: every number as it was typed, in the unit it was typed in
/// (docs/formats/formula.md). The document is the JSON itself; this reads it strictly.
namespace butte::exchange {

inline constexpr int formulaFormatVersion =
    8; ///< 2 added acid and water.titration, 3 crop and as_shipped, 4 parts and units of waters, looks of
       ///< products, 5 units, ratios and caps of targets, aim, accuracy, 6 any set of
       ///< tanks, what stands in them by hand, dosing, 7 the way straight into a vessel, 8 level spoons,
       ///< stages and acid before the salts; earlier ones are read
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
  std::string stage;               ///< the one in hand; empty where there are none
  std::vector<std::string> stages; ///< all of them (exchange/stages.h)
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
  std::vector<core::Scale> scales; ///< with the level spoons, where those are used
  bool spoons = false;
  std::vector<core::LabelRemark> labelRemarks;
};

/// plain, rising, falling, upright, level, crossed, dotted
const std::vector<std::string>& hatchNames();

} // namespace butte::exchange
