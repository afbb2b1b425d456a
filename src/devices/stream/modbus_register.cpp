#include "stream/modbus_register.h"

#include "stream/stream_row.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <cstring>
#include <limits>

namespace butte::devices {

namespace {

constexpr std::array typeNames{"u16", "s16", "u32", "s32", "f32"};
constexpr auto swappedWord = "swapped", holdingWord = "holding", inputWord = "input";

std::vector<std::string_view> wordsOf(std::string_view text) {
  std::vector<std::string_view> out;
  for (text = trimmed(text); !text.empty(); text = trimmed(text)) {
    const auto end = std::min(text.find(' '), text.size());
    out.push_back(text.substr(0, end));
    text.remove_prefix(end);
  }
  return out;
}

core::Problem wrong(std::string_view part) {
  return core::problemAt(core::ProblemCode::NotOneOf, "register",
                         {std::string(part),
                          "such as \"holding 100 f32\": holding or input, an address from 0 to 65535, "
                          "u16, s16, u32, s32 or f32, and swapped where the low word comes first"});
}

} // namespace

core::Result<ModbusRegister> ModbusRegister::parse(std::string_view text) {
  ModbusRegister out;
  const auto words = wordsOf(text);
  constexpr std::size_t least = 2, most = 4;
  if (words.size() < least || words.size() > most) return wrong(text);
  if (words[0] != holdingWord && words[0] != inputWord) return wrong(words[0]);
  out.table = words[0] == inputWord ? Table::Input : Table::Holding;
  constexpr int mostAddress = 65535;
  const auto [end, error] = std::from_chars(words[1].data(), words[1].data() + words[1].size(), out.address);
  if (error != std::errc() || end != words[1].data() + words[1].size() || out.address < 0 ||
      out.address > mostAddress)
    return wrong(words[1]);
  for (std::size_t i = least; i < words.size(); ++i) {
    const auto type = std::find(typeNames.begin(), typeNames.end(), words[i]);
    if (words[i] == swappedWord)
      out.lowWordFirst = true;
    else if (type != typeNames.end() && i == least)
      out.type = static_cast<Type>(type - typeNames.begin());
    else
      return wrong(words[i]);
  }
  return out;
}

std::string ModbusRegister::text() const {
  return std::string(table == Table::Input ? inputWord : holdingWord) + " " + std::to_string(address) + " " +
         typeNames[static_cast<std::size_t>(type)] + (lowWordFirst ? std::string(" ") + swappedWord : "");
}

std::optional<double> ModbusRegister::decode(const std::vector<std::uint16_t>& words) const {
  if (words.size() < static_cast<std::size_t>(wordCount())) return std::nullopt;
  if (type == Type::U16) return words[0];
  if (type == Type::S16) return static_cast<std::int16_t>(words[0]);
  const auto high = lowWordFirst ? words[1] : words[0], low = lowWordFirst ? words[0] : words[1];
  const auto bits = static_cast<std::uint32_t>(high) << 16 | low;
  if (type == Type::U32) return bits;
  if (type == Type::S32) return static_cast<std::int32_t>(bits);
  float value = 0;
  std::memcpy(&value, &bits, sizeof value);
  return static_cast<double>(value);
}

std::vector<std::uint16_t> ModbusRegister::encode(double value) const {
  const auto held = [&](double least, double most) { return std::round(std::clamp(value, least, most)); };
  if (type == Type::U16) return {static_cast<std::uint16_t>(held(0, 65535))};
  if (type == Type::S16) return {static_cast<std::uint16_t>(static_cast<std::int16_t>(held(-32768, 32767)))};
  std::uint32_t bits = 0;
  if (type == Type::U32) bits = static_cast<std::uint32_t>(held(0, 4294967295.0));
  if (type == Type::S32)
    bits = static_cast<std::uint32_t>(static_cast<std::int32_t>(
        held(std::numeric_limits<std::int32_t>::min(), std::numeric_limits<std::int32_t>::max())));
  if (type == Type::F32) {
    const auto as = static_cast<float>(value);
    std::memcpy(&bits, &as, sizeof bits);
  }
  const auto high = static_cast<std::uint16_t>(bits >> 16), low = static_cast<std::uint16_t>(bits & 0xFFFF);
  return lowWordFirst ? std::vector{low, high} : std::vector{high, low};
}

} // namespace butte::devices
