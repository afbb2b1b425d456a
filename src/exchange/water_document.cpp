#include "water_json.h"

#include "product/shipped.h"
#include "things/choices.h"
#include "things/figures.h"
#include "things/things.h"
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
  static constexpr Choices<TitrationUnknown, 3> sought{{{"alkalinity", TitrationUnknown::Alkalinity},
                                                        {"strength", TitrationUnknown::Strength},
                                                        {"both", TitrationUnknown::AlkalinityAndStrength}}};
  titration.unknown = chosen(reader, "seek", sought);
  const auto strength = figure(reader, Dialect::Document, {"", "strength_meq_per_ml", "meq/mL", 0.001, 60});
  const double litres = figure(reader, Dialect::Document, {"", "sample", "L", 0.001, 1e6, true}).value_or(1);
  titration.used = reader.flag("use").value_or(true);
  if (const auto* list = reader.array("readings")) {
    for (std::size_t i = 0; i < list->size(); ++i) {
      ObjectReader row((*list)[i], item(path + ".readings", i), problem);
      const auto ml = figure(row, Dialect::Document, {"", "ml", "mL", 0, 1e6});
      const auto ph = figure(row, Dialect::Document, figures::ph);
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
  const auto plain = figure(reader, Dialect::Document, {"", "mg_per_l", "mg/L", 0, 1e6});
  const auto typed = figure(reader, Dialect::Document, figures::reported);
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
  readMeters(reader, Dialect::Document, report);
  if (const auto* rows = reader.array("rows")) {
    for (std::size_t i = 0; i < rows->size() && !problem; ++i)
      report.rows.push_back(readReportRow((*rows)[i], item(reader.pathOf("rows"), i), problem));
  }
  return report;
}

Treatment treatmentOf(ObjectReader& parent) {
  const auto* json = parent.any("treatment");
  if (!json || json->is_null()) return {};
  return readTreatment(*json, parent.pathOf("treatment"), Dialect::Document, parent.sink());
}

/// A source, as the whole water or as one of its parts.
void readPart(ObjectReader& reader, WaterDocument& out, std::optional<Problem>& problem, std::string name) {
  WaterPart part;
  part.report = readReport(reader, problem);
  part.treatment = treatmentOf(reader);
  out.sources.push_back(
      {std::move(name), reader.text("source").value_or(""), reader.text("report").value_or("")});
  out.plan.parts.push_back(std::move(part));
}

void readAcidFirst(ObjectReader& parent, WaterDocument& out, std::optional<Problem>& problem) {
  const auto* json = parent.any("acid_first");
  if (!json || json->is_null()) return;
  ObjectReader reader(*json, parent.pathOf("acid_first"), problem);
  const auto product = bottleFor(reader, "product");
  const double left = figure(reader, Dialect::Document, figures::alkalinityLeft).value_or(1);
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
    out.plan.parts.back().share = figure(reader, Dialect::Document, figures::share).value_or(1);
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
  return shippedProduct(*entry);
}

WaterDocument readWaterDocument(const Json& water, const std::string& path, std::optional<Problem>& problem) {
  WaterDocument out;
  ObjectReader reader(water, path, problem);
  out.name = reader.text("name").value_or("");
  out.system = chosen(reader, "system", growingSystems);
  out.onLeaves = chosen(reader, "watering", waterings);
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
