#include "solution/conductivity.h"

#include "solution/activity.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace butte::core {
namespace {

constexpr double fluidityPercentPerK = 2.27; // of water at 25 degC: the slope of waterRelativeViscosity()
constexpr double poiseAt20C = 1.002e-2; // viscosity of water, Kestin, Sokolov & Wakeham 1978, from memory
constexpr double leastShare = 0.1;      // of its limiting conductivity; past the theory's reach

/// Distance of nearest approach in angstrom, by the ion's charge. Fitted together with the pairs of
/// data/ions.csv to Kohlrausch's equivalent conductivities (handbooks, from memory) up to 0.05 eq/L and to
/// PHREEQC's specific conductance of 15 salts up to 20 mmol/kg (tests/data/truth); single ions keep the
/// handbooks' limiting conductivities.
constexpr double nearestOfOneCharge = 3.7, nearestOfMore = 6.3;

/// One sign of the ions as the others feel it.
struct Side {
  double equivalents = 0, chargeWeighted = 0, conductance = 0;
  void add(double equivalentsOfIon, double charge, double equivalentConductivity) {
    equivalents += equivalentsOfIon;
    chargeWeighted += equivalentsOfIon * charge;
    conductance += equivalentsOfIon * equivalentConductivity;
  }
  double charge() const { return chargeWeighted / equivalents; }
  double conductivity() const { return conductance / equivalents; }
};

/// Of the law below, in its usual units (Robinson & Stokes 1959, from memory): K^1.5 L^0.5 mol^-0.5, and
/// S cm2 mol^-1 poise K^0.5 L^0.5 mol^-0.5, with (relative permittivity x kelvin) where a power of K stands.
constexpr double relaxationConstant = 2.801e6, dragConstant = 41.25;

/// Debye, Hueckel and Onsager's limiting law with a size (Robinson & Stokes 1959, from memory): an ion is
/// held back by the cloud of the other sign that has to form anew behind it, and by the water that the cloud
/// drags the other way. In a mixture each sign counts with its means.
class OnsagerLaw {
public:
  OnsagerLaw(double celsius, double ionicStrength, const Side& positive, const Side& negative)
      : m_root(std::sqrt(ionicStrength)), m_positive(positive.charge()), m_negative(negative.charge()) {
    const double dt = waterPermittivity(celsius) * (celsius + 273.15);
    const double plus = positive.conductivity(), minus = negative.conductivity();
    const double q = m_positive * m_negative / (m_positive + m_negative) * (plus + minus) /
                     (m_positive * minus + m_negative * plus);
    m_relaxation = relaxationConstant * q / ((1 + std::sqrt(q)) * std::pow(dt, 1.5));
    m_drag = dragConstant / (poiseAt20C * waterRelativeViscosity(celsius) * std::sqrt(dt));
    m_perAngstrom = ActivityModel(celsius).b();
  }

  /// Equivalent conductivity of an ion, S cm2 per equivalent, from the limiting one.
  double at(double limiting, int charge) const {
    const double z = std::abs(charge), other = charge > 0 ? m_negative : m_positive;
    const double size = z > 1 ? nearestOfMore : nearestOfOneCharge;
    const double held =
        (m_relaxation * z * other * limiting + m_drag * z) * m_root / (1 + m_perAngstrom * size * m_root);
    return std::max(limiting - held, leastShare * limiting);
  }

private:
  double m_root, m_positive, m_negative;
  double m_relaxation = 0, m_drag = 0, m_perAngstrom = 0;
};

/// How much better water lets ions pass at this temperature than at 25 degC.
double relativeFluidity(double celsius) {
  return waterRelativeViscosity(25) / waterRelativeViscosity(celsius);
}

/// Walden's rule with the exponent that gives each ion its own temperature coefficient at 25 degC: within 2 %
/// of the measured conductivities of KCl from 0 to 45 degC, where a straight line would be 8 % off.
double limitingAt(const SpeciesRecord& ion, double fluidity) {
  return ion.conductivityAt25C * std::pow(fluidity, ion.conductivityPercentPerK / fluidityPercentPerK);
}

} // namespace

Conductivity conductivityOf(const Equilibrium& settled, const Solutes& perKgWater, double waterKgPerLitre,
                            Temperature temperature) {
  const auto& data = EquilibriumData::instance();
  const double fluidity = relativeFluidity(temperature.celsius());
  struct Carrier {
    int charge;
    double molality, limiting; ///< mol/kg; S cm2/mol
  };
  std::vector<Carrier> carriers;
  carriers.reserve(data.species().size());
  for (std::size_t i = 0; i < data.species().size(); ++i) {
    const auto& species = data.species()[i];
    if (settled.molality[i] > 0 && species.conductivityAt25C > 0)
      carriers.push_back({species.charge, settled.molality[i], limitingAt(species, fluidity)});
  }
  for (std::size_t i = 0; i < perKgWater.chelateMol.size(); ++i) {
    const auto& chelate = data.chelate(i + 1);
    if (perKgWater.chelateMol[i] > 0)
      carriers.push_back({chelate.charge, perKgWater.chelateMol[i], limitingAt(chelate, fluidity)});
  }
  Side positive, negative;
  for (const auto& [charge, molality, limiting] : carriers) {
    const double z = std::abs(charge);
    if (charge != 0) (charge > 0 ? positive : negative).add(molality * z, z, limiting / z);
  }
  if (!(positive.equivalents > 0 && negative.equivalents > 0)) return {};
  const OnsagerLaw law(temperature.celsius(), settled.ionicStrength, positive, negative);
  double sum = 0; // (mol/L) (S cm2/mol) = mS/cm
  for (const auto& [charge, molality, limiting] : carriers) {
    const double z = std::abs(charge);
    sum += charge == 0 ? molality * limiting : molality * z * law.at(limiting / z, charge);
  }
  return Conductivity::fromMilliSiemensPerCm(sum * waterKgPerLitre);
}

Conductivity compensatedReading(Conductivity actual, Temperature temperature, double percentPerKelvin) {
  return actual / (1 + percentPerKelvin / 100 * (temperature.celsius() - 25));
}

Conductivity conductivityByRule(const IonBalance& ions) {
  return Conductivity::fromMilliSiemensPerCm(ions.cationsMeqPerL() / 10);
}

} // namespace butte::core
