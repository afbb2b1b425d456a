// A run at the bench: its plan and all that was told of it.
#include "book/bench_run.h"

#include "kinds/kind_info.h"

namespace butte::book {

namespace {
Trouble checkBenchRun(const Json& body) {
  const auto run = benchRunFromJson(body);
  return run ? Trouble() : Trouble(run.problem());
}
} // namespace

const KindInfo kinds::benchRun{.kind = Kind::BenchRun,
                               .code = "bench_run",
                               .one = "run at the bench",
                               .many = "runs at the bench",
                               .check = checkBenchRun,
                               .isListed = false};

} // namespace butte::book
