/// The iteration of MassAction: linearise, solve with the solids' conditions, step.
#include "solution/mass_action.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double closedTo = 1e-11;      // relative balance error that ends the iteration
constexpr double solidClosedTo = 1e-11; // in ln of a solid's saturation
constexpr double longestStep = 4.0;     // in ln activity
constexpr double leastSlope = 0.05;     // of the ionic strength's own equation
constexpr int mostCoupled = 60, mostDamped = 200, mostBrackets = 200;

} // namespace

/// Solves J dx + A^T p = b, A dx = c by the Schur complement, J scaled to a unit diagonal and factored once.
class MassAction::Kkt {
public:
  Kkt(const Matrix& j, const std::vector<const Held*>& present) {
    const auto n = j.rows();
    m_scale = Vector(n);
    for (Eigen::Index u = 0; u < n; ++u)
      m_scale[u] = 1 / std::sqrt(std::max(j(u, u), 1e-290));
    Matrix scaled = m_scale.asDiagonal() * j * m_scale.asDiagonal();
    scaled.diagonal().array() += 1e-15;
    m_factor.compute(scaled);
    m_good = m_factor.info() == Eigen::Success;
    if (!m_good || present.empty()) return;
    const auto k = static_cast<Eigen::Index>(present.size());
    m_rows = Eigen::MatrixXd(k, n);
    m_back = Eigen::MatrixXd(n, k);
    for (Eigen::Index r = 0; r < k; ++r) {
      const auto& row = present[static_cast<std::size_t>(r)]->row;
      for (Eigen::Index u = 0; u < n; ++u)
        m_rows(r, u) = row[static_cast<std::size_t>(u)];
      m_back.col(r) = plain(Vector(m_rows.row(r).transpose()));
    }
    m_schur.compute(m_rows * m_back);
    m_good = m_schur.isInvertible();
  }

  bool good() const { return m_good; }

  /// The step, and the multipliers p, for these right sides.
  std::pair<Vector, Eigen::VectorXd> solve(const Vector& b, const Eigen::VectorXd& c) const {
    Vector x = plain(b);
    if (m_rows.rows() == 0) return {x, Eigen::VectorXd()};
    Eigen::VectorXd p = m_schur.solve(m_rows * x - c);
    x -= m_back * p;
    return {x, p};
  }

private:
  Vector plain(const Vector& b) const {
    return m_scale.cwiseProduct(m_factor.solve(Vector(m_scale.cwiseProduct(b))));
  }

  Vector m_scale;
  Eigen::LLT<Matrix> m_factor;
  Eigen::MatrixXd m_rows, m_back;
  Eigen::FullPivLU<Eigen::MatrixXd> m_schur;
  bool m_good = false;
};

/// The balances at the present state, and how they move with the activities and the ionic strength.
MassAction::Linear MassAction::linearise() const {
  Linear out;
  out.j = Matrix::Zero(m_n, m_n);
  out.balance = -m_target;
  out.gross = out.fromStrength = out.toStrength = Vector::Zero(m_n);
  for (const auto& s : m_species) {
    out.strengthSlope += 0.5 * s.z2 * s.molality * s.slope;
    for (int t = 0; t < s.termCount; ++t) {
      const auto& a = s.terms[static_cast<std::size_t>(t)];
      const double part = a.power * s.molality;
      out.balance[a.unknown] += part;
      out.gross[a.unknown] += std::abs(part);
      out.fromStrength[a.unknown] += part * s.slope;
      out.toStrength[a.unknown] += 0.5 * s.z2 * part;
      for (int v = 0; v < s.termCount; ++v) {
        const auto& b = s.terms[static_cast<std::size_t>(v)];
        out.j(a.unknown, b.unknown) += part * b.power;
      }
    }
  }
  out.strengthGap = m_strength - strengthFound();
  return out;
}

/// How far each solid present is from saturation, with the sign of what the step must bring.
Eigen::VectorXd MassAction::solidGaps(const std::vector<std::size_t>& present) const {
  Eigen::VectorXd gaps(static_cast<Eigen::Index>(present.size()));
  for (std::size_t r = 0; r < present.size(); ++r)
    gaps[static_cast<Eigen::Index>(r)] = -*lnSaturation(present[r]);
  return gaps;
}

bool MassAction::isClosed(const Linear& at, const std::vector<std::size_t>& present,
                          const Eigen::VectorXd& gaps, bool coupled) const {
  if (gaps.size() > 0 && gaps.cwiseAbs().maxCoeff() >= solidClosedTo) return false;
  if (coupled && std::abs(at.strengthGap) > 1e-12 * m_strength + 1e-18) return false;
  for (int u = 0; u < m_n; ++u) {
    double rest = at.balance[u], gross = at.gross[u] + std::abs(m_target[u]);
    for (std::size_t r = 0; r < present.size(); ++r) {
      const double share = m_amounts[r] * m_solids[present[r]].row[static_cast<std::size_t>(u)];
      rest += share;
      gross += std::abs(share);
    }
    if (std::abs(rest) > closedTo * gross) return false;
  }
  return true;
}

/// Newton steps; with `coupled`, the ionic strength moves along.
bool MassAction::newtonAt(const std::vector<std::size_t>& present, bool coupled, int most) {
  m_amounts.assign(present.size(), 0.0);
  std::vector<const Held*> solids;
  for (const auto i : present)
    solids.push_back(&m_solids[i]);
  for (int iteration = 0; iteration < most; ++iteration) {
    ++m_iterations;
    if (coupled) updateGammas();
    updateMolalities(m_x);
    if (coupled) updateWater();
    const Linear at = linearise();
    const auto gaps = solidGaps(present);
    if (isClosed(at, present, gaps, coupled)) return true;
    const Kkt kkt(at.j, solids);
    if (!kkt.good()) return false;
    // The balances with the solids' whole amounts must vanish: J dx + A^T p = -balance.
    auto [step, amounts] = kkt.solve(-at.balance, gaps);
    double strengthStep = 0;
    if (coupled) {
      const auto [along, amountsAlong] = kkt.solve(at.fromStrength, Eigen::VectorXd::Zero(gaps.size()));
      const double slope = std::max(at.strengthSlope - at.toStrength.dot(along), leastSlope);
      strengthStep = std::clamp((at.toStrength.dot(step) - at.strengthGap) / slope, -0.7 * m_strength,
                                2 * m_strength + 1e-9);
      step += strengthStep * along;
      amounts += strengthStep * amountsAlong;
    }
    if (!step.allFinite()) return false;
    const double part = stepLength(at, step, !coupled && present.empty());
    m_x += part * step;
    m_strength += part * strengthStep;
    m_amounts.assign(amounts.begin(), amounts.end());
  }
  return false;
}

/// How much of a step is taken; with `damped`, so much that the convex potential falls.
double MassAction::stepLength(const Linear& at, const Vector& step, bool damped) {
  const double longest = m_n > 0 ? step.cwiseAbs().maxCoeff() : 0;
  double part = longest > longestStep ? longestStep / longest : 1;
  if (!damped || longest <= 0.1) return part;
  const double before = potential(m_x), slope = at.balance.dot(step);
  while (part > 1e-6 && potential(m_x + part * step) > before + 1e-4 * part * slope)
    part *= 0.5;
  return part;
}

/// The sure way: the ionic strength by bracketing, the rest at each strength by damped Newton.
bool MassAction::settleNested(const std::vector<std::size_t>& present) {
  double most = m_inertStrength + std::abs(m_totals.alkalinityEq) + 1;
  for (const double mol : m_totals.mol)
    most += 8 * mol;
  double low = 0, high = most, excessLow = 1, excessHigh = -1;
  for (int i = 0; i < mostBrackets; ++i) {
    const double secant = (low * -excessHigh + high * excessLow) / (excessLow - excessHigh);
    m_strength = i % 3 == 2 || i < 2 ? 0.5 * (low + high) : std::clamp(secant, low, high);
    updateGammas();
    if (!newtonAt(present, false, mostDamped)) return false;
    updateWater();
    const double excess = strengthFound() - m_strength;
    (excess > 0 ? low : high) = m_strength;
    (excess > 0 ? excessLow : excessHigh) = excess;
    if (high - low <= 1e-10 * high) break;
  }
  // The last digits by the coupled steps, which are now near.
  return newtonAt(present, true, mostCoupled);
}

bool MassAction::settle(const std::vector<std::size_t>& present) {
  const Vector x = m_x;
  const double strength = m_strength;
  m_lnWater = 0;
  if (present.empty() && !m_near) {
    updateGammas();
    newtonAt({}, false, 2); // the rough way there; whether it closes does not matter yet
  }
  if (newtonAt(present, true, mostCoupled)) return true;
  m_x = x;
  m_strength = strength;
  return settleNested(present);
}

} // namespace butte::core
