#include "wording/direct_words.h"

#include "document/formula_editor.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <cmath>

namespace butte::app {

namespace {
constexpr double leastPhWorthATrim = 0.15; // a pen reads no closer (common practice)
}

QString directAmount(const core::ShelfProduct& product, const core::WeighStep& step,
                     const std::vector<core::Scale>& scales, const UnitsShown& units) {
  if (product.liquid && product.densityKgPerL)
    return units.stockText(core::Volume::fromLitres(step.exact.kilograms() / *product.densityKgPerL));
  // Less than the scale can show is told as it is: nought would be a lie.
  if (step.shown <= core::Mass{}) return localFigure(step.exact.grams()) + " g";
  constexpr double leastOunces = 1; // below it hands that think in ounces weigh in grams (common practice)
  if (units.mass() != MassShown::Metric && step.shown.ounces() >= leastOunces) return units.text(step.shown);
  const double gramStep = scales[step.scale].readability.grams();
  const int decimals = gramStep >= 1 ? 0 : static_cast<int>(std::ceil(-std::log10(gramStep) - 1e-9));
  return localNumber(step.shown.grams(), decimals) + " g";
}

QString tooCoarseText(const core::WeighStep& step, const core::Answer& answer, const UnitsShown& units) {
  const auto error = localNumber(step.errorPercent, 0);
  // The error falls as the vessel grows; nobody makes a hundred times as much.
  constexpr double mostTimes = 10;
  const double times = step.errorPercent / core::coarsePercent;
  if (answer.direct && *answer.direct && times <= mostTimes)
    return tr("±%1 % on this scale; fine from %2 on")
        .arg(error, units.text((*answer.direct)->vessel * times));
  return tr("±%1 % on this scale: a finer one, or a pre-stock").arg(error);
}

QString directHowTo(const core::DirectMix& mix, const UnitsShown& units) {
  return tr("Each salt wholly dissolved in a cup of this water, stirred in, and read before the next; "
            "calcium "
            "last. Readings are for %1 in the vessel; the last water brings them down to the end's.")
      .arg(units.text(mix.mixingVolume));
}

QString acidCaution(const QString& acid) {
  return tr("⚠ %1: acid into water, slowly; goggles and gloves; never near hypochlorite; label and data "
            "sheet "
            "first.")
      .arg(acid);
}

QString acidAfterwards(const FormulaEditor& editor, const UnitsShown& units) {
  const auto& plan = editor.document().given.acid;
  const auto& answer = editor.answer();
  const auto& dose = answer.acid.forFeed;
  const auto& ph = answer.feed.ph;
  if (!plan.product || !dose || !ph || std::abs(*ph - plan.targetPh) < leastPhWorthATrim) return {};
  const auto volume = editor.document().given.request.volume;
  const double grams = dose->gramsPerLitre * volume.litres();
  const auto amount = [&](double share) {
    return plan.product->densityKgPerL
               ? units.stockText(core::Volume::fromMillilitres(share * grams / *plan.product->densityKgPerL))
               : units.text(core::Mass::fromGrams(share * grams));
  };
  return tr("To pH %1, at the very end: about %2 of %3; first %4 of it, stir, read, then the rest. Acid into "
            "water; goggles and gloves; label and data sheet first.")
      .arg(localNumber(plan.targetPh, 1), amount(1), QString::fromStdString(plan.product->name), amount(0.7));
}

} // namespace butte::app
