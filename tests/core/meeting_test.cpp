/// What may not meet in one concentrate.
#include "stock/meeting.h"
#include "stock/shelf_meetings.h"
#include "stock/stock_density.h"
#include "support/shelf_builder.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

const Temperature cool = Temperature::fromCelsius(12);

Concentrate concentrate(const std::string& formula, double gramsPerKg) {
  return {test::salt(formula).composition.solutesPerGram.scaled(gramsPerKg), cool};
}

Concentrate together(const Concentrate& a, const Concentrate& b) {
  Solutes sum = a.perKgWater();
  sum.addScaled(b.perKgWater(), 1);
  return {sum, cool};
}

std::string solidOf(const std::optional<Meeting>& meeting) {
  return meeting ? meeting->solid : "";
}

std::vector<Concentration> feed(std::size_t products, double gramsPerLitre) {
  return std::vector<Concentration>(products, test::grams(gramsPerLitre) / test::litres(1));
}

} // namespace

// Calcium and sulfate or phosphate keep apart as concentrates, and stand together in the feed (common
// practice).
TEST(Meeting, CalciumMeetsSulfateAsConcentrateNotAsFeed) {
  const auto calcium = concentrate("Ca(NO3)2·4H2O", 80), sulfate = concentrate("K2SO4", 40);
  const auto meeting = meetingOf(calcium, sulfate);
  EXPECT_EQ(solidOf(meeting), "gypsum");
  EXPECT_GT(meeting->saturationIndex, 0.5);
  EXPECT_FALSE(meetingOf(concentrate("Ca(NO3)2·4H2O", 0.8), concentrate("K2SO4", 0.4)));
}

TEST(Meeting, CalciumMeetsPhosphate) {
  EXPECT_NE(solidOf(meetingOf(concentrate("Ca(NO3)2·4H2O", 80), concentrate("K2HPO4", 10))), "");
}

TEST(Meeting, OfSeveralTheOneFarthestAboveItsSolubilityIsNamed) {
  const auto calcium = concentrate("Ca(NO3)2·4H2O", 80);
  const auto mixture = together(concentrate("K2SO4", 40), concentrate("K2CO3", 10));
  const auto sulfate = meetingOf(calcium, concentrate("K2SO4", 40)),
             carbonate = meetingOf(calcium, concentrate("K2CO3", 10)), both = meetingOf(calcium, mixture);
  ASSERT_TRUE(sulfate && carbonate && both);
  ASSERT_GT(carbonate->saturationIndex, sulfate->saturationIndex);
  EXPECT_EQ(both->solid, carbonate->solid);
}

TEST(Meeting, NitratesMeetAnySalt) {
  for (const char* other : {"K2SO4", "KH2PO4", "MgSO4·7H2O", "Ca(NO3)2·4H2O"}) {
    EXPECT_FALSE(meetingOf(concentrate("KNO3", 60), concentrate(other, 40))) << other;
    EXPECT_FALSE(meetingOf(concentrate("Mg(NO3)2·6H2O", 40), concentrate(other, 5))) << other;
  }
}

TEST(Meeting, AnAlkalineSaltDropsWhatTheOtherHolds) {
  const auto meeting = meetingOf(concentrate("Ca(NO3)2·4H2O", 80), concentrate("K2CO3", 10));
  ASSERT_TRUE(meeting);
  EXPECT_GT(meeting->saturationIndex, 1);
}

TEST(Meeting, ItIsTheSameFromEitherSide) {
  const char* salts[] = {"Ca(NO3)2·4H2O", "K2SO4", "KH2PO4", "MgSO4·7H2O", "KNO3", "NH4H2PO4", "K2CO3"};
  for (const char* a : salts) {
    for (const char* b : salts) {
      const auto there = meetingOf(concentrate(a, 50), concentrate(b, 30));
      const auto back = meetingOf(concentrate(b, 30), concentrate(a, 50));
      EXPECT_EQ(solidOf(there), solidOf(back)) << a << " with " << b;
      if (there && back) {
        EXPECT_NEAR(there->saturationIndex, back->saturationIndex, 1e-9);
      }
    }
  }
}

TEST(Meeting, WhatOneDropsByItselfIsNotTheOthersFault) {
  const auto muddy = together(concentrate("Ca(NO3)2·4H2O", 80), concentrate("K2SO4", 40));
  EXPECT_EQ(solidOf(meetingWithin(muddy)), "gypsum");
  EXPECT_FALSE(meetingOf(muddy, concentrate("KNO3", 40)));
  EXPECT_FALSE(meetingWithin(concentrate("KNO3", 100)));
}

TEST(Meeting, TheIndexIsThatOfTheEquilibrium) {
  const auto both = together(concentrate("Ca(NO3)2·4H2O", 80), concentrate("K2SO4", 40));
  const auto& data = EquilibriumData::instance();
  const auto gypsum = *data.solidIndex("gypsum");
  EquilibriumConditions conditions;
  conditions.temperature = cool;
  const auto settled = equilibrate(both.perKgWater(), conditions);
  ASSERT_TRUE(settled);
  const double ln =
      settled->lnIonProduct(data.solids()[gypsum].dissolved) - data.at(cool).lnSolubility[gypsum];
  EXPECT_NEAR(*both.saturationIndex(gypsum), ln / std::log(10.0), 1e-6); // settled as far as it tells
  EXPECT_FALSE(concentrate("KNO3", 10).saturationIndex(gypsum)) << "an ion is missing";
}

TEST(ShelfMeetings, AcidsAndWhatIsNotUsedMeetNothing) {
  const std::vector<ShelfProduct> shelf{test::salt("Ca(NO3)2·4H2O"), test::salt("K2SO4"), test::salt("HNO3")};
  StockPlan plan;
  plan.temperature = cool;
  auto used = feed(3, 0.8);
  EXPECT_TRUE(ShelfMeetings(shelf, used, plan).between(0, 1));
  EXPECT_FALSE(ShelfMeetings(shelf, used, plan).between(0, 2));
  used[1] = Concentration{};
  EXPECT_FALSE(ShelfMeetings(shelf, used, plan).between(1, 0));
}

TEST(ShelfMeetings, ThePlanIsAskedAtOneToAHundredAtLeast) {
  const std::vector<ShelfProduct> shelf{test::salt("Ca(NO3)2·4H2O"), test::salt("K2SO4")};
  StockPlan weak, strong;
  weak.temperature = strong.temperature = cool;
  weak.factor = 1;
  strong.factor = 300;
  const auto used = feed(2, 0.3);
  ShelfMeetings atLeast(shelf, used, weak), asPlanned(shelf, used, strong);
  ASSERT_TRUE(atLeast.between(0, 1));
  ASSERT_TRUE(asPlanned.between(0, 1));
  EXPECT_GT(asPlanned.between(0, 1)->saturationIndex, atLeast.between(0, 1)->saturationIndex);
}

TEST(StockWater, OneProductTakesTheRoomItTakesOnAShelfOfOne) {
  for (const char* formula : {"Ca(NO3)2·4H2O", "KNO3", "H3BO3"}) {
    const auto product = test::salt(formula);
    const auto strength = test::grams(1.5) / test::litres(1);
    for (const double factor : {1.0, 100.0}) {
      EXPECT_EQ(StockWater(product, strength, Temperature()).kgPerLitre(factor),
                StockWater({product}, {strength}, Temperature()).kgPerLitre(factor))
          << formula;
      EXPECT_LT(StockWater(product, strength, Temperature()).kgPerLitre(factor), 0.998);
    }
  }
}
