#pragma once
#include "chem/nutrient.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// One wish of a target: so much of a nutrient in the finished feed, within a band.
struct TargetRow {
  Nutrient nutrient = Nutrient::N;
  double milligramsPerLitre = 0;
  double tolerancePercent = 5;
  double weight = 1; ///< how much a relative miss of this row counts against the others

  /// What a miss is measured against: the target, or 1 mg/L where the target is 0.
  double divisor() const { return milligramsPerLitre > 0 ? milligramsPerLitre : 1; }
  double bandLow() const { return milligramsPerLitre - tolerancePercent / 100 * divisor(); }
  double bandHigh() const { return milligramsPerLitre + tolerancePercent / 100 * divisor(); }
  /// Edges count as inside, to 1e-9.
  bool contains(double result) const {
    const double slack = 1e-9 * std::max(1.0, std::abs(milligramsPerLitre));
    return result >= bandLow() - slack && result <= bandHigh() + slack;
  }
  double deviationPercent(double result) const { return (result - milligramsPerLitre) / divisor() * 100; }
};

/// A hard limit from above.
struct Cap {
  Nutrient nutrient = Nutrient::Na;
  double milligramsPerLitre = 0;
};

/// A published target of the catalogue (data/targets.csv).
struct CatalogueTarget {
  std::string id, name, crop, stage, note, source, confidence;
  std::vector<TargetRow> rows;
  std::optional<double> conductivityMsPerCm;
};

/// The shipped targets, read once.
const std::vector<CatalogueTarget>& targetCatalogue();
const CatalogueTarget* findTarget(const std::string& id);

} // namespace butte::core
