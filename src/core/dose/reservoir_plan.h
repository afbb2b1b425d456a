#pragma once
#include "base/result.h"
#include "formula/mix.h"
#include "stock/stock.h"

#include <optional>
#include <vector>

namespace butte::core {

/// A vessel of feed that is made up or put right by hand.
struct ReservoirGiven {
  Volume finished = Volume::fromLitres(100); ///< to the mark
  Volume present;                            ///< in it now; 0: empty
  Conductivity reading;                      ///< of what is in it
  Conductivity target;
  bool cautious = true; ///< half of the stocks, stir, read, the rest; acid in two parts
  Volume lastWater;     ///< raw water kept back for the very end
  double stockStrength =
      1; ///< of the stocks as they are over the planned: what readings told (reading_line.h)
  std::optional<ShelfProduct> acid; ///< after the salts; nothing: none
  double targetPh = 5.8;            ///< middle of the usual 5.5 to 6.2 (common practice)
};

enum class ReservoirAct { Drain, Water, Stock, Acid, LastWater };

/// One thing to do, and what the meters should show once it is stirred in.
struct ReservoirStep {
  ReservoirAct act{};
  std::size_t tank = 0; ///< Stock: index into the answer's tanks
  Volume amount;        ///< nothing for an acid known by weight only
  Mass mass;            ///< Acid
  Conductivity expected;
  std::optional<double> ph; ///< closed to the air; nothing: not known
  Volume volumeAfter;
  bool readNow = false; ///< stop, stir, read and mend before going on
};

/// The way from what is in the vessel to a full one at the target. What is in it counts as the same feed,
/// thinner or stronger. Tanks for acid are left out where an acid is chosen. What has to be drained first is
/// said as a step. Errors: OutOfRange ("finished", "present", "last_water", "reading", "target").
Result<std::vector<ReservoirStep>> planReservoir(const ReservoirGiven& given, const StockAnswer& stock,
                                                 const MixResult& water);

} // namespace butte::core
