#include "solution/conductivity.h"

#include "solution/activity.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double largestForDavies = 0.5; // mol/kg; past it the equation has no meaning and is held level

/// log10 gamma by the Davies equation, as the conductivity correction below was published with it.
double daviesLog10(double a, int charge, double strength) {
  const double i = std::min(strength, largestForDavies);
  const double root = std::sqrt(i);
  return -a * charge * charge * (root / (1 + root) - 0.3 * i);
}

/// Share of the limiting conductivity that is left at this ionic strength: gamma^e with e = 0.6/sqrt|z| up to
/// an ionic strength of 0.36|z| and sqrt(I)/|z| above (Appelo 2010, from memory).
double conductivityShare(double a, int charge, double strength) {
  const double z = std::abs(charge);
  const double exponent = strength < 0.36 * z ? 0.6 / std::sqrt(z) : std::sqrt(strength) / z;
  return std::pow(10, exponent * daviesLog10(a, charge, strength));
}

/// Fluidity of water at 25 degC rises by this per kelvin: the slope of waterRelativeViscosity() there.
constexpr double fluidityPercentPerK = 2.27;

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
  const double a = ActivityModel(temperature.celsius()).a();
  const double strength = settled.ionicStrength;
  std::array<double, 4> share{};
  for (int z = 1; z <= 3; ++z)
    share[static_cast<std::size_t>(z)] = conductivityShare(a, z, strength);
  const double fluidity = relativeFluidity(temperature.celsius());
  double sum = 0; // (mol/L) (S cm2/mol) = mS/cm
  const auto conduct = [&](const SpeciesRecord& ion, double molality) {
    sum += molality * limitingAt(ion, fluidity) * share[static_cast<std::size_t>(std::abs(ion.charge))];
  };
  for (std::size_t i = 0; i < data.species().size(); ++i) {
    if (data.species()[i].charge != 0) conduct(data.species()[i], settled.molality[i]);
  }
  for (std::size_t i = 0; i < perKgWater.chelateMol.size(); ++i)
    conduct(data.chelate(i + 1), perKgWater.chelateMol[i]);
  return Conductivity::fromMilliSiemensPerCm(sum * waterKgPerLitre);
}

Conductivity compensatedReading(Conductivity actual, Temperature temperature, double percentPerKelvin) {
  return actual / (1 + percentPerKelvin / 100 * (temperature.celsius() - 25));
}

Conductivity conductivityByRule(const IonBalance& ions) {
  return Conductivity::fromMilliSiemensPerCm(ions.cationsMeqPerL() / 10);
}

} // namespace butte::core
