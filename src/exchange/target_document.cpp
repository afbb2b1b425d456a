#include "target_json.h"

#include "base/decimal.h"
#include "things/figures.h"
#include "things/things.h"
#include "typed_numbers.h"

#include <algorithm>
#include <set>

namespace butte::exchange {

using namespace core;

namespace {

TargetRow readRow(const Json& json, const std::string& path, std::optional<Problem>& problem) {
  ObjectReader reader(json, path, problem);
  TargetRow row;
  row.nutrient = nutrientAt(reader, "nutrient", reader.text("nutrient").value_or("")).value_or(Nutrient::N);
  const auto plain = figure(reader, Dialect::Document, figures::wantedMgPerL);
  const auto typed = figure(reader, Dialect::Document, {"", "amount", "", 0, figures::wantedMgPerL.most});
  const auto unit = reader.text("unit").value_or("mg/L");
  if (!plain && !typed) reader.fail(ProblemCode::MissingKey, "mg_per_l", {"a row needs its figure"});
  row.milligramsPerLitre = plain.value_or(0);
  if (typed) {
    const auto value = targetMilligramsPerLitre(row.nutrient, *typed, unit);
    if (!value) reader.fail(ProblemCode::UnknownUnit, "unit", {unit, "mg/L mmol/L meq/L"});
    if (value && *value > figures::wantedMgPerL.most)
      reader.fail(ProblemCode::OutsideLimits, "amount",
                  {decimalText(*typed), "", decimalText(figures::wantedMgPerL.most), "mg/L"});
    row.milligramsPerLitre = value.value_or(0);
  }
  row.tolerancePercent = figure(reader, Dialect::Document, figures::band).value_or(5);
  row.weight = figure(reader, Dialect::Document, figures::rowWeight).value_or(1);
  reader.finish();
  return row;
}

Cap readCap(const Json& json, const std::string& path, std::optional<Problem>& problem) {
  ObjectReader reader(json, path, problem);
  Cap cap;
  cap.nutrient = nutrientAt(reader, "nutrient", reader.text("nutrient").value_or("")).value_or(Nutrient::N);
  cap.milligramsPerLitre = figure(reader, Dialect::Document, figures::wantedMgPerL).value_or(0);
  reader.finish();
  return cap;
}

} // namespace

TargetDocument readTargetDocument(const Json& target, const std::string& path,
                                  std::optional<Problem>& problem) {
  TargetDocument out;
  ObjectReader reader(target, path, problem);
  out.name = reader.text("name").value_or("");
  std::set<Nutrient> seen;
  const auto* rows = reader.array("rows");
  for (std::size_t i = 0; rows && i < rows->size() && !problem; ++i) {
    out.rows.push_back(readRow((*rows)[i], item(reader.pathOf("rows"), i), problem));
    const auto key = std::string(nutrientKey(out.rows.back().nutrient));
    if (!seen.insert(out.rows.back().nutrient).second && !problem)
      problem =
          problemAt(ProblemCode::DuplicateKey, item(reader.pathOf("rows"), i) + ".nutrient", {key, key});
  }
  const auto* ratios = reader.array("ratios");
  for (std::size_t i = 0; ratios && i < ratios->size() && !problem; ++i)
    out.ratios.push_back(
        readRatioWish((*ratios)[i], item(reader.pathOf("ratios"), i), Dialect::Document, problem));
  const auto* caps = reader.array("caps");
  for (std::size_t i = 0; caps && i < caps->size() && !problem; ++i)
    out.caps.push_back(readCap((*caps)[i], item(reader.pathOf("caps"), i), problem));
  reader.finish();
  return out;
}

const std::vector<std::string>& targetUnits() {
  static const std::vector<std::string> units{"mg/L", "mmol/L", "meq/L"};
  return units;
}

std::optional<double> targetMilligramsPerLitre(Nutrient nutrient, double value, const std::string& unit) {
  if (unit == "mg/L") return value;
  if (unit == "mmol/L") return value / amountPerMilligram(nutrient, RatioBasis::Moles);
  if (unit == "meq/L") return value / amountPerMilligram(nutrient, RatioBasis::Equivalents);
  return std::nullopt;
}

double targetIn(Nutrient nutrient, double milligramsPerLitre, const std::string& unit) {
  if (unit == "mmol/L") return milligramsPerLitre * amountPerMilligram(nutrient, RatioBasis::Moles);
  if (unit == "meq/L") return milligramsPerLitre * amountPerMilligram(nutrient, RatioBasis::Equivalents);
  return milligramsPerLitre;
}

std::pair<std::string, std::string> typedFigure(const Json& row) {
  if (row.contains("amount"))
    return {row["amount"].get<std::string>(), row.value("unit", std::string("mg/L"))};
  return {row.value("mg_per_l", std::string()), "mg/L"};
}

void setTypedFigure(Json& row, const std::string& digits, const std::string& unit) {
  for (const auto* key : {"mg_per_l", "amount", "unit"})
    row.erase(key);
  if (unit == "mg/L") {
    row["mg_per_l"] = digits;
  } else {
    row["amount"] = digits;
    row["unit"] = unit;
  }
}

std::optional<double> rowMilligramsPerLitre(const Json& row) {
  const auto nutrient = nutrientFromKey(row.value("nutrient", std::string()));
  const auto [digits, unit] = typedFigure(row);
  const auto value = parseDecimal(digits);
  return nutrient && value ? targetMilligramsPerLitre(*nutrient, *value, unit) : std::nullopt;
}

} // namespace butte::exchange
