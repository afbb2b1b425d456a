#include "stock/split.h"

#include <algorithm>
#include <numeric>

namespace butte::core {
namespace {

using Shares = std::vector<std::vector<double>>;

void place(Shares& shares, std::size_t product, std::size_t tank) {
  std::fill(shares[product].begin(), shares[product].end(), 0.0);
  shares[product][tank] = 1;
}

double load(const Shares& shares, const std::vector<Concentration>& feed, std::size_t tank) {
  double sum = 0;
  for (std::size_t j = 0; j < feed.size(); ++j)
    sum += shares[j][tank] * feed[j].gramsPerLitre();
  return sum;
}

/// The neutral salts, heaviest first: the heaviest is divided so that both tanks weigh the same, the others
/// go to the lighter side. Where one side is empty there is nothing to keep apart, and one tank will do.
void level(Shares& shares, const std::vector<Concentration>& feed, std::vector<std::size_t> neutral) {
  const bool firstHolds = load(shares, feed, 0) > 0, secondHolds = load(shares, feed, 1) > 0;
  if (!firstHolds || !secondHolds) {
    for (const auto j : neutral)
      place(shares, j, secondHolds ? 1 : 0);
    return;
  }
  std::stable_sort(neutral.begin(), neutral.end(), [&](auto a, auto b) { return feed[a] > feed[b]; });
  for (std::size_t i = 1; i < neutral.size(); ++i)
    place(shares, neutral[i], load(shares, feed, 0) < load(shares, feed, 1) ? 0 : 1);
  if (neutral.empty()) return;
  const auto divided = neutral.front();
  const double amount = feed[divided].gramsPerLitre();
  if (amount <= 0) return;
  const double gap = load(shares, feed, 1) - load(shares, feed, 0);
  const double toFirst = std::clamp(0.5 + gap / (2 * amount), 0.0, 1.0);
  // A tenth of it in the other tank is not worth a second weighing.
  const double share = toFirst < 0.1 ? 0 : toFirst > 0.9 ? 1 : toFirst;
  shares[divided][0] = share;
  shares[divided][1] = 1 - share;
}

} // namespace

std::vector<std::vector<double>> splitByRules(const std::vector<ShelfProduct>& shelf,
                                              const std::vector<Concentration>& feed, const StockPlan& plan) {
  const auto tanks = plan.tanks.size();
  Shares shares(shelf.size(), std::vector<double>(tanks, 0.0));
  if (tanks == 0) return shares;
  const std::size_t other = tanks > 1 ? 1 : 0;
  std::vector<std::size_t> neutral;
  for (std::size_t j = 0; j < shelf.size(); ++j) {
    if (const auto byHand = plan.shares.find(shelf[j].id); byHand != plan.shares.end()) {
      shares[j] = byHand->second;
      continue;
    }
    switch (shelf[j].composition.side) {
    case StockSide::Calcium:
      place(shares, j, 0);
      break;
    case StockSide::SulfatePhosphate:
      place(shares, j, other);
      break;
    case StockSide::Either:
      if (tanks == 1)
        place(shares, j, 0);
      else if (feed[j] > Concentration{})
        neutral.push_back(j);
      break;
    case StockSide::Apart:
      break;
    }
  }
  if (tanks > 1) level(shares, feed, std::move(neutral));
  return shares;
}

} // namespace butte::core
