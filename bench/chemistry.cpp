/// What the solution chemistry costs: one equilibrium, a titration curve, a fit, a tank, a keystroke with all
/// of it.
#include "formula/formula_answer.h"
#include "product/shipped.h"
#include "stock/tank_chemistry.h"
#include "water/water_solutes.h"

#include <benchmark/benchmark.h>

using namespace butte::core;

namespace {

Water hardWell() {
  WaterReport report;
  report.milligramsPerLitre = {{"Ca", 78},  {"Mg", 14},  {"Na", 23},   {"Cl", 34},
                               {"SO4", 41}, {"NO3", 12}, {"HCO3", 247}};
  report.ph = 7.8;
  return *normaliseWater(report);
}

ShelfProduct shipped(const char* id) {
  return shippedProduct(*findInCatalogue(id));
}

/// A usual formula of twelve products with trace elements and a chelate.
Given usualFormula(bool titration) {
  Given given;
  auto& r = given.request;
  r.water = hardWell();
  for (const char* id : {"can_double", "kno3", "mkp", "epsom", "sop", "mgn6", "fedtpa11", "mnso4_1",
                         "znso4_7", "h3bo3", "cuso4_5", "namoo4_2", "hno3_60"})
    r.shelf.push_back(shipped(id));
  const std::pair<Nutrient, double> wanted[] = {
      {Nutrient::NNitrate, 142}, {Nutrient::NAmmonium, 7}, {Nutrient::P, 31},   {Nutrient::K, 205},
      {Nutrient::Ca, 130},       {Nutrient::Mg, 27},       {Nutrient::S, 40},   {Nutrient::Fe, 1.8},
      {Nutrient::Mn, 0.55},      {Nutrient::Zn, 0.46},     {Nutrient::B, 0.22}, {Nutrient::Cu, 0.05},
      {Nutrient::Mo, 0.05}};
  for (const auto& [nutrient, mg] : wanted)
    r.rows.push_back({nutrient, mg});
  r.volume = Volume::fromLitres(1000);
  r.alkalinityLeftMeqPerL = 0.5;
  given.stock.tanks = {{"A", Volume::fromLitres(200)}, {"B", Volume::fromLitres(200)}};
  given.stock.temperature = Temperature::fromCelsius(8);
  given.acid.product = shipped("hno3_60");
  if (titration) {
    OwnTitration own;
    own.productId = "hno3_60";
    own.acidPerMl = given.acid.product->composition.solutesPerGram.scaled(1.3667);
    own.readings = {{0, 7.8}, {0.05, 7.1}, {0.1, 6.75}, {0.15, 6.5}, {0.2, 6.2}, {0.25, 5.8}, {0.28, 5.4}};
    given.titration = own;
  }
  return given;
}

MixResult usualFeed() {
  const auto answer = compute(usualFormula(false));
  return answer->feed;
}

void oneEquilibrium(benchmark::State& state) {
  const auto feed = usualFeed();
  EquilibriumConditions conditions;
  for (auto _ : state)
    benchmark::DoNotOptimize(equilibrate(feed.solutesPerLitre, conditions));
}
void titrationCurveOf60(benchmark::State& state) {
  const auto feed = usualFeed();
  const auto acid = shipped("hno3_60");
  for (auto _ : state)
    benchmark::DoNotOptimize(titrationCurve(titrated(feed), acid.composition.solutesPerGram, 0.2, 60));
}
void acidDose(benchmark::State& state) {
  const auto water = mix(hardWell(), {}, {}, Volume::fromLitres(1));
  const auto acid = shipped("hno3_60");
  for (auto _ : state)
    benchmark::DoNotOptimize(doseToReach(titrated(water), acid.composition.solutesPerGram, 5.8));
}
void feedWithSolids(benchmark::State& state) {
  const auto given = usualFormula(false);
  const auto grams = solve(given.request)->grams;
  for (auto _ : state)
    benchmark::DoNotOptimize(mix(given.request.water, given.request.shelf, grams, given.request.volume));
}
void stockTanks(benchmark::State& state) {
  const auto given = usualFormula(false);
  const auto grams = solve(given.request)->grams;
  for (auto _ : state)
    benchmark::DoNotOptimize(planStock(given.request.shelf, grams, given.request.volume, given.stock));
}
void keystroke(benchmark::State& state) {
  const auto given = usualFormula(state.range(0) != 0);
  for (auto _ : state)
    benchmark::DoNotOptimize(compute(given));
}

BENCHMARK(oneEquilibrium)->Unit(benchmark::kMicrosecond);
BENCHMARK(titrationCurveOf60)->Unit(benchmark::kMicrosecond);
BENCHMARK(acidDose)->Unit(benchmark::kMicrosecond);
BENCHMARK(feedWithSolids)->Unit(benchmark::kMicrosecond);
BENCHMARK(stockTanks)->Unit(benchmark::kMicrosecond);
BENCHMARK(keystroke)->Arg(0)->Arg(1)->Unit(benchmark::kMicrosecond);

} // namespace

BENCHMARK_MAIN();
