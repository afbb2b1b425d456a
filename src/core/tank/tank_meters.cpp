#include "tank/tank_meters.h"

namespace butte::core {
namespace {

constexpr double waterKgPerLitre = 0.998; // a feed at 20 degC, to 0.3 %

Result<Equilibrium> settled(const FeedContent& content, const ReservoirAir& air, std::optional<double> ph) {
  EquilibriumConditions conditions;
  conditions.temperature = air.temperature;
  conditions.carbonDioxideAtm = air.carbonDioxideAtm;
  conditions.ph = ph;
  return equilibrate(solutesPerLitre(content).scaled(1 / waterKgPerLitre), conditions);
}

} // namespace

std::optional<double> conductivityOf(const FeedContent& content, const ReservoirAir& air) {
  EquilibriumConditions conditions;
  conditions.carbonDioxideAtm = air.carbonDioxideAtm;
  const auto at25 = conductivityAt25(solutesPerLitre(content), waterKgPerLitre, conditions);
  return at25 ? std::optional(at25->milliSiemensPerCm()) : std::nullopt;
}

std::optional<double> phOf(const FeedContent& content, const ReservoirAir& air) {
  const auto found = settled(content, air, std::nullopt);
  return found ? std::optional(found->ph) : std::nullopt;
}

std::optional<double> alkalinityAtPh(const FeedContent& content, double ph, const ReservoirAir& air) {
  const auto found = settled(content, air, ph);
  return found ? std::optional(found->alkalinityEq * waterKgPerLitre * 1000) : std::nullopt;
}

} // namespace butte::core
