#pragma once
#include "base/result.h"
#include "practice.h"
#include "record.h"
#include "run/run_event.h"
#include "run/run_plan.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::book {

/// The vessel whose salts a run weighs, and the water that goes into it with them.
struct ForTank {
  std::string vesselUid;
  double waterLitres = 0;
};

/// A run at the bench as the book keeps it: what was planned and what was told, in order. Events are only
/// ever added. The body of a Kind::BenchRun record is this as JSON (docs/formats/book.md).
struct BenchRun {
  std::string name;
  std::string formulaUid;
  int formulaVersion = 0; ///< what the products and the water are
  std::vector<core::RunVessel> vessels;
  std::vector<std::string> products; ///< ids; a step's product is an index into them
  std::vector<core::RunEvent> events;
  std::string batchUid; ///< once it is finished; bags and practice become no batch
  std::string order;    ///< orderSchoolKey() of the order that was chosen; empty: the first, by chemistry
  std::optional<Practice> practice;
  std::optional<ForTank> forTank;

  bool isOfBags() const { return !vessels.empty() && vessels.front().isBag; }
  /// It became a batch, or its end was told.
  bool isFinished() const;
};

/// More vessels (or bags) no run has.
inline constexpr std::size_t mostVesselsOfRun = 500;

/// What a list has to know of a run, read off its body without its events.
struct BenchRunHead {
  bool isFinished = false, isOfBags = false, isPractice = false;
};
BenchRunHead benchRunHead(const Json& body);

/// Reads strictly: a Problem names the key, the value and what would be right.
core::Result<BenchRun> benchRunFromJson(const Json& json);
Json toJson(const BenchRun& run);
/// One event as it stands in the body's list.
Json toJson(const BenchRun& run, const core::RunEvent& event);
Json toJson(const BenchRun& run, const core::TrueEvent& event);
/// The vessels as they stand in the body.
Json vesselsToJson(const BenchRun& run);

} // namespace butte::book
