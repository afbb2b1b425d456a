#include "solve/solve.h"

#include "solve/bounded_least_squares.h"
#include "solve/least_norm.h"
#include "solve/linear_model.h"
#include "solve/linear_program.h"
#include "solve/reasons.h"

#include <cmath>
#include <limits>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

bool withinInequalities(const LinearLimits& limits, const VectorXd& x) {
  for (Index i = 0; i < limits.inequality.rows(); ++i) {
    const double slack = 1e-12 * (limits.inequality.row(i).cwiseAbs().dot(x.cwiseAbs()) + 1);
    if (limits.inequality.row(i).dot(x) > limits.inequalityRhs[i] + slack) return false;
  }
  return true;
}

/// The variables that can move without changing the fit to first order are worth a least-norm pass only when
/// their columns depend on each other; mostly they don't.
bool mayBeAmbiguous(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits, const VectorXd& x) {
  const VectorXd gradient = a.transpose() * (a * x - b);
  const double tolerance = 1e-9 * (b.norm() + (a * x - b).norm());
  std::vector<Index> open;
  for (Index j = 0; j < x.size(); ++j) {
    if (limits.upper[j] <= limits.lower[j]) continue;
    const bool inside = x[j] > limits.lower[j] && x[j] < limits.upper[j];
    if (inside || std::abs(gradient[j]) <= tolerance * a.col(j).norm()) open.push_back(j);
  }
  if (open.empty()) return false;
  MatrixXd columns(a.rows(), static_cast<Index>(open.size()));
  for (std::size_t i = 0; i < open.size(); ++i) {
    const double norm = a.col(open[i]).norm();
    columns.col(static_cast<Index>(i)) =
        norm > 0 ? VectorXd(a.col(open[i]) / norm) : VectorXd(a.col(open[i]));
  }
  Eigen::ColPivHouseholderQR<MatrixXd> qr(columns);
  qr.setThreshold(1e-10);
  return qr.rank() < columns.cols();
}

/// A start for the general search when the acid's alkalinity row is the only equality: the bounded fit with that
/// row weighted heavily, then the row made exact by the product that carries most of it.
std::optional<VectorXd> nearStart(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits) {
  if (limits.equality.rows() != 1) return std::nullopt;
  const Eigen::RowVectorXd row = limits.equality.row(0);
  const double weight = 1e4 * a.norm() / row.norm();
  MatrixXd wide(a.rows() + 1, a.cols());
  wide << a, weight * row;
  VectorXd rhs(b.size() + 1);
  rhs << b, weight * limits.equalityRhs[0];
  VectorXd x = boundedLeastSquares(wide, rhs, limits.lower, limits.upper);
  Index carrier = -1;
  for (Index j = 0; j < x.size(); ++j) {
    const bool inside = x[j] > limits.lower[j] && x[j] < limits.upper[j];
    if (inside && (carrier < 0 || std::abs(row[j]) > std::abs(row[carrier]))) carrier = j;
  }
  if (carrier < 0 || row[carrier] == 0) return std::nullopt;
  x[carrier] += (limits.equalityRhs[0] - row.dot(x)) / row[carrier];
  const bool kept = x[carrier] >= limits.lower[carrier] && x[carrier] <= limits.upper[carrier];
  return kept && withinInequalities(limits, x) ? std::optional(x) : std::nullopt;
}

std::optional<VectorXd> fitWithin(const MatrixXd& a, const VectorXd& b, const LinearLimits& limits) {
  VectorXd x;
  bool general = limits.equality.rows() > 0;
  if (!general) {
    x = boundedLeastSquares(a, b, limits.lower, limits.upper);
    general = !withinInequalities(limits, x);
  }
  if (general) {
    auto start = nearStart(a, b, limits);
    if (!start) start = feasiblePoint(limits);
    if (!start) return std::nullopt;
    x = constrainedLeastSquares(a, b, limits, *start);
  }
  const bool plain = limits.equality.rows() + limits.inequality.rows() == 0;
  if (plain && !mayBeAmbiguous(a, b, limits, x)) return x;
  return leastNormAmongEqual(a, limits, x);
}

struct CheapestOutcome {
  VectorXd x;
  bool insideBands = false;
};

/// Least violation of the bands first (weight times relative distance outside), then least cost.
std::optional<CheapestOutcome> cheapest(const SolveRequest& request, const LinearModel& model) {
  const auto n = static_cast<Index>(request.shelf.size());
  const auto rows = static_cast<Index>(request.rows.size());
  VectorXd cost(n);
  for (Index j = 0; j < n; ++j)
    cost[j] = *request.shelf[static_cast<std::size_t>(j)].pricePerKg / 1000;
  const LinearLimits bands = withBands(model, request.rows);
  const auto unique = [&](const LinearLimits& limits, const VectorXd& x) {
    return leastNormAmongEqual(cost.transpose(), limits, x);
  };
  if (const auto x = linearProgram(cost, bands)) return CheapestOutcome{unique(bands, *x), true};
  if (request.require == Require::Bands) return std::nullopt;

  // Slack s_i >= distance outside the band; first minimise their weighted sum, then hold it and minimise
  // cost.
  LinearLimits loose = model.limits;
  const auto widen = [&](const MatrixXd& m) {
    MatrixXd wide = MatrixXd::Zero(m.rows(), n + rows);
    wide.leftCols(n) = m;
    return wide;
  };
  loose.equality = widen(loose.equality);
  loose.inequality = widen(loose.inequality);
  loose.lower.conservativeResize(n + rows);
  loose.upper.conservativeResize(n + rows);
  loose.lower.tail(rows).setZero();
  loose.upper.tail(rows).setConstant(std::numeric_limits<double>::infinity());
  VectorXd violation = VectorXd::Zero(n + rows);
  for (Index i = 0; i < rows; ++i) {
    const auto& row = request.rows[static_cast<std::size_t>(i)];
    violation[n + i] = row.weight / row.divisor();
    Eigen::RowVectorXd over = Eigen::RowVectorXd::Zero(n + rows);
    over.head(n) = model.perGram.row(i);
    Eigen::RowVectorXd under = -over;
    over[n + i] = under[n + i] = -1;
    loose.addInequality(over, row.bandHigh() - model.base[i]);
    loose.addInequality(under, model.base[i] - row.bandLow());
  }
  const auto least = linearProgram(violation, loose);
  if (!least) return std::nullopt;
  LinearLimits held = loose;
  const double reached = violation.dot(*least);
  held.addInequality(violation.transpose(), reached + 1e-11 * (1 + reached));
  VectorXd wideCost = VectorXd::Zero(n + rows);
  wideCost.head(n) = cost;
  const auto x = linearProgram(wideCost, held);
  return CheapestOutcome{(x ? *x : *least).head(n), false};
}

std::optional<VectorXd> closest(const SolveRequest& request, const LinearModel& model) {
  const MatrixXd a = model.scaledMatrix();
  const VectorXd b = model.scaledRhs();
  if (request.shelf.empty()) {
    return withinInequalities(model.limits, VectorXd()) ? std::optional(VectorXd()) : std::nullopt;
  }
  if (request.require == Require::Best) return fitWithin(a, b, model.limits);
  return fitWithin(a, b, withBands(model, request.rows));
}

bool insideAllBands(const SolveRequest& request, const LinearModel& model, const VectorXd& x) {
  for (std::size_t i = 0; i < request.rows.size(); ++i) {
    const auto k = static_cast<Index>(i);
    const double result = model.base[k] + (x.size() > 0 ? model.perGram.row(k).dot(x) : 0.0);
    if (!request.rows[i].contains(result)) return false;
  }
  return true;
}

} // namespace

Result<SolveAnswer> solve(const SolveRequest& request) {
  if (request.objective == Objective::Cheapest) {
    for (const auto& p : request.shelf) {
      if (!p.pricePerKg)
        return problemAt(ProblemCode::NeedsPrice, "products." + p.id + ".price_per_kg", {p.id});
    }
  }
  LinearModel model = buildModel(request);
  SolveAnswer answer;
  answer.warnings = model.warnings;
  std::optional<VectorXd> x;
  if (request.objective == Objective::Closest || request.shelf.empty()) {
    x = closest(request, model);
  } else if (auto outcome = cheapest(request, model)) {
    x = std::move(outcome->x);
  }
  if (x && request.require == Require::Bands && !insideAllBands(request, model, *x)) x.reset();
  if (!x) {
    answer.reasons = reasonsForNoAnswer(request, model);
    return answer;
  }
  for (Index j = 0; j < x->size(); ++j) {
    const auto& p = request.shelf[static_cast<std::size_t>(j)];
    // A locked weight comes back as it was given, to the last digit; dust from rounding is nothing.
    const double gramsPerLitre = (*x)[j] < 1e-12 ? 0 : (*x)[j];
    answer.grams.push_back(p.locked ? *p.locked
                                    : Concentration::fromGramsPerLitre(gramsPerLitre) * request.volume);
  }
  answer.status = insideAllBands(request, model, *x) ? SolveStatus::Met : SolveStatus::Best;
  for (std::size_t i = 0; i < request.rows.size(); ++i) {
    const auto k = static_cast<Index>(i);
    const double result = model.base[k] + (x->size() > 0 ? model.perGram.row(k).dot(*x) : 0.0);
    answer.deviationPercent.push_back(request.rows[i].deviationPercent(result));
  }
  answer.reasons = reasonsForMisses(request, model, *x);
  return answer;
}

} // namespace butte::core
