#pragma once
#include "port/port_address.h"

#include <string>
#include <string_view>

namespace butte::devices {

/// Where a logger is listened to (docs/formats/streams.md).
struct StreamAddress {
  enum class Kind { File, Lines, Modbus, Mqtt };
  Kind kind = Kind::File;
  std::string path = {}; ///< of File
  PortAddress port = {}; ///< of Lines and Modbus (serial or TCP); of Mqtt the broker
  int modbusUnit = 1;
  std::string topic = {}; ///< of Mqtt: a filter, "glass/pump/#"
  std::string user = {};  ///< of Mqtt; its password is the machine's, never the book's
  bool operator==(const StreamAddress&) const = default;

  /// "file:/home/anna/logger.csv"; "tcp:192.168.1.20:4001", "serial:/dev/ttyUSB0,9600,8N1";
  /// "modbus:tcp:192.168.1.30:502", "modbus:serial:/dev/ttyUSB1,19200,8E1 unit 2";
  /// "mqtt:broker:1883/glass/pump/#", "mqtt:anna@broker/glass/#" (1883 where no port is said). Errors at
  /// "address": NotOneOf.
  static core::Result<StreamAddress> parse(std::string_view text);
  /// Such a text, with all its parts.
  std::string text() const;
};

} // namespace butte::devices
