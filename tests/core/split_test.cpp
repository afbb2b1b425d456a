#include "stock/split.h"

#include "support/shelf_builder.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

Tank tank(const char* name, TankUse use = TankUse::Salts, double litres = 50) {
  return {name, Volume::fromLitres(litres), use, {}, {}};
}

StockPlan planOf(std::vector<Tank> tanks, double factor = 100, double celsius = 12) {
  StockPlan p;
  p.factor = factor;
  p.temperature = Temperature::fromCelsius(celsius);
  p.tanks = std::move(tanks);
  return p;
}

struct Line {
  const char* formula;
  double gramsPerLitre;
};

/// A shelf with the grams of a litre of feed.
struct Recipe {
  std::vector<ShelfProduct> shelf;
  std::vector<Mass> grams;
  explicit Recipe(std::initializer_list<Line> lines) {
    for (const auto& line : lines) {
      shelf.push_back(test::salt(line.formula));
      grams.push_back(Mass::fromGrams(line.gramsPerLitre));
    }
  }
  StockAnswer in(const StockPlan& plan) const { return planStock(shelf, grams, Volume::fromLitres(1), plan); }
  std::vector<std::string> idsIn(const StockAnswer& answer, std::size_t t) const {
    std::vector<std::string> ids;
    for (const auto& item : answer.tanks[t].items)
      ids.push_back(shelf[item.product].id);
    return ids;
  }
};

const Recipe fullRecipe{
    {"Ca(NO3)2·4H2O", 0.9}, {"KNO3", 0.6},         {"KH2PO4", 0.14},  {"MgSO4·7H2O", 0.35},
    {"K2SO4", 0.1},         {"MnSO4·H2O", 0.0017}, {"H3BO3", 0.0013}, {"C14H19N3NaFeO10", 0.016}};

} // namespace

using ::testing::Contains;
using ::testing::ElementsAre;
using ::testing::UnorderedElementsAre;

// Gypsum and calcium phosphate in concentrates: the reason for two tanks in every handbook (Hoagland & Arnon
// 1950 keep calcium nitrate apart; common practice).
TEST(Split, TheEquilibriumKeepsCalciumFromSulfateAndPhosphate) {
  std::vector<Concentration> feed;
  for (std::size_t j = 0; j < 5; ++j)
    feed.push_back(fullRecipe.grams[j] / Volume::fromLitres(1));
  feed.resize(fullRecipe.shelf.size());
  const auto plan = planOf({tank("A"), tank("B")});
  ShelfMeetings meetings(fullRecipe.shelf, feed, plan);
  std::vector<std::pair<std::string, std::string>> named;
  for (std::size_t a = 0; a < feed.size(); ++a) {
    for (std::size_t b = a + 1; b < feed.size(); ++b) {
      const auto meeting = meetings.between(b, a);
      if (!meeting) continue;
      named.emplace_back(fullRecipe.shelf[b].id, meeting->solid);
      EXPECT_EQ(fullRecipe.shelf[a].id, "Ca(NO3)2·4H2O");
      EXPECT_EQ(meetings.between(a, b)->solid, meeting->solid) << "whichever is named first";
    }
  }
  EXPECT_THAT(named, UnorderedElementsAre(std::pair("KH2PO4", "brushite"), std::pair("MgSO4·7H2O", "gypsum"),
                                          std::pair("K2SO4", "gypsum")));
}

TEST(Split, NothingFallsInTheTanksThatItMakes) {
  const auto answer = fullRecipe.in(planOf({tank("A"), tank("B")}));
  for (const auto& content : answer.tanks)
    EXPECT_THAT(content.fallen, ::testing::IsEmpty()) << content.tank.name;
  EXPECT_THAT(fullRecipe.idsIn(answer, 0), Contains("C14H19N3NaFeO10"));
  EXPECT_NEAR(answer.tanks[0].total().grams(), answer.tanks[1].total().grams(),
              0.01 * answer.tanks[1].total().grams());
}

TEST(Split, OneVesselAtFeedStrengthTakesAllAndStaysClear) {
  const auto answer = fullRecipe.in(planOf({tank("reservoir", TankUse::Salts, 400)}, 1));
  EXPECT_EQ(answer.tanks[0].items.size(), 8u);
  EXPECT_TRUE(answer.tanks[0].fallen.empty());
  EXPECT_TRUE(answer.tanks[0].meetings.empty());
  EXPECT_NEAR(answer.tanks[0].items[0].mass.grams(), 360, 1e-9);
}

TEST(Split, OneVesselAsConcentrateIsSludge) {
  const auto answer = fullRecipe.in(planOf({tank("all in one")}, 100));
  EXPECT_THAT(answer.notices, Contains(::testing::Field(&StockNotice::kind, StockWarning::CalciumMeets)));
  EXPECT_GT(answer.tanks[0].lostMgPerLitreOfFeed.of(Nutrient::Ca), 20);
  EXPECT_EQ(answer.tanks[0].meetings.size(), 3u);
}

TEST(Split, ATankForTracesTakesThem) {
  const auto answer = fullRecipe.in(planOf({tank("A"), tank("B"), tank("micro", TankUse::Traces)}));
  EXPECT_THAT(fullRecipe.idsIn(answer, 2), UnorderedElementsAre("MnSO4·H2O", "H3BO3", "C14H19N3NaFeO10"));
}

TEST(Split, SilicateAndCalciumChlorideStandAlone) {
  const Recipe recipe{
      {"Ca(NO3)2·4H2O", 0.6}, {"K2O·3.28SiO2", 0.1}, {"CaCl2·2H2O", 0.1}, {"MgSO4·7H2O", 0.3}};
  const auto both =
      recipe.in(planOf({tank("A"), tank("B"), tank("S", TankUse::Alone), tank("C", TankUse::Alone)}));
  EXPECT_THAT(recipe.idsIn(both, 2), ElementsAre("K2O·3.28SiO2"));
  EXPECT_THAT(recipe.idsIn(both, 3), ElementsAre("CaCl2·2H2O"));
  const auto none = recipe.in(planOf({tank("A"), tank("B")}));
  EXPECT_THAT(none.notPlaced, ElementsAre(1u)) << "silicate stays apart";
  EXPECT_THAT(recipe.idsIn(none, 0), ElementsAre("Ca(NO3)2·4H2O", "CaCl2·2H2O"));
}

TEST(Split, WhatHasATankOfItsOwnMovesNothingElse) {
  // Magnesium nitrate would drop its hydroxide into silicate, which never stands beside it.
  Recipe recipe{{"Ca(NO3)2·4H2O", 0.6}, {"Mg(NO3)2·6H2O", 0.4}, {"K2SO4", 0.3}, {"K2O·3.28SiO2", 0.1}};
  const auto plan = planOf({tank("A"), tank("B"), tank("S", TankUse::Alone)});
  std::vector<Concentration> feed;
  for (const auto& grams : recipe.grams)
    feed.push_back(grams / Volume::fromLitres(1));
  ASSERT_TRUE(ShelfMeetings(recipe.shelf, feed, plan).between(1, 3));
  const auto with = recipe.in(plan);
  recipe.grams[3] = Mass{};
  const auto without = recipe.in(plan);
  for (std::size_t t = 0; t < 2; ++t) {
    ASSERT_EQ(recipe.idsIn(with, t), recipe.idsIn(without, t)) << t;
    for (std::size_t i = 0; i < with.tanks[t].items.size(); ++i)
      EXPECT_EQ(with.tanks[t].items[i].mass, without.tanks[t].items[i].mass) << t;
  }
  // So it levels the two tanks.
  EXPECT_NEAR(with.tanks[0].total().grams(), with.tanks[1].total().grams(), 1e-6);
}

TEST(Split, WhatMeetsBothSidesGoesIntoAThirdTank) {
  // Ammonium hydrogen phosphate and magnesium sulfate would drop struvite; both meet calcium too.
  const Recipe recipe{{"Ca(NO3)2·4H2O", 0.9}, {"MgSO4·7H2O", 0.5}, {"(NH4)2HPO4", 0.2}};
  const auto pairs = recipe.in(planOf({tank("A"), tank("B"), tank("third")}));
  EXPECT_THAT(recipe.idsIn(pairs, 0), ElementsAre("Ca(NO3)2·4H2O"));
  EXPECT_EQ(recipe.idsIn(pairs, 1).size() + recipe.idsIn(pairs, 2).size(), 2u);
  for (const auto& content : pairs.tanks)
    EXPECT_TRUE(content.fallen.empty()) << content.tank.name;
}

TEST(Split, AnAcidTankTakesTheFormulasAcidAndNothingElse) {
  Recipe recipe{{"Ca(NO3)2·4H2O", 0.9}, {"HNO3", 0.2}};
  recipe.shelf[1].liquid = true;
  const auto answer = recipe.in(planOf({tank("A"), tank("B"), tank("acid", TankUse::Acid, 60)}));
  EXPECT_THAT(recipe.idsIn(answer, 2), ElementsAre("HNO3"));
  EXPECT_TRUE(answer.notPlaced.empty());
  EXPECT_NEAR(answer.tanks[2].items[0].mass.grams(), 0.2 * 100 * 60, 1e-9);
}

TEST(Split, AHandMovesOneSaltAndNothingElse) {
  auto plan = planOf({tank("A"), tank("B")});
  plan.shares["MgSO4·7H2O"] = {1, 0};
  const auto answer = fullRecipe.in(plan);
  EXPECT_THAT(fullRecipe.idsIn(answer, 0), Contains("Ca(NO3)2·4H2O"));
  EXPECT_THAT(fullRecipe.idsIn(answer, 0), Contains("MgSO4·7H2O"));
  ASSERT_FALSE(answer.tanks[0].fallen.empty());
  EXPECT_EQ(answer.tanks[0].fallen[0].solid, "gypsum");
  EXPECT_GT(answer.tanks[0].lostMgPerLitreOfFeed.of(Nutrient::S), 10);
}

TEST(Split, MovingASaltConservesMass) {
  const auto total = [&](const StockAnswer& answer) {
    double sum = 0;
    for (const auto& content : answer.tanks)
      sum += content.total().grams();
    return sum;
  };
  const auto byRules = fullRecipe.in(planOf({tank("A"), tank("B")}));
  for (const auto& product : fullRecipe.shelf) {
    for (const double share : {0.0, 0.3, 1.0}) {
      auto plan = planOf({tank("A"), tank("B")});
      plan.shares[product.id] = {share, 1 - share};
      EXPECT_NEAR(total(fullRecipe.in(plan)), total(byRules), 1e-6) << product.id;
    }
  }
}

TEST(Split, HalvingTheFactorHalvesTheStrength) {
  const auto strong = fullRecipe.in(planOf({tank("A"), tank("B")}, 100));
  const auto weak = fullRecipe.in(planOf({tank("A"), tank("B")}, 50));
  for (std::size_t t = 0; t < 2; ++t) {
    ASSERT_EQ(strong.tanks[t].items.size(), weak.tanks[t].items.size());
    for (std::size_t i = 0; i < strong.tanks[t].items.size(); ++i)
      EXPECT_NEAR(strong.tanks[t].items[i].strength.gramsPerLitre(),
                  2 * weak.tanks[t].items[i].strength.gramsPerLitre(), 1e-9);
  }
}

TEST(Split, ATankOfAnotherRatioIsStrongerByThat) {
  auto plan = planOf({tank("A"), tank("B"), tank("micro", TankUse::Traces)});
  plan.tanks[2].ownFactor = 1000;
  const auto answer = fullRecipe.in(plan);
  EXPECT_DOUBLE_EQ(answer.tanks[2].factor, 1000);
  EXPECT_NEAR(answer.tanks[2].items[0].strength.gramsPerLitre(), 1.7, 1e-9);
}

// Pouring acid on hypochlorite sets chlorine free; on carbonate it fizzes (common knowledge, every data
// sheet).
TEST(Split, AcidByHandWithTheWrongCompanyIsSaid) {
  Recipe recipe{
      {"HNO3", 0.2}, {"KHCO3", 0.1}, {"NaClO", 0.05}, {"C14H19N3NaFeO10", 0.016}, {"CaCl2·2H2O", 0.1}};
  auto plan = planOf({tank("A"), tank("B")});
  for (const auto& p : recipe.shelf)
    plan.shares[p.id] = {1, 0};
  const auto kinds = [&](const StockAnswer& answer) {
    std::vector<StockWarning> out;
    for (const auto& n : answer.notices)
      out.push_back(n.kind);
    return out;
  };
  EXPECT_THAT(kinds(recipe.in(plan)),
              ::testing::IsSupersetOf({StockWarning::AcidMeetsWeakSalt, StockWarning::AcidMeetsHypochlorite,
                                       StockWarning::ChelateMeetsAcid}));
  plan.shares["NaClO"] = plan.shares["KHCO3"] = plan.shares["C14H19N3NaFeO10"] = {0, 1};
  EXPECT_THAT(kinds(recipe.in(plan)), ::testing::Not(Contains(StockWarning::AcidMeetsHypochlorite)))
      << "calcium chloride is no hypochlorite";
}

TEST(Split, HardMakeUpWaterCountsInTheTank) {
  // A hard bore: 5 meq/L of bicarbonate with calcium drops limestone beside strong calcium nitrate.
  const Recipe recipe{{"Ca(NO3)2·4H2O", 0.9}};
  auto plan = planOf({tank("A"), tank("B")}, 100, 20);
  const auto rain = recipe.in(plan);
  EXPECT_TRUE(rain.tanks[0].fallen.empty());
  auto& hard = plan.tanks[0].makeUpPerLitre;
  hard.of(Component::Ca) = 0.0025;
  hard.of(Component::Carbonate) = 0.0051;
  hard.alkalinityEq = 0.005;
  const auto bore = recipe.in(plan);
  ASSERT_FALSE(bore.tanks[0].fallen.empty());
  EXPECT_EQ(bore.tanks[0].fallen[0].solid, "calcite");
  EXPECT_LT(bore.tanks[0].fallen[0].gramsPerLitre, 0.3) << "no more than its carbonate allows";
  EXPECT_THAT(bore.notices,
              Contains(::testing::Field(&StockNotice::kind, ::testing::AnyOf(StockWarning::WaterFallsOut,
                                                                             StockWarning::FallsOut))));
}
