#include "document/tank_liquids.h"

#include "units/convert.h"

#include <algorithm>

namespace butte::app {

using namespace core;

namespace {

const ShelfProduct* productOf(const exchange::FormulaDocument& document, const std::string& id) {
  const auto product = std::find_if(document.allProducts.begin(), document.allProducts.end(),
                                    [&](const ShelfProduct& p) { return p.id == id; });
  if (product != document.allProducts.end()) return &*product;
  const auto& acid = document.given.acid.product;
  return acid && acid->id == id ? &*acid : nullptr;
}

} // namespace

double amountIn(const exchange::Amount& amount, const char* unit) {
  if (amount.isEmpty()) return 0;
  const auto value = core::convert(amount.value(), amount.unit, unit);
  return value ? *value : 0;
}

std::optional<Made> TankLiquids::made(const std::string& uid, int version) {
  const auto key = std::pair(uid, version);
  if (const auto known = m_made.find(key); known != m_made.end()) return known->second;
  const auto document = m_given.formulas.find(key);
  if (document == m_given.formulas.end() || !document->second) return std::nullopt;
  const auto answer = compute(document->second->given);
  if (!answer) return std::nullopt;
  Made out{feedContentOf(answer->feed), feedContentOf(answer->waters.water), document->second.get()};
  m_made[key] = out;
  return out;
}

std::optional<Made> TankLiquids::madeOfBatch(const std::string& uid) {
  const auto found = m_given.batches.find(uid);
  if (found == m_given.batches.end()) return std::nullopt;
  const auto& batch = found->second;
  auto out = made(batch.formulaUid, batch.formulaVersion);
  if (!out || !(batch.litres > 0)) return out;
  for (const auto& line : batch.weights) {
    const auto actual = line.actualGrams();
    const auto* product = productOf(*out->document, line.productId);
    if (!actual || !product) continue;
    const double milligramsPerLitre = (*actual - line.plannedGrams) * 1000 / batch.litres;
    out->feed.milligramsPerLitre.addScaled(product->composition.massFraction, milligramsPerLitre);
    out->feed.alkalinityMeqPerL += product->composition.solutesPerGram.alkalinityEq * milligramsPerLitre;
  }
  return out;
}

FeedContent TankLiquids::liquidOf(const book::TankLine& line, const Made& otherwise) {
  const auto batch = madeOfBatch(line.batchUid);
  const auto found = batch ? batch : made(line.formulaUid, line.formulaVersion);
  const auto what = found ? *found : otherwise;
  if (line.liquid == book::TankLiquid::Water) return what.water;
  const double strength = line.strengthPercent.isEmpty() ? 1 : line.strengthPercent.value() / 100;
  FeedContent out;
  out.milligramsPerLitre.addScaled(what.water.milligramsPerLitre, 1 - strength);
  out.milligramsPerLitre.addScaled(what.feed.milligramsPerLitre, strength);
  out.alkalinityMeqPerL =
      what.water.alkalinityMeqPerL * (1 - strength) + what.feed.alkalinityMeqPerL * strength;
  return out;
}

logged::Dissolved TankLiquids::weighedIn(const book::TankLine& line, const Made& otherwise) {
  logged::Dissolved out;
  const auto found = made(line.formulaUid, line.formulaVersion);
  const auto* document = found ? found->document : otherwise.document;
  for (const auto& one : line.weighed) {
    const auto* which = productOf(*document, one.product);
    if (!which) continue;
    double grams = amountIn(one.amount, "g");
    if (grams == 0) grams = amountIn(one.amount, "mL") * which->densityKgPerL.value_or(1);
    out.milligrams.addScaled(which->composition.massFraction, grams * 1000);
    out.alkalinityMeq += which->composition.solutesPerGram.alkalinityEq * 1000 * grams;
  }
  return out;
}

logged::Dissolved mediumCharge(const book::TankLine& line) {
  logged::Dissolved out;
  for (const auto& one : line.figures)
    if (const auto n = nutrientFromKey(one.element))
      out.milligrams.add(*n, milligramsOf(one) * amountIn(line.volume, "L"));
  return out;
}

double milligramsOf(const book::AnalysedFigure& figure) {
  const auto n = nutrientFromKey(figure.element);
  if (!n) return 0;
  const auto found =
      convert(figure.amount.value(), figure.amount.unit, "mg/L", std::string(elementSymbol(*n)));
  return found ? *found : 0;
}

} // namespace butte::app
