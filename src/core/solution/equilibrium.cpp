#include "solution/equilibrium.h"

#include "base/decimal.h"
#include "solution/mass_action.h"
#include "solution/strong_solution.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace butte::core {
namespace {

constexpr double mostMolPerKg = 60;

std::optional<Problem> checkRange(const Solutes& totals, const EquilibriumConditions& conditions) {
  const double celsius = conditions.temperature.celsius();
  if (!(celsius >= 0 && celsius <= 45))
    return problemAt(ProblemCode::OutOfRange, "temperature_c", {decimalText(celsius), "0 to 45 degC"});
  if (conditions.ph && !(*conditions.ph >= 0 && *conditions.ph <= 14))
    return problemAt(ProblemCode::OutOfRange, "ph", {decimalText(*conditions.ph), "0 to 14"});
  if (conditions.carbonDioxideAtm && !(*conditions.carbonDioxideAtm > 0 && *conditions.carbonDioxideAtm <= 1))
    return problemAt(ProblemCode::OutOfRange, "pco2_atm",
                     {decimalText(*conditions.carbonDioxideAtm), "above 0, up to 1 atm; air has 0.00042"});
  const auto inRange = [](double v) { return v >= 0 && v <= mostMolPerKg; };
  for (const auto c : allComponents) {
    if (!inRange(totals.of(c)))
      return problemAt(ProblemCode::OutOfRange, std::string(componentSpecies(c)),
                       {decimalText(totals.of(c)), "0 to 60 mol per kg of water"});
  }
  if (!(std::abs(totals.alkalinityEq) <= mostMolPerKg))
    return problemAt(ProblemCode::OutOfRange, "alkalinity",
                     {decimalText(totals.alkalinityEq), "-60 to 60 equivalents per kg of water"});
  return std::nullopt;
}

/// Adds the solid that stands highest above its solubility, takes away what would have a negative amount,
/// until neither is left.
bool settleWithSolids(MassAction& system, std::size_t solidCount, std::vector<std::size_t>& present) {
  std::vector<bool> refused(solidCount, false);
  for (int round = 0; round < 60; ++round) {
    const auto& amounts = system.amounts();
    const auto least = std::min_element(amounts.begin(), amounts.end());
    if (least != amounts.end() && *least < 0) {
      present.erase(present.begin() + (least - amounts.begin()));
      if (!system.settle(present)) return false;
      continue;
    }
    std::optional<std::size_t> highest;
    double most = 1e-9;
    for (std::size_t i = 0; i < solidCount; ++i) {
      if (refused[i] || std::find(present.begin(), present.end(), i) != present.end()) continue;
      const auto over = system.lnSaturation(i);
      if (over && *over > most) {
        most = *over;
        highest = i;
      }
    }
    if (!highest) return true;
    present.push_back(*highest);
    if (!system.settle(present)) {
      refused[*highest] = true; // it excludes another one that is present
      present.pop_back();
      if (!system.settle(present)) return false;
    }
  }
  return false;
}

/// One solution at equilibrium by the dilute model, its solids' constants as they are given.
Result<Equilibrium> settleOnce(const Solutes& perKgWater, const EquilibriumConditions& conditions) {
  MassAction system(perKgWater, conditions);
  std::vector<std::size_t> present;
  bool settled = system.settle(present);
  if (settled && !conditions.solids.empty())
    settled = settleWithSolids(system, conditions.solids.size(), present);
  if (!settled) return problemAt(ProblemCode::NoEquilibrium, "solution", {});
  auto out = system.result();
  out.solidMol.assign(conditions.solids.size(), 0.0);
  for (std::size_t i = 0; i < present.size(); ++i)
    out.solidMol[present[i]] = system.amounts()[i];
  return out;
}

/// Nothing less than this can reach the ionic strength at which the strong model begins to count.
bool mayBeStrong(const Solutes& s) {
  return std::accumulate(s.mol.begin(), s.mol.end(), 0.0) > bothHoldFrom / 2;
}

/// Solids that fall out of a strong solution. What falls changes by how much the activities stand off from
/// the dilute model, and that what falls: the one from the other until both rest (Anderson's acceleration,
/// one step back).
class StrongFall {
public:
  StrongFall(const Solutes& perKgWater, const EquilibriumConditions& conditions)
      : m_totals(perKgWater), m_asked(conditions), m_tried(conditions) {}

  Result<Equilibrium> settle() {
    auto unfallen = m_asked;
    unfallen.solids.clear();
    const auto start = settleOnce(m_totals, unfallen);
    if (!start) return start;
    auto before = *start;
    auto correction = correctionOf(before);
    for (int round = 0; round < mostRounds; ++round) {
      m_tried.start = &before;
      for (std::size_t i = 0; i < m_asked.solids.size(); ++i)
        m_tried.solids[i].lnSolubilityProduct =
            m_asked.solids[i].lnSolubilityProduct - correction.ofIonProduct(m_asked.solids[i].dissolved);
      auto settled = settleOnce(m_totals, m_tried);
      if (!settled) return settled;
      auto now = std::move(settled).value();
      now.strong = correctionOf(now);
      if (isAtRest(correction, now.strong)) return now;
      correction = next(correction, now.strong);
      before = std::move(now);
    }
    return problemAt(ProblemCode::NoEquilibrium, "solution", {});
  }

private:
  static constexpr int mostRounds = 60;
  static constexpr double rest = 1e-10; // in ln of an ion product
  using Numbers = std::array<double, componentCount + 5>;

  StrongCorrection correctionOf(const Equilibrium& settled) const {
    return strongCorrection(settled, m_asked.temperature.celsius());
  }
  bool isAtRest(const StrongCorrection& used, const StrongCorrection& found) const {
    return std::all_of(m_asked.solids.begin(), m_asked.solids.end(), [&](const SolidPhase& solid) {
      return std::abs(used.ofIonProduct(solid.dissolved) - found.ofIonProduct(solid.dissolved)) < rest;
    });
  }
  static Numbers numbersOf(const StrongCorrection& c) {
    Numbers out{};
    const auto end = std::copy(c.lnActivity.begin(), c.lnActivity.end(), out.begin());
    const std::array<double, 5> others{c.lnDihydrogenPhosphate, c.lnHydrogenPhosphate, c.lnBicarbonate,
                                       c.lnWater, c.lnGypsum};
    std::copy(others.begin(), others.end(), end);
    return out;
  }
  static StrongCorrection correctionFrom(const Numbers& numbers) {
    StrongCorrection out;
    const auto end = numbers.begin() + componentCount;
    std::copy(numbers.begin(), end, out.lnActivity.begin());
    out.lnDihydrogenPhosphate = end[0];
    out.lnHydrogenPhosphate = end[1];
    out.lnBicarbonate = end[2];
    out.lnWater = end[3];
    out.lnGypsum = end[4];
    return out;
  }
  StrongCorrection next(const StrongCorrection& used, const StrongCorrection& found) {
    const auto x = numbersOf(used), g = numbersOf(found);
    Numbers gap{};
    double along = 0, squared = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
      gap[i] = g[i] - x[i];
      const double change = gap[i] - m_lastGap[i];
      along += gap[i] * change;
      squared += change * change;
    }
    const double back = m_hasLast && squared > 0 ? std::clamp(along / squared, -1.0, 0.9) : 0;
    Numbers out{};
    for (std::size_t i = 0; i < x.size(); ++i)
      out[i] = g[i] - back * (g[i] - m_lastFound[i]);
    m_lastGap = gap;
    m_lastFound = g;
    m_hasLast = true;
    return correctionFrom(out);
  }

  const Solutes& m_totals;
  const EquilibriumConditions& m_asked;
  EquilibriumConditions m_tried;
  Numbers m_lastGap{}, m_lastFound{};
  bool m_hasLast = false;
};

} // namespace

double Equilibrium::lnIonProduct(const Stoichiometry& solid) const {
  double ln =
      strong.ofIonProduct(solid) + solid.hydrogen * lnHydrogen + solid.water * std::log(waterActivity);
  for (const auto& [component, power] : solid.components) {
    if (power != 0) ln += power * lnActivity[component];
  }
  return ln;
}

Result<Equilibrium> equilibrate(const Solutes& perKgWater, const EquilibriumConditions& conditions) {
  if (auto problem = checkRange(perKgWater, conditions)) return *problem;
  if (!conditions.solids.empty() && mayBeStrong(perKgWater))
    return StrongFall(perKgWater, conditions).settle();
  auto settled = settleOnce(perKgWater, conditions);
  if (!settled) return settled;
  auto out = std::move(settled).value();
  out.strong = strongCorrection(out, conditions.temperature.celsius());
  return out;
}

Result<double> carbonateFor(const Solutes& perKgWater, double ph, Temperature temperature) {
  EquilibriumConditions conditions;
  conditions.temperature = temperature;
  conditions.ph = ph;
  Solutes totals = perKgWater;
  const auto alkalinityWith = [&](double carbonate) -> Result<double> {
    totals.of(Component::Carbonate) = carbonate;
    const auto settled = equilibrate(totals, conditions);
    if (!settled) return settled.problem();
    return settled->alkalinityEq - perKgWater.alkalinityEq;
  };
  double lower = 0;
  const auto without = alkalinityWith(lower);
  if (!without) return without.problem();
  double lowerGap = *without;
  if (lowerGap >= 0) return 0.0;
  // Nearly straight in the carbonate: secants, kept inside a bracket.
  double upper = -lowerGap;
  for (int i = 0; i < 60; ++i) {
    const auto found = alkalinityWith(upper);
    if (!found) return found.problem();
    const double gap = *found;
    if (std::abs(gap) <= 1e-12 + 1e-10 * std::abs(perKgWater.alkalinityEq)) break;
    const double slope = (gap - lowerGap) / (upper - lower);
    if (!(slope > 0)) return 0.0; // so acid that carbonate cannot hold any alkalinity
    const double next = upper - gap / slope;
    lower = upper;
    lowerGap = gap;
    upper = std::max(next, 0.0);
    if (upper > 10) return 0.0;
  }
  return upper;
}

} // namespace butte::core
