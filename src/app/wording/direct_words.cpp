#include "wording/direct_words.h"

#include "document/formula_editor.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <cmath>

namespace butte::app {

namespace {
constexpr double leastPhWorthATrim = 0.15; // a pen reads no closer (common practice)
}

QString scaleDigits(const core::WeighStep& step, const std::vector<core::Scale>& scales) {
  if (step.shown <= core::Mass{}) return localFigure(step.exact.grams());
  const double gramStep = scales[step.scale].readability.grams();
  const int decimals = gramStep >= 1 ? 0 : static_cast<int>(std::ceil(-std::log10(gramStep) - 1e-9));
  return localNumber(step.shown.grams(), decimals);
}

QString directAmount(const core::ShelfProduct& product, const core::WeighStep& step,
                     const std::vector<core::Scale>& scales, const UnitsShown& units) {
  if (product.liquid && product.densityKgPerL)
    return units.stockText(core::Volume::fromLitres(step.exact.kilograms() / *product.densityKgPerL));
  constexpr double leastOunces = 1; // below it hands that think in ounces weigh in grams (common practice)
  if (units.mass() != MassShown::Metric && step.shown.ounces() >= leastOunces) return units.text(step.shown);
  return scaleDigits(step, scales) + " g";
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

QString PhTrim::amount(double share, const UnitsShown& units) const {
  return product->densityKgPerL
             ? units.stockText(core::Volume::fromLitres(share * mass.kilograms() / *product->densityKgPerL))
             : units.text(mass * share);
}

std::optional<PhTrim> phTrimOf(const FormulaEditor& editor) {
  const auto& plan = editor.document().given.acid;
  const auto& answer = editor.answer();
  const auto& dose = answer.acid.forFeed;
  const auto& ph = answer.feed.ph;
  if (!plan.product || !dose || !ph || std::abs(*ph - plan.targetPh) < leastPhWorthATrim) return std::nullopt;
  const auto volume = editor.document().given.request.volume;
  return PhTrim{&*plan.product, core::Mass::fromGrams(dose->gramsPerLitre * volume.litres()), plan.targetPh};
}

QString acidAfterwards(const FormulaEditor& editor, const UnitsShown& units) {
  const auto trim = phTrimOf(editor);
  if (!trim) return {};
  return tr("To pH %1, at the very end: about %2 of %3; first %4 of it, stir, read, then the rest. Acid into "
            "water; goggles and gloves; label and data sheet first.")
      .arg(localNumber(trim->targetPh, 1), trim->amount(1, units),
           QString::fromStdString(trim->product->name), trim->amount(0.7, units));
}

} // namespace butte::app
