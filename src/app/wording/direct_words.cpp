#include "wording/direct_words.h"

#include "document/formula_editor.h"
#include "services/units_shown.h"
#include "wording/tr.h"

#include <cmath>

namespace butte::app {

namespace {
constexpr double leastPhWorthATrim = 0.15; // a pen reads no closer (common practice)
}

namespace {

core::Mass oneOf(const std::string& unit) {
  return unit == "kg"   ? core::Mass::fromKilograms(1)
         : unit == "lb" ? core::Mass::fromPounds(1)
         : unit == "oz" ? core::Mass::fromOunces(1)
                        : core::Mass::fromGrams(1);
}

/// A weight in a unit, with the digits that the scale can tell apart there.
QString inUnit(const core::WeighStep& step, const core::Scale& scale, const std::string& unit) {
  const auto one = oneOf(unit);
  if (step.shown <= core::Mass{}) return localFigure(step.exact / one) + " " + QString::fromStdString(unit);
  const double shownStep = scale.readability / one;
  const int decimals = shownStep >= 1 ? 0 : static_cast<int>(std::ceil(-std::log10(shownStep) - 1e-9));
  return localNumber(step.shown / one, decimals) + " " + QString::fromStdString(unit);
}

} // namespace

std::vector<core::WeighStep> vesselWeighing(const FormulaEditor& editor, const core::DirectMix& mix) {
  const auto& document = editor.document();
  const auto acid = document.given.direct ? document.given.direct->acid : core::AcidTurn::Last;
  return core::weighPlan(document.given.request.shelf, mix.grams, document.scales, {},
                         core::MixingInto::Vessel, acid);
}

QString scaleText(const core::WeighStep& step, const std::vector<core::Scale>& scales) {
  if (step.teaspoons > 0) return QString::fromStdString(words::levelSpoons(step.teaspoons));
  return inUnit(step, scales[step.scale], scales[step.scale].unit);
}

QString weighText(const core::WeighStep& step, const std::vector<core::Scale>& scales,
                  const UnitsShown& units) {
  const auto& scale = scales[step.scale];
  const auto own = scaleText(step, scales);
  if (step.teaspoons > 0) return tr("%1 (about %2)").arg(own, units.text(step.shown));
  constexpr double leastOunces = 1;
  const bool metric = scale.unit == "g" || scale.unit == "kg";
  const bool alike =
      (scale.unit == units.massUnit().toStdString() && units.mass() != MassShown::PoundsAndOunces) ||
      (metric && units.mass() == MassShown::Metric);
  if (alike || (metric && step.exact.ounces() < leastOunces)) return own;
  return units.text(step.shown) + " (" + own + ")";
}

QString directAmount(const core::ShelfProduct& product, const core::WeighStep& step,
                     const std::vector<core::Scale>& scales, const UnitsShown& units) {
  if (product.liquid && product.densityKgPerL)
    return units.stockText(core::Volume::fromLitres(step.exact.kilograms() / *product.densityKgPerL));
  return weighText(step, scales, units);
}

namespace {

QString bySpoonText(const core::WeighStep& step) {
  const auto text =
      tr("%1, ±%2 %")
          .arg(QString::fromStdString(words::levelSpoons(step.teaspoons)), localNumber(step.errorPercent, 0));
  return step.spoonWeighed ? text : text + tr("; surer once ten level teaspoons of it are weighed");
}

} // namespace

QString tooCoarseText(const core::WeighStep& step, const core::Answer& answer, const UnitsShown& units) {
  const auto error = localNumber(step.errorPercent, 0);
  if (step.teaspoons > 0) return bySpoonText(step);
  // The error falls as the vessel grows; nobody makes a hundred times as much.
  constexpr double mostTimes = 10;
  const double times = step.errorPercent / core::coarsePercent;
  if (answer.direct && *answer.direct && times <= mostTimes)
    return tr("±%1 % on this scale; fine from %2 on")
        .arg(error, units.text((*answer.direct)->vessel * times));
  if (answer.direct) return tr("±%1 % on this scale: a finer one, or a pre-stock").arg(error);
  return tr("±%1 % on this scale: a finer one, a bigger tank, or a pre-stock").arg(error);
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
  const auto& direct = editor.document().given.direct;
  if (direct && direct->acid == core::AcidTurn::First)
    return tr("To pH %1, before the salts: about %2 of %3 into the water, slowly, and stir; what is left of "
              "%4 at the very end, when the meter has been read. Acid into water; goggles and gloves; label "
              "and data sheet first.")
        .arg(localNumber(trim->targetPh, 1), trim->amount(0.7, units),
             QString::fromStdString(trim->product->name), trim->amount(1, units));
  return tr("To pH %1, at the very end: about %2 of %3; first %4 of it, stir, read, then the rest. Acid into "
            "water; goggles and gloves; label and data sheet first.")
      .arg(localNumber(trim->targetPh, 1), trim->amount(1, units),
           QString::fromStdString(trim->product->name), trim->amount(0.7, units));
}

} // namespace butte::app
