#include "tank/tank_meters.h"

namespace butte::core {
namespace {

Result<Equilibrium> settled(const FeedContent& content, const ReservoirAir& air, std::optional<double> ph) {
  EquilibriumConditions conditions;
  conditions.temperature = air.temperature;
  conditions.carbonDioxideAtm = air.carbonDioxideAtm;
  conditions.ph = ph;
  return equilibrate(solutesPerLitre(content).scaled(1 / feedWaterKgPerLitre), conditions);
}

} // namespace

std::optional<double> conductivityOf(const FeedContent& content, const ReservoirAir& air) {
  EquilibriumConditions conditions;
  conditions.carbonDioxideAtm = air.carbonDioxideAtm;
  const auto at25 = conductivityAt25(solutesPerLitre(content), feedWaterKgPerLitre, conditions);
  return at25 ? std::optional(at25->milliSiemensPerCm()) : std::nullopt;
}

std::optional<double> phOf(const FeedContent& content, const ReservoirAir& air) {
  const auto found = settled(content, air, std::nullopt);
  return found ? std::optional(found->ph) : std::nullopt;
}

std::optional<double> alkalinityAtPh(const FeedContent& content, double ph, const ReservoirAir& air) {
  const auto found = settled(content, air, ph);
  return found ? std::optional(found->alkalinityEq * feedWaterKgPerLitre * 1000) : std::nullopt;
}

} // namespace butte::core
