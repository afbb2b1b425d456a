#include "edits/strength_edits.h"

#include "base/decimal.h"
#include "document/formula_editor.h"
#include "edit.h"
#include "edits/target_edits.h"
#include "formula/strength.h"
#include "formula_json.h"
#include "target/scale_target.h"

#include <algorithm>

namespace butte::app {

using exchange::Json;

namespace {

/// Four figures: finer than anybody weighs.
std::string scaledDigits(const exchange::Amount& amount, double factor) {
  return core::decimalText(QString::number(amount.value() * factor, 'g', 4).toDouble());
}

} // namespace

void StrengthEdits::scale(const Deed& deed, double factor) {
  const auto& given = m_editor.document().given.request;
  auto shelf = json()["shelf"];
  for (auto& entry : shelf) {
    if (!entry.contains("held")) continue;
    const auto held = exchange::figureFrom(entry["held"]);
    if (!held.isEmpty()) entry["held"] = exchange::figureJson({scaledDigits(held, factor), held.unit});
  }
  const auto rows = TargetEdits(m_editor).scaledRows(core::scaled(given.rows, factor, false));
  m_editor.apply(
      {deed, {{"/shelf", json()["shelf"], shelf}, {"/target/rows", json()["target"]["rows"], rows}}, {}});
}

void StrengthEdits::times(double factor) {
  scale({DeedCode::StrengthTimes, {core::decimalText(100 * factor)}}, factor);
}

std::optional<core::Problem> StrengthEdits::toConductivity(core::Conductivity ec) {
  const auto& given = m_editor.document().given.request;
  const auto& products = m_editor.document().products;
  const bool held =
      std::any_of(products.begin(), products.end(), [](const auto& p) { return p.on && p.held; });
  auto grams = m_editor.answer().solution.grams;
  grams.resize(given.shelf.size());
  const auto factor =
      held ? core::factorOnWeights(m_editor.answer().waters.water, given.shelf, grams, given.volume, ec)
           : core::factorForConductivity(given.rows, given.alkalinityLeftMeqPerL.value_or(0),
                                         ec.milliSiemensPerCm(), false);
  if (!factor) return factor.problem();
  scale({DeedCode::TargetScaled, {core::decimalText(ec.milliSiemensPerCm())}}, *factor);
  return std::nullopt;
}

} // namespace butte::app
