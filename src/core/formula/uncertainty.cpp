#include "formula/uncertainty.h"

#include "product/catalogue.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

/// Two standard deviations of a rectangular limit, over the limit: 2 / sqrt 3.
const double coverage = 2 / std::sqrt(3.0);

struct Cause {
  ErrorSource source;
  std::optional<std::size_t> product;
  double relative; ///< limit, as a share of the product's weight or of all salts
};

/// What may be off, each independent of the others. Drawn water is one-sided: half of it is the limit about
/// its middle.
std::vector<Cause> causes(const std::vector<Mass>& grams, const ErrorLimits& limits) {
  std::vector<Cause> out;
  const auto add = [&](ErrorSource source, std::optional<std::size_t> product, double relative) {
    if (relative > 0) out.push_back({source, product, relative});
  };
  for (std::size_t j = 0; j < grams.size(); ++j) {
    if (grams[j] <= Mass{}) continue;
    if (j < limits.contentPercent.size()) add(ErrorSource::Content, j, limits.contentPercent[j] / 100);
    if (j < limits.moisturePercent.size()) add(ErrorSource::Moisture, j, limits.moisturePercent[j] / 200);
    if (j < limits.weighing.size()) add(ErrorSource::Weighing, j, limits.weighing[j] / grams[j]);
  }
  add(ErrorSource::Volume, std::nullopt, limits.volumePercent / 100);
  add(ErrorSource::Dosing, std::nullopt, limits.dosingPercent / 100);
  return out;
}

void finish(Spread& spread) {
  double squares = 0;
  for (const auto& part : spread.parts)
    squares += part.plusMinus * part.plusMinus;
  spread.plusMinus = std::sqrt(squares);
  std::stable_sort(spread.parts.begin(), spread.parts.end(),
                   [](const ErrorPart& a, const ErrorPart& b) { return a.plusMinus > b.plusMinus; });
}

/// The water's own limit of one element: what its report leaves open, or the laboratory's usual error.
double waterLimit(const Water& water, Nutrient n, const ErrorLimits& limits) {
  const double open = water.plusMinusMgPerL.of(n);
  return open > 0 ? open : water.milligramsPerLitre.of(n) * limits.waterPercent / 100;
}

} // namespace

std::array<Spread, nutrientCount> elementSpread(const Water& water, const std::vector<ShelfProduct>& shelf,
                                                const std::vector<Mass>& grams, Volume volume,
                                                const ErrorLimits& limits) {
  std::array<Spread, nutrientCount> out;
  const auto all = causes(grams, limits);
  for (const auto n : allNutrients) {
    auto& spread = out[static_cast<std::size_t>(n)];
    double salts = 0;
    std::vector<double> brings(grams.size());
    for (std::size_t j = 0; j < grams.size(); ++j)
      salts += brings[j] = shelf[j].composition.massFraction.of(n) * (grams[j] / volume).milligramsPerLitre();
    for (const auto& cause : all) {
      const double size = coverage * cause.relative * (cause.product ? brings[*cause.product] : salts);
      if (size > 0) spread.parts.push_back({cause.source, cause.product, size});
    }
    const double fromWater = coverage * waterLimit(water, n, limits);
    if (fromWater > 0) spread.parts.push_back({ErrorSource::Water, std::nullopt, fromWater});
    finish(spread);
  }
  return out;
}

FeedSpread feedSpread(const Water& water, const std::vector<ShelfProduct>& shelf,
                      const std::vector<Mass>& grams, Volume volume, const ErrorLimits& limits) {
  FeedSpread out;
  out.nutrients = elementSpread(water, shelf, grams, volume, limits);
  const auto conductivity = [&](const Water& w, const std::vector<Mass>& g) {
    return mix(w, shelf, g, volume).conductivity.milliSiemensPerCm();
  };
  constexpr double nudge = 0.02;
  const double now = conductivity(water, grams);
  auto all = grams;
  for (auto& g : all)
    g = g * (1 + nudge);
  const double perSalts = (conductivity(water, all) - now) / nudge;
  std::vector<double> perProduct(grams.size());
  for (std::size_t j = 0; j < grams.size(); ++j) {
    if (grams[j] <= Mass{}) continue;
    auto moved = grams;
    moved[j] = moved[j] * (1 + nudge);
    perProduct[j] = (conductivity(water, moved) - now) / nudge;
  }
  for (const auto& cause : causes(grams, limits))
    out.conductivity.parts.push_back(
        {cause.source, cause.product,
         std::abs(coverage * cause.relative * (cause.product ? perProduct[*cause.product] : perSalts))});
  // The water's ions are off together as its own reading is: that reading's error is the limit.
  const double base =
      water.conductivityMsPerCm.value_or(conductivity(water, std::vector<Mass>(grams.size())));
  const double open =
      conductivity(water, std::vector<Mass>(grams.size())) > 0 ? limits.waterPercent / 100 : 0;
  if (base * open > 0)
    out.conductivity.parts.push_back({ErrorSource::Water, std::nullopt, coverage * base * open});
  finish(out.conductivity);
  return out;
}

double withHalved(const Spread& spread, std::size_t part) {
  double squares = 0;
  for (std::size_t i = 0; i < spread.parts.size(); ++i) {
    const double size = spread.parts[i].plusMinus * (i == part ? 0.5 : 1);
    squares += size * size;
  }
  return std::sqrt(squares);
}

double usualContentPercent(const ShelfProduct& product) {
  if (product.liquid) return 3;
  return product.composition.formula ? 1 : 5;
}

double usualMoisturePercent(const ShelfProduct& product) {
  const auto* entry = findInCatalogue(product.id);
  if (!entry && product.composition.formula) entry = findSameSubstance(*product.composition.formula);
  return entry && entry->hygroscopic ? 3 : 0;
}

} // namespace butte::core
