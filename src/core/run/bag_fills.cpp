#include "run/bag_fills.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

namespace {

void add(FillStatistics& kind, std::size_t vessel, Mass mass) {
  const bool outside = std::abs((mass - kind.wanted).grams()) > kind.tolerance.grams();
  kind.fills.push_back({vessel, mass, outside});
  kind.outside += outside ? 1 : 0;
}

void reckon(FillStatistics& kind) {
  if (kind.fills.empty()) return;
  const auto count = static_cast<double>(kind.fills.size());
  double sum = 0, squares = 0;
  kind.least = kind.most = kind.fills.front().mass;
  for (const auto& fill : kind.fills) {
    sum += fill.mass.grams();
    kind.least = std::min(kind.least, fill.mass);
    kind.most = std::max(kind.most, fill.mass);
  }
  kind.mean = Mass::fromGrams(sum / count);
  for (const auto& fill : kind.fills)
    squares += std::pow((fill.mass - kind.mean).grams(), 2);
  if (kind.fills.size() < 2) return;
  const double deviation = std::sqrt(squares / (count - 1));
  kind.deviation = Mass::fromGrams(deviation);
  constexpr std::size_t enoughToTell = 5;
  constexpr double quarter = 0.25;
  const double off = std::abs((kind.mean - kind.wanted).grams());
  kind.isShifted = kind.fills.size() >= enoughToTell && off > 2 * deviation / std::sqrt(count) &&
                   off > quarter * kind.tolerance.grams();
}

} // namespace

std::vector<FillStatistics> bagFills(const RunPlan& plan, const RunState& state) {
  std::vector<FillStatistics> out;
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    if (!plan.vessels[v].isBag) continue;
    for (const auto& step : plan.vessels[v].steps) {
      const auto wanted = wantedOf(state, step);
      auto kind = std::find_if(out.begin(), out.end(), [&](const FillStatistics& one) {
        return one.product == step.product && one.wanted == wanted;
      });
      if (kind == out.end()) {
        out.push_back({step.product, wanted, step.tolerance * state.ratio, 0, {}, {}, {}, {}, {}, 0, false});
        kind = out.end() - 1;
      }
      ++kind->bags;
      const auto in = state.vessels[v].of[step.product].in;
      if (in > Mass{}) add(*kind, v, in);
    }
  }
  for (auto& kind : out)
    reckon(kind);
  return out;
}

RunPlan
bagPlan(const RunPlan& vessels, std::size_t count,
        const std::function<std::string(std::size_t vessel, std::size_t product, std::size_t bag)>& nameOf) {
  RunPlan out{vessels.shelf, vessels.water, {}};
  for (std::size_t v = 0; v < vessels.vessels.size(); ++v) {
    const auto& vessel = vessels.vessels[v];
    for (const auto& step : vessel.steps)
      for (std::size_t bag = 0; bag < count; ++bag)
        out.vessels.push_back({nameOf(v, step.product, bag), vessel.volume * vessel.factor, 1, {step}, true});
  }
  return out;
}

} // namespace butte::core
