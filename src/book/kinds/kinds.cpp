#include "kinds/kind_info.h"

#include "changes/json_changes.h"

#include <algorithm>
#include <array>

namespace butte::book {
namespace {

/// In the order of the book's pages and exports.
constexpr std::array all{&kinds::water,         &kinds::product,     &kinds::target,   &kinds::formula,
                         &kinds::stockPlan,     &kinds::vessel,      &kinds::batch,    &kinds::reading,
                         &kinds::readingImport, &kinds::paperLayout, &kinds::benchRun, &kinds::scaleCheck,
                         &kinds::tankLine,      &kinds::stream,      &kinds::lot,      &kinds::shelfLine,
                         &kinds::chore,         &kinds::choreLine};

} // namespace

const KindInfo& infoOf(Kind kind) {
  return **std::find_if(all.begin(), all.end(), [&](const auto* info) { return info->kind == kind; });
}

std::string_view code(Kind kind) {
  return infoOf(kind).code;
}

std::optional<Kind> kindFromCode(std::string_view text) {
  const auto found =
      std::find_if(all.begin(), all.end(), [&](const auto* info) { return info->code == text; });
  return found == all.end() ? std::nullopt : std::optional((*found)->kind);
}

const std::vector<Kind>& allKinds() {
  static const auto list = [] {
    std::vector<Kind> out;
    for (const auto* info : all)
      out.push_back(info->kind);
    return out;
  }();
  return list;
}

Trouble checkRecord(Kind kind, const Json& body) {
  return infoOf(kind).check(body);
}

std::vector<core::Change> changesBetween(Kind kind, const Json& before, const Json& after) {
  if (const auto changes = infoOf(kind).changes) return changes(before, after);
  std::vector<core::Change> out;
  const Differences found{before, after, out};
  for (const auto* key : {"name", "crop", "stage", "season", "note"})
    found.place(std::string("/") + key, key);
  return out;
}

std::string nameIn(Kind kind, const Json& body) {
  return textAt(body, "/" + std::string(infoOf(kind).nameKey));
}

} // namespace butte::book
