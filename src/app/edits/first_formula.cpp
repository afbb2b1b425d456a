#include "edits/first_formula.h"

#include "document/book_desk.h"
#include "formula_json.h"
#include "target/scale_target.h"
#include "units/convert.h"
#include "wording/tr.h"

#include <cmath>

namespace butte::app {

using exchange::Json;

namespace {

/// A vessel that salts are weighed into as it is filled; beyond it stocks are the usual way (common
/// practice).
constexpr double mostLitresDirect = 200;

Json waterOf(const FirstFormula& answers) {
  Json rows = Json::array();
  if (answers.waterKnown == WaterKnown::Pure)
    return Json{{"name", tr("Rain or RO").toStdString()}, {"rows", rows}};
  if (answers.waterKnown == WaterKnown::Unknown)
    return Json{{"name", tr("Water, not known yet").toStdString()}, {"rows", rows}, {"estimate", true}};
  if (!answers.alkalinityAsCaCO3.empty())
    rows.push_back({{"key", "alkalinity_as_CaCO3"}, {"mg_per_l", answers.alkalinityAsCaCO3}});
  Json water{{"name", tr("Tap or well").toStdString()}, {"rows", rows}, {"estimate", true}};
  if (!answers.conductivity.isEmpty()) water["ec"] = exchange::figureJson(answers.conductivity);
  if (!answers.ph.empty()) water["ph"] = answers.ph;
  return water;
}

/// The target at the strength asked for, its ratios kept; as it is where that can't be reached.
core::CatalogueTarget atStrength(core::CatalogueTarget target, std::optional<double> milliSiemensPerCm) {
  if (!milliSiemensPerCm) return target;
  const auto factor = core::factorForConductivity(target.rows, 0, *milliSiemensPerCm, false);
  if (factor) target.rows = core::scaled(target.rows, *factor, false);
  constexpr double figures = 4; // finer than anybody weighs
  for (auto& row : target.rows) {
    const double size =
        std::pow(10, figures - 1 - std::floor(std::log10(std::max(row.milligramsPerLitre, 1e-6))));
    row.milligramsPerLitre = std::round(row.milligramsPerLitre * size) / size;
  }
  return target;
}

} // namespace

Json nextFormula(const Json& inHand) {
  auto out = exchange::emptyFormula();
  for (const auto* key :
       {"water", "shelf", "batch", "scales", "spoons", "stock", "acid", "alkalinity_left", "way"}) {
    if (inHand.contains(key)) out[key] = inHand[key];
  }
  for (auto& entry : out["shelf"]) {
    for (const auto* key : {"held", "least", "most"})
      entry.erase(key);
  }
  out["stock"].erase("placed");
  return out;
}

book::Trouble makeFirstFormula(BookDesk& desk, const FirstFormula& answers) {
  auto json = exchange::emptyFormula();
  if (answers.target) {
    json["target"] = exchange::targetJson(atStrength(*answers.target, answers.strengthMsPerCm));
    json["name"] = answers.target->name;
    json["crop"] = answers.target->crop;
  }
  json["water"] = waterOf(answers);
  for (const auto& id : answers.shelf)
    json["shelf"].push_back(exchange::shelfEntry(id));
  json["batch"] = exchange::figureJson(answers.batch);
  const auto litres = core::convert(answers.batch.value(), answers.batch.unit, "L");
  if (litres && *litres <= mostLitresDirect) json["way"] = "direct";
  return desk.addFormula(json, {core::DeedCode::FirstFormula, {}});
}

} // namespace butte::app
