#pragma once
#include "record.h"

namespace butte::book {

/// Whether a body is a whole record of its kind: what the book refuses to keep otherwise.
Trouble checkRecord(Kind kind, const Json& body);

} // namespace butte::book
