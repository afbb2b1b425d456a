#include "practice/mishaps.h"

#include <algorithm>
#include <random>

namespace butte::core {

namespace {

constexpr std::array<std::string_view, 5> mishapKeys{"draught", "mislabelled_cup", "wont_dissolve",
                                                     "drifting_pen", "swapped_cups"};

/// Not a std::distribution: those differ from one standard library to the next.
std::size_t below(std::mt19937_64& random, std::size_t end) {
  return static_cast<std::size_t>(random() % end);
}

template <class Of> void shuffle(std::vector<Of>& list, std::mt19937_64& random) {
  for (auto i = list.size(); i > 1; --i)
    std::swap(list[i - 1], list[below(random, i)]);
}

struct Place {
  std::size_t vessel = 0, product = 0;
};

} // namespace

std::string_view mishapKey(Mishap mishap) {
  return mishapKeys[static_cast<std::size_t>(mishap)];
}

std::optional<Mishap> mishapFromKey(std::string_view key) {
  const auto known = std::find(mishapKeys.begin(), mishapKeys.end(), key);
  if (known == mishapKeys.end()) return std::nullopt;
  return static_cast<Mishap>(known - mishapKeys.begin());
}

std::vector<PlannedMishap> seedMishaps(const RunPlan& plan, std::uint64_t seed) {
  std::mt19937_64 random(seed);
  std::vector<Place> places;
  std::vector<std::size_t> products;
  for (std::size_t v = 0; v < plan.vessels.size(); ++v)
    for (const auto& step : plan.vessels[v].steps) {
      if (plan.shelf[step.product].liquid) continue; // nobody takes acid for a salt, nor stirs it for long
      places.push_back({v, step.product});
      if (std::find(products.begin(), products.end(), step.product) == products.end())
        products.push_back(step.product);
    }
  shuffle(places, random);
  std::vector<Mishap> kinds(allMishaps.begin(), allMishaps.end());
  shuffle(kinds, random);
  constexpr std::size_t fewest = 3;
  kinds.resize(fewest + below(random, kinds.size() - fewest + 1));
  std::vector<PlannedMishap> out;
  for (const auto kind : kinds) {
    if (kind == Mishap::DriftingPen) {
      const auto vessel = below(random, plan.vessels.size());
      out.push_back({kind, vessel, 0, 0});
      continue;
    }
    const bool needsAnother = kind == Mishap::MislabelledCup || kind == Mishap::SwappedCups;
    if (places.empty() || (needsAnother && products.size() < 2)) continue;
    const auto place = places.back();
    places.pop_back();
    auto other = place.product;
    while (needsAnother && other == place.product)
      other = products[below(random, products.size())];
    out.push_back({kind, place.vessel, place.product, other});
  }
  return out;
}

} // namespace butte::core
