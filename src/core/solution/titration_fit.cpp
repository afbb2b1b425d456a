#include "solution/titration_fit.h"

#include "algebra/factors.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double penError = 0.05;      // pH; a calibrated pen (common practice)
constexpr double farOff = 0.25;        // pH; nearer readings are never called outliers
constexpr double farOffScatters = 3.5; // robust standard deviations
constexpr int mostRounds = 6;
constexpr double usualCarbonate = 2e-3; // mol/L, where nothing is known of the water: only a start
constexpr double leastCarbonate = 1e-9; // mol/L, so that its worth can be asked for
constexpr double widestStrength = 0.25; // relative standard error past which a strength is not worth saying

/// The balance of one reading, in equivalents per litre: alkalinity = carbonate c + others + strength x acid.
struct Row {
  double perCarbonate = 0;
  double others = 0;
  double acid = 0;     ///< equivalents given off by the dose as labelled
  double perPh = 1e-6; ///< slope of alkalinity with pH: turns the balance into pH
};

/// Charge that carbonate holds per mole, at the state.
double carbonateCharge(const Equilibrium& state) {
  const auto& data = EquilibriumData::instance();
  double total = 0, held = 0;
  for (std::size_t i = 0; i < data.species().size(); ++i) {
    const auto& made = data.species()[i].made;
    for (const auto& [component, power] : made.components) {
      if (allComponents[component] != Component::Carbonate) continue;
      total += power * state.molality[i];
      held += (2 * power - made.hydrogen) * state.molality[i];
    }
  }
  return total > 0 ? held / total : 0;
}

class Fitter {
public:
  explicit Fitter(const TitrationRequest& request) : m_request(request) {
    m_fit.alkalinityEqPerLitre = request.waterPerLitre.alkalinityEq;
    const auto& water = request.waterPerLitre;
    m_fit.carbonateMolPerLitre = std::max(water.of(Component::Carbonate), std::abs(water.alkalinityEq));
    if (m_fit.carbonateMolPerLitre <= 0) m_fit.carbonateMolPerLitre = usualCarbonate;
    m_fit.readings.resize(request.readings.size());
  }

  Result<TitrationFit> run() {
    if (auto problem = checkCount()) return *problem;
    if (!settleTotals()) return problemAt(ProblemCode::NotDeterminable, "titration", {});
    // The worst reading goes first, and the rest is fitted anew: a bad one must not drag good ones with it.
    const std::size_t most = m_fit.readings.size() / 4;
    for (std::size_t removed = 0; removed < most; ++removed) {
      const auto worst = worstOutlier();
      if (!worst) break;
      m_fit.readings[*worst].outlier = true;
      if (!settleTotals()) return problemAt(ProblemCode::NotDeterminable, "titration", {});
    }
    if (seeksStrength() && !(m_fit.strengthStandardError < widestStrength * m_fit.strengthFactor))
      return problemAt(ProblemCode::NotDeterminable, "titration", {});
    return finish();
  }

private:
  bool seeksAlkalinity() const { return m_request.unknown != TitrationUnknown::Strength; }
  bool seeksStrength() const { return m_request.unknown != TitrationUnknown::Alkalinity; }
  Eigen::Index unknowns() const { return 1 + (seeksAlkalinity() ? 1 : 0) + (seeksStrength() ? 1 : 0); }

  /// The balance depends a little on the totals that it finds (pairs, ionic strength): on until they stand.
  bool settleTotals() {
    for (int round = 0; round < mostRounds; ++round) {
      const double alkalinity = m_fit.alkalinityEqPerLitre, strength = m_fit.strengthFactor,
                   carbonate = m_fit.carbonateMolPerLitre;
      if (!lookAtReadings() || !solve()) return false;
      const auto stands = [](double before, double after) {
        return std::abs(after - before) <= 1e-5 * std::abs(after) + 1e-9;
      };
      if (stands(alkalinity, m_fit.alkalinityEqPerLitre) && stands(strength, m_fit.strengthFactor) &&
          stands(carbonate, m_fit.carbonateMolPerLitre))
        break;
    }
    return true;
  }

  std::optional<Problem> checkCount() const {
    const std::size_t needed = m_request.unknown == TitrationUnknown::AlkalinityAndStrength ? 5 : 2;
    if (m_request.readings.size() >= needed) return std::nullopt;
    return problemAt(ProblemCode::TooFewReadings, "titration", {std::to_string(needed)});
  }

  /// What everything is worth at each measured pH, with the present fit's totals.
  bool lookAtReadings() {
    m_rows.clear();
    m_states.resize(m_request.readings.size());
    for (std::size_t i = 0; i < m_request.readings.size(); ++i) {
      const auto& reading = m_request.readings[i];
      Solutes totals = m_request.waterPerLitre;
      totals.of(Component::Carbonate) = std::max(m_fit.carbonateMolPerLitre, leastCarbonate);
      totals.addScaled(m_request.acidPerUnit, reading.dose * m_fit.strengthFactor);
      const double kg = m_request.waterKgPerLitre;
      EquilibriumConditions held;
      held.temperature = m_request.temperature;
      Row row;
      std::array<double, 2> around{};
      for (const double offset : {-0.02, 0.02}) {
        held.ph = reading.ph + offset;
        held.start = m_states[i] ? &*m_states[i] : nullptr;
        auto state = equilibrate(totals.scaled(1 / kg), held);
        if (!state) return false;
        around[offset > 0 ? 1 : 0] = state->alkalinityEq * kg;
        row.perCarbonate += 0.5 * carbonateCharge(*state);
        row.acid += 0.5 * reading.dose * equivalentsPerGram(m_request.acidPerUnit, *state);
        m_states[i] = std::move(state).value();
      }
      // Alkalinity of the mixture counts the dose's strong acid; what is left over are the other bases.
      const double mixture = 0.5 * (around[0] + around[1]);
      const double doseShare =
          m_fit.strengthFactor * (row.acid + reading.dose * m_request.acidPerUnit.alkalinityEq);
      row.others = mixture - row.perCarbonate * totals.of(Component::Carbonate) - doseShare;
      row.perPh = std::max((around[1] - around[0]) / 0.04, 1e-7);
      m_rows.push_back(row);
    }
    return true;
  }

  bool solve() {
    const auto n = unknowns();
    Eigen::MatrixXd normal = Eigen::MatrixXd::Zero(n, n);
    Eigen::VectorXd right = Eigen::VectorXd::Zero(n);
    std::size_t kept = 0;
    for (std::size_t i = 0; i < m_rows.size(); ++i) {
      if (m_fit.readings[i].outlier) continue;
      ++kept;
      const auto row = coefficients(m_rows[i]);
      const double weight = 1 / (penError * m_rows[i].perPh);
      normal += weight * weight * row.first * row.first.transpose();
      right += weight * weight * row.second * row.first;
    }
    if (static_cast<Eigen::Index>(kept) < n) return false;
    const Eigen::VectorXd scale = normal.diagonal().cwiseSqrt().cwiseInverse();
    if (!scale.allFinite()) return false;
    constexpr double leastReciprocalCondition = 1e-13;
    const auto solved = solveSquare(scale.asDiagonal() * normal * scale.asDiagonal(),
                                    scale.cwiseProduct(right), leastReciprocalCondition);
    if (solved.reciprocalCondition < leastReciprocalCondition) return false;
    const Eigen::VectorXd x = scale.cwiseProduct(solved.x);
    const Eigen::MatrixXd covariance = scale.asDiagonal() * solved.inverse * scale.asDiagonal();
    take(x, covariance);
    readResiduals(kept);
    return x.allFinite();
  }

  /// Coefficients of what is sought (carbonate, alkalinity, strength) and the known side.
  std::pair<Eigen::VectorXd, double> coefficients(const Row& row) const {
    Eigen::VectorXd a(unknowns());
    double known = -row.others;
    Eigen::Index next = 0;
    a[next++] = row.perCarbonate;
    if (seeksAlkalinity())
      a[next++] = -1;
    else
      known += m_request.waterPerLitre.alkalinityEq;
    if (seeksStrength())
      a[next++] = row.acid;
    else
      known -= row.acid;
    return {a, known};
  }

  void take(const Eigen::VectorXd& x, const Eigen::MatrixXd& covariance) {
    Eigen::Index next = 0;
    m_fit.carbonateMolPerLitre = std::max(x[next++], 0.0);
    if (seeksAlkalinity()) {
      m_fit.alkalinityStandardError = std::sqrt(std::max(covariance(next, next), 0.0));
      m_fit.alkalinityEqPerLitre = x[next++];
    }
    if (seeksStrength()) {
      m_fit.strengthStandardError = std::sqrt(std::max(covariance(next, next), 0.0));
      m_fit.strengthFactor = std::max(x[next++], 1e-6);
    }
  }

  void readResiduals(std::size_t kept) {
    double squares = 0;
    for (std::size_t i = 0; i < m_rows.size(); ++i) {
      const auto& row = m_rows[i];
      const double missing = row.perCarbonate * m_fit.carbonateMolPerLitre + row.others +
                             m_fit.strengthFactor * row.acid - m_fit.alkalinityEqPerLitre;
      m_fit.readings[i].residualPh = missing / row.perPh;
      if (!m_fit.readings[i].outlier) squares += m_fit.readings[i].residualPh * m_fit.readings[i].residualPh;
    }
    m_fit.scatterPh = std::sqrt(squares / static_cast<double>(std::max<std::size_t>(kept, 1)));
  }

  std::optional<std::size_t> worstOutlier() const {
    std::vector<double> sizes;
    for (const auto& reading : m_fit.readings) {
      if (!reading.outlier) sizes.push_back(std::abs(reading.residualPh));
    }
    if (sizes.size() <= static_cast<std::size_t>(unknowns()) + 1) return std::nullopt;
    std::nth_element(sizes.begin(), sizes.begin() + static_cast<std::ptrdiff_t>(sizes.size() / 2),
                     sizes.end());
    const double robust = 1.4826 * sizes[sizes.size() / 2];
    std::optional<std::size_t> worst;
    double most = std::max(farOff, farOffScatters * robust);
    for (std::size_t i = 0; i < m_fit.readings.size(); ++i) {
      const auto& reading = m_fit.readings[i];
      if (reading.outlier || std::abs(reading.residualPh) <= most) continue;
      most = std::abs(reading.residualPh);
      worst = i;
    }
    return worst;
  }

  Result<TitrationFit> finish() {
    // Scatter beyond the pen's error widens what is told of the certainty.
    const double wider = std::max(1.0, m_fit.scatterPh / penError);
    m_fit.alkalinityStandardError *= wider;
    m_fit.strengthStandardError *= wider;
    Solutes water = m_request.waterPerLitre;
    water.alkalinityEq = m_fit.alkalinityEqPerLitre;
    water.of(Component::Carbonate) = m_fit.carbonateMolPerLitre;
    EquilibriumConditions conditions;
    conditions.temperature = m_request.temperature;
    const auto settled = equilibrate(water.scaled(1 / m_request.waterKgPerLitre), conditions);
    if (!settled) return settled.problem();
    m_fit.initialPh = settled->ph;
    return m_fit;
  }

  const TitrationRequest& m_request;
  TitrationFit m_fit;
  std::vector<Row> m_rows;
  std::vector<std::optional<Equilibrium>> m_states; ///< at each reading, where the next round starts
};

} // namespace

Result<TitrationFit> fitTitration(const TitrationRequest& request) {
  return Fitter(request).run();
}

} // namespace butte::core
