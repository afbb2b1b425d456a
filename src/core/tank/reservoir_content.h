#pragma once
#include "chem/feed_charge.h"
#include "chem/nutrient.h"
#include "solution/solutes.h"
#include "units/quantity.h"

#include <array>
#include <optional>

namespace butte::core {

struct MixResult;
struct Water;

/// Every nutrient that is kept for itself: N, the sum of its forms, is not.
inline constexpr std::array<Nutrient, nutrientCount - 1> keptNutrients{
    Nutrient::NNitrate, Nutrient::NAmmonium, Nutrient::NUrea, Nutrient::P,  Nutrient::K,  Nutrient::Ca,
    Nutrient::Mg,       Nutrient::S,         Nutrient::Fe,    Nutrient::Mn, Nutrient::Zn, Nutrient::B,
    Nutrient::Cu,       Nutrient::Mo,        Nutrient::Si,    Nutrient::Na, Nutrient::Cl};

/// Grams per mole of the element (of nitrogen for its forms).
double molarMass(Nutrient nutrient);

/// A liquid that is poured in, by the litre.
struct FeedContent {
  NutrientAmounts milligramsPerLitre;
  double alkalinityMeqPerL = 0; ///< counted as Solutes::alkalinityEq; negative: free acid
  bool operator==(const FeedContent&) const = default;
};
FeedContent feedContentOf(const MixResult& feed);
/// A water whose alkalinity is not known counts as if it had none: say so where it matters.
FeedContent feedContentOf(const Water& water);

/// What is dissolved in a vessel.
struct ReservoirContent {
  Volume volume;
  NutrientAmounts milligrams;
  double alkalinityMeq = 0;

  /// Nothing where the vessel is empty.
  std::optional<FeedContent> perLitre() const;
  double milligramsPerLitre(Nutrient nutrient) const;
  /// What no counter-ion balances, in meq. Uptake, rain and evaporation never change it; draining takes its
  /// share.
  double unbalancedMeq() const;
  void pour(const FeedContent& feed, Volume volume);
  /// Takes out a volume as it stands; at most all.
  void drain(Volume volume);
  bool operator==(const ReservoirContent&) const = default;
};

/// In solution, per litre. Iron counts as a chelate with one charge, since feeds carry it so (common
/// practice). The carbonate is what plain bicarbonate of this alkalinity holds: where the vessel is open, the
/// air decides.
Solutes solutesPerLitre(const FeedContent& content);

} // namespace butte::core
