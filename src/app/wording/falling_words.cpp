#include "wording/falling_words.h"

#include "services/units_shown.h"
#include "wording/tr.h"
#include "words.h"

namespace butte::app {
namespace {
constexpr double leastMgPerLitreWorthSaying = 5;
constexpr double calciumMgPerMol = 40078; // IUPAC 2021
} // namespace

QStringList fallingSentences(const QString& where, const core::MixResult& mix) {
  QStringList lines;
  if (!mix.state) return lines;
  for (const auto& standing : mix.state->solids) {
    const auto& solid = core::EquilibriumData::instance().solids()[standing.solid];
    if (standing.gramsPerLitre * 1000 < leastMgPerLitreWorthSaying) continue;
    lines << tr("%1: about %2 mg/L of %3 may fall out %4 (saturation index %5).")
                 .arg(
                     where, localNumber(1000 * standing.gramsPerLitre, 0),
                     QString::fromStdString(words::solidName(solid.name)),
                     QString::fromStdString(words::kineticsText(solid.formsWithin, standing.saturationIndex)),
                     QString::number(standing.saturationIndex, 'f', 1));
  }
  if (!lines.isEmpty())
    lines.last() +=
        tr(" It would leave %1 mg/L of calcium dissolved.")
            .arg(localNumber(mix.state->leftPerLitre.of(core::Component::Ca) * calciumMgPerMol, 0));
  return lines;
}

} // namespace butte::app
