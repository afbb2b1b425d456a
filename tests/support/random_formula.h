#pragma once
#include "solve/solve.h"
#include "support/shelf_builder.h"

#include <algorithm>
#include <cstdlib>
#include <random>

/// Random formulas as growers could ask for them; the same seed gives the same formula everywhere.
namespace butte::test {

/// How many random cases a property is held to; more by hand (BUTTE_RANDOM_CASES=10000), outside CI.
inline int randomCases(int usual) {
  const char* wished = std::getenv("BUTTE_RANDOM_CASES");
  return wished ? std::max(usual, std::atoi(wished)) : usual;
}

inline core::SolveRequest randomRequest(std::mt19937& random) {
  using core::Nutrient;
  const auto unit = [&] { return random() / 4294967296.0; };
  static const char* formulas[] = {"KNO3",          "Ca(NO3)2·4H2O", "KH2PO4",    "MgSO4·7H2O",
                                   "K2SO4",         "NH4NO3",        "NH4H2PO4",  "KCl",
                                   "Mg(NO3)2·6H2O", "(NH4)2SO4",     "CaCl2·2H2O"};
  static const std::pair<Nutrient, double> wishes[] = {
      {Nutrient::N, 180}, {Nutrient::P, 40}, {Nutrient::K, 220},       {Nutrient::Ca, 150},
      {Nutrient::Mg, 35}, {Nutrient::S, 60}, {Nutrient::NAmmonium, 15}};
  core::SolveRequest request;
  request.water = waterOf({{"Ca", 20 + 30 * unit()}, {"Mg", 5 * unit()}, {"S", 10 * unit()}});
  for (const auto* formula : formulas) {
    if (unit() < 0.55) request.shelf.push_back(salt(formula));
  }
  if (request.shelf.empty()) request.shelf.push_back(salt("KNO3"));
  for (const auto& [nutrient, usual] : wishes) {
    if (unit() < 0.8) request.rows.push_back({nutrient, usual * (0.6 + 0.8 * unit()), 2 + 8 * unit(), 1});
  }
  if (request.rows.empty()) request.rows.push_back({Nutrient::N, 150});
  if (unit() < 0.5) request.caps.push_back({Nutrient::Cl, 20 + 60 * unit()});
  if (unit() < 0.3) request.shelf.back().most = grams(0.3 * unit());
  if (unit() < 0.3) request.shelf.front().locked = grams(0.4 * unit());
  return request;
}

inline core::NutrientAmounts feedOf(const core::SolveRequest& request,
                                    const std::vector<core::Mass>& weights) {
  core::NutrientAmounts feed = request.water.milligramsPerLitre;
  for (std::size_t j = 0; j < weights.size(); ++j)
    feed.addScaled(request.shelf[j].composition.massFraction,
                   (weights[j] / request.volume).milligramsPerLitre());
  return feed;
}

} // namespace butte::test
