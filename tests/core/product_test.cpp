#include "base/csv.h"
#include "base/embedded.h"
#include "product/catalogue.h"
#include "product/common_names.h"
#include "product/product.h"
#include "product/role.h"
#include "support/shelf_builder.h"

#include <gtest/gtest.h>

using namespace butte;
using namespace butte::core;

namespace {
ProductRole roleOfFormula(const char* text) {
  return roleOf(*parseFormula(text));
}
double alkalinity(const char* text) {
  return alkalinityEquivalentsPerMole(*parseFormula(text));
}
} // namespace

// Oxide factors 0.43643 and 0.83015 by hand from atomic weights.
// Every common name stands for a product of the catalogue, and says where it is from.
TEST(CommonNames, AreOfProductsThatThereAre) {
  const CsvTable table(embedded::common_names());
  ASSERT_GT(table.rowCount(), 40u);
  for (std::size_t i = 0; i < table.rowCount(); ++i) {
    EXPECT_NE(findInCatalogue(table.cell(i, "product")), nullptr) << table.cell(i, "name");
    EXPECT_FALSE(table.cell(i, "source").empty()) << table.cell(i, "name");
  }
  EXPECT_EQ(commonNamesOf("epsom").front(), "Epsom salt");
  EXPECT_TRUE(commonNamesOf("no_such").empty());
}

TEST(Label, OxidesBecomeElementsAndBareNitrogenBecomesNitrateWithAWarning) {
  const auto label = compositionFromLabel({{"N", 4}, {"P2O5", 18}, {"K2O", 38}});
  ASSERT_TRUE(label);
  const auto& m = label->composition.massFraction;
  EXPECT_NEAR(m.of(Nutrient::NNitrate), 0.04, 1e-12);
  EXPECT_NEAR(m.of(Nutrient::P), 0.0785572, 2e-6);
  EXPECT_NEAR(m.of(Nutrient::K), 0.3154571, 4e-6);
  ASSERT_EQ(label->remarks.size(), 1u);
  EXPECT_EQ(label->remarks[0], LabelRemark::NitrogenTakenAsNitrate);
}

TEST(Label, TheRestOfNWithoutAFormBecomesNitrate) {
  const auto label = compositionFromLabel({{"N", 20}, {"N_NH4", 3.9}, {"N_urea", 10.5}});
  ASSERT_TRUE(label);
  EXPECT_NEAR(label->composition.massFraction.of(Nutrient::NNitrate), 0.056, 1e-12);
  EXPECT_EQ(label->remarks.at(0), LabelRemark::NitrogenRemainderAsNitrate);
}

TEST(Label, FormsThatFillNExactlyNeedNoWarning) {
  const auto label = compositionFromLabel({{"N", 15.5}, {"N_NO3", 14.4}, {"N_NH4", 1.1}, {"CaO", 26.6}});
  ASSERT_TRUE(label);
  EXPECT_TRUE(label->remarks.empty());
  EXPECT_NEAR(label->composition.massFraction.of(Nutrient::Ca), 0.1901091, 3e-6);
}

TEST(Label, WhatCannotBeIsRefused) {
  EXPECT_EQ(compositionFromLabel({{"K2O", 60}, {"P2O5", 52}}).problem().code, ProblemCode::LabelOverHundred);
  EXPECT_EQ(compositionFromLabel({{"Kx", 1}}).problem().code, ProblemCode::UnknownKey);
  EXPECT_EQ(compositionFromLabel({{"K2O", -1}}).problem().code, ProblemCode::OutOfRange);
  EXPECT_EQ(compositionFromLabel({{"Ca", 10}, {"CaO", 14}}).problem().code, ProblemCode::LabelDoubled);
  EXPECT_EQ(compositionFromLabel({{"N", 10}, {"N_NO3", 12}}).problem().code, ProblemCode::OutOfRange);
}

TEST(Product, PurityMustBeAShare) {
  EXPECT_EQ(compositionFromFormula("KNO3", 0).problem().code, ProblemCode::OutOfRange);
  EXPECT_EQ(compositionFromFormula("KNO3", 101).problem().code, ProblemCode::OutOfRange);
  EXPECT_NEAR(compositionFromFormula("KNO3", 50)->massFraction.of(Nutrient::K), 39.098 / 101.102 / 2, 1e-9);
}

TEST(Role, AcidsBasesChelatesAndSaltsAreToldApart) {
  for (const char* acid :
       {"HNO3", "H3PO4", "H2SO4", "HCl", "C6H8O7", "C6H8O7·H2O", "C2H4O2", "KHSO4", "CO(NH2)2·H3PO4"})
    EXPECT_EQ(roleOfFormula(acid), ProductRole::Acid) << acid;
  for (const char* base : {"KOH", "K2CO3", "KHCO3", "NaHCO3", "Ca(OH)2", "NH4OH", "K3PO4"})
    EXPECT_EQ(roleOfFormula(base), ProductRole::Base) << base;
  for (const char* salt :
       {"KNO3", "Ca(NO3)2·4H2O", "KH2PO4", "K2HPO4", "(NH4)2HPO4", "H3BO3", "Na2B4O7·10H2O", "Na2MoO4·2H2O",
        "CO(NH2)2", "MgSO4·7H2O", "H2MoO4·H2O", "MnCl2·4H2O", "FeSO4·7H2O"})
    EXPECT_EQ(roleOfFormula(salt), ProductRole::Salt) << salt;
  EXPECT_EQ(roleOfFormula("C10H12N2NaFeO8·3H2O"), ProductRole::Chelate);
  EXPECT_EQ(roleOfFormula("K2O·3.92SiO2"), ProductRole::Silicate);
}

TEST(Role, AlkalinityFollowsTheCharges) {
  EXPECT_DOUBLE_EQ(alkalinity("HNO3"), -1);
  EXPECT_DOUBLE_EQ(alkalinity("H3PO4"), -1); // to H2PO4
  EXPECT_DOUBLE_EQ(alkalinity("H2SO4"), -2);
  EXPECT_DOUBLE_EQ(alkalinity("K2CO3"), 2);
  EXPECT_DOUBLE_EQ(alkalinity("K2HPO4"), 1);
  EXPECT_DOUBLE_EQ(alkalinity("KNO3"), 0);
  EXPECT_DOUBLE_EQ(alkalinity("5Ca(NO3)2·NH4NO3·10H2O"), 0);
}

TEST(Side, WhatMayNotMeetIsKeptApart) {
  EXPECT_EQ(test::salt("Ca(NO3)2·4H2O").composition.side, StockSide::Calcium);
  EXPECT_EQ(test::salt("C10H12N2NaFeO8·3H2O").composition.side, StockSide::Calcium);
  EXPECT_EQ(test::salt("MgSO4·7H2O").composition.side, StockSide::SulfatePhosphate);
  EXPECT_EQ(test::salt("MnSO4·H2O").composition.side, StockSide::SulfatePhosphate);
  EXPECT_EQ(test::salt("KNO3").composition.side, StockSide::Either);
  EXPECT_EQ(test::salt("HNO3", 60).composition.side, StockSide::Apart);
  EXPECT_EQ(test::salt("CaSO4·2H2O").composition.side, StockSide::Apart);
  EXPECT_EQ(test::labelled("npk", {{"P2O5", 11}, {"K2O", 31}}).composition.side, StockSide::SulfatePhosphate);
}
