#include "json_reader.h"
#include "things/figures.h"
#include "things/things.h"

namespace butte::exchange {

using namespace core;

namespace {

/// A problem of the core belongs to the key that it speaks of.
void take(ObjectReader& reader, const Problem& problem) {
  reader.fail(problem.code, problem.where, problem.values);
}

/// {"K2O": 30, "Mg": 2}
std::vector<LabelRow> rowsOfObject(const Json& label, ObjectReader& parent) {
  std::vector<LabelRow> rows;
  ObjectReader values(label, parent.pathOf("label_percent"), parent.sink());
  for (const auto& [key, value] : label.items()) {
    if (!key.starts_with("x_")) rows.emplace_back(key, values.number(key).value_or(0));
  }
  return rows;
}

} // namespace

std::vector<LabelRow> readLabelRows(const Json& label, const std::string& path,
                                    std::optional<Problem>& problem) {
  std::vector<LabelRow> rows;
  for (std::size_t i = 0; i < label.size(); ++i) {
    ObjectReader row(label[i], path + "[" + std::to_string(i) + "]", problem);
    const auto key = row.text("key").value_or("");
    const auto percent = figure(row, Dialect::Document, figures::labelPercent);
    row.finish();
    rows.emplace_back(key, percent.value_or(0));
  }
  return rows;
}

void readComposition(ObjectReader& reader, Dialect dialect, ShelfProduct& product,
                     std::vector<LabelRemark>& remarks) {
  const bool script = dialect == Dialect::Script;
  const char* labelKey = script ? "label_percent" : "label";
  const auto formula = reader.text("formula");
  const auto* label = script ? reader.object(labelKey) : reader.array(labelKey);
  const auto purity = figure(reader, dialect, figures::purity);
  if (reader.failed()) return;
  if (formula && label) return reader.fail(ProblemCode::FormulaAndLabel, labelKey, {});
  if (!formula && !label) return reader.fail(ProblemCode::NoComposition, "formula", {});
  if (label && purity) return reader.fail(ProblemCode::PurityBesideLabel, "purity_percent", {});
  if (formula) {
    auto composition = compositionFromFormula(*formula, purity.value_or(100));
    if (!composition) return take(reader, composition.problem());
    product.composition = std::move(composition).value();
    return;
  }
  const auto rows =
      script ? rowsOfObject(*label, reader) : readLabelRows(*label, reader.pathOf(labelKey), reader.sink());
  if (reader.failed()) return;
  auto composition = compositionFromLabel(rows);
  if (!composition) return take(reader, composition.problem());
  product.composition = composition->composition;
  remarks.insert(remarks.end(), composition->remarks.begin(), composition->remarks.end());
}

void readProductFacts(ObjectReader& reader, Dialect dialect, ShelfProduct& product) {
  product.liquid = reader.flag("liquid").value_or(false);
  product.densityKgPerL = figure(reader, dialect, figures::density);
  product.pricePerKg = figure(reader, dialect, figures::price);
}

} // namespace butte::exchange
