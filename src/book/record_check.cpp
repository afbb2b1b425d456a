#include "record_check.h"

#include "base/decimal.h"
#include "batch.h"
#include "formula_json.h"
#include "units/convert.h"

namespace butte::book {

using core::problemAt;
using core::ProblemCode;
using exchange::ObjectReader;

namespace {

/// A part of a formula is right when an otherwise empty formula with it is.
Trouble checkPart(const char* key, const Json& part, const std::string& path) {
  auto formula = exchange::emptyFormula();
  formula[key] = part;
  auto problem = exchange::formulaProblem(formula);
  if (problem) problem->where = path + problem->where;
  return problem;
}

/// What wears out at a source and when it was last changed.
void checkUpkeep(const Json& list, Trouble& problem) {
  for (std::size_t i = 0; i < list.size() && !problem; ++i) {
    ObjectReader reader(list[i], "upkeep[" + std::to_string(i) + "]", problem);
    if (reader.text("what").value_or("").empty())
      reader.fail(ProblemCode::MissingKey, "what", {"what wants upkeep, such as membrane"});
    const auto months = reader.text("every_months").value_or("");
    if (!months.empty() && core::parseDecimal(months).value_or(0) <= 0)
      reader.fail(ProblemCode::OutOfRange, "every_months", {months, "a number of months above 0"});
    const auto last = reader.text("last").value_or("");
    if (!last.empty() && !Moment::fromIso(last))
      reader.fail(ProblemCode::OutOfRange, "last", {"'" + last + "'", "a date such as 2026-03-02"});
    reader.finish();
  }
}

Trouble checkWater(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  reader.text("name");
  reader.text("note");
  if (const auto* upkeep = reader.array("upkeep")) checkUpkeep(*upkeep, problem);
  const auto* reports = reader.array("reports");
  reader.finish();
  for (std::size_t i = 0; reports && i < reports->size() && !problem; ++i) {
    ObjectReader report((*reports)[i], "reports[" + std::to_string(i) + "]", problem);
    const auto date = report.text("date").value_or("");
    if (!Moment::fromIso(date))
      report.fail(ProblemCode::OutOfRange, "date", {"'" + date + "'", "a date such as 2026-03-02"});
    report.text("laboratory");
    const auto* water = report.object("water");
    if (!water) report.fail(ProblemCode::MissingKey, "water", {"a report needs its figures"});
    report.finish();
    if (!problem) problem = checkPart("water", *water, "reports[" + std::to_string(i) + "].");
  }
  return problem;
}

Trouble checkProduct(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  reader.text("name");
  const auto* entry = reader.object("entry");
  if (!entry) reader.fail(ProblemCode::MissingKey, "entry", {"a product needs its formula or label"});
  if (const auto* bag = reader.object("bag")) {
    ObjectReader amount(*bag, "bag", problem);
    const auto digits = amount.text("amount").value_or(""), unit = amount.text("unit").value_or("");
    if (!problem && (!core::parseDecimal(digits) || !core::convert(1, unit, "kg")))
      reader.fail(ProblemCode::OutOfRange, "bag", {digits + " " + unit, "a weight such as 25 kg"});
    amount.finish();
  }
  reader.text("currency");
  exchange::DocumentProduct look;
  exchange::readLook(reader, look);
  reader.text("note");
  reader.finish();
  return problem ? problem : checkPart("shelf", Json::array({*entry}), "");
}

Trouble checkTarget(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  for (const auto* key : {"name", "crop", "stage", "season", "from_week", "note"})
    reader.text(key);
  const auto* target = reader.object("target");
  if (!target) reader.fail(ProblemCode::MissingKey, "target", {"a target needs its elements"});
  reader.finish();
  return problem ? problem : checkPart("target", *target, "");
}

Trouble checkStockPlan(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  for (const auto* key : {"name", "formula", "note"})
    reader.text(key);
  const auto* stock = reader.object("stock");
  if (!stock) reader.fail(ProblemCode::MissingKey, "stock", {"a stock plan needs its tanks"});
  reader.finish();
  return problem ? problem : checkPart("stock", *stock, "");
}

Trouble checkReading(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  if (reader.text("tank").value_or("").empty())
    reader.fail(ProblemCode::MissingKey, "tank", {"a reading needs its tank"});
  const auto quantity = reader.text("quantity").value_or("");
  if (quantity != "ec" && quantity != "ph" && quantity != "level" && quantity != "temperature")
    reader.fail(ProblemCode::OutOfRange, "quantity", {"'" + quantity + "'", "ec, ph, level or temperature"});
  const auto at = reader.text("at").value_or("");
  if (!Moment::fromIso(at))
    reader.fail(ProblemCode::OutOfRange, "at",
                {"'" + at + "'", "a date and time such as 2026-03-02T07:15:00Z"});
  reader.number("value");
  reader.text("typed");
  reader.text("import");
  reader.finish();
  return problem;
}

Trouble checkImport(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  reader.text("name");
  reader.number("rows");
  reader.finish();
  return problem;
}

} // namespace

Trouble checkRecord(Kind kind, const Json& body) {
  switch (kind) {
  case Kind::Water:
    return checkWater(body);
  case Kind::Product:
    return checkProduct(body);
  case Kind::Target:
    return checkTarget(body);
  case Kind::StockPlan:
    return checkStockPlan(body);
  case Kind::Reading:
    return checkReading(body);
  case Kind::ReadingImport:
    return checkImport(body);
  case Kind::Batch: {
    const auto batch = batchFromJson(body);
    return batch ? Trouble() : Trouble(batch.problem());
  }
  case Kind::Formula:
    return exchange::formulaProblem(body);
  }
  return std::nullopt;
}

} // namespace butte::book
