#include "base/deed.h"

#include "base/quoted_list.h"

#include <array>

namespace butte::core {
namespace {

constexpr std::array<std::string_view, deedCount> deedKeys{
#define BUTTE_DEED_KEY(name, key) key,
    BUTTE_DEEDS(BUTTE_DEED_KEY)
#undef BUTTE_DEED_KEY
};

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
  return quotedList(deedKey(deed.code), deed.values);
}

Deed deedFromLine(std::string_view line) {
  auto texts = textsOfQuotedList(line);
  const auto code = texts && !texts->empty() ? deedFromKey(texts->front()) : std::nullopt;
  if (!code || *code == DeedCode::Told) return {DeedCode::Told, {std::string(line)}};
  texts->erase(texts->begin());
  return {*code, std::move(*texts)};
}

} // namespace butte::core
