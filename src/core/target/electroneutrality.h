#pragma once
#include "target/target.h"

#include <optional>
#include <vector>

namespace butte::core {

/// How one ion of a target would have to change so that the target can be dissolved.
struct IonShift {
  Nutrient nutrient = Nutrient::N;
  double from = 0, to = 0; ///< mg/L
};

/// Whether a target's ions can stand in one water: cations and anions must balance.
struct TargetBalance {
  double cationsMeqPerL = 0, anionsMeqPerL = 0;
  /// What the target leaves open (sulfate, chloride, sodium without a row) may close the gap; nothing when
  /// it can't, or when there is no gap.
  std::optional<IonShift> closes;
  bool canBalance = true; ///< within 1 % of the larger side, or closed by what is open
  std::vector<IonShift>
      nearest; ///< the nearest target that balances (least relative squares), all rows that move
  std::vector<IonShift> oneAlone; ///< each row that could close the gap by itself, the smallest change first
};

/// Counts NO3, NH4, K, Ca, Mg, Na, H2PO4, SO4, Cl and the alkalinity left; N alone is taken as nitrate.
TargetBalance balanceOf(const std::vector<TargetRow>& rows, double alkalinityLeftMeqPerL);

} // namespace butte::core
