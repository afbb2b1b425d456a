#pragma once
#include "base/problem.h"
#include "base/result.h"
#include "json_fwd.h"

#include <nlohmann/json.hpp>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

namespace butte::exchange {

/// Lists and objects stand at most so deep in one another, in whatever is read: what walks through them goes
/// by calls.
inline constexpr int mostNesting = 64;
/// "its lists and objects stand 65 deep in one another ..."
core::Problem tooDeep(const std::string& where);

/// What one document or script may hold: more is refused in words, since the work would be waited for.
inline constexpr std::size_t mostProducts = 500, mostCrops = 50;
inline constexpr std::size_t longestName = 2000, longestText = 100000; ///< bytes

/// JSON of our own making that may have been damaged: a discarded value where it can't be read.
Json parsedOrNothing(std::string_view text);

/// Parses UTF-8 JSON whose top is an object. Errors: BadJson, DuplicateKey (a key twice in one object),
/// WrongType, OutOfRange (nested too deep).
core::Result<Json> parseJsonObject(std::string_view text);

/// Reads one JSON object strictly: wrong types and unknown keys become Problems that name the key's path.
/// The first problem sticks in the shared sink; later reads return defaults, so that callers need no checks
/// between.
class ObjectReader {
public:
  ObjectReader(const Json& object, std::string path, std::optional<core::Problem>& sink);

  bool has(std::string_view key) const;
  std::optional<double> number(std::string_view key);
  std::optional<std::string> text(std::string_view key);
  std::optional<bool> flag(std::string_view key);
  const Json* object(std::string_view key);
  const Json* array(std::string_view key);
  /// A problem where a list has more entries than its kind may hold (OutsideLimits).
  void mostIn(std::string_view key, std::size_t count);
  /// Marks a key as known and gives its value, whatever its type.
  const Json* any(std::string_view key);

  /// A problem at `key` of this object, unless one is already there.
  void fail(core::ProblemCode code, std::string_view key, std::vector<std::string> values);
  std::string pathOf(std::string_view key) const;
  bool failed() const { return m_sink.has_value(); }
  std::optional<core::Problem>& sink() { return m_sink; }

  /// Every key not read so far is unknown, unless it starts with "x_".
  void finish();

private:
  const Json& m_object;
  std::string m_path;
  std::optional<core::Problem>& m_sink;
  std::set<std::string, std::less<>> m_known;
};

/// "a number", "a text", "an object" ... for messages.
std::string typeName(const Json& value);

} // namespace butte::exchange
