#include "solve/many_crops.h"

#include "solve/bounded_least_squares.h"
#include "solve/linear_model.h"
#include "solve/trace_guard.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::MatrixXd;
using Eigen::VectorXd;

/// One crop's equations over all nutrients that any crop asks for.
struct CropModel {
  VectorXd weight; ///< weight / divisor^2 of each row; 0 where it asks for nothing
  VectorXd gap;    ///< target less water, mg/L
};

struct State {
  VectorXd x;               ///< g/L of each product at strength 1
  VectorXd strength;        ///< of each crop
  std::vector<Index> extra; ///< correction of each crop; -1: none
  VectorXd extraGrams;      ///< g/L
  double misfit = std::numeric_limits<double>::infinity();
};

class Descent {
public:
  explicit Descent(const ManyCropsRequest& request) : m_request(request) {
    for (const auto n : allNutrients) {
      const bool asked = std::any_of(request.crops.begin(), request.crops.end(), [n](const CropWish& c) {
        return std::any_of(c.rows.begin(), c.rows.end(), [n](const TargetRow& r) { return r.nutrient == n; });
      });
      if (asked) m_nutrients.push_back(n);
    }
    const auto rows = static_cast<Index>(m_nutrients.size());
    m_perGram = MatrixXd::Zero(rows, static_cast<Index>(request.shelf.size()));
    for (Index j = 0; j < m_perGram.cols(); ++j) {
      const auto& p = request.shelf[static_cast<std::size_t>(j)];
      if (isAcidOrBase(p) || isOnlyATrace(p)) continue;
      for (Index i = 0; i < rows; ++i)
        m_perGram(i, j) = 1000 * p.composition.massFraction.of(m_nutrients[static_cast<std::size_t>(i)]);
    }
    for (const auto& crop : request.crops)
      m_crops.push_back(modelOf(crop));
  }

  State run() {
    State best;
    for (const auto& start : starts()) {
      State state;
      state.strength = start;
      state.extra.assign(m_crops.size(), -1);
      state.extraGrams = VectorXd::Zero(start.size());
      settle(state, false);
      if (m_request.corrections) settle(state, true);
      if (best.strength.size() == 0 || state.misfit < best.misfit * (1 - 1e-9)) best = std::move(state);
    }
    normalise(best);
    return best;
  }

  const std::vector<Nutrient>& nutrients() const { return m_nutrients; }

private:
  /// A salt of a trace element that no crop asks for: no source of what else it brings
  /// (solve/trace_guard.h).
  bool isOnlyATrace(const ShelfProduct& product) const {
    SolveRequest alone;
    alone.shelf = {product};
    alone.shelf.front().locked.reset();
    alone.volume = Volume::fromLitres(1);
    for (const auto n : m_nutrients)
      alone.rows.push_back({n, 1});
    return !traceGuards(alone).empty();
  }

  CropModel modelOf(const CropWish& crop) const {
    CropModel out{VectorXd::Zero(static_cast<Index>(m_nutrients.size())),
                  VectorXd::Zero(static_cast<Index>(m_nutrients.size()))};
    for (std::size_t i = 0; i < m_nutrients.size(); ++i) {
      for (const auto& row : crop.rows) {
        if (row.nutrient != m_nutrients[i]) continue;
        const auto k = static_cast<Index>(i);
        out.weight[k] = crop.weight * row.weight / (row.divisor() * row.divisor());
        out.gap[k] = row.milligramsPerLitre - m_request.water.milligramsPerLitre.of(row.nutrient);
      }
    }
    return out;
  }

  /// Strengths to begin from: by the sum of what each crop asks, by its strongest element, and all alike.
  std::vector<VectorXd> starts() const {
    const auto count = static_cast<Index>(m_crops.size());
    VectorXd sum(count), relative(count);
    for (Index k = 0; k < count; ++k) {
      const auto& crop = m_crops[static_cast<std::size_t>(k)];
      sum[k] =
          std::max(1e-3, (crop.gap.array() * (crop.weight.array() > 0).cast<double>()).cwiseMax(0).sum());
      relative[k] = std::max(1e-3, std::sqrt((crop.weight.array() * crop.gap.array().square()).sum()));
    }
    std::vector<VectorXd> out{sum / sum.maxCoeff(), VectorXd::Ones(count)};
    for (Index k = 0; k < count && count > 1; ++k) { // each crop once as the one that leads
      VectorXd led = sum / sum.maxCoeff();
      led[k] = std::min(1.5, led[k] * 1.5);
      out.push_back(led);
    }
    return out;
  }

  /// Turn by turn: the weights for these strengths, then each crop's strength for these weights; where the
  /// turns creep along a valley, longer strides in the same direction are tried.
  void settle(State& state, bool withExtras) const {
    double before = std::numeric_limits<double>::infinity();
    int still = 0;
    for (int turn = 0; turn < 600 && still < 3; ++turn) {
      const VectorXd from = state.strength;
      takeTurn(state, withExtras);
      stride(state, from);
      still = before - state.misfit <= 1e-12 * (1e-6 + before) ? still + 1 : 0;
      before = state.misfit;
    }
  }

  void takeTurn(State& state, bool withExtras) const {
    fitWeights(state);
    for (std::size_t k = 0; k < m_crops.size(); ++k)
      fitCrop(state, k, withExtras);
    state.misfit = misfitOf(state);
  }

  void stride(State& state, const VectorXd& from) const {
    const VectorXd direction = state.strength - from * (state.strength.sum() / from.sum());
    for (double length = 2; length < 4000; length *= 2) {
      State far = state;
      far.strength = (state.strength + length * direction).cwiseMax(1e-6);
      fitWeights(far);
      far.misfit = misfitOf(far);
      if (!(far.misfit < state.misfit * (1 - 1e-14))) return;
      state = std::move(far);
    }
  }

  /// With strengths and extras given, every nutrient's rows of all crops melt into one row.
  void fitWeights(State& state) const {
    const auto rows = static_cast<Index>(m_nutrients.size());
    VectorXd alpha = VectorXd::Zero(rows), beta = VectorXd::Zero(rows);
    for (std::size_t k = 0; k < m_crops.size(); ++k) {
      const auto c = static_cast<Index>(k);
      VectorXd gap = m_crops[k].gap;
      if (state.extra[k] >= 0) gap -= state.extraGrams[c] * m_perGram.col(state.extra[k]);
      const double d = state.strength[c];
      alpha += d * d * m_crops[k].weight;
      beta += d * m_crops[k].weight.cwiseProduct(gap);
    }
    MatrixXd a = m_perGram;
    VectorXd b(rows);
    for (Index i = 0; i < rows; ++i) {
      const double root = std::sqrt(std::max(alpha[i], 0.0));
      a.row(i) *= root;
      b[i] = root > 0 ? beta[i] / root : 0;
    }
    state.x = boundedLeastSquares(a, b, VectorXd::Zero(a.cols()),
                                  VectorXd::Constant(a.cols(), std::numeric_limits<double>::infinity()));
  }

  void fitCrop(State& state, std::size_t k, bool withExtras) const {
    const auto c = static_cast<Index>(k);
    const VectorXd root = m_crops[k].weight.cwiseSqrt();
    const VectorXd stock = root.cwiseProduct(m_perGram * state.x), gap = root.cwiseProduct(m_crops[k].gap);
    const double ss = stock.squaredNorm(), sg = stock.dot(gap);
    if (ss <= 0) return;
    double best = sg > 0 ? -sg * sg / ss : 0;
    state.strength[c] = std::max(1e-6, sg / ss);
    state.extra[k] = -1;
    state.extraGrams[c] = 0;
    for (Index j = 0; withExtras && j < m_perGram.cols(); ++j) {
      const VectorXd extra = root.cwiseProduct(m_perGram.col(j));
      const double ee = extra.squaredNorm(), se = stock.dot(extra), eg = extra.dot(gap);
      const double determinant = ss * ee - se * se;
      if (determinant <= 1e-9 * ss * ee) continue;
      const double d = (sg * ee - eg * se) / determinant, e = (eg * ss - sg * se) / determinant;
      if (d <= 0 || e <= 0) continue;
      const double value = -d * sg - e * eg; // of |d stock + e extra - gap|^2 less |gap|^2, at its foot
      if (value >= best - 1e-12 * gap.squaredNorm()) continue;
      best = value;
      state.strength[c] = d;
      state.extra[k] = j;
      state.extraGrams[c] = e;
    }
  }

  double misfitOf(const State& state) const {
    double sum = 0;
    for (std::size_t k = 0; k < m_crops.size(); ++k) {
      const auto c = static_cast<Index>(k);
      VectorXd miss = state.strength[c] * (m_perGram * state.x) - m_crops[k].gap;
      if (state.extra[k] >= 0) miss += state.extraGrams[c] * m_perGram.col(state.extra[k]);
      sum += (m_crops[k].weight.array() * miss.array().square()).sum();
    }
    return sum;
  }

  static void normalise(State& state) {
    const double most = state.strength.maxCoeff();
    state.x *= most;
    state.strength /= most;
  }

  const ManyCropsRequest& m_request;
  std::vector<Nutrient> m_nutrients;
  MatrixXd m_perGram;
  std::vector<CropModel> m_crops;
};

double misfitOf(const CropWish& crop, const NutrientAmounts& feed) {
  double sum = 0;
  for (const auto& row : crop.rows) {
    const double miss = (feed.of(row.nutrient) - row.milligramsPerLitre) / row.divisor();
    sum += row.weight * miss * miss;
  }
  return sum;
}

CropShare shareOf(const ManyCropsRequest& request, const State& state, std::size_t k) {
  CropShare out;
  const auto c = static_cast<Index>(k);
  out.strength = state.strength[c];
  out.milligramsPerLitre = request.water.milligramsPerLitre;
  for (std::size_t j = 0; j < request.shelf.size(); ++j)
    out.milligramsPerLitre.addScaled(request.shelf[j].composition.massFraction,
                                     1000 * out.strength * state.x[static_cast<Index>(j)]);
  if (state.extra[k] >= 0) {
    out.correction = static_cast<std::size_t>(state.extra[k]);
    out.correctionGramsPerLitre = state.extraGrams[c];
    out.milligramsPerLitre.addScaled(request.shelf[*out.correction].composition.massFraction,
                                     1000 * out.correctionGramsPerLitre);
  }
  const auto& crop = request.crops[k];
  for (const auto& row : crop.rows)
    out.deviationPercent.push_back(row.deviationPercent(out.milligramsPerLitre.of(row.nutrient)));
  out.misfit = misfitOf(crop, out.milligramsPerLitre);
  SolveRequest own;
  own.water = request.water;
  own.shelf = request.shelf;
  own.rows = crop.rows;
  const auto answer = solve(own);
  if (answer && !answer->grams.empty()) {
    NutrientAmounts feed = own.water.milligramsPerLitre;
    for (std::size_t j = 0; j < own.shelf.size(); ++j)
      feed.addScaled(own.shelf[j].composition.massFraction,
                     (answer->grams[j] / own.volume).milligramsPerLitre());
    out.ownMisfit = misfitOf(crop, feed);
  }
  return out;
}

} // namespace

Result<ManyCropsAnswer> manyCrops(const ManyCropsRequest& given) {
  if (given.crops.empty()) return problemAt(ProblemCode::MissingKey, "crops", {"one crop at least"});
  for (std::size_t k = 0; k < given.crops.size(); ++k) {
    if (given.crops[k].rows.empty())
      return problemAt(ProblemCode::MissingKey, "crops[" + std::to_string(k) + "]", {"a target"});
  }
  ManyCropsRequest request = given;
  for (auto& p : request.shelf) {
    p.locked.reset();
    p.least = Mass{};
    p.most.reset();
  }
  const State state = Descent(request).run();
  ManyCropsAnswer out;
  out.gramsPerLitre.assign(state.x.data(), state.x.data() + state.x.size());
  for (std::size_t k = 0; k < request.crops.size(); ++k)
    out.crops.push_back(shareOf(request, state, k));
  return out;
}

} // namespace butte::core
