#pragma once
#include "chem/nutrient.h"

#include <optional>
#include <vector>

namespace butte::core {

/// How a feed is brought nearer to what the root zone should hold. Both schools are common.
enum class SteerSchool {
  /// In steps: each element's drain, brought to the target's own strength first, falls into a class, and the
  /// feed goes up or down by the class's step (after Sonneveld & Voogt 2009, "Plant Nutrition of Greenhouse
  /// Crops", chapter on adjustments; the limits and steps from memory and common practice).
  Classes,
  /// By balance: what the plants took with their water follows from feed, drain and the share that drains;
  /// the new feed is that from which the drain will stand at the target:
  /// feed + leaching fraction x (target - drain).
  Balance,
};

/// What a class does to an element of the feed.
enum class DrainClass { MuchTooLow, Low, Good, High, MuchTooHigh, NoTarget, NotFed };

/// Of the drain's concentration over the target's, once both have the same strength. Common practice.
inline constexpr double muchTooLowBelow = 0.6, lowBelow = 0.8, highAbove = 1.25, muchTooHighAbove = 1.6;
/// By how much the feed is changed then. Common practice: a quarter, or some 12 %.
inline constexpr double bigStep = 0.25, smallStep = 0.12;

struct SteerRequest {
  NutrientAmounts feedMgPerL, drainMgPerL, targetMgPerL;
  std::vector<Nutrient> withTarget; ///< elements that the target speaks of
  SteerSchool school = SteerSchool::Classes;
  double leachingFraction = 0.3; ///< drain over what was given; 20 to 30 % is common practice
};

struct SteeredElement {
  Nutrient nutrient{};
  double feedMgPerL = 0, newMgPerL = 0;
  DrainClass standing = DrainClass::NoTarget;
  double drainOverTarget = 0; ///< brought to the same strength with Classes
  bool held = false;          ///< balance asked for less than nothing, or more than double: held there
};

struct Steered {
  std::vector<SteeredElement> elements;
  NutrientAmounts newFeedMgPerL;
  double strengthFactor = 1;    ///< what the drain was multiplied with to have the target's strength
  double unbalancedMeqPerL = 0; ///< cations less anions that the new feed would have more than the old one
};

/// A feed adjusted, element by element. Sodium and chloride are no feed: they are left as they are, and bled.
Steered steered(const SteerRequest& request);

/// The share of what was given that drained.
std::optional<double> leachingFraction(double givenL, double drainedL);
/// The same told by a salt that plants hardly take, or by EC: what goes in by what comes out.
std::optional<double> leachingFractionByStrength(double given, double drained);
/// The share that must drain so that the soil's strength stays at what the crop stands:
/// LR = ECw / (5 ECe - ECw) (FAO Irrigation and Drainage Paper 29, Ayers & Westcot 1985, equation 9).
std::optional<double> leachingRequirement(double waterMsPerCm, double stoodMsPerCm);

} // namespace butte::core
