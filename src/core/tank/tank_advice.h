#pragma once
#include "product/shelf_product.h"
#include "solve/solve.h"
#include "tank/tank_forecast.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// The growers' rule of thumb (common practice), its figures for the hand to change: above `highEc` the
/// refill at `highFactor` of its strength, below `lowEc` at `lowFactor`, in between as it is; above `highPh`
/// more ammonium or acid in the refill, below `lowPh` none.
struct GrowersRule {
  Conductivity highEc = Conductivity::fromMilliSiemensPerCm(3.5),
               lowEc = Conductivity::fromMilliSiemensPerCm(1.5);
  double highFactor = 0.5, lowFactor = 1.25;
  double highPh = 7.5, lowPh = 5.0;
};

enum class PhAdvice { Leave, MoreAmmoniumOrAcid, NoAmmoniumOrAcid };

struct RuleAnswer {
  double refillFactor = 1;
  PhAdvice ph = PhAdvice::Leave;
};
RuleAnswer byGrowersRule(const GrowersRule& rule, Conductivity reads, std::optional<double> ph);

enum class AdviceKind {
  RefillAsPlanned, ///< the feed, up to the mark
  RefillByRule,    ///< the feed at the rule's strength
  RefillByStocks,  ///< the feed's stocks at the strength that brings the tank nearest to its target
  RefillBySalts,   ///< water, and single salts solved with the tank as the water
  AcidOrBase,      ///< now, to the pH that is wanted
  Bleed,           ///< so much a day, for ever, that ballast stays under its cap
  Dump,            ///< all of it thrown away on that day
  FeedByUptake,    ///< a feed for good that brings what the plants take, in their own ratios
};

/// Why a choice is not open.
enum class NotOpen { None, Full, NoWater, NoTarget, NoSalts, NoStocks, NoAcid, NotNeeded, WaterAboveCap };

/// One way on, and what it does.
struct Advice {
  AdviceKind kind{};
  NotOpen notOpen = NotOpen::None;
  double feedFactor = 1;           ///< strength of the feed that is poured; 0: water
  Volume pour;                     ///< water or feed, up to the mark
  std::vector<Mass> grams;         ///< parallel to the shelf
  std::optional<std::size_t> acid; ///< index into the shelf
  Volume acidVolume;               ///< where it is a liquid of known density
  double bleedLPerDay = 0;
  std::optional<Nutrient> ballast;   ///< what Bleed and Dump are for
  std::optional<double> afterDays;   ///< of Dump: from now
  FeedContent feed;                  ///< of FeedByUptake
  PhAdvice ph = PhAdvice::Leave;     ///< of RefillByRule
  std::optional<SolveAnswer> solved; ///< of RefillBySalts
  /// What stands in the tank right after, and a week later with the plan going on.
  FeedContent after, inAWeek;
  std::optional<ReservoirReadings> reads, readsInAWeek;
};

/// All that advice is made from.
struct AdviceRequest {
  ReservoirContent stands;
  ReservoirFlow flow;
  ReservoirAir air;
  TankPlan plan;               ///< its refill is the feed at full strength
  FeedContent water;           ///< that stocks and salts are poured with
  std::vector<TargetRow> rows; ///< what the tank should hold
  std::vector<Cap> caps;       ///< of sodium and chloride
  std::vector<ShelfProduct> shelf;
  double wantedPh = 5.8, lowPh = 5.5, highPh = 6.5; ///< the band for most crops is common practice
  GrowersRule rule;
  bool hasStocks = true;
};

/// Every choice in the order of AdviceKind, open or not.
std::vector<Advice> adviceFor(const AdviceRequest& request);

/// What must run off in a day so that an element stays at its cap for ever; 0 where it does anyway; nothing
/// where the refill itself holds as much. Closed form: what comes with the refill is what leaves with plants
/// and drain.
std::optional<double> bleedFor(Nutrient nutrient, double capMgPerL, const ReservoirFlow& flow,
                               const FeedContent& refill);

/// A feed that brings what plants take and what drains, in their own ratios: nothing then builds up.
FeedContent feedByUptake(const ReservoirFlow& flow, const FeedContent& refill);

} // namespace butte::core
