#pragma once
#include "water/blend.h"
#include "water/examine.h"
#include "water/treatment.h"

#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace butte::core {

/// Ion exchange down to a rest of hardness.
struct Softener {
  double hardnessLeftMeqPerL = 0;
};

/// What is done to a source before it is blended.
using Treatment = std::variant<std::monostate, ReverseOsmosis, Softener>;

/// One source on its way into the tank.
struct WaterPart {
  TypedReport report;
  Treatment treatment;
  double share = 1;
};

/// Acid into the blend before anything else.
struct AcidFirst {
  Composition product;
  std::optional<double> densityKgPerL;
  double alkalinityLeftMeqPerL = 1;
};

/// From the sources to the water that the formula uses.
struct WaterPlan {
  std::vector<WaterPart> parts; ///< none: pure water
  std::optional<AcidFirst> acid;
};

/// What follows for one part.
struct PartAnswer {
  Water raw, treated;
  double share = 0;                 ///< of the whole, 0 to 1
  double wasteLitresPerLitre = 0;   ///< per litre of the blend
  std::optional<Water> concentrate; ///< of a membrane
};

struct WaterPlanAnswer {
  std::vector<PartAnswer> parts;
  Water blend;                  ///< before acid
  Water water;                  ///< what the formula uses
  double acidGramsPerLitre = 0; ///< of the product as sold
  std::optional<Problem> acidProblem;
};

/// Errors as waterOf(), with the place of the part ("parts[1]") in front; OutOfRange where no part has a
/// share.
Result<WaterPlanAnswer> planWater(const WaterPlan& plan);

} // namespace butte::core
