#include "solve/reasons.h"

#include <cmath>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::VectorXd;

class Explainer {
public:
  Explainer(const SolveRequest& request, const LinearModel& model, const VectorXd& x)
      : m_request(request), m_model(model), m_x(x) {}

  Reason explain(std::size_t row, double result) const {
    const auto i = static_cast<Index>(row);
    Reason reason;
    reason.nutrient = m_request.rows[row].nutrient;
    reason.over = result > m_request.rows[row].milligramsPerLitre;
    reason.has = result;
    reason.wants = m_request.rows[row].milligramsPerLitre;
    if (reason.over)
      explainOver(i, row, reason);
    else
      explainShort(i, reason);
    return reason;
  }

private:
  const ShelfProduct& product(Index j) const { return m_request.shelf[static_cast<std::size_t>(j)]; }
  bool canRise(Index j) const { return m_x[j] < m_model.limits.upper[j]; }
  bool canFall(Index j) const { return m_x[j] > m_model.limits.lower[j]; }

  void explainOver(Index i, std::size_t row, Reason& reason) const {
    const double high = m_request.rows[row].bandHigh();
    if (m_model.base[i] > high) {
      reason.kind = ReasonKind::WaterAlone;
      reason.has = m_model.base[i];
      return;
    }
    double held = m_model.base[i];
    double acid = 0;
    for (Index j = 0; j < m_x.size(); ++j) {
      const double share = m_model.perGram(i, j);
      if (share <= 0) continue;
      if (!canFall(j)) {
        held += share * m_x[j];
        if (m_x[j] > 0) reason.products.push_back(product(j).id);
      } else if (product(j).composition.role == ProductRole::Acid) {
        acid += share * m_x[j];
      }
    }
    if (held > high) {
      reason.kind = ReasonKind::LockedBring;
      reason.has = held;
      return;
    }
    reason.products.clear();
    if (held + acid > high) {
      reason.kind = ReasonKind::AcidBrings;
      for (Index j = 0; j < m_x.size(); ++j) {
        if (product(j).composition.role == ProductRole::Acid && m_x[j] > 0)
          reason.products.push_back(product(j).id);
      }
      return;
    }
    comesWith(i, -1, reason);
  }

  void explainShort(Index i, Reason& reason) const {
    bool carried = false, onlyAcids = true, anyFree = false;
    for (Index j = 0; j < m_x.size(); ++j) {
      if (m_model.perGram(i, j) <= 0) continue;
      carried = true;
      if (!isAcidOrBase(product(j))) onlyAcids = false;
      if (canRise(j) && m_model.limits.upper[j] > m_model.limits.lower[j])
        anyFree = true;
      else
        reason.products.push_back(product(j).id);
    }
    if (!carried) {
      reason.kind = ReasonKind::NoCarrier;
    } else if (!anyFree) {
      reason.kind = onlyAcids ? ReasonKind::AcidAlone : ReasonKind::AllHeld;
    } else {
      reason.products.clear();
      comesWith(i, +1, reason);
    }
  }

  /// Which other row or cap pushes back when the carriers of row i move in the direction: of all (row,
  /// product) pairs, the one whose residual opposes the move most.
  void comesWith(Index i, int direction, Reason& reason) const {
    reason.kind = ReasonKind::ComesWith;
    const VectorXd miss = m_model.base + m_model.perGram * m_x - m_model.wanted;
    double strongest = 0;
    for (Index j = 0; j < m_x.size(); ++j) {
      if (m_model.perGram(i, j) <= 0 || !(direction > 0 ? canRise(j) : canFall(j))) continue;
      const double own = m_model.perGram(i, j) * m_model.fitWeight[i];
      if (capBinds(j, direction, reason)) return;
      for (Index k = 0; k < miss.size(); ++k) {
        if (k == i || m_request.rows[static_cast<std::size_t>(k)].nutrient == reason.nutrient) continue;
        const double opposing =
            direction * m_model.perGram(k, j) * miss[k] * m_model.fitWeight[k] * m_model.fitWeight[k] / own;
        if (opposing <= strongest) continue;
        strongest = opposing;
        reason.other = m_request.rows[static_cast<std::size_t>(k)].nutrient;
        reason.products = {product(j).id};
      }
    }
  }

  bool capBinds(Index j, int direction, Reason& reason) const {
    if (direction < 0) return false;
    for (std::size_t c = 0; c < m_request.caps.size(); ++c) {
      const auto k = static_cast<Index>(c);
      const auto& row = m_model.limits.inequality.row(k);
      const double room = m_model.limits.inequalityRhs[k] - row.dot(m_x);
      if (row[j] <= 0 || room > 1e-7 * (1 + std::abs(m_model.limits.inequalityRhs[k]))) continue;
      reason.kind = ReasonKind::Cap;
      reason.other = m_request.caps[c].nutrient;
      reason.products = {product(j).id};
      return true;
    }
    return false;
  }

  const SolveRequest& m_request;
  const LinearModel& m_model;
  const VectorXd& m_x;
};

} // namespace

std::vector<Reason> reasonsForMisses(const SolveRequest& request, const LinearModel& model,
                                     const VectorXd& x) {
  std::vector<Reason> reasons;
  const Explainer explainer(request, model, x);
  for (std::size_t i = 0; i < request.rows.size(); ++i) {
    const auto k = static_cast<Index>(i);
    const double result = model.base[k] + (x.size() > 0 ? model.perGram.row(k).dot(x) : 0.0);
    if (!request.rows[i].contains(result)) reasons.push_back(explainer.explain(i, result));
  }
  return reasons;
}

std::vector<Reason> reasonsForNoAnswer(const SolveRequest& request, const LinearModel& model) {
  std::vector<Reason> reasons;
  const VectorXd& least = model.limits.lower;
  for (std::size_t c = 0; c < request.caps.size(); ++c) {
    const auto k = static_cast<Index>(c);
    const double fixed = least.size() > 0 ? model.limits.inequality.row(k).dot(least) : 0.0;
    if (fixed <= model.limits.inequalityRhs[k] + 1e-9) continue;
    Reason reason;
    reason.kind = ReasonKind::WaterOverCap;
    reason.nutrient = request.caps[c].nutrient;
    reason.over = true;
    reason.wants = request.caps[c].milligramsPerLitre;
    reason.has = request.water.milligramsPerLitre.of(reason.nutrient) + fixed;
    reasons.push_back(reason);
  }
  if (!reasons.empty()) return reasons;
  if (request.shelf.empty()) return reasonsForMisses(request, model, VectorXd());
  // The nearest answer without the bands shows which of them can't be had.
  if (const auto start = feasiblePoint(model.limits)) {
    const VectorXd x = constrainedLeastSquares(model.scaledMatrix(), model.scaledRhs(), model.limits, *start);
    reasons = reasonsForMisses(request, model, x);
    if (reasons.empty())
      reasons.push_back({ReasonKind::BandsConflict, request.rows.front().nutrient, false, {}, {}, 0, 0});
  } else {
    reasons.push_back({ReasonKind::AlkalinityConflict, Nutrient::N, false, {}, {}, 0, 0});
  }
  return reasons;
}

} // namespace butte::core
