#include "tank/root_zone.h"

#include "tank/reservoir_content.h"

#include <algorithm>

namespace butte::core {
namespace {

bool isBallast(Nutrient nutrient) {
  return nutrient == Nutrient::Na || nutrient == Nutrient::Cl;
}

/// Cations without sodium, in meq/L: a solution's strength as far as it feeds.
double feedingStrength(const NutrientAmounts& mgPerL) {
  double out = 0;
  for (const auto n : keptNutrients)
    if (chargeInFeed(n) > 0 && !isBallast(n)) out += chargeInFeed(n) * mgPerL.of(n) / molarMass(n);
  return out;
}

double balance(const NutrientAmounts& mgPerL) {
  double out = 0;
  for (const auto n : keptNutrients)
    out += chargeInFeed(n) * mgPerL.of(n) / molarMass(n);
  return out;
}

DrainClass classOf(double ratio) {
  if (ratio < muchTooLowBelow) return DrainClass::MuchTooLow;
  if (ratio < lowBelow) return DrainClass::Low;
  if (ratio <= highAbove) return DrainClass::Good;
  return ratio <= muchTooHighAbove ? DrainClass::High : DrainClass::MuchTooHigh;
}

double stepOf(DrainClass standing) {
  switch (standing) {
  case DrainClass::MuchTooLow:
    return bigStep;
  case DrainClass::Low:
    return smallStep;
  case DrainClass::High:
    return -smallStep;
  case DrainClass::MuchTooHigh:
    return -bigStep;
  default:
    return 0;
  }
}

/// A feed is never more than doubled at once: roots and analysis both lag behind.
constexpr double mostFactor = 2;

void byBalance(SteeredElement& element, const SteerRequest& request) {
  const auto n = element.nutrient;
  const double wished = element.feedMgPerL +
                        request.leachingFraction * (request.targetMgPerL.of(n) - request.drainMgPerL.of(n));
  element.newMgPerL = std::clamp(wished, 0.0, mostFactor * element.feedMgPerL);
  element.held = element.newMgPerL != wished;
}

} // namespace

Steered steered(const SteerRequest& request) {
  Steered out;
  const double wanted = feedingStrength(request.targetMgPerL), stands = feedingStrength(request.drainMgPerL);
  const bool byClasses = request.school == SteerSchool::Classes;
  if (byClasses && wanted > 0 && stands > 0) out.strengthFactor = wanted / stands;
  for (const auto n : keptNutrients) {
    SteeredElement element{n, request.feedMgPerL.of(n), request.feedMgPerL.of(n)};
    const double target = request.targetMgPerL.of(n);
    const bool hasTarget =
        std::find(request.withTarget.begin(), request.withTarget.end(), n) != request.withTarget.end();
    if (isBallast(n)) {
      element.standing = DrainClass::NotFed;
    } else if (hasTarget && target > 0) {
      element.drainOverTarget = request.drainMgPerL.of(n) * out.strengthFactor / target;
      element.standing = classOf(element.drainOverTarget);
      if (byClasses)
        element.newMgPerL = element.feedMgPerL * (1 + stepOf(element.standing));
      else
        byBalance(element, request);
    }
    out.newFeedMgPerL.add(n, element.newMgPerL);
    out.elements.push_back(element);
  }
  out.unbalancedMeqPerL = balance(out.newFeedMgPerL) - balance(request.feedMgPerL);
  return out;
}

std::optional<double> leachingFraction(double givenL, double drainedL) {
  if (!(givenL > 0) || drainedL < 0 || drainedL > givenL) return std::nullopt;
  return drainedL / givenL;
}

std::optional<double> leachingFractionByStrength(double given, double drained) {
  if (!(drained > 0) || given < 0 || given > drained) return std::nullopt;
  return given / drained;
}

std::optional<double> leachingRequirement(double waterMsPerCm, double stoodMsPerCm) {
  const double below = 5 * stoodMsPerCm - waterMsPerCm;
  if (!(below > 0) || waterMsPerCm < 0) return std::nullopt;
  return waterMsPerCm / below;
}

} // namespace butte::core
