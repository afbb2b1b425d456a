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

/// A ratio as an equation: what stands above less `factor` times what stands below, on its basis.
Eigen::RowVectorXd ratioRow(const SolveRequest& request, const RatioWish& wish, double factor) {
  Eigen::RowVectorXd row = Eigen::RowVectorXd::Zero(static_cast<Index>(request.shelf.size()));
  for (const auto n : wish.above)
    row += amountPerMilligram(n, wish.basis) * carriers(request, n);
  for (const auto n : wish.below)
    row -= factor * amountPerMilligram(n, wish.basis) * carriers(request, n);
  return row;
}

double ratioBase(const SolveRequest& request, const RatioWish& wish, double factor) {
  const auto& water = request.water.milligramsPerLitre;
  return ratioSide(wish.above, wish.basis, water) - factor * ratioSide(wish.below, wish.basis, water);
}

void addTargetRow(const SolveRequest& request, Index i, LinearModel& model) {
  const auto& row = request.rows[static_cast<std::size_t>(i)];
  model.perGram.row(i) = carriers(request, row.nutrient);
  model.base[i] = request.water.milligramsPerLitre.of(row.nutrient);
  model.fitWeight[i] = std::sqrt(row.weight) / row.divisor();
  model.wanted[i] = row.milligramsPerLitre;
  const double perUnit = row.weight / row.divisor();
  const auto wish = static_cast<std::size_t>(i);
  model.bands.push_back({model.perGram.row(i), row.bandHigh() - model.base[i], perUnit, wish, true});
  model.bands.push_back({-model.perGram.row(i), model.base[i] - row.bandLow(), perUnit, wish, false});
}

void addRatio(const SolveRequest& request, std::size_t index, Index i, LinearModel& model) {
  const auto& wish = request.ratios[index];
  const double divisor = ratioDivisor(request.rows, wish).value_or(1);
  model.perGram.row(i) = ratioRow(request, wish, wish.value);
  model.base[i] = ratioBase(request, wish, wish.value);
  model.fitWeight[i] = std::sqrt(wish.weight) / divisor;
  model.wanted[i] = 0;
  const double perUnit = wish.weight / divisor;
  const auto row = static_cast<std::size_t>(i);
  model.bands.push_back(
      {ratioRow(request, wish, wish.high()), -ratioBase(request, wish, wish.high()), perUnit, row, true});
  model.bands.push_back(
      {-ratioRow(request, wish, wish.low()), ratioBase(request, wish, wish.low()), perUnit, row, false});
}

} // namespace

LinearModel buildModel(const SolveRequest& request) {
  LinearModel model;
  const auto targets = static_cast<Index>(request.rows.size());
  const auto rows = targets + static_cast<Index>(request.ratios.size());
  const auto n = static_cast<Index>(request.shelf.size());
  model.perGram.resize(rows, n);
  model.base.resize(rows);
  model.fitWeight.resize(rows);
  model.wanted.resize(rows);
  for (Index i = 0; i < rows; ++i) {
    if (i < targets)
      addTargetRow(request, i, model);
    else
      addRatio(request, static_cast<std::size_t>(i - targets), i, model);
  }
  Bounds bounds = productBounds(request);
  AcidPlan acid(request, bounds, model);
  acid.apply();
  model.limits = LinearLimits::boundsOnly(bounds.lower, bounds.upper);
  acid.addRow(model.limits);
  for (const auto& cap : request.caps)
    model.limits.addInequality(carriers(request, cap.nutrient),
                               cap.milligramsPerLitre - request.water.milligramsPerLitre.of(cap.nutrient));
  model.caps = request.caps;
  model.askedCaps = request.caps.size();
  for (const auto& guard : traceGuards(request)) {
    Eigen::RowVectorXd row = Eigen::RowVectorXd::Zero(n);
    for (const auto j : guard.salts)
      row[static_cast<Index>(j)] = 1000 * request.shelf[j].composition.massFraction.of(guard.nutrient);
    model.limits.addInequality(row, guard.saltsMayBringMgPerL);
    model.caps.push_back({guard.nutrient, guard.saltsMayBringMgPerL});
    model.guardReasons.push_back(guard.reason);
  }
  return model;
}

LinearLimits withBands(const LinearModel& model) {
  std::vector<double> most;
  for (const auto& edge : model.bands)
    most.push_back(edge.most);
  return withBands(model, most);
}

LinearLimits withBands(const LinearModel& model, const std::vector<double>& most) {
  LinearLimits limits = model.limits;
  const Index first = limits.inequality.rows(), count = first + static_cast<Index>(most.size());
  limits.inequality.conservativeResize(count, limits.lower.size());
  limits.inequalityRhs.conservativeResize(count);
  for (std::size_t e = 0; e < most.size(); ++e) {
    limits.inequality.row(first + static_cast<Index>(e)) = model.bands[e].row;
    limits.inequalityRhs[first + static_cast<Index>(e)] = most[e];
  }
  return limits;
}

double resultAt(const LinearModel& model, Index row, const Eigen::VectorXd& x) {
  return model.base[row] + (x.size() > 0 ? model.perGram.row(row).dot(x) : 0.0);
}

double violationAt(const LinearModel& model, const Eigen::VectorXd& x) {
  double sum = 0;
  for (const auto& edge : model.bands) {
    const double past = (x.size() > 0 ? edge.row.dot(x) : 0.0) - edge.most;
    if (past > 0) sum += past * edge.violationPerUnit;
  }
  return sum;
}

} // namespace butte::core
