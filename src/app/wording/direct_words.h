#pragma once
#include "formula/formula_answer.h"

#include <QString>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// What is weighed for the vessel, in the order in which it goes in.
std::vector<core::WeighStep> vesselWeighing(const FormulaEditor& editor, const core::DirectMix& mix);

/// What the scale's display must show, in its own unit; less than one of its steps is told as it is, since
/// nought would be a lie.
QString scaleText(const core::WeighStep& step, const std::vector<core::Scale>& scales);
/// In the unit chosen; what the scale itself shows, with all digits that it can tell apart, beside it
/// where that is another. Below an ounce a scale in grams alone counts: nobody weighs traces in pounds
/// (common practice).
QString weighText(const core::WeighStep& step, const std::vector<core::Scale>& scales,
                  const UnitsShown& units);

/// What a hand takes of a product: weighed in the scale's steps, a liquid by its volume.
QString directAmount(const core::ShelfProduct& product, const core::WeighStep& step,
                     const std::vector<core::Scale>& scales, const UnitsShown& units);

/// "±21 % on this scale; fine from 5 US gal on", or what else helps.
QString tooCoarseText(const core::WeighStep& step, const core::Answer& answer, const UnitsShown& units);

/// How one vessel is mixed.
QString directHowTo(const core::DirectMix& mix, const UnitsShown& units);

/// Where the hand is about to pour an acid.
QString acidCaution(const QString& acid);

/// What the finished feed still needs of the acid or base in hand.
struct PhTrim {
  const core::ShelfProduct* product = nullptr;
  core::Mass mass;
  double targetPh = 0;
  /// A share of it as a hand measures it.
  QString amount(double share, const UnitsShown& units) const;
};
/// Nothing where it can't be told, or is less than a pen reads.
std::optional<PhTrim> phTrimOf(const FormulaEditor& editor);

/// The acid or base that brings the finished feed to the aimed pH, with the caution; empty where none is due.
QString acidAfterwards(const FormulaEditor& editor, const UnitsShown& units);

} // namespace butte::app
