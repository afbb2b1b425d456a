#pragma once
#include "base/deed.h"
#include "base/result.h"
#include "json_reader.h"

#include <string>
#include <vector>

namespace butte::exchange {

/// One change of one place in a document, with its inverse inside it: a value that can be stored and
/// replayed.
struct Change {
  std::string pointer; ///< JSON pointer (RFC 6901)
  Json before;         ///< null: the place did not exist
  Json after;          ///< null: the place goes away
};

/// What a grower did in one go.
struct Edit {
  core::Deed deed;
  std::vector<Change> changes;
  std::string mergeKey; ///< edits with the same key that follow each other become one step of undo
};

/// Makes one change in place. Throws nlohmann's exceptions where the pointer leads nowhere.
void put(Json& document, const Change& change);

/// The document after the edit, not yet read: whoever keeps it reads it strictly first. Errors: a pointer
/// that leads nowhere.
core::Result<Json> withChanges(const Json& document, const Edit& edit);

/// The edit that takes it back.
Edit inverse(const Edit& edit);

} // namespace butte::exchange
