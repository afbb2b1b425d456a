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

/// How its plants are watered, as the grower wants it; digits, and empty where that is not said.
struct IrrigationWish {
  exchange::Amount shot;                         ///< given at once, to all of them
  std::string firstHour, lastHour, drainPercent; ///< between which hours; what of it is to drain
  std::string rootPercent;                       ///< how strong the root zone is to be, of the feed's target
};

/// What is known of a vessel: how much it holds, what fills it, what grows in it. The body of a Kind::Vessel
/// record is this as JSON (docs/formats/book.md); all but the name may be missing.
struct VesselFacts {
  std::string name, note;
  exchange::Amount full, low;        ///< its marks
  exchange::Amount drunk;            ///< what its plants drink in a day, where the grower says so
  exchange::Amount ground;           ///< the area of the plants
  std::string plants;                ///< digits: their number, where the area is not said
  exchange::Amount usualTemperature; ///< of what is in it
  std::string crop;
  std::string climate;          ///< "cool", "warm"; empty: cool
  std::string formulaUid;       ///< what fills it
  bool filledWithWater = false; ///< with its formula's water alone
  std::string batchUid;         ///< with a batch of its formula, as that was weighed
  bool drainsToWaste = false, openToRain = false;
  bool southern = false;                ///< south of the equator: its summer begins in December
  std::optional<core::Vessel> measures; ///< for levels in cm
  std::string stickFull, stickLow;      ///< digits: what its float stick shows at either mark
  IrrigationWish irrigation;
  /// The rule of thumb's own figures, where the grower has others.
  exchange::Amount ruleHighEc, ruleLowEc;
  std::string ruleHighPercent, ruleLowPercent, ruleHighPh, ruleLowPh; ///< digits

  core::Volume fullVolume() const; ///< 0 where it is not known
  core::Volume lowVolume() const;
  double drunkLPerDay() const; ///< 0 where it is not said
  double groundM2() const;     ///< 0 where it is not said
  double plantCount() const;
  core::GrowersRule growersRule() const;
  /// Litres at a height in cm; nothing without measures.
  std::optional<core::Volume> volumeAt(double heightCm) const;
  /// Litres where the float stick shows a figure, evenly between the marks; nothing without its figures.
  std::optional<core::Volume> volumeAtStick(double shows) const;
};

/// Reads strictly: a Problem names the key, the value and what would be right.
core::Result<VesselFacts> vesselFactsFromJson(const Json& json);

} // namespace butte::book
