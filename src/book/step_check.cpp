#include "step_check.h"

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

namespace {

bool isPointer(const std::string& text) {
  try {
    return !Json::json_pointer(text).empty();
  } catch (const nlohmann::json::exception&) {
    return false;
  }
}

bool isRecord(const Json& value) {
  return value.is_object() && value.contains("body") && value["body"].is_object();
}

Trouble checkValues(const RecordChange& change, const std::string& where) {
  for (const auto& [key, value] : {std::pair("before", &change.before), std::pair("after", &change.after)}) {
    const bool whole = change.pointer.empty();
    const bool right = whole                            ? value->is_null() || isRecord(*value)
                       : change.pointer == "/binned_at" ? value->is_null() || value->is_number_integer()
                       : change.pointer == "/body"      ? value->is_object()
                                                        : true;
    if (!right)
      return problemAt(ProblemCode::WrongType, where + "." + key,
                       {whole                            ? "a record with its body"
                        : change.pointer == "/binned_at" ? "seconds, or null"
                                                         : "an object",
                        exchange::typeName(*value)});
  }
  if (change.pointer.empty() && change.after.is_null())
    return problemAt(ProblemCode::WrongType, where + ".after", {"a record with its body", "null"});
  return std::nullopt;
}

} // namespace

Trouble checkStep(const Step& step) {
  for (std::size_t i = 0; i < step.changes.size(); ++i) {
    const auto& change = step.changes[i];
    const auto where = "changes[" + std::to_string(i) + "]";
    const auto& to = change.pointer;
    const bool known = to.empty() || to == "/binned_at" || to == "/body" || to.starts_with("/body/");
    if (!known || (!to.empty() && !isPointer(to)))
      return problemAt(ProblemCode::OutOfRange, where + ".pointer",
                       {"'" + to + "'", "empty, /binned_at, /body or a place in it"});
    if (auto trouble = checkValues(change, where)) return trouble;
  }
  return std::nullopt;
}

} // namespace butte::book
