#include "base/encoding.h"

#include <array>
#include <cstdint>

namespace butte::core {
namespace {

constexpr std::uint32_t replacement = 0xFFFD;

void append(std::string& out, std::uint32_t c) {
  const auto put = [&](std::uint32_t byte) { out += static_cast<char>(byte); };
  if (c < 0x80) {
    put(c);
  } else if (c < 0x800) {
    put(0xC0 | c >> 6);
    put(0x80 | (c & 0x3F));
  } else if (c < 0x10000) {
    put(0xE0 | c >> 12);
    put(0x80 | (c >> 6 & 0x3F));
    put(0x80 | (c & 0x3F));
  } else {
    put(0xF0 | c >> 18);
    put(0x80 | (c >> 12 & 0x3F));
    put(0x80 | (c >> 6 & 0x3F));
    put(0x80 | (c & 0x3F));
  }
}

std::uint32_t byteAt(std::string_view bytes, std::size_t i) {
  return static_cast<unsigned char>(bytes[i]);
}

/// How many bytes of well-formed UTF-8 (Unicode 15, table 3-7) begin here; 0 when none do.
std::size_t utf8Length(std::string_view bytes, std::size_t i) {
  const auto first = byteAt(bytes, i);
  if (first < 0x80) return 1;
  const std::size_t length = first >= 0xF0 ? 4 : first >= 0xE0 ? 3 : 2;
  if (first < 0xC2 || first > 0xF4 || i + length > bytes.size()) return 0;
  for (std::size_t k = 1; k < length; ++k) {
    if ((byteAt(bytes, i + k) & 0xC0) != 0x80) return 0;
  }
  const auto second = byteAt(bytes, i + 1);
  const bool tooLong = (first == 0xE0 && second < 0xA0) || (first == 0xF0 && second < 0x90);
  const bool noCharacter = (first == 0xED && second > 0x9F) || (first == 0xF4 && second > 0x8F);
  return tooLong || noCharacter ? 0 : length;
}

bool isUtf8(std::string_view bytes) {
  for (std::size_t i = 0; i < bytes.size();) {
    const auto length = utf8Length(bytes, i);
    if (length == 0) return false;
    i += length;
  }
  return true;
}

/// Bytes 0x80 to 0x9F of Windows-1252 (the Unicode consortium's table CP1252.TXT, from memory); 0: not used.
constexpr std::array<std::uint16_t, 32> windows1252{
    0x20AC, 0,      0x201A, 0x0192, 0x201E, 0x2026, 0x2020, 0x2021, 0x02C6, 0x2030, 0x0160,
    0x2039, 0x0152, 0,      0x017D, 0,      0,      0x2018, 0x2019, 0x201C, 0x201D, 0x2022,
    0x2013, 0x2014, 0x02DC, 0x2122, 0x0161, 0x203A, 0x0153, 0,      0x017E, 0x0178};

std::string fromWindows1252(std::string_view bytes) {
  std::string out;
  for (std::size_t i = 0; i < bytes.size(); ++i) {
    const auto c = byteAt(bytes, i);
    const bool special = c >= 0x80 && c < 0xA0;
    const std::uint32_t meant = special ? windows1252[c - 0x80] : c;
    append(out, meant == 0 && special ? replacement : meant);
  }
  return out;
}

std::string fromUtf16(std::string_view bytes, bool bigEndian) {
  const auto unitAt = [&](std::size_t i) {
    const auto a = byteAt(bytes, i), b = byteAt(bytes, i + 1);
    return bigEndian ? a << 8 | b : b << 8 | a;
  };
  std::string out;
  for (std::size_t i = 0; i + 1 < bytes.size(); i += 2) {
    const auto unit = unitAt(i);
    const bool high = unit >= 0xD800 && unit < 0xDC00, low = unit >= 0xDC00 && unit < 0xE000;
    const auto next = high && i + 3 < bytes.size() ? unitAt(i + 2) : 0;
    if (high && next >= 0xDC00 && next < 0xE000) {
      append(out, 0x10000 + ((unit - 0xD800) << 10) + (next - 0xDC00));
      i += 2;
    } else {
      append(out, high || low ? replacement : unit);
    }
  }
  return out;
}

} // namespace

std::string utf8From(std::string_view bytes) {
  if (bytes.starts_with("\xFF\xFE")) return fromUtf16(bytes.substr(2), false);
  if (bytes.starts_with("\xFE\xFF")) return fromUtf16(bytes.substr(2), true);
  if (bytes.starts_with("\xEF\xBB\xBF")) bytes.remove_prefix(3);
  return isUtf8(bytes) ? std::string(bytes) : fromWindows1252(bytes);
}

} // namespace butte::core
