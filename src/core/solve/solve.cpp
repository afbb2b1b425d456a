#include "solve/solve.h"

#include "solve/fit.h"
#include "solve/lexicographic.h"
#include "solve/reasons.h"
#include "solve/trace_guard.h"

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::VectorXd;

std::optional<VectorXd> cheapest(const SolveRequest& request, const LinearModel& model) {
  VectorXd cost(static_cast<Index>(request.shelf.size()));
  for (Index j = 0; j < cost.size(); ++j)
    cost[j] = *request.shelf[static_cast<std::size_t>(j)].pricePerKg / 1000;
  return cheapestWithin(model, cost, request.require);
}

std::optional<VectorXd> closest(const SolveRequest& request, const LinearModel& model) {
  if (request.shelf.empty())
    return withinInequalities(model.limits, VectorXd()) ? std::optional(VectorXd()) : std::nullopt;
  switch (request.require) {
  case Require::Best:
    return fitWithin(model.scaledMatrix(), model.scaledRhs(), model.limits);
  case Require::Bands:
    return fitWithin(model.scaledMatrix(), model.scaledRhs(), withBands(model));
  case Require::BandsFirst:
    return bandsFirst(model);
  }
  return std::nullopt;
}

bool insideAllBands(const SolveRequest& request, const LinearModel& model, const VectorXd& x) {
  for (std::size_t i = 0; i < request.rows.size(); ++i) {
    if (!request.rows[i].contains(resultAt(model, static_cast<Index>(i), x))) return false;
  }
  for (const auto& edge : model.bands) {
    if (edge.wish < request.rows.size()) continue;
    const double past = (x.size() > 0 ? edge.row.dot(x) : 0.0) - edge.most;
    if (past * edge.violationPerUnit > 1e-9) return false;
  }
  return true;
}

std::optional<Problem> fault(const SolveRequest& request) {
  for (std::size_t r = 0; r < request.ratios.size(); ++r) {
    if (!ratioDivisor(request.rows, request.ratios[r]))
      return problemAt(ProblemCode::MissingKey, "ratios[" + std::to_string(r) + "]",
                       {"a ratio needs a target on one of its sides"});
  }
  if (request.objective == Objective::Closest) return std::nullopt;
  for (const auto& p : request.shelf) {
    if (!p.pricePerKg)
      return problemAt(ProblemCode::NeedsPrice, "products." + p.id + ".price_per_kg", {p.id});
  }
  return std::nullopt;
}

void describe(const SolveRequest& request, const LinearModel& model, const VectorXd& x, SolveAnswer& answer) {
  for (Index j = 0; j < x.size(); ++j) {
    const auto& p = request.shelf[static_cast<std::size_t>(j)];
    // A locked weight comes back as it was given, to the last digit; dust from rounding is nothing.
    const double gramsPerLitre = x[j] < 1e-12 ? 0 : x[j];
    answer.grams.push_back(p.locked ? *p.locked
                                    : Concentration::fromGramsPerLitre(gramsPerLitre) * request.volume);
  }
  answer.status = insideAllBands(request, model, x) ? SolveStatus::Met : SolveStatus::Best;
  for (std::size_t i = 0; i < request.rows.size(); ++i)
    answer.deviationPercent.push_back(
        request.rows[i].deviationPercent(resultAt(model, static_cast<Index>(i), x)));
  answer.violation = answer.status == SolveStatus::Met ? 0 : violationAt(model, x);
}

/// Plain iron on the shelf is never passed over without a word.
void warnOfPlainIron(const SolveRequest& request, SolveAnswer& answer) {
  for (const auto& guard : traceGuards(request)) {
    if (guard.reason != GuardReason::ChelateInstead) continue;
    for (const auto j : guard.salts)
      if (!(answer.grams[j] > Mass{}))
        answer.warnings.emplace_back(SolveWarning::PlainIronLeftOut, request.shelf[j].id);
  }
  for (std::size_t j = 0; j < request.shelf.size(); ++j)
    if (isPlainIron(request.shelf[j]) && answer.grams[j] > Mass{})
      answer.warnings.emplace_back(SolveWarning::PlainIronRusts, request.shelf[j].id);
}

} // namespace

Result<SolveAnswer> solve(const SolveRequest& request) {
  if (const auto problem = fault(request)) return *problem;
  LinearModel model = buildModel(request);
  SolveAnswer answer;
  answer.warnings = model.warnings;
  const bool fitOnly = request.objective == Objective::Closest || request.shelf.empty();
  auto x = fitOnly ? closest(request, model) : cheapest(request, model);
  if (x && request.require == Require::Bands && !insideAllBands(request, model, *x)) x.reset();
  if (!x) {
    answer.reasons = reasonsForNoAnswer(request, model);
    return answer;
  }
  describe(request, model, *x, answer);
  answer.reasons = reasonsForMisses(request, model, *x);
  warnOfPlainIron(request, answer);
  return answer;
}

} // namespace butte::core
