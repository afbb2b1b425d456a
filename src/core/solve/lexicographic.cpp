#include "solve/lexicographic.h"

#include "solve/fit.h"
#include "solve/least_norm.h"
#include "solve/linear_program.h"

#include <algorithm>
#include <limits>

namespace butte::core {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::RowVectorXd;
using Eigen::VectorXd;

LinearLimits loosened(const LinearModel& model) {
  const Index n = model.limits.lower.size(), wishes = model.base.size();
  const auto widened = [&](const MatrixXd& m, Index more) {
    MatrixXd wide = MatrixXd::Zero(m.rows() + more, n + wishes);
    wide.topLeftCorner(m.rows(), n) = m;
    return wide;
  };
  const Index first = model.limits.inequality.rows(), edges = static_cast<Index>(model.bands.size());
  LinearLimits loose = model.limits;
  loose.equality = widened(model.limits.equality, 0);
  loose.inequality = widened(model.limits.inequality, edges);
  loose.inequalityRhs.conservativeResize(first + edges);
  loose.lower.conservativeResize(n + wishes);
  loose.upper.conservativeResize(n + wishes);
  loose.lower.tail(wishes).setZero();
  loose.upper.tail(wishes).setConstant(std::numeric_limits<double>::infinity());
  for (Index e = 0; e < edges; ++e) {
    const auto& edge = model.bands[static_cast<std::size_t>(e)];
    loose.inequality.row(first + e).head(n) = edge.row;
    loose.inequality(first + e, n + static_cast<Index>(edge.wish)) = -1;
    loose.inequalityRhs[first + e] = edge.most;
  }
  return loose;
}

VectorXd violationWeights(const LinearModel& model) {
  VectorXd weights = VectorXd::Zero(model.limits.lower.size() + model.base.size());
  for (const auto& edge : model.bands)
    weights[model.limits.lower.size() + static_cast<Index>(edge.wish)] = edge.violationPerUnit;
  return weights;
}

std::optional<LeastViolation> leastViolation(const LinearModel& model, const LinearLimits& loose) {
  const VectorXd weights = violationWeights(model);
  const auto x = linearProgram(weights, loose);
  if (!x) return std::nullopt;
  return LeastViolation{*x, weights.dot(*x)};
}

std::optional<VectorXd> cheapestWithin(const LinearModel& model, const VectorXd& cost, Require require) {
  const Index n = cost.size();
  const LinearLimits bands = withBands(model);
  // Best may take a doubtful "no": the least violation then comes out as nothing, which is the same answer.
  const auto refusal = require == Require::Bands ? Refusal::Exact : Refusal::Quick;
  if (const auto x = linearProgram(cost, bands, refusal))
    return leastNormAmongEqual(cost.transpose(), bands, *x);
  if (require == Require::Bands) return std::nullopt;
  // One problem twice: the violation first, then the cost with the violation held where it is, to rounding.
  LinearLimits loose = loosened(model);
  const VectorXd weights = violationWeights(model);
  const Index sum = loose.inequality.rows();
  loose.addInequality(weights.transpose(), std::numeric_limits<double>::infinity());
  GlpkProblem problem(loose);
  const auto least = linearProgramFrom(problem, weights, loose);
  if (!least) return std::nullopt;
  loose.inequalityRhs[sum] = weights.dot(*least) + 1e-11 * (1 + weights.dot(*least));
  problem.setMost(sum, loose.inequalityRhs[sum]);
  VectorXd wideCost = VectorXd::Zero(loose.lower.size());
  wideCost.head(n) = cost;
  const auto x = linearProgramFrom(problem, wideCost, loose);
  return VectorXd((x ? *x : *least).head(n));
}

namespace {

/// Bands a hair narrower, so that an answer on an edge still counts as inside after rounding.
LinearModel narrowed(LinearModel model) {
  for (std::size_t e = 0; e + 1 < model.bands.size(); e += 2) {
    auto &upper = model.bands[e], &lower = model.bands[e + 1];
    const double width = upper.wish == lower.wish ? upper.most + lower.most : 0;
    const double hair = std::clamp(width / 8, 0.0, 1e-7 / upper.violationPerUnit);
    upper.most -= hair;
    lower.most -= hair;
  }
  return model;
}

/// Whether A x alone says where the edge's row stands: always for an element, not for a ratio's edge.
bool heldByItsFit(const LinearModel& model, const BandEdge& edge) {
  const auto row = model.perGram.row(static_cast<Index>(edge.wish));
  return edge.upper ? edge.row == row : edge.row == -row;
}

} // namespace

std::optional<VectorXd> bandsFirst(const LinearModel& given) {
  const LinearModel model = narrowed(given);
  const MatrixXd a = model.scaledMatrix();
  const VectorXd b = model.scaledRhs();
  const auto free = anyBestFit(a, b, model.limits);
  if (!free) return std::nullopt;
  if (violationAt(model, *free) <= 0) {
    // Equal fits may differ in a ratio's edge.
    if (auto unique = madeUnique(a, b, model.limits, *free); violationAt(model, unique) <= 0) return unique;
  }
  const LinearLimits loose = loosened(model);
  const auto least = leastViolation(model, loose);
  if (!least) return std::nullopt;
  if (least->sum <= 1e-9) {
    if (const auto inside = fitWithin(a, b, withBands(model))) return inside;
  }
  // A hair of room, so that the search starts inside and does not stumble over rounding.
  LinearLimits held = loose;
  held.addInequality(violationWeights(model).transpose(), least->sum * (1 + 1e-9) + 1e-9);
  MatrixXd wide = MatrixXd::Zero(a.rows(), loose.lower.size());
  wide.leftCols(a.cols()) = a;
  const VectorXd x = constrainedLeastSquares(wide, b, held, least->x);
  // With the slacks fixed where they came to stand, the weights become unique.
  LinearLimits fixed = model.limits;
  for (const auto& edge : model.bands) {
    if (heldByItsFit(model, edge)) continue;
    const double slack = x[a.cols() + static_cast<Index>(edge.wish)];
    fixed.addInequality(edge.row, std::max(edge.most + slack, edge.row.dot(x.head(a.cols()))));
  }
  return leastNormAmongEqual(a, fixed, x.head(a.cols()));
}

} // namespace butte::core
