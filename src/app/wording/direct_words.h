#pragma once
#include "formula/formula_answer.h"

#include <QString>

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// What a hand takes of a product: weighed in the scale's steps, a liquid by its volume.
QString directAmount(const core::ShelfProduct& product, const core::WeighStep& step,
                     const std::vector<core::Scale>& scales, const UnitsShown& units);

/// "±21 % on this scale; fine from 5 US gal on", or what else helps.
QString tooCoarseText(const core::WeighStep& step, const core::Answer& answer, const UnitsShown& units);

/// How one vessel is mixed.
QString directHowTo(const core::DirectMix& mix, const UnitsShown& units);

/// Where the hand is about to pour an acid.
QString acidCaution(const QString& acid);

/// The acid or base that brings the finished feed to the aimed pH, with the caution; empty where none is due.
QString acidAfterwards(const FormulaEditor& editor, const UnitsShown& units);

} // namespace butte::app
