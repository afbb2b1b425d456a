#include "edit.h"

namespace butte::exchange {

namespace {

bool isIndex(const std::string& token) {
  return !token.empty() && token.find_first_not_of("0123456789") == std::string::npos;
}

/// A pointer may lengthen a list by one. (The library fills up to any index: a figure of ten digits would
/// fill the memory.)
void mustBeWithin(const Json& document, const Json::json_pointer& pointer) {
  constexpr std::size_t mostDigits = 9;
  std::vector<std::string> tokens;
  for (auto rest = pointer; !rest.empty(); rest.pop_back())
    tokens.push_back(rest.back());
  const Json* at = &document;
  for (auto token = tokens.rbegin(); token != tokens.rend(); ++token) {
    const bool list = isIndex(*token) && (!at || at->is_null() || at->is_array());
    const std::size_t size = at && at->is_array() ? at->size() : 0;
    const auto index = list && token->size() <= mostDigits ? std::stoul(*token) : size + (list ? 1 : 0);
    if (list && index > size) throw std::out_of_range("'" + *token + "' is beyond the end of its list");
    if (!at) continue;
    if (at->is_array())
      at = list && index < size ? &(*at)[index] : nullptr;
    else
      at = at->is_object() && at->contains(*token) ? &at->at(*token) : nullptr;
  }
}

} // namespace

void put(Json& document, const Change& change) {
  const Json::json_pointer pointer(change.pointer);
  mustBeWithin(document, pointer);
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
