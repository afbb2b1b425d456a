#pragma once
#include "tank/tank_log.h"
#include "tank/tank_priors.h"

#include <memory>
#include <optional>
#include <vector>

namespace butte::core {

/// A figure with the limits that hold it nine times in ten.
struct Band {
  double value = 0, low = 0, high = 0;
};

/// What is known of a tank at one moment.
struct TankEstimate {
  double day = 0;
  Band litres;
  std::array<Band, nutrientCount> milligramsPerLitre{}; ///< by Nutrient
  Band alkalinityMeqPerL;
  std::optional<Band> at25, ph; ///< mS/cm, as a true meter would show; nothing where the chemistry finds none
  /// What plants drink in a day, litres; how much more or less of everything they take than published.
  Band transpirationLPerDay, uptakeLevel;
  Band penGain, penPhOffset; ///< what the pens seem to be off: a factor, and in units of pH

  const Band& of(Nutrient nutrient) const { return milligramsPerLitre[static_cast<std::size_t>(nutrient)]; }
};

enum class ReadingKind { Conductivity, Ph, Level };

/// A reading held against what was expected of it, before it was taken in.
struct ReadingCheck {
  double day = 0;
  ReadingKind kind{};
  Band expected;    ///< with the meter's own error
  double read = 0;  ///< mS/cm, pH, litres
  bool fits = true; ///< false: so far off that it is shown as a doubt, and not taken in as it stands
};

/// A tank's content followed from day to day with all that is not known of it: a Kalman filter whose spread
/// is carried by differences along its own axes (the divided-difference filter of Norgaard, Poulsen and
/// Ravn 2000, first order, from memory), since an element that runs out bends the balance. Unknown are every
/// element, what no ion balances, the plants' water, the level of their uptake and each element's share in
/// it, and both pens' offsets. pH is taken in as the alkalinity that it speaks of.
class TankFilter {
public:
  TankFilter(const TankPriors& priors, const ReservoirContent& start, double startRelativeSd = 0.03);
  TankFilter(const TankFilter& other);
  TankFilter& operator=(const TankFilter& other);
  TankFilter(TankFilter&&) noexcept;
  TankFilter& operator=(TankFilter&&) noexcept;
  ~TankFilter();

  double day() const;
  /// Lets the plants work until that day; earlier days change nothing.
  void advanceTo(double day);
  /// What was done or read now. Readings give their checks.
  std::vector<ReadingCheck> take(const TankDeed& deed);
  TankEstimate estimate() const;
  /// Without any spread: the likeliest content.
  ReservoirContent content() const;
  /// As the plants are believed to work now.
  ReservoirFlow flow() const;
  const TankPriors& priors() const;
  void setFlow(const ReservoirFlow& flow); ///< other plants, another drain: what is believed beforehand
  std::optional<Band> phBand() const;

private:
  struct State;
  std::unique_ptr<State> m_state;
};

} // namespace butte::core
