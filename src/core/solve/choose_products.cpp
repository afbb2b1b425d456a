#include "solve/choose_products.h"

#include "solve/fit_with_few.h"
#include "solve/integer_program.h"
#include "solve/lexicographic.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

using Eigen::Index;
using Eigen::RowVectorXd;
using Eigen::VectorXd;

/// The mixed-integer problem: products, slacks of the wishes, and a switch for every product that may be left
/// out.
class Switches {
public:
  Switches(const SolveRequest& request, const LinearModel& model, std::size_t onShelf)
      : m_request(request), m_model(model), m_onShelf(onShelf), m_n(model.limits.lower.size()) {
    const LinearLimits loose = loosened(model);
    m_wide = loose.lower.size();
    m_limits.equality = widened(loose.equality);
    m_limits.equalityRhs = loose.equalityRhs;
    m_limits.inequality = widened(loose.inequality);
    m_limits.inequalityRhs = loose.inequalityRhs;
    m_limits.lower = VectorXd::Zero(m_wide + m_n);
    m_limits.lower.head(m_wide) = loose.lower;
    m_limits.upper = VectorXd::Ones(m_wide + m_n);
    m_limits.upper.head(m_wide) = loose.upper;
    const VectorXd most = mostOfEach();
    for (Index j = 0; j < m_n; ++j) {
      const Index z = m_wide + j;
      m_switches.push_back(z);
      if (m_limits.lower[j] > 0) m_limits.lower[z] = 1;
      m_limits.upper[j] = std::min(m_limits.upper[j], most[j]);
      RowVectorXd row = RowVectorXd::Zero(m_wide + m_n);
      row[j] = 1;
      row[z] = -m_limits.upper[j];
      m_limits.addInequality(row, 0);
    }
  }

  void atMost(int count) { m_limits.addInequality(countRow(0), count); }
  RowVectorXd countRow(std::size_t from) const {
    RowVectorXd row = RowVectorXd::Zero(m_wide + m_n);
    for (auto j = static_cast<Index>(from); j < m_n; ++j)
      row[m_wide + j] = 1;
    return row;
  }
  RowVectorXd violationRow() const {
    RowVectorXd row = RowVectorXd::Zero(m_wide + m_n);
    row.head(m_wide) = violationWeights(m_model).transpose();
    return row;
  }
  RowVectorXd costRow() const {
    RowVectorXd row = RowVectorXd::Zero(m_wide + m_n);
    for (Index j = 0; j < m_n; ++j)
      row[j] = m_request.shelf[static_cast<std::size_t>(j)].pricePerKg.value_or(0) / 1000;
    return row;
  }

  /// Makes the row as small as it gets and keeps it there for what follows. False when there is no answer.
  bool minimise(const RowVectorXd& row, double room) {
    const auto point = integerProgram(row.transpose(), m_limits, m_switches);
    if (!point) return m_at.has_value();
    m_proven = m_proven && point->proven;
    m_at = point->x;
    const double value = row.dot(point->x);
    m_limits.addInequality(row, value + room * (1 + std::abs(value)));
    return true;
  }

  std::vector<bool> used() const {
    std::vector<bool> out(static_cast<std::size_t>(m_n), true);
    for (Index j = 0; m_at && j < m_n; ++j)
      out[static_cast<std::size_t>(j)] = (*m_at)[m_wide + j] > 0.5 && (*m_at)[j] > 1e-9;
    return out;
  }
  bool proven() const { return m_proven; }
  std::size_t onShelf() const { return m_onShelf; }

private:
  Eigen::MatrixXd widened(const Eigen::MatrixXd& m) const {
    Eigen::MatrixXd wide = Eigen::MatrixXd::Zero(m.rows(), m_wide + m_n);
    wide.leftCols(m.cols()) = m;
    return wide;
  }

  /// No answer that is better than none at all can hold more of a product than this.
  VectorXd mostOfEach() const {
    const double none = violationAt(m_model, m_model.limits.lower);
    VectorXd most = VectorXd::Constant(m_n, 1000); // g/L: beyond any feed
    for (const auto& edge : m_model.bands) {
      for (Index j = 0; j < m_n; ++j) {
        if (edge.wish >= m_request.rows.size() || edge.row[j] <= 0) continue;
        most[j] = std::min(most[j], std::max(0.0, edge.most + none / edge.violationPerUnit) / edge.row[j]);
      }
    }
    return most.cwiseMax(m_model.limits.lower);
  }

  const SolveRequest& m_request;
  const LinearModel& m_model;
  std::size_t m_onShelf;
  Index m_n, m_wide = 0;
  LinearLimits m_limits;
  std::vector<Index> m_switches;
  std::optional<VectorXd> m_at;
  bool m_proven = true;
};

Result<ChosenFormula> solvedWith(SolveRequest request, const std::vector<bool>& used, std::size_t onShelf,
                                 bool proven) {
  for (std::size_t j = 0; j < request.shelf.size(); ++j) {
    if (!used[j] && !request.shelf[j].locked) request.shelf[j].most = Mass{};
  }
  auto answer = solve(request);
  if (!answer) return answer.problem();
  ChosenFormula out{std::move(request), std::move(answer).value(), {}, {}, proven};
  for (std::size_t j = 0; j < out.answer.grams.size(); ++j) {
    if (out.answer.grams[j] <= Mass{}) continue;
    out.used.push_back(out.request.shelf[j].id);
    if (j >= onShelf) out.buy.push_back(out.request.shelf[j].id);
  }
  return out;
}

} // namespace

Result<ChosenFormula> chooseProducts(const SolveRequest& request, const ProductChoice& choice) {
  SolveRequest whole = request;
  const auto onShelf = whole.shelf.size();
  whole.shelf.insert(whole.shelf.end(), choice.toBuy.begin(), choice.toBuy.end());
  const auto all = std::vector<bool>(whole.shelf.size(), true);
  if (whole.shelf.empty()) return solvedWith(whole, all, onShelf, true);
  if (whole.objective == Objective::Cheapest) { // names the product without a price
    if (auto plain = solve(whole); !plain) return plain.problem();
  }
  const LinearModel model = buildModel(whole);
  const bool plainFit = whole.objective == Objective::Closest && whole.require == Require::Best;
  const bool linearOnly = model.limits.equality.rows() + model.limits.inequality.rows() == 0;
  if (plainFit && choice.atMost && choice.toBuy.empty() && linearOnly) {
    const auto few = fitWithFew(model.scaledMatrix(), model.scaledRhs(), model.limits.lower,
                                model.limits.upper, *choice.atMost);
    return few.used.empty() ? solvedWith(whole, all, onShelf, false)
                            : solvedWith(whole, few.used, onShelf, few.proven);
  }
  Switches switches(whole, model, onShelf);
  if (choice.atMost) switches.atMost(*choice.atMost);
  if (!switches.minimise(switches.violationRow(), 1e-9)) return solvedWith(whole, all, onShelf, false);
  if (whole.objective == Objective::Cheapest) switches.minimise(switches.costRow(), 1e-9);
  if (!choice.toBuy.empty()) switches.minimise(switches.countRow(onShelf), 0);
  if (choice.fewest || whole.objective == Objective::Cheapest) switches.minimise(switches.countRow(0), 0);
  auto used = switches.used();
  // Whatever stands on the shelf may take part where only the buying is to be short.
  if (!choice.fewest && !choice.atMost && whole.objective == Objective::Closest)
    std::fill(used.begin(), used.begin() + static_cast<std::ptrdiff_t>(onShelf), true);
  if (plainFit) whole.require = Require::BandsFirst;
  return solvedWith(whole, used, onShelf, switches.proven());
}

} // namespace butte::core
