#include "stock/strength_path.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double atSaturation = 1e-9; // in ln; nearer is there
constexpr double sameStrength = 1e-6; // in ln; a line through two nearer looks would show their rounding
constexpr double leastPathSlope =
    1; // of ln saturation by ln strength; a salt of two ions has 2 in thin solution

/// Lagrange's weights of these places for a value at x.
std::vector<double> weightsAt(double x, const std::vector<double>& places) {
  std::vector<double> weights;
  for (std::size_t i = 0; i < places.size(); ++i) {
    double weight = 1;
    for (std::size_t k = 0; k < places.size(); ++k) {
      if (k != i) weight *= (x - places[k]) / (places[i] - places[k]);
    }
    weights.push_back(weight);
  }
  return weights;
}

using Seen = std::vector<SaturationSeen>::const_iterator;

/// Where a rising curve through three looks crosses saturation; nothing where they do not rise.
std::optional<double> crossing(Seen first) {
  std::vector<double> saturations;
  for (auto at = first; at != first + 3; ++at)
    saturations.push_back(at->lnSaturation);
  if (!(saturations[0] < saturations[1] && saturations[1] < saturations[2])) return std::nullopt;
  const auto weights = weightsAt(0, saturations);
  double sum = 0;
  for (std::size_t i = 0; i < 3; ++i)
    sum += weights[i] * (first + static_cast<std::ptrdiff_t>(i))->lnMultiple;
  return sum;
}

/// The curve through lower, upper and the nearer of their neighbours, kept between the two.
std::optional<double> curvedBetween(const std::vector<SaturationSeen>& seen, Seen lower) {
  const auto upper = lower + 1;
  const bool below = lower != seen.begin(), above = upper + 1 != seen.end();
  if (!below && !above) return std::nullopt;
  const bool takeBelow =
      below && (!above || std::abs((lower - 1)->lnSaturation) < std::abs((upper + 1)->lnSaturation));
  const auto at = crossing(takeBelow ? lower - 1 : lower);
  if (!at || *at < lower->lnMultiple || *at > upper->lnMultiple) return std::nullopt;
  return at;
}

} // namespace

bool SaturationSeen::isReached() const {
  return lnSaturation >= -atSaturation;
}

std::optional<double> lnMultipleAtSaturation(const std::vector<SaturationSeen>& seen) {
  if (seen.empty() || !std::isfinite(seen.front().lnSaturation)) return std::nullopt;
  if (seen.size() == 1) return seen[0].lnMultiple - seen[0].lnSaturation / 2; // a salt of two ions
  auto upper = std::find_if(seen.begin(), seen.end(), [](const auto& p) { return p.isReached(); });
  const bool enclosed = upper != seen.end() && upper != seen.begin();
  if (upper == seen.begin()) ++upper;
  if (upper == seen.end()) --upper;
  const auto lower = upper - 1;
  if (enclosed) {
    if (const auto at = curvedBetween(seen, lower)) return at;
  }
  const double slope = (upper->lnSaturation - lower->lnSaturation) / (upper->lnMultiple - lower->lnMultiple);
  if (enclosed || slope >= leastPathSlope) return lower->lnMultiple - lower->lnSaturation / slope;
  // Hardly nearer as the tank gets stronger (other salts take its water): judged from the tank as it stands.
  const auto now = std::find_if(seen.begin(), seen.end(), [](const auto& p) { return p.lnMultiple >= 0; });
  return now->lnMultiple - now->lnSaturation / leastPathSlope;
}

void StrengthPath::add(double lnMultiple, Equilibrium settled) {
  if (!knows(lnMultiple)) m_known.push_back({lnMultiple, std::move(settled)});
}

bool StrengthPath::knows(double lnMultiple) const {
  return std::any_of(m_known.begin(), m_known.end(),
                     [&](const Known& k) { return std::abs(k.lnMultiple - lnMultiple) < sameStrength; });
}

std::optional<Equilibrium> StrengthPath::expected(double lnMultiple, const Solutes& totals) const {
  if (m_known.empty()) return std::nullopt;
  std::vector<const Known*> near;
  for (const auto& known : m_known)
    near.push_back(&known);
  std::sort(near.begin(), near.end(), [&](const Known* a, const Known* b) {
    return std::abs(a->lnMultiple - lnMultiple) < std::abs(b->lnMultiple - lnMultiple);
  });
  if (near.size() == 1) return near[0]->settled;
  if (near.size() > 3) near.resize(3);
  std::vector<double> places;
  for (const auto* known : near)
    places.push_back(known->lnMultiple);
  const auto weights = weightsAt(lnMultiple, places);
  const auto mean = [&](auto value) {
    double sum = 0;
    for (std::size_t i = 0; i < near.size(); ++i)
      sum += weights[i] * value(near[i]->settled);
    return sum;
  };
  Equilibrium out;
  out.given = totals;
  out.carbonateMol = totals.of(Component::Carbonate);
  out.lnHydrogen = mean([](const Equilibrium& e) { return e.lnHydrogen; });
  out.ionicStrength = std::exp(mean([](const Equilibrium& e) { return std::log(e.ionicStrength); }));
  out.waterActivity =
      std::min(1.0, std::exp(mean([](const Equilibrium& e) { return std::log(e.waterActivity); })));
  for (std::size_t c = 0; c < componentCount; ++c) {
    const bool there = std::isfinite(near[0]->settled.lnActivity[c]);
    out.lnActivity[c] =
        there ? mean([&](const Equilibrium& e) { return e.lnActivity[c]; }) : near[0]->settled.lnActivity[c];
  }
  return out;
}

} // namespace butte::core
