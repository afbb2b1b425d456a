#include "solve/obstacles.h"

#include "units/constants.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace butte::core {

using Eigen::Index;
using Eigen::RowVectorXd;
using Eigen::VectorXd;

namespace {
/// A limit counts when giving way by its own size moves the element by more than this share of its own.
constexpr double smallestEffect = 1e-7;
} // namespace

ObstacleSearch::ObstacleSearch(const SolveRequest& request, const LinearModel& model, const VectorXd& x)
    : m_request(request), m_model(model), m_x(x) {}

Obstacles ObstacleSearch::of(Index row, int direction) {
  Obstacles out;
  if (m_x.size() == 0) return out;
  if (!m_search) {
    for (const auto& edge : m_model.bands) {
      const double reached = edge.row.dot(m_x);
      // Where it stands already it may stay; the hair keeps rounding from closing the door.
      m_most.push_back(std::max(edge.most, reached + 1e-9 / edge.violationPerUnit));
    }
    m_search.emplace(withBands(m_model, m_most), m_x);
  }
  const Index firstEdge = m_model.limits.inequality.rows();
  const auto own = [&](std::size_t e) { return m_model.bands[e].wish == static_cast<std::size_t>(row); };
  for (std::size_t e = 0; e < m_model.bands.size(); ++e)
    m_search->setMost(firstEdge + static_cast<Index>(e), own(e) ? constant::infinity : m_most[e]);
  const auto value = m_search->least(-direction * m_model.perGram.row(row));
  if (!value) {
    out.reachesBand = true; // nothing holds it at all
    out.reachable = m_model.wanted[row];
    return out;
  }
  const auto& target = m_request.rows[static_cast<std::size_t>(row)];
  const double reached = m_model.base[row] - direction * *value;
  out.reachesBand = direction > 0 ? reached >= target.bandLow() - 1e-7 * target.divisor()
                                  : reached <= target.bandHigh() + 1e-7 * target.divisor();
  out.reachable = direction > 0 ? std::min(reached, target.milligramsPerLitre)
                                : std::max(reached, target.milligramsPerLitre);
  if (!out.reachesBand) collect(row, direction, out);
  return out;
}

void ObstacleSearch::collect(Index row, int direction, Obstacles& out) {
  m_movers.clear();
  for (Index j = 0; j < m_x.size(); ++j) {
    if (m_model.perGram(row, j) > 0 && couldMove(j, direction)) m_movers.push_back(j);
  }
  std::vector<Holding> found;
  const double own = 1 / m_model.fitWeight[row];
  const auto& limits = m_model.limits;
  const auto keep = [&](Holding::Kind kind, Index index, double change) {
    if (change / own > smallestEffect) found.push_back({kind, index, change / own});
  };
  const Index caps = limits.inequality.rows();
  for (Index i = 0; i < caps; ++i)
    keep(Holding::Inequality, i, m_search->reliefOfInequality(i) * std::max(1.0, limits.inequalityRhs[i]));
  for (std::size_t e = 0; e < m_model.bands.size(); ++e) {
    const Index i = caps + static_cast<Index>(e);
    keep(Holding::Inequality, i, m_search->reliefOfInequality(i) / m_model.bands[e].violationPerUnit);
  }
  for (Index j = 0; j < m_x.size(); ++j)
    keep(Holding::Bound, j, std::abs(m_search->reliefOfBound(j)) * std::max(m_x[j], 0.01));
  for (Index i = 0; i < limits.equality.rows(); ++i)
    keep(Holding::Equality, i, std::abs(m_search->reliefOfEquality(i)));
  std::stable_sort(found.begin(), found.end(),
                   [](const Holding& a, const Holding& b) { return a.effect > b.effect; });
  for (const auto& holding : found)
    describe(holding, direction, out);
  if (out.limits.empty()) return;
  out.everyCarrier = !m_movers.empty() && out.limits.front().carriers.size() == m_movers.size();
}

void ObstacleSearch::describe(const Holding& holding, int direction, Obstacles& out) const {
  const auto& limits = m_model.limits;
  const Index caps = limits.inequality.rows(), index = holding.index;
  std::optional<BindingLimit> limit;
  if (holding.kind == Holding::Bound) {
    limit = limitOfBound(index);
    const bool moves = std::find(m_movers.begin(), m_movers.end(), index) != m_movers.end();
    if (limit && direction > 0 && moves) limit->carriers = {limit->product};
  } else if (holding.kind == Holding::Equality) {
    limit.emplace().kind = LimitKind::Alkalinity;
    limit->carriers = carriersThatMeet(direction, limits.equality.row(index));
  } else {
    limit = limitOfInequality(static_cast<std::size_t>(index));
    limit->carriers =
        index < caps ? carriersThatMeet(direction, limits.inequality.row(index))
                     : carriersThatMeet(direction, m_model.bands[static_cast<std::size_t>(index - caps)].row);
  }
  if (limit) out.limits.push_back(std::move(*limit));
}

BindingLimit ObstacleSearch::limitOfInequality(std::size_t inequality) const {
  BindingLimit limit;
  if (inequality < m_model.caps.size()) {
    limit.kind = inequality < m_model.askedCaps ? LimitKind::Cap
                 : m_model.guardReasons[inequality - m_model.askedCaps] == GuardReason::ChelateInstead
                     ? LimitKind::ChelateInstead
                     : LimitKind::SafeCeiling;
    limit.nutrient = m_model.caps[inequality].nutrient;
    return limit;
  }
  describeEdge(inequality - m_model.caps.size(), limit);
  return limit;
}

void ObstacleSearch::describeEdge(std::size_t e, BindingLimit& limit) const {
  const auto& edge = m_model.bands[e];
  limit.upper = edge.upper;
  limit.beyond = edge.row.dot(m_x) > edge.most + 1e-9 / edge.violationPerUnit;
  if (edge.wish < m_request.rows.size()) {
    limit.kind = LimitKind::Band;
    limit.nutrient = m_request.rows[edge.wish].nutrient;
  } else {
    limit.kind = LimitKind::Ratio;
    limit.ratio = edge.wish - m_request.rows.size();
  }
}

/// Nothing for "not below zero": that is no limit anybody could lift.
std::optional<BindingLimit> ObstacleSearch::limitOfBound(Index column) const {
  const auto& p = m_request.shelf[static_cast<std::size_t>(column)];
  const bool atLeast = m_search->reliefOfBound(column) < 0;
  BindingLimit limit;
  limit.product = p.id;
  if (p.locked)
    limit.kind = LimitKind::Held;
  else if (isAcidOrBase(p))
    limit.kind = LimitKind::Alkalinity;
  else if (atLeast && p.least > Mass{})
    limit.kind = LimitKind::Least;
  else if (!atLeast && p.most)
    limit.kind = LimitKind::Most;
  else
    return std::nullopt;
  return limit;
}

bool ObstacleSearch::couldMove(Index column, int direction) const {
  const auto& limits = m_model.limits;
  if (limits.upper[column] <= limits.lower[column]) return false;
  return direction > 0 ? m_x[column] < limits.upper[column] : m_x[column] > limits.lower[column];
}

std::vector<std::string> ObstacleSearch::carriersThatMeet(int direction, const RowVectorXd& limit) const {
  std::vector<std::string> ids;
  for (const auto j : m_movers) {
    if (direction * limit[j] > 0) ids.push_back(m_request.shelf[static_cast<std::size_t>(j)].id);
  }
  return ids;
}

} // namespace butte::core
