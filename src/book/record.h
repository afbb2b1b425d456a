#pragma once
#include "base/change.h"
#include "base/deed.h"
#include "book/kinds/kind.h"
#include "json_reader.h"
#include "moment.h"

#include <compare>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace butte::book {

using exchange::Json;
/// What stood in the way; nothing when all went well. Not to be dropped without a word.
class [[nodiscard]] Trouble : public std::optional<core::Problem> {
public:
  using std::optional<core::Problem>::optional;
  Trouble(const std::optional<core::Problem>& problem) : optional(problem) {}
  Trouble(std::optional<core::Problem>&& problem) : optional(std::move(problem)) {}
};

/// Names one record of the book for good. A reading's uid is its number; the others have a random UUID.
struct Ref {
  Kind kind = Kind::Formula;
  std::string uid;
  auto operator<=>(const Ref&) const = default;
};
Ref freshRef(Kind kind);

/// One thing as it stands: what was typed (docs/formats/book.md says which keys each kind has).
struct Record {
  Ref ref;
  Json body;
  std::optional<Moment> binnedAt; ///< in the bin since
};

/// One line of a list.
struct RecordHead {
  Ref ref;
  std::string name, crop;
  Moment changedAt;
  std::optional<Moment> binnedAt;
};

/// One change of one record, with its inverse in it. The pointer (RFC 6901) goes into
/// {"body": ..., "binned_at": ...}; "" is the whole record coming into being.
struct RecordChange {
  Ref ref;
  std::string pointer;
  Json before, after; ///< null: not there
};

/// What a person did in one go.
struct Step {
  std::int64_t number = 0; ///< given by the store
  Moment at;
  std::string who; ///< initials
  core::Deed deed; ///< "potassium sulfate held at 22.7 kg", not yet in words
  std::string mergeKey;
  std::vector<RecordChange> changes;
};

/// A state of a thing that was used, printed or named: it never changes again.
struct Version {
  std::string thingUid;
  int number = 0;
  Moment at;
  std::string who;
  std::string why;                   ///< "used", "printed", "named", "brought in", "gone back"
  std::string name;                  ///< when named
  std::vector<core::Change> changes; ///< since the version before; not yet in words
  Json body;
};

} // namespace butte::book
