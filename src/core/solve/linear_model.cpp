#include "solve/linear_model.h"

#include <limits>

namespace butte::core {
namespace {

using Eigen::Index;

Eigen::RowVectorXd carriers(const SolveRequest& request, Nutrient nutrient) {
  Eigen::RowVectorXd row(static_cast<Index>(request.shelf.size()));
  for (std::size_t j = 0; j < request.shelf.size(); ++j)
    row[static_cast<Index>(j)] = 1000 * request.shelf[j].composition.massFraction.of(nutrient);
  return row;
}

struct Bounds {
  Eigen::VectorXd lower, upper;
};

Bounds productBounds(const SolveRequest& request) {
  const auto n = static_cast<Index>(request.shelf.size());
  Bounds bounds{Eigen::VectorXd::Zero(n),
                Eigen::VectorXd::Constant(n, std::numeric_limits<double>::infinity())};
  for (Index j = 0; j < n; ++j) {
    const auto& p = request.shelf[static_cast<std::size_t>(j)];
    if (p.locked) {
      bounds.lower[j] = bounds.upper[j] = (*p.locked / request.volume).gramsPerLitre();
    } else {
      bounds.lower[j] = (p.least / request.volume).gramsPerLitre();
      if (p.most) bounds.upper[j] = (*p.most / request.volume).gramsPerLitre();
    }
  }
  return bounds;
}

/// How acids and bases may move: not at all, or together along the alkalinity row.
class AcidPlan {
public:
  AcidPlan(const SolveRequest& request, Bounds& bounds, LinearModel& model)
      : m_request(request), m_bounds(bounds), m_model(model) {}

  void apply() {
    const auto& left = m_request.alkalinityLeftMeqPerL;
    if (!left) return keepOut(SolveWarning::AcidLeftOut);
    if (!m_request.water.alkalinityMeqPerL) return keepOut(SolveWarning::AcidNeedsAlkalinity);
    if (startingAlkalinity() <= *left) return keepOut(SolveWarning::AlkalinityAlreadyBelow);
    if (!anyFree(ProductRole::Acid)) {
      keepOut(std::nullopt);
      m_model.warnings.emplace_back(SolveWarning::NoAcidOnShelf, "");
      return;
    }
    m_wanted = std::max(*left, lowestReachable());
    if (m_wanted > *left * (1 + 1e-12) + 1e-12)
      m_model.warnings.emplace_back(SolveWarning::AlkalinityNotReached, "");
    m_needsRow = true;
  }

  void addRow(LinearLimits& limits) const {
    if (!m_needsRow) return;
    Eigen::RowVectorXd row(m_bounds.lower.size());
    for (Index j = 0; j < row.size(); ++j)
      row[j] = alkalinityPerGram(j);
    limits.addEquality(row, m_wanted - *m_request.water.alkalinityMeqPerL);
  }

private:
  const ShelfProduct& product(Index j) const { return m_request.shelf[static_cast<std::size_t>(j)]; }
  double alkalinityPerGram(Index j) const { return product(j).composition.alkalinityMeqPerGram; }
  bool freeAcidOrBase(Index j) const { return isAcidOrBase(product(j)) && !product(j).locked; }

  bool anyFree(ProductRole role) const {
    for (Index j = 0; j < m_bounds.lower.size(); ++j) {
      if (product(j).composition.role == role && !product(j).locked && m_bounds.upper[j] > 0) return true;
    }
    return false;
  }

  void keepOut(std::optional<SolveWarning> warning) {
    for (Index j = 0; j < m_bounds.lower.size(); ++j) {
      if (!freeAcidOrBase(j)) continue;
      m_bounds.lower[j] = m_bounds.upper[j] = 0;
      if (warning) m_model.warnings.emplace_back(*warning, product(j).id);
    }
  }

  /// Water plus what is locked, before any free acid.
  double startingAlkalinity() const {
    double sum = *m_request.water.alkalinityMeqPerL;
    for (Index j = 0; j < m_bounds.lower.size(); ++j)
      sum += alkalinityPerGram(j) * m_bounds.lower[j];
    return sum;
  }

  double lowestReachable() const {
    double sum = *m_request.water.alkalinityMeqPerL;
    for (Index j = 0; j < m_bounds.lower.size(); ++j) {
      const double perGram = alkalinityPerGram(j);
      if (perGram != 0) sum += perGram * (perGram < 0 ? m_bounds.upper[j] : m_bounds.lower[j]);
    }
    return sum;
  }

  const SolveRequest& m_request;
  Bounds& m_bounds;
  LinearModel& m_model;
  double m_wanted = 0;
  bool m_needsRow = false;
};

} // namespace

LinearModel buildModel(const SolveRequest& request) {
  LinearModel model;
  const auto rows = static_cast<Index>(request.rows.size());
  const auto n = static_cast<Index>(request.shelf.size());
  model.perGram.resize(rows, n);
  model.base.resize(rows);
  model.fitWeight.resize(rows);
  model.wanted.resize(rows);
  for (Index i = 0; i < rows; ++i) {
    const auto& row = request.rows[static_cast<std::size_t>(i)];
    model.perGram.row(i) = carriers(request, row.nutrient);
    model.base[i] = request.water.milligramsPerLitre.of(row.nutrient);
    model.fitWeight[i] = std::sqrt(row.weight) / row.divisor();
    model.wanted[i] = row.milligramsPerLitre;
  }
  Bounds bounds = productBounds(request);
  AcidPlan acid(request, bounds, model);
  acid.apply();
  model.limits = LinearLimits::boundsOnly(bounds.lower, bounds.upper);
  acid.addRow(model.limits);
  for (const auto& cap : request.caps)
    model.limits.addInequality(carriers(request, cap.nutrient),
                               cap.milligramsPerLitre - request.water.milligramsPerLitre.of(cap.nutrient));
  return model;
}

LinearLimits withBands(const LinearModel& model, const std::vector<TargetRow>& rows) {
  LinearLimits limits = model.limits;
  for (std::size_t i = 0; i < rows.size(); ++i) {
    const auto k = static_cast<Index>(i);
    limits.addInequality(model.perGram.row(k), rows[i].bandHigh() - model.base[k]);
    limits.addInequality(-model.perGram.row(k), model.base[k] - rows[i].bandLow());
  }
  return limits;
}

} // namespace butte::core
