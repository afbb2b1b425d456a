#include "document/record_edit.h"

#include "edit.h"

namespace butte::app {

book::Trouble setInRecord(book::Book& book, const book::Ref& ref, exchange::Json& body,
                          const std::string& pointer, const exchange::Json& value, const std::string& words) {
  const exchange::Json::json_pointer place(pointer);
  const auto before = body.contains(place) ? body[place] : exchange::Json();
  if (auto trouble = book.applyGathering(
          {0, {}, {}, words, ref.uid + pointer, {{ref, "/body" + pointer, before, value}}}))
    return trouble;
  exchange::put(body, {pointer, before, value});
  return std::nullopt;
}

} // namespace butte::app
