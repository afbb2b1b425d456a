/// What one keystroke costs: solve, check, mix and stock of a large formula from scratch.
#include "formula/candidates.h"
#include "formula/formula_answer.h"
#include "product/catalogue.h"
#include "solve/choose_products.h"
#include "solve/many_crops.h"
#include "solve/mends.h"
#include "stock/tank_rounding.h"

#include <benchmark/benchmark.h>

using namespace butte::core;

namespace {

/// 16 rows and `products` of the catalogue, with acid to a given alkalinity.
Given largeFormula(std::size_t products, bool withAcid) {
  Given given;
  auto& r = given.request;
  WaterReport report;
  report.milligramsPerLitre = {{"Ca", 78},  {"Mg", 14},  {"Na", 23},   {"Cl", 34},
                               {"SO4", 41}, {"NO3", 12}, {"HCO3", 247}};
  r.water = *normaliseWater(report);
  for (const auto& p : catalogue()) {
    if (r.shelf.size() == products) break;
    ShelfProduct s;
    s.id = p.id;
    s.composition = p.composition;
    s.liquid = p.liquid;
    r.shelf.push_back(s);
  }
  for (std::size_t again = 0; r.shelf.size() < products; ++again) { // other grades of the same salts
    ShelfProduct s = r.shelf[again];
    s.id += " other grade";
    r.shelf.push_back(s);
  }
  if (withAcid) {
    ShelfProduct acid;
    acid.id = "acid";
    acid.composition = findInCatalogue("hno3_60")->composition;
    acid.liquid = true;
    r.shelf.back() = acid;
    r.alkalinityLeftMeqPerL = 0.5;
  }
  const double wanted[] = {160, 147, 14, 31, 205, 110, 27, 40, 1.1, 0.55, 0.46, 0.16, 0.05, 0.05, 5, 30};
  const Nutrient keys[] = {Nutrient::N,  Nutrient::NNitrate, Nutrient::NAmmonium, Nutrient::P,
                           Nutrient::K,  Nutrient::Ca,       Nutrient::Mg,        Nutrient::S,
                           Nutrient::Fe, Nutrient::Mn,       Nutrient::Zn,        Nutrient::B,
                           Nutrient::Cu, Nutrient::Mo,       Nutrient::Si,        Nutrient::Na};
  for (int i = 0; i < 16; ++i)
    r.rows.push_back({keys[i], wanted[i]});
  r.volume = Volume::fromLitres(1000);
  given.stock.tanks = {{"A", Volume::fromLitres(200)}, {"B", Volume::fromLitres(200)}};
  given.stock.temperature = Temperature::fromCelsius(12);
  return given;
}

/// The target's potassium typed up and down: the water stays as it was.
void recompute(benchmark::State& state) {
  auto given = largeFormula(static_cast<std::size_t>(state.range(0)), state.range(1) != 0);
  for (int i = 0; auto _ : state) {
    given.request.rows[4].milligramsPerLitre = 205 + i++ % 2;
    benchmark::DoNotOptimize(compute(given));
  }
}
/// The water's sodium typed up and down: nothing stays as it was.
void recomputeForAnotherWater(benchmark::State& state) {
  auto given = largeFormula(static_cast<std::size_t>(state.range(0)), state.range(1) != 0);
  for (int i = 0; auto _ : state) {
    given.request.water.milligramsPerLitre.add(Nutrient::Na, i++ % 2 == 0 ? 1 : -1);
    benchmark::DoNotOptimize(compute(given));
  }
}
void solveOnly(benchmark::State& state) {
  const auto given = largeFormula(static_cast<std::size_t>(state.range(0)), state.range(1) != 0);
  for (auto _ : state)
    benchmark::DoNotOptimize(solve(given.request));
}
void stockOnly(benchmark::State& state) {
  const auto given = largeFormula(static_cast<std::size_t>(state.range(0)), state.range(1) != 0);
  const auto grams = solve(given.request)->grams;
  for (auto _ : state)
    benchmark::DoNotOptimize(planStock(given.request.shelf, grams, given.request.volume, given.stock));
}
/// The bench sheet's weights in whole steps, over all tanks.
void roundTanks(benchmark::State& state) {
  const auto given = largeFormula(static_cast<std::size_t>(state.range(0)), false);
  const auto grams = solve(given.request)->grams;
  const auto stock = planStock(given.request.shelf, grams, given.request.volume, given.stock);
  const std::vector<Scale> scales{{"fine", Mass::fromGrams(0.1), Mass::fromGrams(500)},
                                  {"coarse", Mass::fromGrams(5), Mass::fromGrams(15000)}};
  for (auto _ : state)
    benchmark::DoNotOptimize(roundTanksTogether(given.request, grams, stock, scales));
}
/// Eight crops from one set of stocks, each with at most one salt of its own.
void eightCrops(benchmark::State& state) {
  const auto given = largeFormula(40, false);
  ManyCropsRequest request{given.request.water, given.request.shelf, {}, true};
  for (int k = 0; k < 8; ++k) {
    CropWish crop{"crop", given.request.rows, 1};
    for (std::size_t i = 0; i < crop.rows.size(); ++i)
      crop.rows[i].milligramsPerLitre *=
          0.6 + 0.05 * static_cast<double>((i * 7 + static_cast<std::size_t>(k) * 5) % 11);
    request.crops.push_back(crop);
  }
  for (auto _ : state)
    benchmark::DoNotOptimize(manyCrops(request));
}
/// At most six bags out of forty, the best fit; and the fewest to buy.
void sixBags(benchmark::State& state) {
  const auto given = largeFormula(40, false);
  ProductChoice choice;
  choice.atMost = 6;
  for (auto _ : state)
    benchmark::DoNotOptimize(chooseProducts(given.request, choice));
}
void whatToBuy(benchmark::State& state) {
  auto given = largeFormula(12, false);
  ProductChoice choice;
  choice.toBuy = catalogueCandidates(given.request.shelf);
  for (auto _ : state)
    benchmark::DoNotOptimize(chooseProducts(given.request, choice));
}
void mendsOfOne(benchmark::State& state) {
  const auto given = largeFormula(12, false);
  const auto answer = solve(given.request);
  const auto candidates = catalogueCandidates(given.request.shelf);
  for (auto _ : state)
    benchmark::DoNotOptimize(mendsFor(given.request, *answer, candidates, {}));
}
void cheapestOnly(benchmark::State& state) {
  auto given = largeFormula(static_cast<std::size_t>(state.range(0)), false);
  double price = 1;
  for (auto& p : given.request.shelf)
    p.pricePerKg = price = price * 1.37 > 5 ? price * 0.31 : price * 1.37;
  given.request.objective = Objective::Cheapest;
  for (auto _ : state)
    benchmark::DoNotOptimize(solve(given.request));
}
void bandsFirstOnly(benchmark::State& state) {
  auto given = largeFormula(static_cast<std::size_t>(state.range(0)), false);
  given.request.require = Require::BandsFirst;
  for (auto _ : state)
    benchmark::DoNotOptimize(solve(given.request));
}

BENCHMARK(roundTanks)->Arg(12)->Arg(40)->Unit(benchmark::kMicrosecond);
BENCHMARK(eightCrops)->Unit(benchmark::kMillisecond);
BENCHMARK(sixBags)->Unit(benchmark::kMillisecond);
BENCHMARK(whatToBuy)->Unit(benchmark::kMillisecond);
BENCHMARK(mendsOfOne)->Unit(benchmark::kMillisecond);
BENCHMARK(bandsFirstOnly)->Arg(12)->Arg(60)->Unit(benchmark::kMicrosecond);
BENCHMARK(recompute)->ArgsProduct({{12, 40, 60}, {0, 1}})->Unit(benchmark::kMicrosecond);
BENCHMARK(recomputeForAnotherWater)->ArgsProduct({{12, 60}, {0, 1}})->Unit(benchmark::kMicrosecond);
BENCHMARK(cheapestOnly)->Arg(12)->Arg(60)->Unit(benchmark::kMicrosecond);
BENCHMARK(solveOnly)->ArgsProduct({{12, 40, 60}, {0, 1}})->Unit(benchmark::kMicrosecond);
BENCHMARK(stockOnly)->ArgsProduct({{12, 40}, {0, 1}})->Unit(benchmark::kMicrosecond);

} // namespace

BENCHMARK_MAIN();
