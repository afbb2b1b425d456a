#include "tank/tank_estimate.h"

#include <array>
#include <cmath>
#include <optional>

namespace butte::core {
namespace {

/// Keeps the score of one kind of reading.
struct Scoring {
  ForecastScore score;
  std::optional<double> last;
  double errors = 0, carried = 0;
  int compared = 0;

  void add(const ReadingCheck& check) {
    ++score.readings;
    if (check.read >= check.expected.low && check.read <= check.expected.high) ++score.within;
    if (last) {
      errors += std::abs(check.read - check.expected.value);
      carried += std::abs(check.read - *last);
      ++compared;
    }
    last = check.read;
  }
  ForecastScore done() const {
    auto out = score;
    if (compared > 0) {
      out.meanAbsError = errors / compared;
      out.meanAbsCarried = carried / compared;
    }
    return out;
  }
};

} // namespace

TankHistory historyOf(const TankStart& start, const std::vector<TankEntry>& log, bool everyDay) {
  TankHistory out{{}, {}, TankFilter(start.priors, start.content, start.relativeSd), {}, {}, {}};
  std::array<Scoring, 3> scores;
  out.estimates.push_back(out.now.estimate());
  for (const auto& entry : log) {
    while (everyDay && std::floor(out.now.day()) + 1 < entry.day) {
      out.now.advanceTo(std::floor(out.now.day()) + 1);
      out.estimates.push_back(out.now.estimate());
    }
    out.now.advanceTo(entry.day);
    for (const auto& check : out.now.take(entry.deed)) {
      scores[static_cast<std::size_t>(check.kind)].add(check);
      out.checks.push_back(check);
    }
    out.estimates.push_back(out.now.estimate());
  }
  out.conductivity = scores[static_cast<std::size_t>(ReadingKind::Conductivity)].done();
  out.ph = scores[static_cast<std::size_t>(ReadingKind::Ph)].done();
  out.level = scores[static_cast<std::size_t>(ReadingKind::Level)].done();
  return out;
}

} // namespace butte::core
