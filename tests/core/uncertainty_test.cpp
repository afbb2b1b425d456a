/// First-order error against Monte Carlo, and targets that can or can't be dissolved.
#include "formula/uncertainty.h"
#include "support/random_formula.h"
#include "target/electroneutrality.h"
#include "target/scale_target.h"

#include <cmath>
#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

struct Feed {
  Water water = test::waterOf({{"Ca", 60}, {"Mg", 8}, {"Na", 15}, {"Cl", 20}, {"S", 10}, {"HCO3", 150}});
  std::vector<ShelfProduct> shelf{test::salt("KNO3"), test::salt("Ca(NO3)2·4H2O"), test::salt("KH2PO4"),
                                  test::salt("MgSO4·7H2O"),
                                  test::labelled("trace", {{"Fe", 6}, {"Mn", 3}, {"B", 1}})};
  std::vector<Mass> grams{test::grams(5), test::grams(6), test::grams(2), test::grams(4), test::grams(0.3)};
  Volume volume = Volume::fromLitres(10);
  ErrorLimits limits{{1, 2, 1, 1, 5}, {0, 3, 0, 0, 0}, std::vector<Mass>(5, test::grams(0.05)), 2, 3, 5};
};

} // namespace

TEST(Uncertainty, FirstOrderAgreesWithMonteCarlo) {
  const Feed f;
  const auto spread = feedSpread(f.water, f.shelf, f.grams, f.volume, f.limits);
  std::mt19937 random(3);
  const auto within = [&](double limit) { return limit * (2 * (random() / 4294967296.0) - 1); };
  constexpr int rounds = 4000;
  std::array<double, nutrientCount> sum{}, squares{};
  double ecSum = 0, ecSquares = 0;
  for (int k = 0; k < rounds; ++k) {
    Water water = f.water;
    const double waterOff = 1 + within(f.limits.waterPercent / 100);
    for (const auto n : allNutrients) {
      if (n != Nutrient::N)
        water.milligramsPerLitre.add(n, f.water.milligramsPerLitre.of(n) * (waterOff - 1));
    }
    water.alkalinityMeqPerL = *f.water.alkalinityMeqPerL * waterOff;
    const double volume = 1 + within(f.limits.volumePercent / 100),
                 dose = 1 + within(f.limits.dosingPercent / 100);
    auto grams = f.grams;
    for (std::size_t j = 0; j < grams.size(); ++j) {
      const double moist = f.limits.moisturePercent[j] / 100;
      grams[j] = (grams[j] + test::grams(within(f.limits.weighing[j].grams()))) *
                 (1 + within(f.limits.contentPercent[j] / 100)) * (1 + within(moist / 2)) * (dose / volume);
    }
    const auto feed = mix(water, f.shelf, grams, f.volume);
    for (const auto n : allNutrients) {
      const auto i = static_cast<std::size_t>(n);
      sum[i] += feed.milligramsPerLitre.of(n);
      squares[i] += std::pow(feed.milligramsPerLitre.of(n), 2);
    }
    ecSum += feed.conductivity.milliSiemensPerCm();
    ecSquares += std::pow(feed.conductivity.milliSiemensPerCm(), 2);
  }
  const auto twoDeviations = [&](double s, double q) {
    return 2 * std::sqrt(std::max(0.0, q / rounds - s * s / rounds / rounds));
  };
  for (const auto n : {Nutrient::N, Nutrient::P, Nutrient::K, Nutrient::Ca, Nutrient::Mg, Nutrient::S,
                       Nutrient::Fe, Nutrient::B, Nutrient::Na}) {
    const auto i = static_cast<std::size_t>(n);
    EXPECT_NEAR(spread.of(n).plusMinus / twoDeviations(sum[i], squares[i]), 1, 0.1) << nutrientKey(n);
  }
  EXPECT_NEAR(spread.conductivity.plusMinus / twoDeviations(ecSum, ecSquares), 1, 0.1);
}

TEST(Uncertainty, NamesWhatDominatesAndWhatHalvingBrings) {
  Feed f;
  f.limits.weighing[4] = test::grams(0.1); // a third of the trace mix
  const auto spread = elementSpread(f.water, f.shelf, f.grams, f.volume, f.limits);
  const auto& iron = spread[static_cast<std::size_t>(Nutrient::Fe)];
  ASSERT_FALSE(iron.parts.empty());
  EXPECT_EQ(iron.parts[0].source, ErrorSource::Weighing);
  EXPECT_EQ(iron.parts[0].product, 4u);
  // By hand: two deviations of a rectangle of +-0.1 g in 0.3 g: 2 / sqrt 3 of a third.
  EXPECT_NEAR(iron.parts[0].plusMinus, 2 / std::sqrt(3.0) * 0.1 / 0.3 * 0.3 * 0.06 * 100, 1e-9);
  EXPECT_LT(withHalved(iron, 0), 0.6 * iron.plusMinus);
  EXPECT_EQ(usualMoisturePercent(f.shelf[1]), 3) << "calcium nitrate draws water";
  EXPECT_EQ(usualContentPercent(f.shelf[4]), 5) << "known by its label only";
}

TEST(TargetBalance, PublishedTargetsCanBeDissolved) {
  // 20 cations against 20 anions: Hoagland & Arnon 1950, solution 1 (from memory).
  const std::vector<TargetRow> hoagland{{Nutrient::NNitrate, 210.1}, {Nutrient::P, 30.97},
                                        {Nutrient::K, 234.6},        {Nutrient::Ca, 200.4},
                                        {Nutrient::Mg, 48.61},       {Nutrient::S, 64.12}};
  const auto balance = balanceOf(hoagland, 0);
  EXPECT_NEAR(balance.cationsMeqPerL, 20, 0.02);
  EXPECT_NEAR(balance.anionsMeqPerL, 20, 0.02);
  EXPECT_TRUE(balance.canBalance);
  EXPECT_FALSE(balance.closes);
  for (const auto& target : targetCatalogue())
    EXPECT_TRUE(balanceOf(target.rows, 0).canBalance || target.confidence == "low") << target.id;
}

TEST(TargetBalance, TheNearestThatBalancesIsTheLeastRelativeChange) {
  std::vector<TargetRow> rows{{Nutrient::NNitrate, 300}, {Nutrient::NAmmonium, 5}, {Nutrient::Cl, 5},
                              {Nutrient::Na, 5},         {Nutrient::P, 31},        {Nutrient::K, 235},
                              {Nutrient::Ca, 200},       {Nutrient::Mg, 49},       {Nutrient::S, 64}};
  const auto balance = balanceOf(rows, 0);
  EXPECT_FALSE(balance.canBalance);
  ASSERT_EQ(balance.nearest.size(), 9u);
  for (auto& row : rows) {
    for (const auto& shift : balance.nearest) {
      if (shift.nutrient == row.nutrient) row.milligramsPerLitre = shift.to;
    }
  }
  const auto after = balanceOf(rows, 0);
  EXPECT_NEAR(after.cationsMeqPerL, after.anionsMeqPerL, 1e-6);
  // The least relative squares under one equation: every other way that balances is further off.
  double ours = 0;
  for (const auto& shift : balance.nearest)
    ours += std::pow(shift.to / shift.from - 1, 2);
  for (const auto& alone : balance.oneAlone)
    EXPECT_GE(std::pow(alone.to / alone.from - 1, 2), ours - 1e-12);
  EXPECT_EQ(balance.oneAlone.front().nutrient, Nutrient::NNitrate);
  rows.pop_back(); // sulfur left free closes a gap of cations by itself
  rows[0].milligramsPerLitre = 150;
  const auto open = balanceOf(rows, 0);
  ASSERT_TRUE(open.closes);
  EXPECT_EQ(open.closes->nutrient, Nutrient::S);
}

TEST(ScaleTarget, KeepsRatiosAndHitsTheConductivity) {
  const auto* target = findTarget("steiner1984");
  ASSERT_TRUE(target);
  const auto now = conductivityOfTarget(target->rows, 0);
  ASSERT_TRUE(now);
  EXPECT_NEAR(*now, *target->conductivityMsPerCm, 0.15) << "the published EC of the whole solution";
  for (const double wanted : {0.8, 1.4, 3.0}) {
    const auto factor = factorForConductivity(target->rows, 0, wanted, false);
    ASSERT_TRUE(factor);
    const auto rows = scaled(target->rows, *factor, false);
    EXPECT_NEAR(*conductivityOfTarget(rows, 0), wanted, 1e-4);
    for (std::size_t i = 0; i < rows.size(); ++i)
      EXPECT_DOUBLE_EQ(rows[i].milligramsPerLitre,
                       target->rows[i].milligramsPerLitre * (isTraceElement(rows[i].nutrient) ? 1 : *factor));
  }
  EXPECT_FALSE(factorForConductivity(target->rows, 0, 1000, true));
  EXPECT_FALSE(factorForConductivity({{Nutrient::Fe, 2}}, 0, 2, true));
}

TEST(ScaleTarget, SeasonRulesAreFoundByTheCropsName) {
  const auto rules = seasonRules("Strawberry, fruiting (tabletop)");
  ASSERT_GE(rules.size(), 2u);
  EXPECT_THAT(rules[0].name, ::testing::HasSubstr("winter"));
  EXPECT_FALSE(rules[0].range->source.empty());
  EXPECT_TRUE(seasonRules("").empty());
  EXPECT_TRUE(seasonRules("tumbleweed").empty());
  for (const auto& range : cropRanges())
    EXPECT_LT(range.ecLow.value_or(0), range.ecHigh.value_or(1)) << range.crop;
}
