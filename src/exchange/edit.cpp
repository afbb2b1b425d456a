#include "edit.h"

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

core::Result<Json> withChanges(const Json& document, const Edit& edit) {
  Json next = document;
  try {
    for (const auto& change : edit.changes)
      put(next, change);
  } catch (const std::exception& error) {
    return core::problemAt(core::ProblemCode::BadJson, "edit", {error.what()});
  }
  return next;
}

Edit inverse(const Edit& edit) {
  Edit back{edit.deed, {}, {}};
  for (auto it = edit.changes.rbegin(); it != edit.changes.rend(); ++it)
    back.changes.push_back({it->pointer, it->after, it->before});
  return back;
}

} // namespace butte::exchange
