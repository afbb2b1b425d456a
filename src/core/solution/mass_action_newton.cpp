/// The iteration of MassAction: linearise, solve with the solids' conditions, step.
#include "solution/mass_action.h"

#include <Eigen/LU>

#include <algorithm>
#include <cmath>
#include <tuple>

namespace butte::core {
namespace {

constexpr double closedTo = 1e-11;      // relative balance error that ends the iteration
constexpr double solidClosedTo = 1e-11; // in ln of a solid's saturation
constexpr double longestStep = 4.0;     // in ln activity
constexpr double leastOwnSlope = 0.05;  // of the ionic strength's own equation, and of the water's
constexpr double waterPerSolute =
    0.017; // fall of the water's activity per mol/kg (PHREEQC's rule, from memory)
constexpr double leastWater = 0.3;
constexpr int mostCoupled = 60, mostDamped = 200, mostBrackets = 200;

} // namespace

/// Solves J dx + A^T p = b, A dx = c by the Schur complement, J factored once.
class MassAction::Kkt {
public:
  Kkt(const Factor::Matrix& j, int unknowns, const std::vector<const Held*>& present)
      : m_factor(j, unknowns), m_good(m_factor.good()) {
    if (!m_good || present.empty()) return;
    const auto k = static_cast<Eigen::Index>(present.size());
    m_rows = Matrix(k, unknowns);
    m_back = Matrix(unknowns, k);
    for (Eigen::Index r = 0; r < k; ++r) {
      const auto& row = present[static_cast<std::size_t>(r)]->row;
      m_rows.row(r) = row.transpose();
      m_back.col(r) = m_factor.solve(row);
    }
    m_schur.compute(m_rows * m_back);
    m_good = m_schur.isInvertible();
  }

  bool good() const { return m_good; }

  /// The step, and the multipliers p, for these right sides.
  std::pair<Vector, Vector> solve(const Vector& b, const Vector& c) const {
    return onSolids(m_factor.solve(b), c);
  }

  /// Three right sides at once.
  std::array<std::pair<Vector, Vector>, 3> solve(const std::array<const Vector*, 3>& b,
                                                 const std::array<const Vector*, 3>& c) const {
    const auto x = m_factor.solve(b);
    return {onSolids(x[0], *c[0]), onSolids(x[1], *c[1]), onSolids(x[2], *c[2])};
  }

private:
  std::pair<Vector, Vector> onSolids(Vector x, const Vector& c) const {
    if (c.size() == 0) return {x, c};
    Vector p = m_schur.solve(m_rows * x - c);
    x -= m_back * p;
    return {x, p};
  }

  Factor m_factor;
  Matrix m_rows, m_back;
  Eigen::FullPivLU<Matrix> m_schur;
  bool m_good = false;
};

void MassAction::updateGammas() {
  const auto at = m_activity.at(m_strength);
  const auto& kinds = m_set->kinds();
  for (std::size_t k = 0; k < kinds.size(); ++k)
    m_coefficients[k] = at.coefficient(kinds[k].charge, kinds[k].sizeAngstrom, kinds[k].linearTerm);
}

void MassAction::updateMolalities(const Vector& x) {
  Eigen::Index i = 0;
  for (const auto& s : m_set->species()) {
    double ln = s.lnK + s.water * m_lnWater - m_coefficients[s.kind].lnGamma;
    for (int t = 0; t < s.termCount; ++t)
      ln += s.terms[static_cast<std::size_t>(t)].power * x[s.terms[static_cast<std::size_t>(t)].unknown];
    m_lnMolality[i++] = ln;
  }
  m_molality = m_lnMolality.min(mostLn).exp();
}

double MassAction::potential(const Vector& x) {
  updateMolalities(x);
  return m_molality.sum() - m_target.dot(x);
}

double MassAction::strengthFound() const {
  double sum = m_inertStrength;
  Eigen::Index i = 0;
  for (const auto& s : m_set->species())
    sum += s.halfSquaredCharge * m_molality[i++];
  return sum;
}

double MassAction::waterFound(double solutesMol) const {
  return std::log(std::max(1 - waterPerSolute * solutesMol, leastWater));
}

/// The balances at the present state, and how they move with the activities, the ionic strength and the
/// water.
MassAction::Linear MassAction::linearise() const {
  Linear out;
  out.j.topRows(m_n).setZero();
  // Of each unknown, over the species that it is part of: the molality, what it moves with the ionic
  // strength, what it adds to it, and what it moves with the water. Side by side, so that they are added up
  // together.
  using Sums = std::array<double, 4>;
  std::array<Sums, mostUnknowns> sums{};
  double strength = m_inertStrength, solutes = m_inertMol;
  const double* molalities = m_molality.data();
  double* const j = out.j.data();
  const auto* pair = m_set->pairs().data();
  for (const auto& s : m_set->species()) {
    const double molality = *molalities++;
    const double toStrength = s.halfSquaredCharge * molality;
    const double bySlope = molality * m_coefficients[s.kind].slope;
    const double byWater = molality * s.water;
    strength += toStrength;
    solutes += molality;
    out.strength.byStrength -= s.halfSquaredCharge * bySlope;
    out.solutes.byStrength -= bySlope;
    out.strength.byWater += toStrength * s.water;
    out.solutes.byWater += byWater;
    const Sums each{molality, -bySlope, toStrength, byWater};
    for (int t = 0; t < s.termCount; ++t) {
      const auto& term = s.terms[static_cast<std::size_t>(t)];
      auto& sum = sums[static_cast<std::size_t>(term.unknown)];
      for (std::size_t k = 0; k < each.size(); ++k)
        sum[k] += term.power * each[k];
    }
    for (const auto* const end = pair + s.pairCount; pair != end; ++pair)
      j[pair->place] += pair->product * molality;
  }
  for (auto* row : {&out.solutes.byUnknown, &out.byStrength, &out.strength.byUnknown, &out.byWater})
    row->resize(m_n);
  for (int u = 0; u < m_n; ++u) {
    const auto& sum = sums[static_cast<std::size_t>(u)];
    out.solutes.byUnknown[u] = sum[0];
    out.byStrength[u] = sum[1];
    out.strength.byUnknown[u] = sum[2];
    out.byWater[u] = sum[3];
  }
  out.balance = out.solutes.byUnknown - m_target;
  out.gross = out.solutes.byUnknown; // only hydrogen is taken as well as given
  if (const int hydrogen = m_set->hydrogenUnknown(); hydrogen >= 0) {
    out.gross[hydrogen] = 0;
    for (const auto& use : m_set->hydrogenUses())
      out.gross[hydrogen] += use.power * m_molality[static_cast<Eigen::Index>(use.species)];
  }
  out.strengthGap = m_strength - strength;
  out.waterGap = m_lnWater - waterFound(solutes);
  const double water = 1 - waterPerSolute * solutes;
  out.waterBySolutes = water > leastWater ? -waterPerSolute / water : 0;
  return out;
}

/// How far each solid present is from saturation, with the sign of what the step must bring.
MassAction::Vector MassAction::solidGaps(const std::vector<std::size_t>& present) const {
  Vector gaps(static_cast<Eigen::Index>(present.size()));
  for (std::size_t r = 0; r < present.size(); ++r)
    gaps[static_cast<Eigen::Index>(r)] = -*lnSaturation(present[r]);
  return gaps;
}

/// Water that each solid present takes along.
MassAction::Vector MassAction::hydrateWater(const std::vector<std::size_t>& present) const {
  Vector water(static_cast<Eigen::Index>(present.size()));
  for (std::size_t r = 0; r < present.size(); ++r)
    water[static_cast<Eigen::Index>(r)] = m_solids[present[r]].water;
  return water;
}

bool MassAction::isClosed(const Linear& at, const std::vector<std::size_t>& present, const Vector& gaps,
                          bool coupled) const {
  if (gaps.size() > 0 && gaps.cwiseAbs().maxCoeff() >= solidClosedTo) return false;
  if (coupled && std::abs(at.strengthGap) > 1e-12 * m_strength + 1e-18) return false;
  if (coupled && std::abs(at.waterGap) > closedTo) return false;
  for (int u = 0; u < m_n; ++u) {
    double rest = at.balance[u], gross = at.gross[u] + std::abs(m_target[u]);
    for (std::size_t r = 0; r < present.size(); ++r) {
      const double share = m_amounts[r] * m_solids[present[r]].row[u];
      rest += share;
      gross += std::abs(share);
    }
    if (std::abs(rest) > closedTo * gross) return false;
  }
  return true;
}

/// The step of the activities with the ionic strength and the water: their two own equations, the activities
/// put in.
MassAction::Step MassAction::coupledStep(const Linear& at, const Kkt& kkt,
                                         const std::vector<std::size_t>& present, const Vector& gaps) const {
  // The balances with the solids' whole amounts must vanish: J dx + A^T p = -balance.
  const Vector none = Vector::Zero(gaps.size()), hydrate = -hydrateWater(present);
  const Vector balance = -at.balance, byStrength = -at.byStrength, byWater = -at.byWater;
  const auto [still, ofI, ofW] = kkt.solve({&balance, &byStrength, &byWater}, {&gaps, &none, &hydrate});
  const auto& [x, amounts] = still;
  const auto& [xOfI, amountsOfI] = ofI;
  const auto& [xOfW, amountsOfW] = ofW;
  const auto along = [&](const Sum& sum, double bySelf, const Vector& dx) {
    return bySelf + sum.byUnknown.dot(dx);
  };
  const double k = at.waterBySolutes;
  const double ii = 1 - along(at.strength, at.strength.byStrength, xOfI);
  const double iw = -along(at.strength, at.strength.byWater, xOfW);
  const double wi = -k * along(at.solutes, at.solutes.byStrength, xOfI);
  const double ww = std::max(1 - k * along(at.solutes, at.solutes.byWater, xOfW), leastOwnSlope);
  const double i = at.strength.byUnknown.dot(x) - at.strengthGap;
  const double w = k * at.solutes.byUnknown.dot(x) - at.waterGap;
  Step out;
  out.strength = std::clamp((i - iw * w / ww) / std::max(ii - iw * wi / ww, leastOwnSlope), -0.7 * m_strength,
                            2 * m_strength + 1e-9);
  out.lnWater = std::clamp((w - wi * out.strength) / ww, std::log(leastWater) - m_lnWater, -m_lnWater);
  out.x = x + out.strength * xOfI + out.lnWater * xOfW;
  out.amounts = amounts + out.strength * amountsOfI + out.lnWater * amountsOfW;
  return out;
}

/// Newton steps; with `coupled`, the ionic strength and the water's activity move along.
bool MassAction::newtonAt(const std::vector<std::size_t>& present, bool coupled, int most) {
  m_amounts.assign(present.size(), 0.0);
  std::vector<const Held*> solids;
  for (const auto i : present)
    solids.push_back(&m_solids[i]);
  for (int iteration = 0; iteration < most; ++iteration) {
    ++m_iterations;
    if (coupled) updateGammas();
    updateMolalities(m_x);
    const Linear at = linearise();
    const auto gaps = solidGaps(present);
    if (isClosed(at, present, gaps, coupled)) return true;
    const Kkt kkt(at.j, m_n, solids);
    if (!kkt.good()) return false;
    Step step;
    if (coupled)
      step = coupledStep(at, kkt, present, gaps);
    else
      std::tie(step.x, step.amounts) = kkt.solve(-at.balance, gaps);
    if (!step.x.allFinite()) return false;
    const double part = stepLength(at, step.x, !coupled && present.empty());
    m_x += part * step.x;
    m_strength += part * step.strength;
    m_lnWater += part * step.lnWater;
    m_amounts.assign(step.amounts.begin(), step.amounts.end());
    if (coupled && isLast(step)) {
      updateGammas();
      updateMolalities(m_x);
      return true;
    }
  }
  return false;
}

/// So short that no look at what it left is needed.
bool MassAction::isLast(const Step& step) const {
  const double longest = m_n > 0 ? step.x.cwiseAbs().maxCoeff() : 0;
  const double shortest = m_conditions.lastStep;
  return longest < shortest && std::abs(step.strength) < shortest * m_strength &&
         std::abs(step.lnWater) < shortest;
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
    m_lnWater = waterFound(m_inertMol + m_molality.sum());
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
  const double strength = m_strength, lnWater = m_lnWater;
  if (newtonAt(present, true, mostCoupled)) return true;
  m_x = x;
  m_strength = strength;
  m_lnWater = lnWater;
  return settleNested(present);
}

} // namespace butte::core
