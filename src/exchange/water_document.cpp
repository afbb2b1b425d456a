#include "water_json.h"

#include "product/catalogue.h"
#include "typed_numbers.h"

#include <cmath>

namespace butte::exchange {

using namespace core;

namespace {

void readTitration(const Json& json, const std::string& path, WaterDocument& out,
                   std::optional<Problem>& problem) {
  ObjectReader reader(json, path, problem);
  OwnTitration titration;
  const auto acid = bottleFor(reader, "acid");
  const auto seek = reader.text("seek").value_or("alkalinity");
  if (seek == "strength")
    titration.unknown = TitrationUnknown::Strength;
  else if (seek == "both")
    titration.unknown = TitrationUnknown::AlkalinityAndStrength;
  else if (seek != "alkalinity")
    reader.fail(ProblemCode::OutOfRange, "seek",
                {"'" + seek + "'", "\"alkalinity\", \"strength\" or \"both\""});
  const auto strength = digits(reader, "strength_meq_per_ml", 0.001, 60, "0.001 to 60 meq/mL");
  const double litres = amount(reader, "sample", "L", 0.001, 1e6).value_or(1);
  titration.used = reader.flag("use").value_or(true);
  if (const auto* list = reader.array("readings")) {
    for (std::size_t i = 0; i < list->size(); ++i) {
      ObjectReader row((*list)[i], item(path + ".readings", i), problem);
      const auto ml = digits(row, "ml", 0, 1e6, "0 or more mL");
      const auto ph = digits(row, "ph", 0, 14, "0 to 14");
      row.finish();
      if (ml && ph) titration.readings.push_back({*ml / litres, *ph});
    }
  }
  reader.finish();
  if (problem || !acid) return;
  titration.productId = acid->id;
  const double density =
      acid->densityKgPerL.value_or(1) * 1000; // g/L; a dry acid is taken as 1 g per mL of dose
  titration.acidPerMl = acid->composition.solutesPerGram.scaled(density / 1000);
  const double labelled = std::abs(acid->composition.alkalinityMeqPerGram) * density / 1000;
  if (strength && labelled > 0) titration.acidPerMl = titration.acidPerMl.scaled(*strength / labelled);
  out.titration = std::move(titration);
}

/// One figure of a report: `mg_per_l`, or `amount` with its unit.
ReportRow readReportRow(const Json& json, const std::string& path, std::optional<Problem>& problem) {
  ObjectReader reader(json, path, problem);
  ReportRow row;
  row.key = reader.text("key").value_or("");
  const auto plain = digits(reader, "mg_per_l", 0, 100000, "0 to 100000 mg/L");
  const auto typed = digits(reader, "amount", 0, 1e8, "0 or more");
  row.unit = reader.text("unit").value_or("mg/L");
  row.below = reader.flag("below").value_or(false);
  if (!plain && !typed)
    reader.fail(ProblemCode::MissingKey, "amount", {"a row needs its figure: amount and unit, or mg_per_l"});
  row.value = plain ? *plain : typed.value_or(0);
  reader.finish();
  return row;
}

TypedReport readReport(ObjectReader& reader, std::optional<Problem>& problem) {
  TypedReport report;
  report.conductivityMsPerCm = amount(reader, "ec", "mS/cm", 0, 200);
  report.ph = digits(reader, "ph", 0, 14, "0 to 14");
  report.temperatureCelsius = amount(reader, "temperature", "C", -5, 60);
  report.estimateTheRest = reader.flag("estimate").value_or(false);
  if (const auto* rows = reader.array("rows")) {
    for (std::size_t i = 0; i < rows->size() && !problem; ++i)
      report.rows.push_back(readReportRow((*rows)[i], item(reader.pathOf("rows"), i), problem));
  }
  return report;
}

ReverseOsmosis readMembrane(ObjectReader& reader, std::optional<Problem>& problem) {
  ReverseOsmosis plant;
  plant.rejectionPercent =
      digits(reader, "rejection_percent", 0, 100, "0 to 100 %").value_or(plant.rejectionPercent);
  plant.recoveryPercent =
      digits(reader, "recovery_percent", 1, 99, "1 to 99 %").value_or(plant.recoveryPercent);
  const auto* list = reader.array("rejection");
  for (std::size_t i = 0; list && i < list->size() && !problem; ++i) {
    ObjectReader row((*list)[i], item(reader.pathOf("rejection"), i), problem);
    const auto nutrient = nutrientFromKey(row.text("key").value_or(""));
    const auto percent = digits(row, "percent", 0, 100, "0 to 100 %");
    if (!nutrient || *nutrient == Nutrient::N)
      row.fail(ProblemCode::UnknownKey, "key", {"N_NO3 N_NH4 P K Ca Mg S B Si Na Cl ..."});
    row.finish();
    if (nutrient && percent) plant.rejectionOf[*nutrient] = *percent;
  }
  return plant;
}

Treatment readTreatment(ObjectReader& parent, std::optional<Problem>& problem) {
  const auto* json = parent.any("treatment");
  if (!json || json->is_null()) return {};
  ObjectReader reader(*json, parent.pathOf("treatment"), problem);
  const auto kind = reader.text("kind").value_or("");
  Treatment out;
  if (kind == "reverse_osmosis")
    out = readMembrane(reader, problem);
  else if (kind == "softener")
    out = Softener{amount(reader, "hardness_left", "meq/L", 0, 100).value_or(0)};
  else
    reader.fail(ProblemCode::OutOfRange, "kind", {"'" + kind + "'", "\"reverse_osmosis\" or \"softener\""});
  reader.finish();
  return out;
}

/// A source, as the whole water or as one of its parts.
void readPart(ObjectReader& reader, WaterDocument& out, std::optional<Problem>& problem, std::string name) {
  WaterPart part;
  part.report = readReport(reader, problem);
  part.treatment = readTreatment(reader, problem);
  out.sources.push_back(
      {std::move(name), reader.text("source").value_or(""), reader.text("report").value_or("")});
  out.plan.parts.push_back(std::move(part));
}

void readAcidFirst(ObjectReader& parent, WaterDocument& out, std::optional<Problem>& problem) {
  const auto* json = parent.any("acid_first");
  if (!json || json->is_null()) return;
  ObjectReader reader(*json, parent.pathOf("acid_first"), problem);
  const auto product = bottleFor(reader, "product");
  const double left = amount(reader, "alkalinity_left", "meq/L", 0, 100).value_or(1);
  reader.finish();
  if (!product) return;
  out.acidFirstId = product->id;
  out.plan.acid = AcidFirst{product->composition, product->densityKgPerL, left};
}

/// Several sources; the water's own rows, meters and treatment then have no place.
void readParts(const Json& parts, ObjectReader& top, WaterDocument& out, std::optional<Problem>& problem) {
  for (const auto* key : {"rows", "ec", "ph", "temperature", "treatment"}) {
    const auto* there = top.any(key);
    const bool empty = !there || there->is_null() || (there->is_array() && there->empty());
    if (!empty) top.fail(ProblemCode::UnknownKey, key, {"the figures stand in parts"});
  }
  for (std::size_t i = 0; i < parts.size() && !problem; ++i) {
    ObjectReader reader(parts[i], item(top.pathOf("parts"), i), problem);
    const auto name = reader.text("name").value_or("");
    readPart(reader, out, problem, name);
    out.plan.parts.back().share = digits(reader, "share", 0, 1e6, "0 or more").value_or(1);
    reader.finish();
  }
}

} // namespace

std::optional<ShelfProduct> bottleFor(ObjectReader& reader, std::string_view key) {
  const auto id = reader.text(key).value_or("");
  const auto* entry = findInCatalogue(id);
  if (!entry ||
      (entry->composition.role != ProductRole::Acid && entry->composition.role != ProductRole::Base)) {
    reader.fail(ProblemCode::UnknownProduct, key, {id});
    return std::nullopt;
  }
  ShelfProduct product;
  product.id = id;
  product.name = entry->shortName;
  product.composition = entry->composition;
  product.liquid = entry->liquid;
  product.densityKgPerL = entry->densityKgPerL;
  return product;
}

WaterDocument readWaterDocument(const Json& water, const std::string& path, std::optional<Problem>& problem) {
  WaterDocument out;
  ObjectReader reader(water, path, problem);
  out.name = reader.text("name").value_or("");
  const auto system = reader.text("system").value_or("open");
  out.recirculating = system == "recirculating";
  if (!out.recirculating && system != "open")
    reader.fail(ProblemCode::OutOfRange, "system", {"'" + system + "'", "\"open\" or \"recirculating\""});
  const auto* parts = reader.array("parts");
  if (parts && !parts->empty())
    readParts(*parts, reader, out, problem);
  else
    readPart(reader, out, problem, out.name);
  readAcidFirst(reader, out, problem);
  if (const auto* titration = reader.any("titration"); titration && !titration->is_null())
    readTitration(*titration, reader.pathOf("titration"), out, problem);
  reader.finish();
  return out;
}

Json waterRowJson(const std::string& key, const std::string& digits, const std::string& unit, bool below) {
  Json row{{"key", key}};
  if (unit == "mg/L") {
    row["mg_per_l"] = digits;
  } else {
    row["amount"] = digits;
    row["unit"] = unit;
  }
  if (below) row["below"] = true;
  return row;
}

} // namespace butte::exchange
