#include "dose/reach_reading.h"

#include "base/decimal.h"

namespace butte::core {
namespace {

constexpr double mostMlPerLitre = 400; // of each stock: beyond that it is no dilution
constexpr double alike = 1e-12;

Problem outOfRange(const char* where, Conductivity c, const std::string& right) {
  return problemAt(ProblemCode::OutOfRange, where, {decimalText(c.milliSiemensPerCm()), right});
}

/// Strength of the stocks in what is poured together, in mL of each per litre.
double mixedDose(Volume volume, double dose, Volume stockEach, Volume all) {
  return (volume.litres() * dose + stockEach.millilitres()) / all.litres();
}

} // namespace

DoseCurve straightCurve(Conductivity water, Conductivity atDose, double mlPerLitre) {
  return [=](double dose) { return water + (atDose - water) * (dose / mlPerLitre); };
}

std::optional<double> doseAt(const DoseCurve& curve, Conductivity reading) {
  double low = 0, high = 1;
  const double start = curve(0).milliSiemensPerCm(), wanted = reading.milliSiemensPerCm();
  if (start > wanted * (1 + alike)) return std::nullopt;
  while (curve(high) < reading) {
    if (high > mostMlPerLitre) return std::nullopt;
    high *= 2;
  }
  for (int i = 0; i < 60; ++i) {
    const double middle = 0.5 * (low + high);
    (curve(middle) < reading ? low : high) = middle;
  }
  return high < 1e-9 ? 0 : high;
}

Result<ReachReading> reachReading(Volume volume, Conductivity now, Conductivity target, int stocks,
                                  const DoseCurve& curve) {
  if (!(volume > Volume{}))
    return problemAt(ProblemCode::OutOfRange, "volume_l", {decimalText(volume.litres()), "above 0"});
  const auto water = decimalText(curve(0).milliSiemensPerCm());
  const auto x0 = doseAt(curve, now), x1 = doseAt(curve, target);
  if (!x0)
    return outOfRange("ec_now", now,
                      "at least the water's own " + water + " mS/cm, and a reading that the stocks can give");
  if (!x1)
    return outOfRange("ec_target", target,
                      "at least the water's own " + water + " mS/cm, and a reading that the stocks can give");
  ReachReading out;
  out.doseNowMlPerLitre = *x0;
  out.doseThenMlPerLitre = *x1;
  if (*x1 >= *x0) {
    const double room = 1 - stocks * *x1 / 1000;
    if (!(room > 0)) return outOfRange("ec_target", target, "less: the stocks alone would fill the vessel");
    out.stockEach = Volume::fromMillilitres(volume.litres() * (*x1 - *x0) / room);
    return out;
  }
  if (!(*x1 > 0)) return outOfRange("ec_target", target, "more than the water's own " + water + " mS/cm");
  out.water = volume * (*x0 / *x1 - 1);
  return out;
}

Result<std::vector<ReachStep>> reachInSteps(Volume volume, Conductivity now, Conductivity target, int stocks,
                                            const DoseCurve& curve, bool cautious) {
  const auto whole = reachReading(volume, now, target, stocks, curve);
  if (!whole) return whole.problem();
  std::vector<ReachStep> steps;
  const int parts = cautious ? 2 : 1;
  Volume after = volume;
  double dose = whole->doseNowMlPerLitre;
  for (int i = 0; i < parts; ++i) {
    ReachStep step;
    step.stockEach = whole->stockEach / parts;
    step.water = whole->water / parts;
    step.volumeAfter = after + step.stockEach * stocks + step.water;
    dose = mixedDose(after, dose, step.stockEach, step.volumeAfter);
    after = step.volumeAfter;
    step.expected = curve(dose);
    steps.push_back(step);
  }
  return steps;
}

} // namespace butte::core
