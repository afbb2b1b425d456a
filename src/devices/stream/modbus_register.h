#pragma once
#include "base/result.h"

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::devices {

/// A figure in the registers of a Modbus device (Modbus Application Protocol V1.1b3, from memory): 16 bits
/// each, the high byte first; how two of them make a longer figure differs from device to device.
struct ModbusRegister {
  enum class Table { Holding, Input };
  enum class Type { U16, S16, U32, S32, F32 };
  Table table = Table::Holding;
  int address = 0; ///< from 0, as it is sent: devices' papers often count from 1, or from 40001
  Type type = Type::U16;
  bool lowWordFirst = false;
  bool operator==(const ModbusRegister&) const = default;

  /// "holding 100 f32", "input 4 s16", "holding 10 u32 swapped". What is left out is u16. Errors at
  /// "register": NotOneOf.
  static core::Result<ModbusRegister> parse(std::string_view text);
  std::string text() const;
  int wordCount() const { return type == Type::U16 || type == Type::S16 ? 1 : 2; }
  /// Nothing where there are too few words.
  std::optional<double> decode(const std::vector<std::uint16_t>& words) const;
  /// The other way round, for the stand-in; held at the type's limits.
  std::vector<std::uint16_t> encode(double value) const;
};

} // namespace butte::devices
