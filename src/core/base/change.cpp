#include "base/change.h"

#include "base/quoted_list.h"

#include <array>

namespace butte::core {
namespace {

constexpr std::array<std::string_view, changeCount> changeKeys{
#define BUTTE_CHANGE_KEY(name, key) key,
    BUTTE_CHANGES(BUTTE_CHANGE_KEY)
#undef BUTTE_CHANGE_KEY
};

Change changeFromLine(std::string_view line) {
  const Change told{ChangeCode::Told, {std::string(line)}};
  auto texts = textsOfQuotedList(line);
  if (!texts || texts->empty()) return told;
  for (std::size_t i = 1; i < changeKeys.size(); ++i) {
    if (changeKeys[i] != texts->front()) continue;
    texts->erase(texts->begin());
    return {static_cast<ChangeCode>(i), std::move(*texts)};
  }
  return told;
}

} // namespace

std::string_view changeKey(ChangeCode code) {
  return changeKeys[static_cast<std::size_t>(code)];
}

std::string changeLines(const std::vector<Change>& changes) {
  std::string out;
  for (const auto& change : changes) {
    if (!out.empty()) out += '\n';
    if (change.code == ChangeCode::Told)
      out += change.values.empty() ? std::string() : change.values.front();
    else
      out += quotedList(changeKey(change.code), change.values);
  }
  return out;
}

std::vector<Change> changesFromLines(std::string_view lines) {
  std::vector<Change> out;
  while (!lines.empty()) {
    const auto end = lines.find('\n');
    out.push_back(changeFromLine(lines.substr(0, end)));
    lines.remove_prefix(end == std::string_view::npos ? lines.size() : end + 1);
  }
  return out;
}

} // namespace butte::core
