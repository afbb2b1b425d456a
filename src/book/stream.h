#pragma once
#include "base/result.h"
#include "record.h"
#include "vessel_facts.h"

#include <string>
#include <string_view>
#include <vector>

namespace butte::book {

/// One figure of a logger, and whose it is.
struct StreamChannel {
  std::string key;       ///< as the logger names it: a column, a word, a register, a topic
  std::string vesselUid; ///< empty: not taken
  std::string quantity = "ec";
  std::string unit =
      "mS/cm";        ///< of what it sends; for a level also "cm" above the floor and "%" of the full mark
  std::string factor; ///< digits that what it sends is multiplied with; empty: 1
  bool operator==(const StreamChannel&) const = default;
};

/// A logger that is listened to. The body of a Kind::Stream record is this as JSON (docs/formats/book.md).
/// Which computer listens is that computer's own matter, and so is a password.
struct Stream {
  std::string name;
  std::string address;     ///< docs/formats/streams.md
  bool monthFirst = false; ///< of dates such as 3/4/2026
  int everyMinutes = 15;   ///< one reading is kept for so long, and every lasting change
  std::vector<StreamChannel> channels;
  bool operator==(const Stream&) const = default;
};

inline constexpr int leastEveryMinutes = 1, mostEveryMinutes = 1440;
inline constexpr std::size_t mostChannels = 64;

/// Reads strictly: a Problem names the key, the value and what would be right.
core::Result<Stream> streamFromJson(const Json& json);
Json toJson(const Stream& stream);

/// Units that a logger may send a quantity in; empty text for a pure number.
std::vector<std::string> sentUnits(std::string_view quantity);

/// What a logger sent, in the quantity's kept unit. Errors: IncompatibleUnits; MissingKey at "measures" or
/// "volume" where a level in cm or per cent needs what nobody said of the vessel.
core::Result<double> keptOf(const StreamChannel& channel, const VesselFacts& vessel, double sent);

} // namespace butte::book
