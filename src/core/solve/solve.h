#pragma once
#include "product/shelf_product.h"
#include "target/ratio.h"
#include "target/target.h"
#include "units/quantity.h"
#include "water/water.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

enum class Objective { Closest, Cheapest };
/// What an answer must do: come as near as it can; stay inside the bands or be none; or leave the bands as
/// little as it can (weight times relative distance), and only then come near.
enum class Require { Best, Bands, BandsFirst };
enum class SolveStatus { Met, Best, Impossible };

/// Everything a formula is solved from.
struct SolveRequest {
  Water water;
  std::vector<ShelfProduct> shelf;
  Volume volume = Volume::fromLitres(1);
  std::vector<TargetRow> rows;
  std::vector<RatioWish> ratios;
  std::vector<Cap> caps;
  Objective objective = Objective::Closest;
  Require require = Require::Best;
  /// Alkalinity to leave after acid, in meq/L; without it acids and bases stay out unless locked.
  std::optional<double> alkalinityLeftMeqPerL;
};

/// Why a row misses its band, or why there is no answer.
enum class ReasonKind {
  WaterAlone,         ///< the water brings more than the band allows
  LockedBring,        ///< water and locked weights bring more than the band allows
  NoCarrier,          ///< nothing on the shelf carries it
  AllHeld,            ///< all that carry it are locked or at their bound
  ScaleSteps,         ///< in its band as computed; the whole steps of the scales move it out
  LeftOut,            ///< what carries it was left out, so that few products are opened
  ComesWith,          ///< more (or less) of it would push `other` further off
  Traded,             ///< the closest fit shares the misses out: held to the bands it could be had
  Cap,                ///< the cap on `other` holds it back
  AcidAlone,          ///< only acids or bases carry it, and they are no free source
  AcidBrings,         ///< the acid that the alkalinity needs brings it
  WaterOverCap,       ///< a cap lies below what the water and locked weights bring
  BandsConflict,      ///< no single culprit: the bands exclude each other
  AlkalinityConflict, ///< the alkalinity to be left can't be had within the other limits
};

/// A limit that holds an element where it is.
enum class LimitKind { Band, Ratio, Cap, Most, Least, Held, Alkalinity, SafeCeiling, ChelateInstead };
struct BindingLimit {
  LimitKind kind{};
  Nutrient nutrient = Nutrient::N;   ///< of a band, cap or ceiling
  bool upper = true;                 ///< the upper edge of a band or ratio
  bool beyond = false;               ///< the band is left already, and shall not be left further
  std::size_t ratio = 0;             ///< index into the request's ratios
  std::string product;               ///< of Most, Least, Held
  std::vector<std::string> carriers; ///< products that could bring the element and meet this limit
};

struct Reason {
  ReasonKind kind{};
  Nutrient nutrient = Nutrient::N;   ///< the row that misses
  bool over = false;                 ///< above its band rather than below
  std::optional<Nutrient> other;     ///< the row or cap that holds it
  std::vector<std::string> products; ///< ids
  double has = 0, wants = 0;         ///< mg/L: what is there against what is asked
  /// The irreducible set that holds it, the strongest first: with all other limits gone it would stand no
  /// better.
  std::vector<BindingLimit> limits;
  bool everyCarrier = false; ///< every product that could mend it meets the first limit
  double reachable = 0;      ///< mg/L: as near as it comes when nothing else gets worse
};

enum class SolveWarning {
  AcidLeftOut,            ///< an acid or base stood free without an alkalinity to reach
  AcidNeedsAlkalinity,    ///< the water's alkalinity is unknown: no dose
  AlkalinityAlreadyBelow, ///< nothing to neutralise
  AlkalinityNotReached,   ///< the acid on the shelf does not suffice
  NoAcidOnShelf,
  PlainIronLeftOut, ///< iron(II) stood free beside a chelate of iron, which stays where iron(II) rusts
  PlainIronRusts,   ///< iron(II) is used: it rusts out above pH 5 (common practice)
};

struct SolveAnswer {
  SolveStatus status = SolveStatus::Impossible;
  std::vector<Mass> grams;              ///< parallel to the shelf; empty when impossible
  std::vector<double> deviationPercent; ///< parallel to the rows
  double violation = 0;                 ///< sum of weight times relative distance outside the bands
  std::vector<Reason> reasons;
  std::vector<std::pair<SolveWarning, std::string>> warnings; ///< with the product id where one is meant
};

/// The weights that bring the water nearest to the target (or cheapest inside its bands). Deterministic.
/// Cheapest needs a price on every product: NeedsPrice. A ratio needs a target on one of its sides:
/// MissingKey. Rows, caps and bounds must be finite and not negative.
Result<SolveAnswer> solve(const SolveRequest& request);

} // namespace butte::core
