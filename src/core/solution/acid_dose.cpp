#include "solution/acid_dose.h"

#include "base/decimal.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double mostGramsPerLitre = 200;
constexpr double traceGramsPerLitre = 1e-6;
constexpr double phStep = 0.05;             // for the slope
constexpr double alkalinityClosedTo = 1e-9; // of the alkalinity; the equilibrium itself closes to 1e-11

struct Shares {
  double phosphate = 0, citrate = 0, acetate = 0;
};

/// Hydrogen ions let go per mole, counted from H2PO4-, whole citric and whole acetic acid.
Shares hydrogenLetGo(const Equilibrium& at) {
  const auto& data = EquilibriumData::instance();
  struct Sum {
    double total = 0, letGo = 0;
  } phosphate, citrate, acetate;
  for (std::size_t i = 0; i < data.species().size(); ++i) {
    const double molality = at.molality[i];
    if (molality <= 0) continue;
    const auto& made = data.species()[i].made;
    for (const auto& [component, power] : made.components) {
      const auto add = [&, times = power](Sum& sum, double whole) {
        sum.total += times * molality;
        sum.letGo += (whole * times - made.hydrogen) * molality;
      };
      if (allComponents[component] == Component::Phosphate) add(phosphate, 2);
      if (allComponents[component] == Component::Citrate) add(citrate, 3);
      if (allComponents[component] == Component::Acetate) add(acetate, 1);
    }
  }
  const auto share = [](const Sum& s) { return s.total > 0 ? s.letGo / s.total : 0; };
  return {share(phosphate), share(citrate), share(acetate)};
}

/// What alkalinity the solution with this dose would have at the pH, less what it has, per litre. Starts from
/// `state` where there is one, and leaves the state found in it.
Result<double> excessAt(const Titrated& solution, const Solutes& product, double grams, double ph,
                        std::optional<Equilibrium>& state) {
  Solutes perLitre = solution.perLitre;
  perLitre.addScaled(product, grams);
  auto conditions = solution.conditions;
  conditions.ph = ph;
  if (state) conditions.start = &*state;
  auto held = equilibrate(perLitre.scaled(1 / solution.waterKgPerLitre), conditions);
  if (!held) return held.problem();
  const double found = held->alkalinityEq * solution.waterKgPerLitre;
  state = std::move(held).value();
  return found - perLitre.alkalinityEq;
}

} // namespace

Result<Equilibrium> withDose(const Titrated& solution, const Solutes& product, double grams) {
  Solutes perLitre = solution.perLitre;
  perLitre.addScaled(product, grams);
  auto conditions = solution.conditions;
  conditions.ph.reset();
  return equilibrate(perLitre.scaled(1 / solution.waterKgPerLitre), conditions);
}

double equivalentsPerGram(const Solutes& product, const Equilibrium& at) {
  const auto letGo = hydrogenLetGo(at);
  // A carbonate base takes up what its carbonate would hold as CO2: its alkalinity says so already.
  return -product.alkalinityEq + product.of(Component::Phosphate) * letGo.phosphate +
         product.of(Component::Citrate) * letGo.citrate + product.of(Component::Acetate) * letGo.acetate;
}

Result<AcidDose> doseToReach(const Titrated& solution, const Solutes& product, double targetPh) {
  std::optional<Equilibrium> state;
  const auto without = excessAt(solution, product, 0, targetPh, state);
  if (!without) return without.problem();
  const auto cannot = problemAt(ProblemCode::CannotReach, "target_ph", {decimalText(targetPh)});
  // What a weak acid lets go shows only once a trace of it is there.
  if (const auto trace = excessAt(solution, product, traceGramsPerLitre, targetPh, state); !trace)
    return trace.problem();
  if (equivalentsPerGram(product, *state) == 0) return cannot;
  AcidDose dose;
  double lower = 0, lowerExcess = *without;
  const double scale = std::abs(solution.perLitre.alkalinityEq) + std::abs(lowerExcess) + 1e-7;
  if (std::abs(lowerExcess) > alkalinityClosedTo * scale) {
    // One gram's reach gives the first guess; then secants, with the bracket kept once there is one.
    double upper = -lowerExcess / equivalentsPerGram(product, *state);
    if (!(upper > 0)) return cannot;
    bool ended = false;
    for (int i = 0; i < 80 && !ended; ++i) {
      if (upper > mostGramsPerLitre) return cannot;
      const auto excess = excessAt(solution, product, upper, targetPh, state);
      if (!excess) return excess.problem();
      ended = std::abs(*excess) <= alkalinityClosedTo * scale;
      if (ended) break;
      double next = upper - *excess * (upper - lower) / (*excess - lowerExcess);
      const bool away = (*excess < 0) == (lowerExcess < 0) && std::abs(*excess) >= std::abs(lowerExcess);
      if (away) next = 2 * upper; // a weak acid loses hold: go on looking, up to the most
      lower = upper;
      lowerExcess = *excess;
      upper = std::max(next, 0.0);
    }
    if (!ended) return cannot;
    dose.gramsPerLitre = upper;
  }
  dose.equivalentsPerLitre = dose.gramsPerLitre * equivalentsPerGram(product, *state);
  dose.alkalinityLeftEqPerLitre = solution.perLitre.alkalinityEq - dose.equivalentsPerLitre;
  const double perGram = equivalentsPerGram(product, *state);
  const auto above =
      excessAt(solution, product, dose.gramsPerLitre, std::min(targetPh + phStep, 14.0), state);
  const auto below = excessAt(solution, product, dose.gramsPerLitre, std::max(targetPh - phStep, 0.0), state);
  if (!above || !below) return cannot;
  dose.bufferEqPerLitre = (*above - *below) / (2 * phStep);
  dose.gramsPerLitrePerPh = dose.bufferEqPerLitre / std::abs(perGram);
  return dose;
}

std::vector<TitrationPoint> titrationCurve(const Titrated& solution, const Solutes& product, double most,
                                           int count) {
  std::vector<TitrationPoint> curve;
  Titrated from = solution;
  Equilibrium last;
  for (int i = 0; i < count; ++i) {
    const double grams = count > 1 ? most * i / (count - 1) : 0;
    auto state = withDose(from, product, grams);
    if (!state) continue;
    curve.push_back({grams, grams * equivalentsPerGram(product, *state), state->ph});
    last = std::move(state).value();
    from.conditions.start = &last; // the next point is near
  }
  return curve;
}

} // namespace butte::core
