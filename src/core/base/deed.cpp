#include "base/deed.h"

#include <array>

namespace butte::core {
namespace {

constexpr std::array<std::string_view, deedCount> deedKeys{
#define BUTTE_DEED_KEY(name, key) key,
    BUTTE_DEEDS(BUTTE_DEED_KEY)
#undef BUTTE_DEED_KEY
};

void appendQuoted(std::string& out, std::string_view text) {
  out += '"';
  for (const char c : text) {
    if (c == '"' || c == '\\') out += '\\';
    out += static_cast<unsigned char>(c) < 0x20 ? ' ' : c; // a sentence is one line
  }
  out += '"';
}

/// The texts of a list such as ["a","b"]; nothing where the line is none.
std::optional<std::vector<std::string>> quotedList(std::string_view line) {
  if (line.size() < 2 || line.front() != '[' || line.back() != ']') return std::nullopt;
  std::vector<std::string> out;
  std::size_t at = 1;
  const std::size_t end = line.size() - 1;
  while (at < end) {
    if (line[at] != '"') return std::nullopt;
    std::string text;
    for (++at; at < end && line[at] != '"'; ++at) {
      if (line[at] == '\\' && at + 1 < end) ++at;
      text += line[at];
    }
    if (at >= end) return std::nullopt; // never closed
    out.push_back(std::move(text));
    if (++at < end && line[at++] != ',') return std::nullopt;
  }
  return out;
}

} // namespace

std::string_view deedKey(DeedCode code) {
  return deedKeys[static_cast<std::size_t>(code)];
}

std::optional<DeedCode> deedFromKey(std::string_view key) {
  for (std::size_t i = 0; i < deedKeys.size(); ++i) {
    if (deedKeys[i] == key) return static_cast<DeedCode>(i);
  }
  return std::nullopt;
}

std::string deedLine(const Deed& deed) {
  if (deed.code == DeedCode::Told) return deed.values.empty() ? std::string() : deed.values.front();
  std::string out = "[";
  appendQuoted(out, deedKey(deed.code));
  for (const auto& value : deed.values) {
    out += ',';
    appendQuoted(out, value);
  }
  return out + "]";
}

Deed deedFromLine(std::string_view line) {
  auto texts = quotedList(line);
  const auto code = texts && !texts->empty() ? deedFromKey(texts->front()) : std::nullopt;
  if (!code || *code == DeedCode::Told) return {DeedCode::Told, {std::string(line)}};
  texts->erase(texts->begin());
  return {*code, std::move(*texts)};
}

} // namespace butte::core
