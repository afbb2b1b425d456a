#include "solution/mass_action.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace butte::core {
namespace {

constexpr double ln10 = 2.302585092994046;
constexpr double closedTo = 1e-11;      // relative balance error that ends the iteration
constexpr double smallestTotal = 1e-18; // mol/kg; less is nothing
constexpr double longestStep = 4.0;     // in ln activity
constexpr double waterPerSolute =
    0.017; // fall of the water's activity per mol/kg (PHREEQC's rule, from memory)
constexpr double leastWater = 0.3;

/// Hydrogen ions in the form that alkalinity is counted against: CO2, H2PO4-, whole citric and acetic acid.
double referenceHydrogen(const Solutes& s) {
  return 2 * s.of(Component::Carbonate) + 2 * s.of(Component::Phosphate) + 3 * s.of(Component::Citrate) +
         s.of(Component::Acetate);
}

} // namespace

MassAction::MassAction(const Solutes& totals, const EquilibriumConditions& conditions)
    : m_data(EquilibriumData::instance()), m_totals(totals), m_conditions(conditions),
      m_activity(conditions.temperature.celsius()) {
  if (conditions.ph) m_lnHydrogen = -*conditions.ph * ln10;
  if (conditions.carbonDioxideAtm)
    m_lnCarbonateGas =
        m_data.at(conditions.temperature).lnCarbonDioxideGas + std::log(*conditions.carbonDioxideAtm);
  for (std::size_t i = 0; i < totals.chelateMol.size(); ++i) {
    const double z = static_cast<double>(i + 1);
    m_inertStrength += 0.5 * z * z * totals.chelateMol[i];
    m_inertMol += totals.chelateMol[i];
  }
  chooseUnknowns();
  buildSpecies();
  buildSolids();
  start();
}

void MassAction::chooseUnknowns() {
  m_unknownOf.fill(-1);
  for (const auto c : allComponents) {
    const auto i = static_cast<std::size_t>(c);
    if (c == Component::Carbonate && m_lnCarbonateGas) continue;
    if (m_totals.mol[i] > smallestTotal) m_unknownOf[i] = m_n++;
  }
  if (!m_lnHydrogen) m_hydrogenUnknown = m_n++;
  m_target = Vector::Zero(m_n);
  for (std::size_t i = 0; i < componentCount; ++i) {
    if (m_unknownOf[i] >= 0) m_target[m_unknownOf[i]] = m_totals.mol[i];
  }
  if (m_hydrogenUnknown < 0) return;
  double hydrogen = referenceHydrogen(m_totals) - m_totals.alkalinityEq;
  if (m_lnCarbonateGas) hydrogen -= 2 * m_totals.of(Component::Carbonate);
  m_target[m_hydrogenUnknown] = hydrogen;
}

/// Writes the stoichiometry over the unknowns into `row`; returns the part of ln that held activities make.
/// NaN when a component is missing.
double MassAction::reduce(const Stoichiometry& s, std::vector<double>& row) const {
  row.assign(static_cast<std::size_t>(m_n), 0.0);
  double hydrogen = s.hydrogen, held = 0;
  for (const auto& [component, power] : s.components) {
    if (m_lnCarbonateGas && allComponents[component] == Component::Carbonate) {
      held += power * *m_lnCarbonateGas;
      hydrogen -= 2 * power;
    } else if (const int unknown = m_unknownOf[component]; unknown >= 0) {
      row[static_cast<std::size_t>(unknown)] += power;
    } else if (power != 0) {
      return std::numeric_limits<double>::quiet_NaN();
    }
  }
  if (m_lnHydrogen)
    held += hydrogen * *m_lnHydrogen;
  else
    row[static_cast<std::size_t>(m_hydrogenUnknown)] += hydrogen;
  return held;
}

void MassAction::buildSpecies() {
  const auto& lnK = m_data.at(m_conditions.temperature).lnFormation;
  m_species.reserve(lnK.size());
  std::vector<double> row;
  for (std::size_t i = 0; i < m_data.species().size(); ++i) {
    const auto& record = m_data.species()[i];
    const double held = reduce(record.made, row);
    if (std::isnan(held)) continue;
    Active a{i, lnK[i] + held, record.made.water, {}};
    // Open to a gas, water takes part in what the gas makes: CO3 H^2 = p K a(H2O).
    for (const auto& [component, power] : record.made.components) {
      if (m_lnCarbonateGas && allComponents[component] == Component::Carbonate) a.water += power;
    }
    for (int u = 0; u < m_n; ++u) {
      if (const double power = row[static_cast<std::size_t>(u)]; power != 0)
        a.terms[static_cast<std::size_t>(a.termCount++)] = {u, power};
    }
    a.z2 = record.charge * record.charge;
    m_species.push_back(a);
  }
}

void MassAction::buildSolids() {
  for (const auto& solid : m_conditions.solids) {
    Held held;
    const double part = reduce(solid.dissolved, held.row);
    held.possible = !std::isnan(part);
    held.lnK = solid.lnSolubilityProduct - part;
    held.water = solid.dissolved.water;
    for (const auto& [component, power] : solid.dissolved.components) {
      if (m_lnCarbonateGas && allComponents[component] == Component::Carbonate) held.water += power;
    }
    m_solids.push_back(std::move(held));
  }
}

/// Balance of hydrogen without ion pairs at this pH, each component shared among its own acids; fills the
/// matching logarithms.
double MassAction::hydrogenExcess(double lnHydrogen, Vector* x) const {
  Vector share = Vector::Zero(m_n), hydrogen = Vector::Zero(m_n);
  double own = 0;
  for (const auto& s : m_species) {
    int component = -1;
    double power = 0, hydrogenPower = 0;
    bool pair = false;
    for (int t = 0; t < s.termCount; ++t) {
      const auto& term = s.terms[static_cast<std::size_t>(t)];
      if (term.unknown == m_hydrogenUnknown) {
        hydrogenPower = term.power;
      } else {
        pair |= component >= 0;
        component = term.unknown;
        power = term.power;
      }
    }
    if (pair || (component >= 0 && power != 1)) continue;
    const double amount = std::exp(std::min(s.lnK + hydrogenPower * lnHydrogen - s.lnGamma, 600.0));
    if (component < 0) {
      own += hydrogenPower * amount;
    } else {
      share[component] += amount;
      hydrogen[component] += hydrogenPower * amount;
    }
  }
  double sum = own;
  for (int u = 0; u < m_n; ++u) {
    if (u == m_hydrogenUnknown) {
      if (x) (*x)[u] = lnHydrogen;
      continue;
    }
    if (x) (*x)[u] = std::log(m_target[u] / share[u]);
    sum += m_target[u] * hydrogen[u] / share[u];
  }
  return m_hydrogenUnknown < 0 ? 0 : sum - m_target[m_hydrogenUnknown];
}

void MassAction::start() {
  m_strength = m_inertStrength;
  for (std::size_t i = 0; i < componentCount; ++i) {
    const double z = std::min(2, std::abs(m_data.species()[m_data.speciesOf(allComponents[i])].charge));
    m_strength += 0.4 * z * z * m_totals.mol[i];
  }
  updateGammas();
  m_x = Vector::Zero(m_n);
  if (takeStart()) return;
  double low = -15 * ln10, high = 1 * ln10; // pH 15 down to -1
  for (int i = 0; i < 16 && m_hydrogenUnknown >= 0; ++i) {
    const double middle = 0.5 * (low + high);
    (hydrogenExcess(middle, nullptr) < 0 ? low : high) = middle;
  }
  hydrogenExcess(0.5 * (low + high), &m_x);
}

/// The state of a like solution, where it holds all that this one holds.
bool MassAction::takeStart() {
  const auto* from = m_conditions.start;
  if (!from) return false;
  for (std::size_t i = 0; i < componentCount; ++i) {
    if (m_unknownOf[i] < 0) continue;
    if (!std::isfinite(from->lnActivity[i])) return false;
    m_x[m_unknownOf[i]] = from->lnActivity[i];
  }
  if (m_hydrogenUnknown >= 0) m_x[m_hydrogenUnknown] = from->lnHydrogen;
  m_strength = std::max(from->ionicStrength, 1e-9);
  m_near = true;
  return true;
}

void MassAction::updateGammas() {
  for (auto& s : m_species) {
    const auto& r = m_data.species()[s.record];
    s.lnGamma = m_activity.lnGamma(r.charge, r.sizeAngstrom, r.linearTerm, m_strength);
    s.slope = m_activity.lnGammaSlope(r.charge, r.sizeAngstrom, r.linearTerm, m_strength);
  }
}

void MassAction::updateMolalities(const Vector& x) {
  for (auto& s : m_species) {
    double ln = s.lnK + s.water * m_lnWater - s.lnGamma;
    for (int t = 0; t < s.termCount; ++t)
      ln += s.terms[static_cast<std::size_t>(t)].power * x[s.terms[static_cast<std::size_t>(t)].unknown];
    s.molality = std::exp(std::min(ln, 600.0));
  }
}

double MassAction::potential(const Vector& x) {
  updateMolalities(x);
  double sum = -m_target.dot(x);
  for (const auto& s : m_species)
    sum += s.molality;
  return sum;
}

double MassAction::strengthFound() const {
  double sum = m_inertStrength;
  for (const auto& s : m_species)
    sum += 0.5 * s.z2 * s.molality;
  return sum;
}

void MassAction::updateWater() {
  double solutes = m_inertMol;
  for (const auto& s : m_species)
    solutes += s.molality;
  m_lnWater = std::log(std::max(1 - waterPerSolute * solutes, leastWater));
}

/// Solves the balances together with the conditions of the solids present, by the Schur complement.
bool MassAction::solveKkt(const Matrix& j, const Vector& scale, const std::vector<std::size_t>& present,
                          const Vector& rhs, const std::vector<double>& gap, Vector& x,
                          std::vector<double>& multipliers) const {
  const Eigen::LLT<Matrix> factor(j);
  if (factor.info() != Eigen::Success) return false;
  const auto solve = [&](const Vector& b) -> Vector {
    return scale.cwiseProduct(factor.solve(Vector(scale.cwiseProduct(b))));
  };
  x = solve(rhs);
  const auto k = static_cast<Eigen::Index>(present.size());
  multipliers.assign(present.size(), 0.0);
  if (k == 0) return true;
  Eigen::MatrixXd a(k, m_n), back(m_n, k);
  for (Eigen::Index r = 0; r < k; ++r) {
    const auto& row = m_solids[present[static_cast<std::size_t>(r)]].row;
    for (int u = 0; u < m_n; ++u)
      a(r, u) = row[static_cast<std::size_t>(u)];
    back.col(r) = solve(Vector(a.row(r).transpose()));
  }
  const Eigen::MatrixXd schur = a * back;
  Eigen::VectorXd want(k);
  for (Eigen::Index r = 0; r < k; ++r)
    want[r] = a.row(r).dot(x) - gap[static_cast<std::size_t>(r)];
  const Eigen::FullPivLU<Eigen::MatrixXd> lu(schur);
  if (!lu.isInvertible()) return false;
  const Eigen::VectorXd p = lu.solve(want);
  for (Eigen::Index r = 0; r < k; ++r) {
    x -= p[r] * back.col(r);
    multipliers[static_cast<std::size_t>(r)] = p[r];
  }
  return x.allFinite();
}

/// Newton steps; with `coupled`, the ionic strength moves along.
bool MassAction::newtonAt(const std::vector<std::size_t>& present, bool coupled, int most) {
  m_amounts.assign(present.size(), 0.0);
  for (int iteration = 0; iteration < most; ++iteration) {
    ++m_iterations;
    if (coupled) updateGammas();
    updateMolalities(m_x);
    if (coupled) updateWater();
    Matrix j = Matrix::Zero(m_n, m_n);
    Vector balance = -m_target, gross = Vector::Zero(m_n), fromStrength = Vector::Zero(m_n),
           toStrength = Vector::Zero(m_n);
    double strengthSlope = 1;
    for (const auto& s : m_species) {
      strengthSlope += 0.5 * s.z2 * s.molality * s.slope;
      for (int t = 0; t < s.termCount; ++t) {
        const auto& a = s.terms[static_cast<std::size_t>(t)];
        const double part = a.power * s.molality;
        balance[a.unknown] += part;
        gross[a.unknown] += std::abs(part);
        fromStrength[a.unknown] += part * s.slope;
        toStrength[a.unknown] += 0.5 * s.z2 * part;
        for (int v = 0; v < s.termCount; ++v) {
          const auto& b = s.terms[static_cast<std::size_t>(v)];
          j(a.unknown, b.unknown) += part * b.power;
        }
      }
    }
    std::vector<double> gap(present.size());
    bool met = true;
    Vector rest = balance;
    for (std::size_t r = 0; r < present.size(); ++r) {
      const auto& solid = m_solids[present[r]];
      double ln = solid.water * m_lnWater - solid.lnK;
      for (int u = 0; u < m_n; ++u) {
        ln += solid.row[static_cast<std::size_t>(u)] * m_x[u];
        rest[u] += m_amounts[r] * solid.row[static_cast<std::size_t>(u)];
        gross[u] += std::abs(m_amounts[r] * solid.row[static_cast<std::size_t>(u)]);
      }
      gap[r] = -ln;
      met &= std::abs(ln) < 1e-11;
    }
    const double strengthGap = m_strength - strengthFound();
    bool closed = met && (!coupled || std::abs(strengthGap) <= 1e-12 * m_strength + 1e-18);
    for (int u = 0; u < m_n && closed; ++u)
      closed = std::abs(rest[u]) <= closedTo * (gross[u] + std::abs(m_target[u]));
    if (closed) return true;

    Vector scale(m_n);
    for (int u = 0; u < m_n; ++u)
      scale[u] = 1 / std::sqrt(std::max(j(u, u), 1e-290));
    Matrix scaled = scale.asDiagonal() * j * scale.asDiagonal();
    for (int u = 0; u < m_n; ++u)
      scaled(u, u) += 1e-15;
    Vector step(m_n);
    std::vector<double> amounts;
    // Balance plus the solids' share must vanish: J dx + A^T p = -balance, with p the whole amount.
    if (!solveKkt(scaled, scale, present, -balance, gap, step, amounts)) return false;
    double strengthStep = 0;
    if (coupled) {
      Vector along(m_n);
      std::vector<double> amountsAlong;
      const std::vector<double> none(present.size(), 0.0);
      if (!solveKkt(scaled, scale, present, fromStrength, none, along, amountsAlong)) return false;
      const double slope = strengthSlope - toStrength.dot(along);
      strengthStep = (toStrength.dot(step) - strengthGap) / (slope > 0.05 ? slope : 0.05);
      strengthStep = std::clamp(strengthStep, -0.7 * m_strength, 2 * m_strength + 1e-9);
      step += strengthStep * along;
      for (std::size_t r = 0; r < present.size(); ++r)
        amounts[r] += strengthStep * amountsAlong[r];
    }
    const double longest = m_n > 0 ? step.cwiseAbs().maxCoeff() : 0;
    double part = longest > longestStep ? longestStep / longest : 1;
    if (!coupled && present.empty() && longest > 0.1) {
      const double before = potential(m_x), slope = balance.dot(step);
      while (part > 1e-6 && potential(m_x + part * step) > before + 1e-4 * part * slope)
        part *= 0.5;
    }
    m_x += part * step;
    m_strength += part * strengthStep;
    m_amounts = std::move(amounts);
  }
  return false;
}

/// The sure way: the ionic strength by bracketing, the rest at each strength by damped Newton.
bool MassAction::settleNested(const std::vector<std::size_t>& present) {
  double most = m_inertStrength + 1e-9;
  for (std::size_t i = 0; i < componentCount; ++i)
    most += 8 * m_totals.mol[i];
  most += std::abs(m_totals.alkalinityEq) + 1;
  double low = 0, high = most, excessLow = 1, excessHigh = -1;
  for (int i = 0; i < 200; ++i) {
    const double secant = (low * -excessHigh + high * excessLow) / (excessLow - excessHigh);
    m_strength = i % 3 == 2 || i < 2 ? 0.5 * (low + high) : std::clamp(secant, low, high);
    updateGammas();
    if (!newtonAt(present, false, 200)) return false;
    updateWater();
    const double excess = strengthFound() - m_strength;
    if (excess > 0) {
      low = m_strength;
      excessLow = excess;
    } else {
      high = m_strength;
      excessHigh = excess;
    }
    if (high - low <= 1e-10 * high) break;
  }
  // The last digits by the coupled steps, which are now near.
  return newtonAt(present, true, 50);
}

bool MassAction::settle(const std::vector<std::size_t>& present) {
  const Vector x = m_x;
  const double strength = m_strength;
  m_lnWater = 0;
  if (present.empty() && !m_near) {
    updateGammas();
    newtonAt({}, false, 2); // the rough way there; whether it closes does not matter yet
  }
  if (newtonAt(present, true, 60)) return true;
  m_x = x;
  m_strength = strength;
  return settleNested(present);
}

std::optional<double> MassAction::lnSaturation(std::size_t solid) const {
  const auto& s = m_solids[solid];
  if (!s.possible) return std::nullopt;
  double ln = s.water * m_lnWater - s.lnK;
  for (int u = 0; u < m_n; ++u)
    ln += s.row[static_cast<std::size_t>(u)] * m_x[u];
  return ln;
}

Equilibrium MassAction::result() const {
  Equilibrium out;
  out.lnHydrogen = m_lnHydrogen ? *m_lnHydrogen : m_x[m_hydrogenUnknown];
  out.ph = -out.lnHydrogen / ln10;
  out.ionicStrength = m_strength;
  out.waterActivity = std::exp(m_lnWater);
  out.lnActivity.assign(componentCount, -std::numeric_limits<double>::infinity());
  for (std::size_t i = 0; i < componentCount; ++i) {
    if (m_unknownOf[i] >= 0) out.lnActivity[i] = m_x[m_unknownOf[i]];
  }
  if (m_lnCarbonateGas)
    out.lnActivity[static_cast<std::size_t>(Component::Carbonate)] =
        *m_lnCarbonateGas + m_lnWater - 2 * out.lnHydrogen;
  out.molality.assign(m_data.species().size(), 0.0);
  double hydrogen = 0;
  constexpr auto carbonate = static_cast<std::size_t>(Component::Carbonate);
  for (const auto& s : m_species) {
    out.molality[s.record] = s.molality;
    const auto& made = m_data.species()[s.record].made;
    hydrogen += made.hydrogen * s.molality;
    for (const auto& [component, power] : made.components) {
      if (component == carbonate) out.carbonateMol += power * s.molality;
    }
  }
  Solutes reached = m_totals;
  reached.of(Component::Carbonate) = out.carbonateMol;
  out.alkalinityEq = m_lnHydrogen ? referenceHydrogen(reached) - hydrogen : m_totals.alkalinityEq;
  out.iterations = m_iterations;
  return out;
}

} // namespace butte::core
