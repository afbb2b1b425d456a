#include "solve/choose_products.h"
#include "solve/solve.h"
#include "support/shelf_builder.h"
#include "words.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

SolveRequest request(std::vector<ShelfProduct> shelf, std::vector<TargetRow> rows) {
  SolveRequest r;
  r.water = pureWater();
  r.shelf = std::move(shelf);
  r.rows = std::move(rows);
  return r;
}

Reason onlyReason(const SolveRequest& r) {
  const auto answer = solve(r);
  EXPECT_TRUE(answer);
  EXPECT_EQ(answer->reasons.size(), 1u);
  return answer->reasons.empty() ? Reason{} : answer->reasons.front();
}

} // namespace

TEST(Reasons, TheWaterAloneBringsMore) {
  auto r = request({test::salt("KNO3")}, {{Nutrient::Ca, 60}});
  r.water = test::waterOf({{"Ca", 78}});
  const auto reason = onlyReason(r);
  EXPECT_EQ(reason.kind, ReasonKind::WaterAlone);
  EXPECT_THAT(words::reasonText(reason), ::testing::HasSubstr("the water alone brings 78.0 mg/L"));
}

TEST(Reasons, NoProductCarriesIt) {
  EXPECT_EQ(onlyReason(request({test::salt("KNO3")}, {{Nutrient::Mo, 0.05}})).kind, ReasonKind::NoCarrier);
}

// Seven products would do; with four the molybdate goes first, and that is what is said first.
TEST(Reasons, WhatIsGivenUpForAFewProductsIsSaidFirst) {
  auto r = request({test::salt("KNO3"), test::salt("Ca(NO3)2·4H2O"), test::salt("KH2PO4"),
                    test::salt("MgSO4·7H2O"), test::salt("ZnSO4·7H2O"), test::salt("Na2MoO4·2H2O")},
                   {{Nutrient::N, 150},
                    {Nutrient::K, 200},
                    {Nutrient::Ca, 150},
                    {Nutrient::P, 40},
                    {Nutrient::Mg, 30},
                    {Nutrient::Zn, 0.3},
                    {Nutrient::Mo, 0.05}});
  ProductChoice choice;
  choice.atMost = 4;
  const auto chosen = chooseProducts(r, choice);
  ASSERT_TRUE(chosen);
  const auto& reasons = chosen->answer.reasons;
  ASSERT_FALSE(reasons.empty());
  EXPECT_EQ(reasons.front().kind, ReasonKind::LeftOut);
  EXPECT_THAT(words::reasonText(reasons.front()), ::testing::HasSubstr("bring none"));
}

TEST(Reasons, EverythingThatCarriesItIsHeld) {
  auto r = request({test::salt("MgSO4·7H2O")}, {{Nutrient::Mg, 30}});
  r.shelf[0].locked = test::grams(0.1);
  const auto reason = onlyReason(r);
  EXPECT_EQ(reason.kind, ReasonKind::AllHeld);
  EXPECT_EQ(reason.products.at(0), "MgSO4·7H2O");
}

TEST(Reasons, WhatIsLockedBringsTooMuch) {
  auto r = request({test::salt("MgSO4·7H2O")}, {{Nutrient::Mg, 5}});
  r.shelf[0].locked = test::grams(0.1);
  EXPECT_EQ(onlyReason(r).kind, ReasonKind::LockedBring);
}

TEST(Reasons, TwoElementsComeOnlyTogether) {
  const auto answer = solve(request({test::salt("KNO3")}, {{Nutrient::K, 100}, {Nutrient::N, 10}}));
  ASSERT_EQ(answer->reasons.size(), 2u);
  for (const auto& reason : answer->reasons) {
    EXPECT_EQ(reason.kind, ReasonKind::ComesWith);
    EXPECT_EQ(reason.products.at(0), "KNO3");
  }
  EXPECT_EQ(answer->reasons[0].other, Nutrient::N);
  EXPECT_EQ(answer->reasons[1].other, Nutrient::K);
}

TEST(Reasons, ACapHoldsItBack) {
  auto r = request({test::salt("KCl")}, {{Nutrient::K, 200}});
  r.caps = {{Nutrient::Cl, 50}};
  const auto reason = onlyReason(r);
  EXPECT_EQ(reason.kind, ReasonKind::Cap);
  EXPECT_EQ(reason.other, Nutrient::Cl);
}

TEST(Reasons, OnlyAnAcidCarriesIt) {
  EXPECT_EQ(onlyReason(request({test::salt("HNO3")}, {{Nutrient::N, 100}})).kind, ReasonKind::AcidAlone);
}

TEST(Reasons, TheAcidBringsTooMuch) {
  auto r = request({test::salt("H3PO4")}, {{Nutrient::P, 10}});
  r.water = test::waterOf({{"Ca", 80}, {"HCO3", 244}});
  r.alkalinityLeftMeqPerL = 0.5;
  EXPECT_EQ(onlyReason(r).kind, ReasonKind::AcidBrings);
}
