/// The verbs of the solution chemistry: equilibrium and acid.
#include "chem/atomic_weights.h"
#include "solution/acid_dose.h"
#include "solution/activity.h"
#include "solution/conductivity.h"
#include "solution/solution_state.h"
#include "verb_json.h"
#include "water/water_solutes.h"

#include <algorithm>

namespace butte::cli {
namespace {

using namespace core;
using exchange::ScriptInput;

constexpr int curvePoints = 60;

EquilibriumConditions conditionsOf(const ScriptInput& input) {
  EquilibriumConditions conditions;
  const auto& water = input.given.request.water;
  const auto& asked = input.chemistry.temperatureCelsius;
  const auto& celsius = asked ? asked : water.temperatureCelsius; // out of range is refused, not bent
  conditions.temperature = celsius ? Temperature::fromCelsius(*celsius) : temperatureOf(water);
  if (input.chemistry.openToAir) conditions.carbonDioxideAtm = input.chemistry.carbonDioxideAtm;
  conditions.ph = input.chemistry.heldPh;
  return conditions;
}

struct Mixture {
  MixResult feed;
  WaterSolutes water;
};

Mixture mixtureOf(const ScriptInput& input) {
  const auto& request = input.given.request;
  return {core::mix(request.water, request.shelf, weightsOf(input), request.volume),
          waterSolutes(request.water)};
}

Json warningsOf(const ScriptInput& input, const Mixture& mixture) {
  Json out = inputWarnings(input);
  if (!mixture.water.phFollows)
    out.push_back(
        warning("alkalinity_unknown", "the water's alkalinity is not known, so no pH follows from it"));
  addUnknownAcidity(out, mixture.feed);
  if (mixture.water.phContradicts)
    out.push_back(warning("ph_contradicts_alkalinity",
                          "no carbonate fits both this pH and this alkalinity; the alkalinity is used"));
  return out;
}

/// Mixes whose chemistry found no end are no input error: exit 3 says why.
Outcome noAnswer(const Problem& problem, Json warnings) {
  Outcome outcome;
  outcome.exitCode = 3;
  outcome.json["reasons"] = Json::array({words::problemText(problem)});
  outcome.json["warnings"] = std::move(warnings);
  return outcome;
}

/// What the water still holds once the quick solids have fallen, as elements.
Json leftObject(const SolutionState& state) {
  constexpr std::array<std::pair<Nutrient, Component>, 7> elements{{{Nutrient::NAmmonium, Component::NH4},
                                                                    {Nutrient::P, Component::Phosphate},
                                                                    {Nutrient::K, Component::K},
                                                                    {Nutrient::Ca, Component::Ca},
                                                                    {Nutrient::Mg, Component::Mg},
                                                                    {Nutrient::S, Component::SO4},
                                                                    {Nutrient::Si, Component::Silicon}}};
  Json out = Json::object();
  for (const auto& [nutrient, component] : elements)
    out[std::string(nutrientKey(nutrient))] =
        state.leftPerLitre.of(component) * *atomicWeight(elementSymbol(nutrient)) * 1000;
  return out;
}

bool isInput(const Problem& problem) {
  return problem.code == ProblemCode::OutOfRange;
}

} // namespace

Result<Outcome> equilibrium(const ScriptInput& input) {
  const auto mixture = mixtureOf(input);
  auto warnings = warningsOf(input, mixture);
  const auto conditions = conditionsOf(input);
  const auto& feed = mixture.feed;
  const auto state = stateOf(feed.solutesPerLitre, feed.waterKgPerLitre, conditions);
  if (!state) {
    if (isInput(state.problem())) return state.problem();
    return noAnswer(state.problem(), std::move(warnings));
  }
  if (state->settled.ionicStrength > ActivityModel::checkedUpTo)
    warnings.push_back(
        warning("beyond_checked_strength",
                "the ionic strength is past 3 mol/kg, where the model was not held against measured "
                "activities: take pH, indices and EC as rough"));
  const auto& data = EquilibriumData::instance();
  Outcome outcome;
  const bool phKnown =
      conditions.ph || (feed.acidityKnown && (mixture.water.phFollows || conditions.carbonDioxideAtm));
  outcome.json["ph"] = phKnown ? Json(state->ph) : Json(nullptr);
  outcome.json["ionic_strength_mol_per_l"] = state->settled.ionicStrength * state->waterKgPerLitre;
  Json species = Json::object();
  for (std::size_t i = 0; i < data.species().size(); ++i) {
    if (const double molality = state->settled.molality[i]; molality > 0)
      species[data.species()[i].name] = molality * state->waterKgPerLitre * 1000;
  }
  outcome.json["species_mmol_per_l"] = species;
  Json index = Json::object(), formsWithin = Json::object();
  Json solids = Json::array(), inTheEnd = Json::array();
  for (const auto& standing : state->solids) {
    const auto& solid = data.solids()[standing.solid];
    index[solid.name] = standing.saturationIndex;
    if (standing.saturationIndex > 0)
      formsWithin[solid.name] = words::kineticsText(solid.formsWithin, standing.saturationIndex);
    if (standing.gramsPerLitre > 0)
      solids.push_back({{"name", solid.name}, {"g_per_l", standing.gramsPerLitre}});
  }
  outcome.json["saturation_index"] = index;
  outcome.json["over_saturated_forms"] = formsWithin;
  outcome.json["solids"] = solids;
  outcome.json["solids_in_the_end"] = inTheEnd;
  outcome.json["left_mg_per_l"] = leftObject(*state);
  outcome.json["ph_after_solids"] = optionalNumber(state->phAfterSolids);
  const auto at25 = conductivityAt25(feed.solutesPerLitre, feed.waterKgPerLitre, conditions);
  outcome.json["ec_ms_per_cm_25c"] = at25 ? Json(at25->milliSiemensPerCm()) : Json(nullptr);
  const auto actual = conductivityOf(state->settled, feed.solutesPerLitre.scaled(1 / feed.waterKgPerLitre),
                                     feed.waterKgPerLitre, conditions.temperature);
  outcome.json["ec_ms_per_cm"] = actual.milliSiemensPerCm();
  outcome.json["meter_ms_per_cm_25c"] =
      compensatedReading(actual, conditions.temperature).milliSiemensPerCm();
  outcome.json["alkalinity_meq_per_l"] = state->settled.alkalinityEq * feed.waterKgPerLitre * 1000;
  outcome.json["warnings"] = warnings;
  return outcome;
}

Result<Outcome> acid(const ScriptInput& input) {
  const auto& chemistry = input.chemistry;
  if (!chemistry.acid)
    return problemAt(ProblemCode::MissingKey, "acid", {"acid needs the product that is dosed"});
  if (!chemistry.targetPh)
    return problemAt(ProblemCode::MissingKey, "target_ph", {"acid needs the pH to reach"});
  const auto mixture = mixtureOf(input);
  if (!mixture.water.phFollows)
    return problemAt(ProblemCode::MissingKey, "water.analysis_mg_per_l.HCO3",
                     {"the dose follows from the alkalinity: give HCO3 or alkalinity_as_CaCO3"});
  auto warnings = warningsOf(input, mixture);
  Titrated solution{mixture.feed.solutesPerLitre, mixture.feed.waterKgPerLitre, conditionsOf(input)};
  solution.conditions.ph.reset();
  const auto& product = *chemistry.acid;
  const auto dose = doseToReach(solution, product.composition.solutesPerGram, *chemistry.targetPh);
  if (!dose) {
    if (isInput(dose.problem())) return dose.problem();
    return noAnswer(dose.problem(), std::move(warnings));
  }
  Outcome outcome;
  const double grams = dose->gramsPerLitre * input.given.request.volume.litres();
  const auto millilitres = [&](double g) {
    return product.densityKgPerL ? Json(g / *product.densityKgPerL) : Json(nullptr);
  };
  outcome.json["dose_ml"] = millilitres(grams);
  outcome.json["dose_g"] = grams;
  outcome.json["meq_per_l"] = dose->equivalentsPerLitre * 1000;
  outcome.json["alkalinity_left_meq_per_l"] = dose->alkalinityLeftEqPerLitre * 1000;
  outcome.json["buffer_meq_per_l_per_ph"] = dose->bufferEqPerLitre * 1000;
  NutrientAmounts adds;
  adds.addScaled(product.composition.massFraction, dose->gramsPerLitre * 1000);
  outcome.json["adds_mg_per_l"] = nutrientObject(adds);
  Json curve = Json::array();
  const auto& perGram = product.composition.solutesPerGram;
  const double most = dose->gramsPerLitre > 0 ? 1.3 * dose->gramsPerLitre : 1e-3;
  for (const auto& point : titrationCurve(solution, perGram, most, curvePoints))
    curve.push_back({{"meq_per_l", point.equivalentsPerLitre * 1000},
                     {"ph", point.ph},
                     {"g_per_l", point.gramsPerLitre}});
  outcome.json["curve"] = curve;
  outcome.json["warnings"] = warnings;
  return outcome;
}

} // namespace butte::cli
