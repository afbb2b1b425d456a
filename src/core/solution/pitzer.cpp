#include "solution/pitzer.h"

#include "units/constants.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double sizeTerm = 1.2;        // kg^0.5 mol^-0.5, Pitzer 1973
constexpr double leastStrength = 1e-12; // mol/kg; a root has no slope at 0
constexpr double waterKgPerMol = constant::waterGramsPerMol / 1000;
constexpr double alpha = 2.0, alphaOfTwoTwo = 1.4, alphaOfBeta2 = 12.0; // Pitzer & Mayorga 1973, 1974

/// Debye and Hueckel's slope for the osmotic coefficient, kg^0.5 mol^-0.5: a parabola through the values of
/// Bradley & Pitzer 1979 from 0 to 45 degC (0.3767, 0.3820, 0.3882, 0.3915, 0.3949, 0.4023 at 0, 10, 20, 25,
/// 30, 40 degC, from memory), which the parameters were fitted with.
double osmoticSlope(double celsius) {
  return 0.3767 + celsius * (5.07e-4 + celsius * 3.3e-6);
}

/// 2 (1 - (1 + x) exp(-x)) / x^2 and its companion in the derivative by the ionic strength.
struct Falling {
  double g, slope;
};
Falling falling(double x) {
  const double e = std::exp(-x), squared = x * x;
  return {2 * (1 - (1 + x) * e) / squared, -2 * (1 - (1 + x + squared / 2) * e) / squared};
}

/// The second virial coefficient of a cation and an anion: at constant composition, in the osmotic
/// coefficient, and its derivative by the ionic strength.
struct Virial {
  double b, osmotic, slope;
};

/// Of all pairs of like charges, the parts that only the ionic strength decides.
class Decay {
public:
  explicit Decay(double strength) {
    const double root = std::sqrt(strength);
    m_common = of(alpha * root, strength);
    m_twoTwo = of(alphaOfTwoTwo * root, strength);
    m_second = of(alphaOfBeta2 * root, strength);
  }
  Virial virial(const PitzerPair& pair, bool isTwoTwo) const {
    const auto& first = isTwoTwo ? m_twoTwo : m_common;
    return {pair.beta0 + pair.beta1 * first.b + pair.beta2 * m_second.b,
            pair.beta0 + pair.beta1 * first.osmotic + pair.beta2 * m_second.osmotic,
            pair.beta1 * first.slope + pair.beta2 * m_second.slope};
  }

private:
  static Virial of(double x, double strength) {
    const auto f = falling(x);
    return {f.g, std::exp(-x), f.slope / strength};
  }
  Virial m_common{}, m_twoTwo{}, m_second{};
};

/// Pitzer's integral J and its derivative, by the approximation that he gave with it (1975).
struct Unsymmetrical {
  double j, slope;
};
Unsymmetrical pitzerJ(double x) {
  constexpr double c1 = 4.581, c2 = 0.7237, c3 = 0.0120, c4 = 0.528;
  const double power = std::pow(x, c4), tail = c1 * std::pow(x, -c2) * std::exp(-c3 * power);
  const double below = 4 + tail;
  return {x / below, (below + tail * (c2 + c3 * c4 * power)) / (below * below)};
}

/// The electrostatic part of mixing a singly with a doubly charged ion of one sign, and its derivative.
struct Mixing {
  double theta = 0, slope = 0;
};
Mixing mixingOfOneAndTwo(double aPhi, double strength) {
  const double x = 6 * aPhi * std::sqrt(strength);
  const auto one = pitzerJ(x), between = pitzerJ(2 * x), two = pitzerJ(4 * x);
  Mixing out;
  out.theta = 2 / (4 * strength) * (between.j - 0.5 * one.j - 0.5 * two.j);
  const double turned = 2 * x * between.slope - 0.5 * x * one.slope - 0.5 * 4 * x * two.slope;
  out.slope = -out.theta / strength + 2 / (8 * strength * strength) * turned;
  return out;
}

template <std::size_t n> struct IonsOfOneSign {
  const std::array<double, n>& molality;
  const std::array<int, n>& charge;
  const std::array<std::array<double, n>, n>& theta;
  const std::vector<PitzerTriple>& triples;
  std::array<double, n>& lnGamma;
};

/// Sums over one solution.
class Sums {
public:
  Sums(const PitzerParameters& parameters, double aPhi, const PitzerSolution& solution)
      : m_p(parameters), m_s(solution), m_strength(std::max(solution.ionicStrength(), leastStrength)),
        m_decay(m_strength), m_mixing(mixingOfOneAndTwo(aPhi, m_strength)) {
    const double root = std::sqrt(m_strength), below = 1 + sizeTerm * root;
    m_f = -aPhi * (root / below + 2 / sizeTerm * std::log(below));
    m_osmotic = -aPhi * m_strength * root / below;
  }

  PitzerActivities run() {
    const IonsOfOneSign<pitzerCationCharges.size()> cations{m_s.cations, pitzerCationCharges, m_p.cationTheta,
                                                            m_p.cationTriples, m_out.lnCation};
    const IonsOfOneSign<pitzerAnionCharges.size()> anions{m_s.anions, pitzerAnionCharges, m_p.anionTheta,
                                                          m_p.anionTriples, m_out.lnAnion};
    m_particles = m_s.otherMol;
    m_charge = m_s.otherCharge;
    count(cations);
    count(anions);
    addPairs();
    addMixing(cations);
    addMixing(anions);
    addTriples(cations, anions);
    addTriples(anions, cations);
    finish(cations);
    finish(anions);
    m_out.lnWater = -waterKgPerMol * (m_particles + 2 * m_osmotic);
    return m_out;
  }

private:
  template <typename Ions> void count(const Ions& ions) {
    for (std::size_t i = 0; i < ions.molality.size(); ++i) {
      m_particles += ions.molality[i];
      m_charge += ions.molality[i] * ions.charge[i];
    }
  }

  void addPairs() {
    for (std::size_t c = 0; c < m_s.cations.size(); ++c) {
      for (std::size_t a = 0; a < m_s.anions.size(); ++a) {
        const auto& pair = m_p.pairs[c][a];
        if (!pair.isKnown) continue;
        const double mc = m_s.cations[c], ma = m_s.anions[a];
        if (mc <= 0 || ma <= 0) continue;
        const auto b = m_decay.virial(pair, pitzerCationCharges[c] == 2 && pitzerAnionCharges[a] == 2);
        m_out.lnCation[c] += ma * (2 * b.b + m_charge * pair.c);
        m_out.lnAnion[a] += mc * (2 * b.b + m_charge * pair.c);
        m_f += mc * ma * b.slope;
        m_third += mc * ma * pair.c;
        m_osmotic += mc * ma * (b.osmotic + m_charge * pair.c);
      }
    }
  }

  template <typename Ions> void addMixing(const Ions& ions) {
    for (std::size_t i = 0; i < ions.molality.size(); ++i) {
      for (std::size_t j = i + 1; j < ions.molality.size(); ++j) {
        const double mi = ions.molality[i], mj = ions.molality[j];
        if (mi <= 0 || mj <= 0) continue;
        const bool unequal = ions.charge[i] != ions.charge[j];
        const double phi = ions.theta[i][j] + (unequal ? m_mixing.theta : 0);
        const double slope = unequal ? m_mixing.slope : 0;
        ions.lnGamma[i] += 2 * mj * phi;
        ions.lnGamma[j] += 2 * mi * phi;
        m_f += mi * mj * slope;
        m_osmotic += mi * mj * (phi + m_strength * slope);
      }
    }
  }

  template <typename Ions, typename Others> void addTriples(const Ions& ions, const Others& others) {
    for (const auto& t : ions.triples) {
      const double first = ions.molality[t.first], second = ions.molality[t.second];
      const double other = others.molality[t.other];
      ions.lnGamma[t.first] += second * other * t.psi;
      ions.lnGamma[t.second] += first * other * t.psi;
      others.lnGamma[t.other] += first * second * t.psi;
      m_osmotic += first * second * other * t.psi;
    }
  }

  template <typename Ions> void finish(const Ions& ions) {
    for (std::size_t i = 0; i < ions.molality.size(); ++i) {
      const double z = ions.charge[i];
      ions.lnGamma[i] += z * z * m_f + z * m_third;
    }
  }

  const PitzerParameters& m_p;
  const PitzerSolution& m_s;
  double m_strength;
  Decay m_decay;
  Mixing m_mixing;
  double m_f, m_osmotic, m_third = 0, m_particles = 0, m_charge = 0;
  PitzerActivities m_out;
};

} // namespace

double PitzerSolution::ionicStrength() const {
  double sum = otherStrength;
  for (std::size_t i = 0; i < cations.size(); ++i)
    sum += 0.5 * cations[i] * pitzerCationCharges[i] * pitzerCationCharges[i];
  for (std::size_t i = 0; i < anions.size(); ++i)
    sum += 0.5 * anions[i] * pitzerAnionCharges[i] * pitzerAnionCharges[i];
  return sum;
}

PitzerModel::PitzerModel(double celsius)
    : m_celsius(celsius), m_aPhi(osmoticSlope(celsius)), m_parameters(pitzerParametersAt(celsius)) {}

const PitzerModel& PitzerModel::at(double celsius) {
  constexpr std::size_t most = 8;
  thread_local std::vector<PitzerModel> kept;
  thread_local std::size_t oldest = 0;
  for (const auto& model : kept) {
    if (model.m_celsius == celsius) return model;
  }
  kept.reserve(most);
  if (kept.size() < most) return kept.emplace_back(celsius);
  auto& place = kept[oldest];
  oldest = (oldest + 1) % most;
  place = PitzerModel(celsius);
  return place;
}

PitzerActivities PitzerModel::activities(const PitzerSolution& solution) const {
  return Sums(m_parameters, m_aPhi, solution).run();
}

} // namespace butte::core
