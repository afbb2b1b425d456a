// What holds feed on the farm and is read with meters: reservoir, raft pond, bucket.
#include "kinds/kind_info.h"

#include "changes/json_changes.h"
#include "things/figures.h"

namespace butte::book {

using core::ProblemCode;
using exchange::ObjectReader;

namespace {

Trouble checkVessel(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  if (reader.text("name").value_or("").empty())
    reader.fail(ProblemCode::MissingKey, "name", {"a vessel needs the name that it has on the farm"});
  exchange::figure(reader, exchange::Dialect::Document, exchange::figures::tankVolume);
  reader.text("note");
  reader.finish();
  return problem;
}

std::vector<core::Change> vesselChanges(const Json& before, const Json& after) {
  std::vector<core::Change> out;
  const Differences found{before, after, out};
  for (const auto* key : {"name", "volume", "note"})
    found.place(std::string("/") + key, key);
  return out;
}

} // namespace

const KindInfo kinds::vessel{.kind = Kind::Vessel,
                             .code = "vessel",
                             .one = "vessel",
                             .many = "vessels",
                             .check = checkVessel,
                             .changes = vesselChanges};

} // namespace butte::book
