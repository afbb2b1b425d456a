#include "solve/obstacles.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace butte::core {

using Eigen::Index;
using Eigen::RowVectorXd;
using Eigen::VectorXd;

namespace {
constexpr double infinity = std::numeric_limits<double>::infinity();
/// A limit counts when giving way by its own size moves the element by more than this share of its own.
constexpr double smallestEffect = 1e-7;
} // namespace

ObstacleSearch::ObstacleSearch(const SolveRequest& request, const LinearModel& model, const VectorXd& x)
    : m_request(request), m_model(model), m_x(x) {}

Obstacles ObstacleSearch::of(Index row, int direction) {
  Obstacles out;
  if (m_x.size() == 0) return out;
  if (!m_search) {
    LinearLimits limits = m_model.limits;
    for (const auto& edge : m_model.bands) {
      const double reached = edge.row.dot(m_x);
      // Where it stands already it may stay; the hair keeps rounding from closing the door.
      m_most.push_back(std::max(edge.most, reached + 1e-9 / edge.violationPerUnit));
      limits.addInequality(edge.row, m_most.back());
    }
    m_search.emplace(limits);
  }
  const Index firstEdge = m_model.limits.inequality.rows();
  const auto own = [&](std::size_t e) { return m_model.bands[e].wish == static_cast<std::size_t>(row); };
  for (std::size_t e = 0; e < m_model.bands.size(); ++e)
    m_search->setMost(firstEdge + static_cast<Index>(e), own(e) ? infinity : m_most[e]);
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
  struct Found {
    BindingLimit limit;
    RowVectorXd equation;
    double effect;
  };
  std::vector<Found> found;
  const double own = 1 / m_model.fitWeight[row];
  const auto& limits = m_model.limits;
  const Index inequalities = limits.inequality.rows() + static_cast<Index>(m_model.bands.size());
  for (Index i = 0; i < inequalities; ++i) {
    const double relief = m_search->reliefOfInequality(i);
    const bool cap = i < limits.inequality.rows();
    const auto edge = static_cast<std::size_t>(i - limits.inequality.rows());
    const double size =
        cap ? std::max(1.0, limits.inequalityRhs[i]) : 1 / m_model.bands[edge].violationPerUnit;
    const double effect = relief * size / own;
    if (effect <= smallestEffect) continue;
    const RowVectorXd equation = cap ? RowVectorXd(limits.inequality.row(i)) : m_model.bands[edge].row;
    found.push_back({limitOfInequality(static_cast<std::size_t>(i)), equation, effect});
  }
  for (Index j = 0; j < m_x.size(); ++j) {
    const double effect = std::abs(m_search->reliefOfBound(j)) * std::max(m_x[j], 0.01) / own;
    const auto limit = effect > smallestEffect ? limitOfBound(j) : std::nullopt;
    if (limit) found.push_back({*limit, RowVectorXd::Unit(m_x.size(), j), effect});
  }
  for (Index i = 0; i < limits.equality.rows(); ++i) {
    const double effect = std::abs(m_search->reliefOfEquality(i)) / own;
    if (effect <= smallestEffect) continue;
    BindingLimit limit;
    limit.kind = LimitKind::Alkalinity;
    found.push_back({limit, limits.equality.row(i), effect});
  }
  std::stable_sort(found.begin(), found.end(),
                   [](const Found& a, const Found& b) { return a.effect > b.effect; });
  for (auto& f : found) {
    f.limit.carriers = carriersThatMeet(row, direction, f.equation);
    out.limits.push_back(std::move(f.limit));
  }
  if (found.empty()) return;
  std::size_t movers = 0;
  for (Index j = 0; j < m_x.size(); ++j)
    movers += m_model.perGram(row, j) > 0 && couldMove(j, direction);
  out.everyCarrier = movers > 0 && out.limits.front().carriers.size() == movers;
}

BindingLimit ObstacleSearch::limitOfInequality(std::size_t inequality) const {
  BindingLimit limit;
  if (inequality < m_request.caps.size()) {
    limit.kind = LimitKind::Cap;
    limit.nutrient = m_request.caps[inequality].nutrient;
    return limit;
  }
  describeEdge(inequality - m_request.caps.size(), limit);
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

std::vector<std::string> ObstacleSearch::carriersThatMeet(Index row, int direction,
                                                          const RowVectorXd& limit) const {
  std::vector<std::string> ids;
  for (Index j = 0; j < m_x.size(); ++j) {
    if (m_model.perGram(row, j) > 0 && couldMove(j, direction) && direction * limit[j] > 0)
      ids.push_back(m_request.shelf[static_cast<std::size_t>(j)].id);
  }
  return ids;
}

} // namespace butte::core
