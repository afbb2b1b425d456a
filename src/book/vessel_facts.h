#pragma once
#include "amount.h"
#include "base/result.h"
#include "dose/vessel.h"
#include "record.h"
#include "tank/tank_advice.h"
#include "units/quantity.h"

#include <optional>
#include <string>

namespace butte::book {

/// What is known of a vessel: how much it holds, what fills it, what grows in it. The body of a Kind::Vessel
/// record is this as JSON (docs/formats/book.md); all but the name may be missing.
struct VesselFacts {
  std::string name, note;
  exchange::Amount full, low;        ///< its marks
  exchange::Amount drunk;            ///< what its plants drink in a day, where the grower says so
  exchange::Amount ground;           ///< the area of the plants
  exchange::Amount usualTemperature; ///< of what is in it
  std::string crop;
  std::string climate;          ///< "cool", "warm"; empty: cool
  std::string formulaUid;       ///< what fills it
  bool filledWithWater = false; ///< with its formula's water alone
  bool drainsToWaste = false, openToRain = false;
  std::optional<core::Vessel> measures; ///< for levels in cm
  /// The rule of thumb's own figures, where the grower has others.
  exchange::Amount ruleHighEc, ruleLowEc;
  std::string ruleHighPercent, ruleLowPercent, ruleHighPh, ruleLowPh; ///< digits

  core::Volume fullVolume() const; ///< 0 where it is not known
  core::Volume lowVolume() const;
  double drunkLPerDay() const; ///< 0 where it is not said
  double groundM2() const;
  core::GrowersRule growersRule() const;
  /// Litres at a height in cm; nothing without measures.
  std::optional<core::Volume> volumeAt(double heightCm) const;
};

/// Reads strictly: a Problem names the key, the value and what would be right.
core::Result<VesselFacts> vesselFactsFromJson(const Json& json);

} // namespace butte::book
