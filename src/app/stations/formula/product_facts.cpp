#include "stations/formula/product_facts.h"

#include "formula_words.h"
#include "services/units_shown.h"
#include "stock/solubility.h"
#include "wording/tr.h"

#include <QStringList>

namespace butte::app {

namespace {

/// "Dissolves freely: 316 g (water-free) in 1 L of water at 20 °C." Classes as in the pharmacopoeias, from
/// memory: freely from 100 g, soluble from 33, sparingly from 10 g per kg.
QString solubilityWords(const core::CatalogueProduct& entry, const UnitsShown& units) {
  if (!entry.composition.formula) return {};
  const auto grams =
      core::anhydrousGramsPerKgWater(*entry.composition.formula, core::Temperature::fromCelsius(20));
  if (!grams) return {};
  const auto name = *grams >= 100 ? "freely" : *grams >= 33 ? "well" : *grams >= 10 ? "sparingly" : "hardly";
  const auto temperature = core::Temperature::fromCelsius(20);
  constexpr double waterKgPerLitre = 0.9982; // at 20 degC; handbook value, from memory
  const double kilograms = units.measures().oneVolume().litres() * waterKgPerLitre;
  return tr("\nDissolves %1: %2 (water-free) in 1 %3 of water at %4")
      .arg(name, units.text(core::Mass::fromGrams(*grams * kilograms)), units.volumeUnitName(),
           units.text(temperature));
}

} // namespace

QString productFacts(const core::CatalogueProduct& entry, const UnitsShown& units) {
  QStringList parts;
  for (const auto n : core::allNutrients) {
    const double share = entry.composition.massFraction.of(n);
    if (n != core::Nutrient::N && share > 0.0005)
      parts << QString("%1 %2 %").arg(QString::fromStdString(words::nutrientSymbol(n)),
                                      QString::number(share * 100, 'f', 1));
  }
  return tr("%1 · %2 · purity %3 %\n%4\nCautions: %5\n%6\nSource: %7%8")
      .arg(QString::fromStdString(entry.name), QString::fromStdString(entry.formulaText),
           QString::number(entry.purityPercent), parts.join(" · "), QString::fromStdString(entry.cautions),
           QString::fromStdString(entry.remark), QString::fromStdString(entry.source),
           solubilityWords(entry, units));
}

} // namespace butte::app
