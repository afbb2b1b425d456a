#include "solve/reasons.h"

#include "solve/obstacles.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::VectorXd;

class Explainer {
public:
  Explainer(const SolveRequest& request, const LinearModel& model, const VectorXd& x)
      : m_request(request), m_model(model), m_x(x), m_obstacles(request, model, x) {}

  Reason explain(std::size_t row, double result) {
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

  void explainOver(Index i, std::size_t row, Reason& reason) {
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

  void explainShort(Index i, Reason& reason) {
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
      reason.kind = onlyAcids                    ? ReasonKind::AcidAlone
                    : isLeftOut(reason.products) ? ReasonKind::LeftOut
                                                 : ReasonKind::AllHeld;
    } else {
      reason.products.clear();
      comesWith(i, +1, reason);
    }
  }

  /// None of these may be used at all, and none is held: the choice of few products did without them.
  bool isLeftOut(const std::vector<std::string>& ids) const {
    return std::all_of(m_request.shelf.begin(), m_request.shelf.end(), [&](const ShelfProduct& p) {
      const bool meant = std::find(ids.begin(), ids.end(), p.id) != ids.end();
      return !meant || (!p.locked && p.most && *p.most <= Mass{});
    });
  }

  /// What else would have to give: asked of a linear program, not guessed.
  void comesWith(Index i, int direction, Reason& reason) {
    const Obstacles found = m_obstacles.of(i, direction);
    reason.kind = ReasonKind::ComesWith;
    reason.reachable = found.reachable;
    reason.limits = found.limits;
    reason.everyCarrier = found.everyCarrier;
    if (found.reachesBand) {
      reason.kind = ReasonKind::Traded;
      return;
    }
    if (found.limits.empty()) return;
    const auto& first = found.limits.front();
    if (first.kind == LimitKind::Cap) reason.kind = ReasonKind::Cap;
    if (first.kind == LimitKind::Cap || first.kind == LimitKind::Band) reason.other = first.nutrient;
    reason.products = first.carriers;
  }

  const SolveRequest& m_request;
  const LinearModel& m_model;
  const VectorXd& m_x;
  ObstacleSearch m_obstacles;
};

Reason only(ReasonKind kind, Nutrient nutrient) {
  Reason reason;
  reason.kind = kind;
  reason.nutrient = nutrient;
  return reason;
}

} // namespace

std::vector<Reason> reasonsForMisses(const SolveRequest& request, const LinearModel& model,
                                     const VectorXd& x) {
  std::vector<Reason> reasons;
  Explainer explainer(request, model, x);
  for (std::size_t i = 0; i < request.rows.size(); ++i) {
    const auto k = static_cast<Index>(i);
    const double result = model.base[k] + (x.size() > 0 ? model.perGram.row(k).dot(x) : 0.0);
    if (!request.rows[i].contains(result)) reasons.push_back(explainer.explain(i, result));
  }
  // A nutrient that is given up for the sake of a count comes before what is merely off.
  std::stable_partition(reasons.begin(), reasons.end(),
                        [](const Reason& r) { return r.kind == ReasonKind::LeftOut; });
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
    if (reasons.empty()) reasons.push_back(only(ReasonKind::BandsConflict, request.rows.front().nutrient));
  } else {
    reasons.push_back(only(ReasonKind::AlkalinityConflict, Nutrient::N));
  }
  return reasons;
}

} // namespace butte::core
