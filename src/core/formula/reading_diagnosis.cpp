#include "formula/reading_diagnosis.h"

namespace butte::core {
namespace {

constexpr double leastStrength = 0.3, mostStrength = 2; // common practice

/// What the meter would show with each tank's line shut in turn.
std::vector<Conductivity> withTankShut(const Delivery& delivery, const StockAnswer& stock, double ofDue,
                                       Conductivity expected) {
  std::vector<Conductivity> out;
  for (std::size_t t = 0; t < delivery.tankCount(); ++t) {
    std::vector<double> draws(delivery.tankCount(), ofDue);
    draws[t] = 0;
    out.push_back(stock.tanks[t].items.empty() ? expected : delivery.conductivity(draws, ofDue));
  }
  return out;
}

} // namespace

Conductivity expectedReading(const Delivery& delivery, const StockAnswer& stock, double mlPerLitre) {
  const double ofDue = mlPerLitre / stock.doseMlPerLitre;
  return delivery.conductivity(std::vector<double>(delivery.tankCount(), ofDue), ofDue);
}

std::optional<ReadingDiagnosis> diagnosed(const std::vector<DosedReading>& readings, const Delivery& delivery,
                                          const StockAnswer& stock, Conductivity water, Volume vessel) {
  if (readings.empty()) return std::nullopt;
  ReadingDiagnosis out;
  const auto base = expectedReading(delivery, stock, 0);
  std::vector<DosedReading> against;
  for (const auto& reading : readings) {
    out.expected.push_back(expectedReading(delivery, stock, reading.x));
    against.push_back({(out.expected.back() - base).milliSiemensPerCm(), reading.reading});
  }
  if (const auto line = fitReadings(readings)) out.line = *line;
  if (const auto curve = fitReadings(against)) out.curve = *curve;
  if (out.curve && out.curve->slope >= leastStrength && out.curve->slope <= mostStrength)
    out.stockStrength = out.curve->slope;
  const auto& last = readings.back();
  out.lastGap = {out.expected.back(), last.reading, water, vessel, {}};
  out.lastGap.withTankShut =
      withTankShut(delivery, stock, last.x / stock.doseMlPerLitre, out.lastGap.expected);
  out.causes = causesOf(out.lastGap);
  return out;
}

} // namespace butte::core
