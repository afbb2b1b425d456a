#include "record_reader.h"

#include "record.h"

namespace butte::book {

using core::ProblemCode;

Moment momentIn(exchange::ObjectReader& reader, std::string_view key) {
  const auto text = reader.text(key).value_or("");
  const auto at = Moment::fromIso(text);
  if (!at)
    reader.fail(ProblemCode::OutOfRange, key,
                {"'" + text + "'", "a date and time such as 2026-03-02T07:15:00Z"});
  return at.value_or(Moment{});
}

std::string neededText(exchange::ObjectReader& reader, std::string_view key, const char* what) {
  auto text = reader.text(key).value_or("");
  if (text.empty()) reader.fail(ProblemCode::MissingKey, key, {what});
  return text;
}

} // namespace butte::book
