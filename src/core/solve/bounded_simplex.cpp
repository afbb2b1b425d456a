#include "solve/bounded_simplex.h"

#include "units/constants.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace butte::core {

using Eigen::Index;
using Eigen::RowVectorXd;
using Eigen::VectorXd;

namespace {

constexpr double atEnd = 1e-10;       // of a scaled variable: nearer to its end is there
constexpr double worthMoving = 1e-10; // of a reduced cost, over the largest of the objective
constexpr double leastPivot = 1e-8;
constexpr double keptTo = 1e-8; // of a scaled row or price when the answer is held against the problem

} // namespace

BoundedSimplex::BoundedSimplex(const Eigen::MatrixXd& rows, std::vector<Ends> rowEnds, const VectorXd& lower,
                               const VectorXd& upper, const VectorXd& start)
    : m_rows(rows), m_rowScale(rows.rows()), m_columnScale(rows.cols()) {
  const auto inverse = [](double size) { return size > 0 ? 1 / size : 1; };
  for (Index i = 0; i < m_rows.rows(); ++i) {
    m_rowScale[i] = inverse(m_rows.row(i).cwiseAbs().maxCoeff());
    m_rows.row(i) *= m_rowScale[i];
  }
  m_columnScale = m_rows.cwiseAbs().colwise().maxCoeff().transpose();
  for (Index j = 0; j < columns(); ++j) {
    m_columnScale[j] = inverse(m_columnScale[j]);
    m_ends.push_back({lower[j] / m_columnScale[j], upper[j] / m_columnScale[j]});
    m_start.other.push_back(j);
  }
  m_rows *= m_columnScale.asDiagonal();
  m_ends.resize(m_ends.size() + rowEnds.size());
  m_start.at.resize(columns() + m_rows.rows());
  m_start.at.head(columns()) = start.cwiseQuotient(m_columnScale);
  m_start.at.tail(m_rows.rows()) = m_rows * m_start.at.head(columns());
  for (Index i = 0; i < m_rows.rows(); ++i) {
    setRowEnds(i, rowEnds[static_cast<std::size_t>(i)]);
    m_start.basic.push_back(columns() + i);
  }
  m_start.table.setZero(m_rows.rows() + 1, columns());
  m_start.table.topRows(m_rows.rows()) = m_rows;
  bringIn();
}

void BoundedSimplex::setRowEnds(Index row, Ends ends) {
  m_ends[static_cast<std::size_t>(columns() + row)] = {ends.least * m_rowScale[row],
                                                       ends.most * m_rowScale[row]};
}

bool BoundedSimplex::keepsEnds(const VectorXd& all) const {
  for (std::size_t v = 0; v < m_ends.size(); ++v) {
    const double at = all[static_cast<Index>(v)], slack = keptTo * (1 + std::abs(at));
    if (!(at >= m_ends[v].least - slack && at <= m_ends[v].most + slack)) return false;
  }
  return true;
}

/// What stands between its ends goes into the basis, for a row that goes out of it: each search would have to
/// do that first.
void BoundedSimplex::bringIn() {
  for (Index k = 0; k < columns(); ++k) {
    const auto j = static_cast<std::size_t>(m_start.other[static_cast<std::size_t>(k)]);
    const double at = m_start.at[static_cast<Index>(j)];
    if (!(at > m_ends[j].least + atEnd && at < m_ends[j].most - atEnd)) continue;
    Index best = -1;
    double most = 1e-3; // a small pivot now would spoil all that follow
    for (Index i = 0; i < m_rows.rows(); ++i) {
      const bool isRow = m_start.basic[static_cast<std::size_t>(i)] >= columns();
      if (isRow && std::abs(m_start.table(i, k)) > most) {
        most = std::abs(m_start.table(i, k));
        best = i;
      }
    }
    if (best >= 0) pivot(m_start, best, k);
  }
}

/// Writes the dictionary with a basic variable and another one exchanged; the values stay.
void BoundedSimplex::pivot(Dictionary& d, Index row, Index column) {
  const double inverse = 1 / d.table(row, column);
  d.table.row(row) *= -inverse;
  d.table(row, column) = inverse;
  for (Index r = 0; r < d.table.rows(); ++r) {
    const double factor = d.table(r, column);
    if (r == row || factor == 0) continue;
    d.table(r, column) = 0;
    d.table.row(r) += factor * d.table.row(row);
  }
  std::swap(d.basic[static_cast<std::size_t>(row)], d.other[static_cast<std::size_t>(column)]);
}

/// The variable outside the basis whose move lowers the objective fastest; -1 at the optimum. `careful`: the
/// first that lowers it at all (Bland), which never runs in a circle.
Index BoundedSimplex::pickEntering(const Dictionary& d, bool careful) const {
  const auto cost = d.table.row(d.table.rows() - 1);
  Index best = -1;
  double most = worthMoving;
  for (Index k = 0; k < cost.size(); ++k) {
    if (std::abs(cost[k]) <= most) continue;
    const auto v = d.other[static_cast<std::size_t>(k)];
    const auto& ends = m_ends[static_cast<std::size_t>(v)];
    const bool hasRoom = cost[k] < 0 ? d.at[v] < ends.most - atEnd : d.at[v] > ends.least + atEnd;
    if (!hasRoom) continue;
    if (careful && best >= 0 && v > d.other[static_cast<std::size_t>(best)]) continue;
    best = k;
    if (!careful) most = std::abs(cost[k]);
  }
  return best;
}

/// How far the entering variable can go: of all that stop it as early, but for a hair, the largest pivot
/// (Harris). Nothing where it can go for ever.
std::optional<BoundedSimplex::Step> BoundedSimplex::pickLeaving(const Dictionary& d, Index entering,
                                                                double sign) const {
  const auto v = d.other[static_cast<std::size_t>(entering)];
  const auto& own = m_ends[static_cast<std::size_t>(v)];
  const double ownRoom = sign > 0 ? own.most - d.at[v] : d.at[v] - own.least;
  const auto room = [&](Index i, double slack) {
    const double rate = sign * d.table(i, entering);
    if (std::abs(rate) <= leastPivot) return constant::infinity;
    const auto b = d.basic[static_cast<std::size_t>(i)];
    const auto& ends = m_ends[static_cast<std::size_t>(b)];
    const double left = rate > 0 ? ends.most - d.at[b] : d.at[b] - ends.least;
    return (std::max(left, 0.0) + slack) / std::abs(rate);
  };
  double least = ownRoom;
  for (Index i = 0; i < m_rows.rows(); ++i)
    least = std::min(least, room(i, atEnd));
  if (!std::isfinite(least)) return std::nullopt;
  Step step{-1, ownRoom};
  double largest = 0;
  for (Index i = 0; i < m_rows.rows(); ++i) {
    const double length = room(i, 0), size = std::abs(d.table(i, entering));
    if (length > least || size <= largest) continue;
    step = {i, length};
    largest = size;
  }
  if (ownRoom <= step.length) step = {-1, ownRoom};
  return step;
}

void BoundedSimplex::move(Dictionary& d, Index entering, double sign, const Step& step) const {
  const auto v = d.other[static_cast<std::size_t>(entering)];
  const auto endOf = [&](Index variable, bool upper) {
    const auto& ends = m_ends[static_cast<std::size_t>(variable)];
    return upper ? ends.most : ends.least;
  };
  for (Index i = 0; i < m_rows.rows(); ++i)
    d.at[d.basic[static_cast<std::size_t>(i)]] += sign * step.length * d.table(i, entering);
  d.at[v] += sign * step.length;
  if (step.leaving < 0) {
    d.at[v] = endOf(v, sign > 0);
    return;
  }
  const auto b = d.basic[static_cast<std::size_t>(step.leaving)];
  d.at[b] = endOf(b, sign * d.table(step.leaving, entering) > 0);
  pivot(d, step.leaving, entering);
}

BoundedSimplex::Outcome BoundedSimplex::least(const RowVectorXd& direction) {
  if (!keepsEnds(m_start.at)) return Outcome::InDoubt;
  Dictionary d = m_start;
  const RowVectorXd scaled = direction.cwiseProduct(m_columnScale.transpose());
  const double size = scaled.size() > 0 ? scaled.cwiseAbs().maxCoeff() : 0;
  const RowVectorXd objective = size > 0 ? RowVectorXd(scaled / size) : scaled;
  auto cost = d.table.row(d.table.rows() - 1);
  for (Index k = 0; k < columns(); ++k) {
    const auto v = d.other[static_cast<std::size_t>(k)];
    if (v < columns()) cost[k] = objective[v];
  }
  for (Index i = 0; i < m_rows.rows(); ++i) {
    const auto b = d.basic[static_cast<std::size_t>(i)];
    if (b < columns()) cost += objective[b] * d.table.row(i);
  }
  const Index most = 20 * (columns() + m_rows.rows()) + 100;
  for (Index i = 0; i < most; ++i) {
    const Index entering = pickEntering(d, i > most / 2);
    if (entering < 0) {
      if (!holds(d, objective)) return Outcome::InDoubt;
      readPrices(d, direction);
      return Outcome::Optimal;
    }
    const double sign = d.table(m_rows.rows(), entering) < 0 ? 1 : -1;
    const auto step = pickLeaving(d, entering, sign);
    if (!step) return Outcome::Unbounded;
    move(d, entering, sign, *step);
  }
  return Outcome::InDoubt;
}

/// The answer against the problem as it was given: the point keeps its ends, the rows are what they should
/// be, and the reduced costs are those of the objective.
bool BoundedSimplex::holds(const Dictionary& d, const RowVectorXd& objective) const {
  const VectorXd x = d.at.head(columns());
  const VectorXd rows = m_rows * x;
  for (Index i = 0; i < rows.size(); ++i) {
    if (std::abs(rows[i] - d.at[columns() + i]) > keptTo * (1 + std::abs(rows[i]))) return false;
  }
  if (!keepsEnds(d.at)) return false;
  RowVectorXd found = RowVectorXd::Zero(columns());
  const auto cost = d.table.row(m_rows.rows());
  for (Index k = 0; k < columns(); ++k) {
    const auto v = d.other[static_cast<std::size_t>(k)];
    if (v < columns())
      found[v] += cost[k];
    else
      found += cost[k] * m_rows.row(v - columns());
  }
  return (found - objective).cwiseAbs().maxCoeff() <= keptTo;
}

void BoundedSimplex::readPrices(const Dictionary& d, const RowVectorXd& direction) {
  const RowVectorXd scaled = direction.cwiseProduct(m_columnScale.transpose());
  const double size = scaled.cwiseAbs().maxCoeff();
  m_value = scaled.dot(d.at.head(columns()));
  m_prices = VectorXd::Zero(columns() + m_rows.rows());
  const auto cost = d.table.row(m_rows.rows());
  for (Index k = 0; k < columns(); ++k) {
    const auto v = d.other[static_cast<std::size_t>(k)];
    if (std::abs(cost[k]) <= worthMoving) continue;
    const double unit = v < columns() ? 1 / m_columnScale[v] : m_rowScale[v - columns()];
    m_prices[v] = cost[k] * size * unit;
  }
}

} // namespace butte::core
