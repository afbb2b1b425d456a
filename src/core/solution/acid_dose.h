#pragma once
#include "solution/equilibrium.h"

#include <vector>

namespace butte::core {

/// A solution that acid or base is added to: totals per litre, and the water that a litre holds.
struct Titrated {
  Solutes perLitre;
  double waterKgPerLitre = 1;
  EquilibriumConditions conditions; ///< temperature, and open to the air or closed; the pH is not held
};

/// A dose that brings a solution to a pH.
struct AcidDose {
  double gramsPerLitre = 0;       ///< of the product as sold, per litre of the solution
  double equivalentsPerLitre = 0; ///< of alkalinity that it takes away; negative for a base
  double alkalinityLeftEqPerLitre = 0;
  /// Of acid (or base) that moves the pH by one unit there: the slope of alkalinity against pH, eq per litre.
  double bufferEqPerLitre = 0;
  /// The same in grams of the product as sold, at the strength it has at that pH.
  double gramsPerLitrePerPh = 0;
};

struct TitrationPoint {
  double gramsPerLitre = 0;
  double equivalentsPerLitre = 0; ///< of alkalinity taken away, as in AcidDose
  double ph = 7;
  bool operator==(const TitrationPoint&) const = default;
};

/// pH of the solution with this much of a product in it. Errors as equilibrate().
Result<Equilibrium> withDose(const Titrated& solution, const Solutes& productPerGram, double gramsPerLitre);

/// Equivalents of alkalinity that a gram of the product takes away in a solution settled at this state: its
/// strong acid, and what its phosphate, citrate or acetate let go at that pH.
double equivalentsPerGram(const Solutes& productPerGram, const Equilibrium& at);

/// The dose that brings the solution to this pH. 0 where it stands there already. Errors: CannotReach when
/// the product moves the pH the other way or never gets there (an acid for a higher pH, vinegar for pH 2),
/// and those of equilibrate().
Result<AcidDose> doseToReach(const Titrated& solution, const Solutes& productPerGram, double targetPh);

/// The curve from no dose to `mostGramsPerLitre` in even steps, `count` points. A point without an answer is
/// left out.
std::vector<TitrationPoint> titrationCurve(const Titrated& solution, const Solutes& productPerGram,
                                           double mostGramsPerLitre, int count);

} // namespace butte::core
