#include "stock/pre_stock.h"

#include "stock/tank_model.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace butte::core {
namespace {

constexpr int mostFills = 1000;
constexpr double leastReserve = 1.25; // of the ceiling over the strength
constexpr std::array<double, 7> usualMeasuresMl{10, 20, 50, 100, 200, 500, 1000};

/// Whole fills that bring a weight to 2 %, rounded up to a handy number.
int handy(double fills) {
  for (int decade = 1; decade <= mostFills; decade *= 10) {
    for (const int step : {1, 2, 5}) {
      if (step * decade >= fills) return step * decade;
    }
  }
  return mostFills + 1;
}

const Scale& finest(const std::vector<Scale>& scales) {
  return *std::min_element(scales.begin(), scales.end(),
                           [](const Scale& a, const Scale& b) { return a.readability < b.readability; });
}

/// A pre-stock is weighed: spoons are no help for it.
std::vector<Scale> withoutSpoons(std::vector<Scale> scales) {
  std::erase_if(scales, [](const Scale& scale) { return scale.spoons; });
  return scales;
}

class Bottle {
public:
  Bottle(const std::vector<ShelfProduct>& shelf, const std::vector<Scale>& scales, Temperature coldest)
      : m_shelf(shelf), m_scales(scales), m_coldest(coldest) {}

  std::optional<PreStock> forTank(const TankContent& content) const {
    std::vector<Mass> weights(m_shelf.size());
    for (const auto& item : content.items)
      weights[item.product] = item.mass;
    PreStock out;
    double fills = 1;
    for (const auto& step : weighPlan(m_shelf, weights, m_scales)) {
      if (!step.tooFine || m_shelf[step.product].liquid) continue;
      out.items.push_back({step.product, step.exact, {}, 0, 0});
      fills = std::max(fills, 50 * (finest(m_scales).readability / step.exact) / coarsePercent);
    }
    out.fills = handy(fills);
    if (out.items.empty() || out.fills > mostFills) return std::nullopt;
    weigh(out);
    measure(out);
    return out;
  }

private:
  void weigh(PreStock& out) const {
    std::vector<Mass> whole(m_shelf.size());
    for (auto& item : out.items)
      whole[item.product] = item.toWeigh = item.perFill * out.fills;
    for (const auto& step : weighPlan(m_shelf, whole, m_scales)) {
      for (auto& item : out.items) {
        if (item.product != step.product) continue;
        item.scale = step.scale;
        item.errorPercent = step.errorPercent;
      }
    }
  }

  /// The smallest measure in which all stays clear.
  void measure(PreStock& out) const {
    for (const double ml : usualMeasuresMl) {
      out.perFill = Volume::fromMillilitres(ml);
      std::vector<Concentration> strength(m_shelf.size());
      for (const auto& item : out.items)
        strength[item.product] = item.perFill / out.perFill;
      const TankModel model(m_shelf, strength, {}, m_coldest, 1);
      const auto ceiling = model.ceiling();
      out.solubilityKnown = std::all_of(out.items.begin(), out.items.end(),
                                        [&](const PreStockItem& item) { return model.known(item.product); });
      out.clear = !ceiling || ceiling->factor >= leastReserve;
      if (out.clear) break;
    }
    out.bottle = out.perFill * out.fills;
  }

  const std::vector<ShelfProduct>& m_shelf;
  const std::vector<Scale>& m_scales;
  Temperature m_coldest;
};

} // namespace

std::vector<PreStock> preStocks(const std::vector<ShelfProduct>& shelf, const std::vector<TankContent>& tanks,
                                const std::vector<Scale>& scales, Temperature coldest) {
  std::vector<PreStock> out;
  const auto weighing = withoutSpoons(scales);
  if (weighing.empty()) return out;
  const Bottle bottle(shelf, weighing, coldest);
  for (std::size_t t = 0; t < tanks.size(); ++t) {
    auto found = bottle.forTank(tanks[t]);
    if (!found) continue;
    found->tank = t;
    out.push_back(std::move(*found));
  }
  return out;
}

} // namespace butte::core
