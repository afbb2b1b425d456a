#include "edits/first_formula.h"

#include "document/book_desk.h"
#include "formula_json.h"
#include "units/convert.h"
#include "wording/tr.h"

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
  if (!answers.conductivityMsPerCm.empty())
    water["ec"] = exchange::amountJson(answers.conductivityMsPerCm, "mS/cm");
  return water;
}

} // namespace

book::Trouble makeFirstFormula(BookDesk& desk, const FirstFormula& answers) {
  auto json = exchange::emptyFormula();
  if (answers.target) {
    json["target"] = exchange::targetJson(*answers.target);
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
