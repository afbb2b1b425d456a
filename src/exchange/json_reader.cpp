#include "json_reader.h"

#include "base/decimal.h"

#include <algorithm>
#include <cmath>
#include <iterator>

namespace butte::exchange {

using core::problemAt;
using core::ProblemCode;

namespace {

std::string joined(const std::set<std::string, std::less<>>& names) {
  std::string out;
  for (const auto& name : names)
    out += (out.empty() ? "" : " ") + name;
  return out;
}

/// nlohmann keeps silent about a key given twice; a typing error must not be ignored.
class DuplicateWatch {
public:
  bool operator()(int depth, Json::parse_event_t event, Json& value) {
    if (depth > mostNesting) throw nlohmann::json::other_error::create(500, "nested too deep", nullptr);
    if (event == Json::parse_event_t::object_start) m_keys.resize(static_cast<std::size_t>(depth) + 2);
    if (event == Json::parse_event_t::object_start) m_keys[static_cast<std::size_t>(depth) + 1].clear();
    if (event == Json::parse_event_t::key) {
      const auto& key = value.get_ref<const std::string&>();
      if (!m_keys[static_cast<std::size_t>(depth)].insert(key).second && duplicate.empty()) duplicate = key;
    }
    return true;
  }
  std::string duplicate;

private:
  std::vector<std::set<std::string>> m_keys;
};

/// Lists whose work grows faster than they do. A shelf of so many is answered within a second everywhere.
constexpr std::pair<std::string_view, std::size_t> mostOf[] = {{"products", mostProducts},
                                                               {"shelf", mostProducts},
                                                               {"crops", mostCrops},
                                                               {"tanks", 50},
                                                               {"parts", 50},
                                                               {"waters", 2000},
                                                               {"readings", 1000},
                                                               {"scales", 50},
                                                               {"rows", 500},
                                                               {"ratios", 200}};

/// Names are painted on every line and label; what else is typed is a note at most.
std::size_t longest(std::string_view key) {
  constexpr std::string_view names[] = {"name", "crop",       "stage", "season", "lot",
                                        "who",  "laboratory", "id",    "uid"};
  return std::find(std::begin(names), std::end(names), key) != std::end(names) ? longestName : longestText;
}

} // namespace

std::string typeName(const Json& value) {
  if (value.is_number()) return "a number";
  if (value.is_string()) return "a text";
  if (value.is_boolean()) return "true or false";
  if (value.is_object()) return "an object";
  if (value.is_array()) return "a list";
  return "null";
}

core::Problem tooDeep(const std::string& where) {
  return problemAt(
      ProblemCode::OutOfRange, where,
      {"its nesting", "lists and objects at most " + std::to_string(mostNesting) + " deep in one another"});
}

Json parsedOrNothing(std::string_view text) {
  bool deep = false;
  auto out = Json::parse(
      text,
      [&](int depth, Json::parse_event_t, Json&) {
        deep = deep || depth > mostNesting;
        return !deep; // what stands deeper is thrown away as it is read
      },
      false);
  return deep ? Json(Json::value_t::discarded) : out;
}

core::Result<Json> parseJsonObject(std::string_view text) {
  DuplicateWatch watch;
  try {
    auto json = Json::parse(text, std::ref(watch));
    if (!watch.duplicate.empty())
      return problemAt(ProblemCode::DuplicateKey, watch.duplicate, {watch.duplicate, watch.duplicate});
    if (!json.is_object()) return problemAt(ProblemCode::WrongType, "input", {"an object", typeName(json)});
    return json;
  } catch (const nlohmann::json::other_error&) {
    return tooDeep("input");
  } catch (const nlohmann::json::exception& error) {
    std::string what = error.what();
    if (const auto bracket = what.find("] "); bracket != std::string::npos) what.erase(0, bracket + 2);
    return problemAt(ProblemCode::BadJson, "input", {what});
  }
}

ObjectReader::ObjectReader(const Json& object, std::string path, std::optional<core::Problem>& sink)
    : m_object(object), m_path(std::move(path)), m_sink(sink) {
  if (!object.is_object() && !m_sink)
    m_sink = problemAt(ProblemCode::WrongType, m_path, {"an object", typeName(object)});
}

std::string ObjectReader::pathOf(std::string_view key) const {
  return m_path.empty() ? std::string(key) : m_path + "." + std::string(key);
}

void ObjectReader::fail(ProblemCode code, std::string_view key, std::vector<std::string> values) {
  if (!m_sink) m_sink = problemAt(code, pathOf(key), std::move(values));
}

bool ObjectReader::has(std::string_view key) const {
  return m_object.is_object() && m_object.contains(key);
}

const Json* ObjectReader::any(std::string_view key) {
  m_known.emplace(key);
  return has(key) ? &m_object.at(std::string(key)) : nullptr;
}

std::optional<double> ObjectReader::number(std::string_view key) {
  const auto* value = any(key);
  if (!value) return std::nullopt;
  if (!value->is_number()) {
    fail(ProblemCode::WrongType, key, {"a number", typeName(*value)});
    return std::nullopt;
  }
  const double number = value->get<double>();
  if (core::isFigure(number)) return number;
  const double end = number < 0 ? -core::mostFigure : core::mostFigure;
  const bool tiny = std::abs(number) < core::leastFigure;
  fail(ProblemCode::OutsideLimits, key,
       {core::decimalText(number),
        core::decimalText(tiny ? std::copysign(core::leastFigure, number) : -core::mostFigure),
        core::decimalText(tiny ? end : core::mostFigure), ""});
  return std::nullopt;
}

std::optional<std::string> ObjectReader::text(std::string_view key) {
  const auto* value = any(key);
  if (!value) return std::nullopt;
  if (!value->is_string()) {
    fail(ProblemCode::WrongType, key, {"a text", typeName(*value)});
    return std::nullopt;
  }
  const auto& text = value->get_ref<const std::string&>();
  if (text.size() > longest(key)) {
    fail(ProblemCode::OutsideLimits, key,
         {std::to_string(text.size()), "", std::to_string(longest(key)), "letters"});
    return std::nullopt;
  }
  return text;
}

std::optional<bool> ObjectReader::flag(std::string_view key) {
  const auto* value = any(key);
  if (!value) return std::nullopt;
  if (!value->is_boolean()) {
    fail(ProblemCode::WrongType, key, {"true or false", typeName(*value)});
    return std::nullopt;
  }
  return value->get<bool>();
}

const Json* ObjectReader::object(std::string_view key) {
  const auto* value = any(key);
  if (value && !value->is_object()) {
    fail(ProblemCode::WrongType, key, {"an object", typeName(*value)});
    return nullptr;
  }
  return value;
}

const Json* ObjectReader::array(std::string_view key) {
  const auto* value = any(key);
  if (value && !value->is_array()) {
    fail(ProblemCode::WrongType, key, {"a list", typeName(*value)});
    return nullptr;
  }
  if (value) mostIn(key, value->size());
  return failed() ? nullptr : value;
}

void ObjectReader::mostIn(std::string_view key, std::size_t count) {
  for (const auto& [list, most] : mostOf)
    if (list == key && count > most)
      fail(ProblemCode::OutsideLimits, key, {std::to_string(count), "", std::to_string(most), "entries"});
}

void ObjectReader::finish() {
  if (!m_object.is_object()) return;
  for (const auto& [key, value] : m_object.items()) {
    if (!m_known.contains(key) && !key.starts_with("x_"))
      fail(ProblemCode::UnknownKey, key, {joined(m_known)});
  }
}

} // namespace butte::exchange
