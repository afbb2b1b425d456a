#pragma once
#include "base/result.h"

#include <string>
#include <string_view>

namespace butte::devices {

enum class Parity { None, Even, Odd };

/// Where a device is reached.
struct PortAddress {
  enum class Kind { Serial, Tcp };
  Kind kind = Kind::Serial;
  std::string path = {}; ///< of Serial: "/dev/ttyUSB0"; of Tcp: the host
  int tcpPort = 0;
  int baud = 9600; ///< of Serial, as all that follows
  int dataBits = 8;
  Parity parity = Parity::None;
  int stopBits = 1;
  bool operator==(const PortAddress&) const = default;

  /// "serial:/dev/ttyUSB0", "serial:/dev/ttyUSB0,4800,7E1", "tcp:192.168.1.20:4001". What is left out of a
  /// serial one is 9600,8N1 (the most usual setting of scales, common practice). The text may also be the
  /// bare path of a device ("/dev/ttyUSB0"). Errors at "address": NotOneOf for another kind, BadFile for a
  /// part that can't be.
  static core::Result<PortAddress> parse(std::string_view text);
  /// Such a text, with all its parts.
  std::string text() const;
};

} // namespace butte::devices
