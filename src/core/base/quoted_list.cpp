#include "base/quoted_list.h"

namespace butte::core {
namespace {

void appendQuoted(std::string& out, std::string_view text) {
  out += '"';
  for (const char c : text) {
    if (c == '"' || c == '\\') out += '\\';
    out += static_cast<unsigned char>(c) < 0x20 ? ' ' : c; // a sentence is one line
  }
  out += '"';
}

} // namespace

std::string quotedList(std::string_view key, const std::vector<std::string>& values) {
  std::string out = "[";
  appendQuoted(out, key);
  for (const auto& value : values) {
    out += ',';
    appendQuoted(out, value);
  }
  return out + "]";
}

std::optional<std::vector<std::string>> textsOfQuotedList(std::string_view line) {
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

} // namespace butte::core
