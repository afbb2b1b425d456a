#include "stock/stock_density.h"

#include "solution/activity.h"
#include "stock/crystal_form.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double unknownMlPerGram = 0.6;
constexpr double ureaMlPerGram = 0.736;
constexpr double leastLitresPerKgWater = 0.5; // no salt draws water together as far as this
constexpr double strongestScale = 1e7;

bool isUrea(const ChemicalFormula& formula) {
  return formula.ureaNitrogenCount == 2 && formula.count("N") == 2 && formula.count("C") == 1;
}

} // namespace

StockWater::StockWater(const std::vector<ShelfProduct>& shelf,
                       const std::vector<Concentration>& concentration, Temperature temperature)
    : m_celsius(temperature.celsius()) {
  for (std::size_t j = 0; j < shelf.size(); ++j)
    add(shelf[j].composition, concentration[j].gramsPerLitre());
}

StockWater::StockWater(const ShelfProduct& product, Concentration concentration, Temperature temperature)
    : m_celsius(temperature.celsius()) {
  add(product.composition, concentration.gramsPerLitre());
}

void StockWater::add(const Composition& product, double gramsPerLitre) {
  if (gramsPerLitre <= 0) return;
  const double grams = gramsPerLitre * waterFreeFractionOf(product);
  m_soluteGrams += grams;
  if (product.formula) {
    if (const auto substance = densitySubstanceOf(*product.formula)) {
      m_parts.push_back({*substance, grams});
      return;
    }
    if (isUrea(*product.formula)) {
      m_otherMl += ureaMlPerGram * grams;
      return;
    }
  }
  if (product.role == ProductRole::Chelate || !crystalFormOf(product)) {
    m_otherMl += unknownMlPerGram * grams;
    return;
  }
  const auto ions = product.solutesPerGram.scaled(gramsPerLitre);
  for (const auto& part : volumePartsOf(ions))
    m_parts.push_back(part);
  m_otherMl += unknownMlPerGram * std::max(0.0, grams - gramsOfIonsCounted(ions));
}

double StockWater::litresPerKgWater(double scale) const {
  const double solutesKg = scale * m_soluteGrams / 1000;
  const double waterFraction = 1 / (1 + solutesKg);
  double millilitres = m_otherMl;
  for (const auto& part : m_parts)
    millilitres += part.grams * apparentMillilitresPerGram(part.substance, waterFraction, m_celsius);
  return std::max(leastLitresPerKgWater, 1 / waterDensityKgPerL(m_celsius) + scale * millilitres / 1000);
}

double StockWater::kgPerLitre(double factor) const {
  if (!(factor > 0)) return 1 / litresPerKgWater(0);
  const auto gap = [&](double scale) { return scale - factor * litresPerKgWater(scale); };
  double low = 0, high = factor * litresPerKgWater(0);
  double highGap = gap(high);
  while (highGap < 0) {
    low = high;
    high *= 2;
    if (high > strongestScale * factor) return 0;
    highGap = gap(high);
  }
  // Nearly straight: secants, kept inside the bracket.
  double last = low, lastGap = gap(low), now = high, nowGap = highGap;
  for (int i = 0; i < 100 && nowGap != 0 && std::abs(now - last) > 1e-15 * now; ++i) {
    double next = now - nowGap * (now - last) / (nowGap - lastGap);
    if (!(next > low && next < high)) next = 0.5 * (low + high);
    last = now;
    lastGap = nowGap;
    now = next;
    nowGap = gap(now);
    (nowGap < 0 ? low : high) = now;
  }
  return factor / now;
}

} // namespace butte::core
