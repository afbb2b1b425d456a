#include "stock/strength_curve.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace butte::core {
namespace {

constexpr double sameStrength = 1e-9;                           // in ln
constexpr double rung = 0.6931471805599453;                     // ln 2
constexpr int firstRung = 2, lowestRung = -14, highestRung = 6; // powers of two, mol of solutes per kg
constexpr double atSaturation = 1e-9;                           // in ln; nearer is there
constexpr double slopeStep = 0.02;                              // in ln
constexpr int mostSteps = 60;
constexpr double nearFalling = -1; // in ln

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

class Search {
public:
  using Point = StrengthCurve::Point;
  Search(StrengthCurve& curve, double molAtOne, std::vector<bool> counts)
      : m_curve(curve), m_lnOne(std::log(molAtOne)), m_counts(std::move(counts)) {}

  std::optional<FirstFall> run() {
    const auto here = at(firstRung);
    if (!here) return std::nullopt;
    auto enclosed = passes(*here) ? climbDown(*here) : climbUp(*here);
    if (!enclosed && passes(*m_last)) {
      leaveToTheWater(*m_last);
      enclosed = passes(*here) ? climbDown(*here) : climbUp(*here);
    }
    FirstFall out;
    if (enclosed)
      out = narrow(*std::move(enclosed));
    else if (m_top)
      out = *m_top;
    else
      out.at = *m_last;
    addSlopes(out);
    out.counts = m_counts;
    return out;
  }

private:
  struct Enclosed {
    Point below, above;
  };

  std::optional<Point> at(int step) {
    auto point = m_curve.at(step * rung - m_lnOne);
    if (point) m_last = point;
    return point;
  }
  double over(const Point& point, std::size_t solid) const { return point.lnSaturation[solid]; }
  bool passes(const Point& point) const {
    for (std::size_t i = 0; i < m_counts.size(); ++i) {
      if (m_counts[i] && over(point, i) > 0) return true;
    }
    return false;
  }

  /// What is passed in the thinnest solution falls at any strength.
  void leaveToTheWater(const Point& thinnest) {
    for (std::size_t i = 0; i < m_counts.size(); ++i) {
      if (over(thinnest, i) > 0) m_counts[i] = false;
    }
  }

  std::optional<Enclosed> climbUp(Point below) {
    std::optional<Point> beforeThat;
    for (int step = firstRung + 1; step <= highestRung; ++step) {
      auto above = at(step);
      if (!above) return std::nullopt;
      if (passes(*above)) return Enclosed{std::move(below), *std::move(above)};
      if (const auto leader = turnedRound(below, *above)) {
        auto top = topOf(*leader, beforeThat ? beforeThat->lnStrength : below.lnStrength, above->lnStrength);
        if (top && passes(*top)) return Enclosed{beforeThat.value_or(below), *std::move(top)};
        if (top) m_top = FirstFall{*std::move(top), *leader, {}, {}};
        return std::nullopt;
      }
      beforeThat = std::exchange(below, *std::move(above));
    }
    return std::nullopt;
  }

  /// The solid nearest to falling, where it was near and gets further away again: a hydrate near its melting
  /// point wants the water that the salts bind. Between the rungs it may have been passed; and where it just
  /// was not, its nearest point stays the ceiling, as on the day before.
  std::optional<std::size_t> turnedRound(const Point& below, const Point& above) const {
    std::optional<std::size_t> leader;
    for (std::size_t i = 0; i < m_counts.size(); ++i) {
      if (m_counts[i] && (!leader || over(below, i) > over(below, *leader))) leader = i;
    }
    if (leader && over(below, *leader) > nearFalling && over(above, *leader) < over(below, *leader))
      return leader;
    return std::nullopt;
  }

  /// The strength between two at which this solid stands highest.
  std::optional<Point> topOf(std::size_t solid, double low, double high) {
    std::optional<Point> best;
    for (int i = 0; i < 40; ++i) {
      const auto a = m_curve.at(low + (high - low) / 3), b = m_curve.at(high - (high - low) / 3);
      if (!a || !b) return best;
      const bool second = over(*b, solid) > over(*a, solid);
      (second ? low : high) = second ? a->lnStrength : b->lnStrength;
      best = second ? b : a;
      if (passes(*best)) break;
    }
    return best;
  }

  /// To where none is passed any more.
  std::optional<Enclosed> climbDown(Point above) {
    for (int step = firstRung - 1; step >= lowestRung; --step) {
      auto below = at(step);
      if (!below) return std::nullopt;
      if (!passes(*below)) return Enclosed{*std::move(below), std::move(above)};
      above = *std::move(below);
    }
    return std::nullopt;
  }

  /// Of those that are passed above, the one that a straight line says is passed first.
  std::size_t earliest(const Enclosed& e) const {
    std::size_t first = 0;
    double least = 2;
    for (std::size_t i = 0; i < m_counts.size(); ++i) {
      if (!m_counts[i] || !(over(e.above, i) > 0)) continue;
      const double share = -over(e.below, i) / (over(e.above, i) - over(e.below, i));
      if (share >= least) continue;
      least = share;
      first = i;
    }
    return first;
  }

  FirstFall narrow(Enclosed e) {
    FirstFall out;
    std::optional<Point> outside; // the end that was given up last
    for (int step = 0; step < mostSteps; ++step) {
      const auto solid = earliest(e);
      out.solid = solid;
      const double low = e.below.lnStrength, high = e.above.lnStrength;
      auto middle = m_curve.at(guess(e, outside, solid, step % 4 == 3));
      out.at = e.above;
      if (!middle || high - low < 1e-12) return out;
      if (std::abs(over(*middle, solid)) < atSaturation && earliestIs(*middle, solid)) {
        out.at = *std::move(middle);
        return out;
      }
      auto& end = passes(*middle) ? e.above : e.below;
      outside = std::exchange(end, *std::move(middle));
    }
    return out;
  }

  /// Where the curve through the ends (and the last one outside) crosses saturation; the middle where a bend
  /// holds the line at one end.
  double guess(const Enclosed& e, const std::optional<Point>& outside, std::size_t solid, bool halve) const {
    const double low = e.below.lnStrength, high = e.above.lnStrength;
    if (halve) return 0.5 * (low + high);
    const double a = over(e.below, solid), b = over(e.above, solid);
    const double line = low + (high - low) * std::clamp(-a / (b - a), 1e-4, 1 - 1e-4);
    if (!outside || over(*outside, solid) == a || over(*outside, solid) == b) return line;
    const auto weights = weightsAt(0, {a, b, over(*outside, solid)});
    const double curve = weights[0] * low + weights[1] * high + weights[2] * outside->lnStrength;
    return curve > low && curve < high ? curve : line;
  }
  /// True when no other solid is passed here.
  bool earliestIs(const Point& point, std::size_t solid) const {
    for (std::size_t i = 0; i < m_counts.size(); ++i) {
      if (i != solid && m_counts[i] && over(point, i) > atSaturation) return false;
    }
    return true;
  }

  void addSlopes(FirstFall& out) {
    out.slope.assign(m_counts.size(), 1);
    const auto below = m_curve.at(out.at.lnStrength - slopeStep);
    if (!below) return;
    for (std::size_t i = 0; i < m_counts.size(); ++i)
      out.slope[i] = (over(out.at, i) - over(*below, i)) / slopeStep;
  }

  StrengthCurve& m_curve;
  double m_lnOne;
  std::vector<bool> m_counts;
  std::optional<Point> m_last;
  std::optional<FirstFall> m_top; ///< the nearest point of a solid that comes near and turns round
};

} // namespace

StrengthCurve::StrengthCurve(Solutes perKgWater, Solutes waterPerKg, Temperature temperature,
                             std::vector<SolidPhase> solids)
    : m_perKg(std::move(perKgWater)), m_waterPerKg(std::move(waterPerKg)), m_solids(std::move(solids)) {
  m_conditions.temperature = temperature;
  m_conditions.lastStep = 1e-4; // leaves a hundredth of atSaturation open
}

Solutes StrengthCurve::totals(double lnStrength) const {
  Solutes sum = m_perKg.scaled(std::exp(lnStrength));
  sum.addScaled(m_waterPerKg, 1);
  return sum;
}

std::optional<StrengthCurve::Point> StrengthCurve::at(double lnStrength) {
  const auto there = totals(lnStrength);
  const auto start = expected(lnStrength, there);
  auto conditions = m_conditions;
  conditions.start = start ? &*start : nullptr;
  auto settled = equilibrate(there, conditions);
  if (!settled) return std::nullopt;
  Point out{lnStrength, {}, settled->ph};
  for (const auto& solid : m_solids)
    out.lnSaturation.push_back(settled->lnIonProduct(solid.dissolved) - solid.lnSolubilityProduct);
  const bool known = std::any_of(m_known.begin(), m_known.end(), [&](const Known& k) {
    return std::abs(k.lnStrength - lnStrength) < sameStrength;
  });
  if (!known) m_known.push_back({lnStrength, std::move(settled).value()});
  return out;
}

/// The state to expect, to start from: a curve through the nearest three that are known.
std::optional<Equilibrium> StrengthCurve::expected(double lnStrength, const Solutes& totals) const {
  if (m_known.empty()) return std::nullopt;
  std::vector<const Known*> near;
  for (const auto& known : m_known)
    near.push_back(&known);
  std::sort(near.begin(), near.end(), [&](const Known* a, const Known* b) {
    return std::abs(a->lnStrength - lnStrength) < std::abs(b->lnStrength - lnStrength);
  });
  if (near.size() == 1) return near[0]->settled;
  if (near.size() > 3) near.resize(3);
  std::vector<double> places;
  for (const auto* known : near)
    places.push_back(known->lnStrength);
  const auto weights = weightsAt(lnStrength, places);
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

std::optional<FirstFall> firstFall(StrengthCurve& curve, double molPerKgAtStrengthOne,
                                   const std::vector<bool>& counts) {
  return Search(curve, molPerKgAtStrengthOne, counts).run();
}

} // namespace butte::core
