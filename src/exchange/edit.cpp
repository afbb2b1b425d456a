#include "edit.h"

#include "formula_document.h"

namespace butte::exchange {

void put(Json& document, const Change& change) {
  const Json::json_pointer pointer(change.pointer);
  if (!change.after.is_null()) {
    document[pointer] = change.after;
    return;
  }
  auto& parent = document[pointer.parent_pointer()];
  if (parent.is_object())
    parent.erase(pointer.back());
  else if (parent.is_array())
    parent.erase(std::stoul(pointer.back()));
}

core::Result<Json> applied(const Json& document, const Edit& edit) {
  Json next = document;
  try {
    for (const auto& change : edit.changes)
      put(next, change);
  } catch (const std::exception& error) {
    return core::problemAt(core::ProblemCode::BadJson, "edit", {error.what()});
  }
  const auto read = readFormulaDocument(next);
  if (!read) return read.problem();
  return next;
}

Edit inverse(const Edit& edit) {
  Edit back{edit.words, {}, {}};
  for (auto it = edit.changes.rbegin(); it != edit.changes.rend(); ++it)
    back.changes.push_back({it->pointer, it->after, it->before});
  return back;
}

Json toJson(const Edit& edit) {
  Json changes = Json::array();
  for (const auto& c : edit.changes)
    changes.push_back({{"pointer", c.pointer}, {"before", c.before}, {"after", c.after}});
  return Json{{"words", edit.words}, {"changes", changes}};
}

core::Result<Edit> editFromJson(const Json& json) {
  std::optional<core::Problem> problem;
  ObjectReader reader(json, "edit", problem);
  Edit edit;
  edit.words = reader.text("words").value_or("");
  if (const auto* changes = reader.array("changes")) {
    for (const auto& entry : *changes) {
      ObjectReader change(entry, "edit.changes", problem);
      Change out;
      out.pointer = change.text("pointer").value_or("");
      if (const auto* before = change.any("before")) out.before = *before;
      if (const auto* after = change.any("after")) out.after = *after;
      change.finish();
      edit.changes.push_back(std::move(out));
    }
  }
  reader.finish();
  if (problem) return *problem;
  return edit;
}

} // namespace butte::exchange
