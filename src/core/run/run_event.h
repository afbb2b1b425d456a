#pragma once
#include "units/quantity.h"

#include <cstdint>
#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace butte::core {

/// Things that happen at the bench. `vessel` and `product` are indices into the plan.
namespace did {
/// All that is needed stands ready: gear, water, tools, vessels.
struct Prepared {
  bool operator==(const Prepared&) const = default;
};
/// Water went in, before the salts or among them.
struct Poured {
  std::size_t vessel = 0;
  Volume volume;
  bool operator==(const Poured&) const = default;
};
/// So much of a product lies in the cup now, beside what lay in it.
struct Weighed {
  std::size_t product = 0;
  Mass mass;
  std::string lot;
  bool typed = false; ///< by a hand, not from the scale
  bool operator==(const Weighed&) const = default;
};
/// Out of the cup again, while dry.
struct TakenOut {
  std::size_t product = 0;
  Mass mass;
  bool operator==(const TakenOut&) const = default;
};
/// All that lies in the cup of this product went into a vessel.
struct Tipped {
  std::size_t product = 0, vessel = 0;
  bool operator==(const Tipped&) const = default;
};
/// It is wholly dissolved.
struct Clear {
  std::size_t product = 0, vessel = 0;
  bool operator==(const Clear&) const = default;
};
/// The person goes on without it.
struct Skipped {
  std::size_t product = 0, vessel = 0;
  bool operator==(const Skipped&) const = default;
};
/// What a step still lacks comes as another product into the same vessel (withSubstitutes()).
struct Substituted {
  std::size_t product = 0, vessel = 0;
  std::size_t by = 0; ///< the product that goes in instead
  Mass mass;          ///< so much of that, of the run as it is scaled then
  bool operator==(const Substituted&) const = default;
};
/// A weight that is off is taken as it is.
struct Accepted {
  std::size_t product = 0, vessel = 0;
  bool operator==(const Accepted&) const = default;
};
/// The whole run is made larger or smaller: all planned weights and volumes times this, of the first plan.
struct Rescaled {
  double ratio = 1;
  bool operator==(const Rescaled&) const = default;
};
/// Made up to this volume in all.
struct ToppedUp {
  std::size_t vessel = 0;
  Volume volume;
  bool operator==(const ToppedUp&) const = default;
};
/// What the meters say of a vessel.
struct Read {
  std::size_t vessel = 0;
  std::optional<Conductivity> conductivity;
  std::optional<double> ph;
  bool operator==(const Read&) const = default;
};
/// All that was in the vessel is poured away; it begins anew.
struct Discarded {
  std::size_t vessel = 0;
  bool operator==(const Discarded&) const = default;
};
struct Paused {
  bool operator==(const Paused&) const = default;
};
struct Resumed {
  bool operator==(const Resumed&) const = default;
};
/// From now on this person does it.
struct HandedOver {
  std::string to;
  bool operator==(const HandedOver&) const = default;
};
/// An earlier event did not happen so (struck), counted from 0; what did happen is told by an event of its
/// own. Nothing past is overwritten.
struct Struck {
  std::size_t event = 0;
  bool operator==(const Struck&) const = default;
};
struct Finished {
  bool operator==(const Finished&) const = default;
};
} // namespace did

using RunDeed =
    std::variant<did::Prepared, did::Poured, did::Weighed, did::TakenOut, did::Tipped, did::Clear,
                 did::Skipped, did::Substituted, did::Accepted, did::Rescaled, did::ToppedUp, did::Read,
                 did::Discarded, did::Paused, did::Resumed, did::HandedOver, did::Struck, did::Finished>;

struct RunEvent {
  std::int64_t atMilliseconds = 0; ///< since 1970, UTC
  std::string by;                  ///< initials
  RunDeed deed;
  bool operator==(const RunEvent&) const = default;
};

} // namespace butte::core
