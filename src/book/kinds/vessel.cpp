// What holds feed on the farm and is read with meters: reservoir, raft pond, bucket.
#include "book/vessel_facts.h"

#include "changes/json_changes.h"
#include "kinds/kind_info.h"

namespace butte::book {

namespace {

Trouble checkVessel(const Json& body) {
  const auto facts = vesselFactsFromJson(body);
  return facts ? Trouble() : Trouble(facts.problem());
}

std::vector<core::Change> vesselChanges(const Json& before, const Json& after) {
  std::vector<core::Change> out;
  const Differences found{before, after, out};
  for (const auto* key : {"name",
                          "volume",
                          "low",
                          "drunk_per_day",
                          "ground",
                          "plants",
                          "usual_temperature",
                          "crop",
                          "climate",
                          "filled_with_water",
                          "batch",
                          "drains_to_waste",
                          "open_to_rain",
                          "southern",
                          "stick_full",
                          "stick_low",
                          "shot",
                          "first_hour",
                          "last_hour",
                          "drain_percent",
                          "root_percent",
                          "rule_high_ec",
                          "rule_low_ec",
                          "rule_high_percent",
                          "rule_low_percent",
                          "rule_high_ph",
                          "rule_low_ph",
                          "note"})
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
