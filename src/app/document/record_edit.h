#pragma once
#include "book/book.h"

namespace butte::app {

/// The usual edit of a record in the book: one place of its body gets a new value, kept at once and bundled
/// with the keys that follow. `body` follows when it went well; null takes the place away.
book::Trouble setInRecord(book::Book& book, const book::Ref& ref, exchange::Json& body,
                          const std::string& pointer, const exchange::Json& value, const std::string& words);

} // namespace butte::app
