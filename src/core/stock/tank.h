#pragma once
#include "solution/solutes.h"
#include "units/quantity.h"

#include <optional>
#include <string>
#include <string_view>

namespace butte::core {

/// What a tank is for.
enum class TankUse {
  Salts,  ///< the first holds the calcium side, the second what must not meet it, a third what meets both
  Traces, ///< micronutrients and chelates apart
  Acid,   ///< the acid that the formula doses
  Alone,  ///< one product that stands with no other: silicate, calcium chloride
};

/// "salts", "traces", "acid", "alone": how files and scripts name a use.
std::string_view tankUseKey(TankUse use);
std::optional<TankUse> tankUseFromKey(std::string_view key);

/// Where the water comes from that a tank is made up with.
struct MakeUp {
  enum class From {
    Given, ///< Tank::makeUpPerLitre as it stands; nothing dissolved: rain, distilled or membrane water
    Blend, ///< the formula's sources together
    Part,  ///< one of them; one that was taken out since counts as pure
  };
  From from = From::Given;
  std::size_t part = 0;
};

struct Tank {
  std::string name; ///< the grower's own: a letter, a colour, a word
  Volume volume = Volume::fromLitres(1);
  TankUse use = TankUse::Salts;
  MakeUp makeUp = {};
  /// What a litre of the water that it is made up with brings.
  Solutes makeUpPerLitre = {};
  /// Its own dilution, where it hangs on a doser of another ratio; else the plan's.
  std::optional<double> ownFactor = std::nullopt;
};

} // namespace butte::core
