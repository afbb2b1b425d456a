#include "tank/reservoir_flow.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

/// (e^(a x) - 1) / a, also where a is 0.
double growth(double a, double x) {
  return std::abs(a * x) < 1e-12 ? x : std::expm1(a * x) / a;
}

/// ln(1 + a y) / a: the x at which growth(a, x) is y; nothing where it never is.
std::optional<double> growthReaches(double a, double y) {
  if (std::abs(a * y) < 1e-12) return y;
  return a * y <= -1 ? std::nullopt : std::optional(std::log1p(a * y) / a);
}

/// Time as the tank feels it: the integral of dt / V, in days per litre. All of an element's balance is
/// plain exponentials of it.
class TankTime {
public:
  TankTime(double litres, double netLPerDay) : m_litres(litres), m_net(netLPerDay) {}
  double atDays(double days) const { return *growthReaches(m_net, days / m_litres); }
  double daysAt(double felt) const { return m_litres * growth(m_net, felt); }

private:
  double m_litres, m_net;
};

/// One element on its way through a stretch of time.
struct ElementPassage {
  double left = 0, taken = 0, drained = 0;
};

struct ElementFlow {
  double milligrams = 0;
  double fixedPerDay = 0;              ///< mg/day, as long as there is any
  double takenLPerDay = 0, drainL = 0; ///< litres a day that leave with all of the element in them
};

ElementPassage pass(const ElementFlow& element, double litres, double netLPerDay, double days) {
  const TankTime time(litres, netLPerDay);
  const double leaving = element.takenLPerDay + element.drainL;
  double felt = time.atDays(days), flowing = days;
  ElementPassage out;
  if (element.fixedPerDay > 0) {
    const auto gone =
        growthReaches(netLPerDay + leaving, element.milligrams / (element.fixedPerDay * litres));
    if (gone && *gone < felt) {
      felt = *gone;
      flowing = time.daysAt(felt);
    } else {
      out.left = std::exp(-leaving * felt) *
                 (element.milligrams - element.fixedPerDay * litres * growth(netLPerDay + leaving, felt));
    }
  } else {
    out.left = element.milligrams * std::exp(-leaving * felt);
  }
  out.left = std::max(out.left, 0.0);
  const double fixed = std::min(element.fixedPerDay * flowing, element.milligrams - out.left);
  const double withLiquid = element.milligrams - out.left - fixed;
  out.drained = leaving > 0 ? withLiquid * element.drainL / leaving : 0;
  out.taken = element.milligrams - out.left - out.drained;
  return out;
}

/// A tank holds so much of itself at least when it counts as empty.
constexpr double dryShare = 1e-9;

} // namespace

Passage passed(const ReservoirContent& tank, const ReservoirFlow& flow, double days) {
  Passage out;
  out.content = tank;
  const double litres = tank.volume.litres(), net = flow.netLPerDay();
  if (!(days > 0)) return out;
  if (!(litres > 0)) {
    out.rained = Volume::fromLitres(flow.rainLPerDay * days);
    out.content.volume = out.rained;
    return out;
  }
  if (litres + net * days < dryShare * litres) {
    out.dryAfterDays = litres * (1 - dryShare) / -net;
    days = *out.dryAfterDays;
  }
  const auto liquid = [&](double perDay) { return Volume::fromLitres(perDay * days); };
  out.transpired = liquid(flow.transpirationLPerDay);
  out.evaporated = liquid(flow.evaporationLPerDay);
  out.rained = liquid(flow.rainLPerDay);
  out.drained = liquid(flow.drainLPerDay);
  out.content = {};
  out.content.volume = Volume::fromLitres(litres + net * days);
  double charge = 0, taken = 0;
  for (const auto n : keptNutrients) {
    const double perLitre = flow.uptake.millimolesPerLitre.of(n) * molarMass(n);
    const auto part =
        pass({tank.milligrams.of(n), flow.transpirationLPerDay * perLitre,
              flow.transpirationLPerDay * flow.uptake.shareOfConcentration.of(n), flow.drainLPerDay},
             litres, net, days);
    out.content.milligrams.add(n, part.left);
    out.takenMilligrams.add(n, part.taken);
    out.drainedMilligrams.add(n, part.drained);
    charge += chargeInFeed(n) * part.left / molarMass(n);
    taken += chargeInFeed(n) * part.taken / molarMass(n);
  }
  // What no counter-ion balances leaves with the drain alone; the alkalinity is the rest of the charge.
  const double unbalanced =
      tank.unbalancedMeq() * std::exp(-flow.drainLPerDay * TankTime(litres, net).atDays(days));
  out.content.alkalinityMeq = unbalanced + charge;
  out.takenAlkalinityMeq = taken;
  out.drainedAlkalinityMeq = tank.alkalinityMeq - out.content.alkalinityMeq - taken;
  return out;
}

} // namespace butte::core
