#pragma once
#include "bench/weigh_plan.h"
#include "dose/dosing.h"
#include "formula/acid_plan.h"
#include "formula/contributions.h"
#include "formula/direct_mix.h"
#include "formula/mix.h"
#include "formula/reading_diagnosis.h"
#include "formula/uncertainty.h"
#include "solve/joint_rounding.h"
#include "solve/solve.h"
#include "stock/stock.h"
#include "stock/tank_rounding.h"
#include "target/safe_ceilings.h"
#include "water/water_plan.h"

namespace butte::core {

/// All that is given for one formula.
struct Given {
  std::string crop;                   ///< "" where it is not said; some limits are the crop's own
  SolveRequest request;               ///< its water counts where no plan makes one
  std::optional<WaterPlan> waterPlan; ///< from the sources to the water
  std::optional<int> atMostProducts;  ///< searched for by withFewProducts(), not by compute()
  bool wholeSteps = false;            ///< weights in the scales' steps, chosen together
  std::vector<Scale> scales;          ///< none: weights stay as computed, and weighing adds no error
  std::vector<Mass> steps;            ///< per product of the shelf: a bag, a scoop; 0: the scale's
  ErrorLimits errors;                 ///< content and moisture parallel to the shelf; weighing is filled in
  StockPlan stock;
  std::optional<DirectPlan> direct; ///< straight into one vessel of request.volume: no stocks then
  AcidPlan acid;
  std::optional<OwnTitration> titration;
  DosingPlan dosing;
};

/// All that follows from it.
struct Answer {
  WaterPlanAnswer waters; ///< what the sources came to; without a plan only the water itself
  SolveAnswer solution;
  std::optional<RoundedWeights> rounded;    ///< where whole steps were asked for
  std::array<Spread, nutrientCount> spread; ///< +- of every element, mg/L
  ErrorLimits errors;                       ///< as given, with the weighing
  Contributions contributions;              ///< of every element, source by source
  MixResult feed;
  MixResult water;   ///< the source water by itself, for the base reading
  StockAnswer stock; ///< no tanks where the salts go straight into a vessel
  std::optional<Result<DirectMix>> direct;
  /// Per product of the shelf, as it is weighed: for its tank or the vessel, where the scales do worst; none
  /// where it is not weighed, or nobody said on what.
  std::vector<std::optional<WeighStep>> weighed;
  AcidAnswer acid;
  std::optional<ReadingDiagnosis> readings; ///< where a meter was read
  std::vector<HarmfulLevel> harmful;        ///< elements of the feed that harm plants, the worst first
  bool checked = false;                     ///< the independent check agreed
};

/// What the sources come to, with their place ("water.parts[1]") before a problem.
Result<WaterPlanAnswer> plannedWaters(const Given& given);

/// What the formula brings through its tanks, to be asked while both stay.
Delivery deliveryOf(const Given& given, const Answer& answer);

/// The weights of all tanks in the steps of the scales, chosen together; needs a scale.
RoundedTanks roundedTanks(const Given& given, const Answer& answer);

/// The one function between what is given and what is shown: solve, check, mix, stock, acid. Pure; a few
/// milliseconds.
Result<Answer> compute(const Given& given);

/// The same with the products held to the best few, where `atMostProducts` asks for it: what was not chosen
/// gets a most of 0. Up to some tenths of a second: for the background. Errors as solve().
Result<Given> withFewProducts(Given given);

/// Usual errors for a shelf (formula/uncertainty.h).
ErrorLimits usualErrors(const std::vector<ShelfProduct>& shelf);

} // namespace butte::core
