// Targets: bands, charges, ratios. Atomic weights: IUPAC 2021 abridged; charges as in every textbook.
#include "target/electroneutrality.h"
#include "target/ratio.h"
#include "target/scale_target.h"

#include <gmock/gmock.h>
#include <set>

namespace butte::core {
namespace {

const IonShift* shiftOf(const std::vector<IonShift>& shifts, Nutrient n) {
  for (const auto& shift : shifts)
    if (shift.nutrient == n) return &shift;
  return nullptr;
}

TEST(TargetRow, TheBandStandsAroundTheWishAndItsEdgesAreInside) {
  const TargetRow row{Nutrient::K, 200, 5, 1};
  EXPECT_DOUBLE_EQ(row.bandLow(), 190);
  EXPECT_DOUBLE_EQ(row.bandHigh(), 210);
  EXPECT_TRUE(row.contains(190) && row.contains(210));
  EXPECT_TRUE(row.contains(210 + 1e-7));
  EXPECT_FALSE(row.contains(189.99));
  EXPECT_FALSE(row.contains(210.01));
  EXPECT_DOUBLE_EQ(row.deviationPercent(190), -5);
  EXPECT_DOUBLE_EQ(row.deviationPercent(240), 20);
}

TEST(TargetRow, AWishForNothingIsMeasuredInMilligrams) {
  const TargetRow none{Nutrient::Cl, 0, 10, 1};
  EXPECT_DOUBLE_EQ(none.bandLow(), -0.1);
  EXPECT_DOUBLE_EQ(none.bandHigh(), 0.1);
  EXPECT_TRUE(none.contains(0.1));
  EXPECT_FALSE(none.contains(0.2));
  EXPECT_DOUBLE_EQ(none.deviationPercent(3), 300);
}

TEST(TargetBalance, EveryIonCountsWithItsCharge) {
  // One millimole of each, mg/L, and the milliequivalents it brings.
  const struct {
    Nutrient nutrient;
    double milligrams, cations, anions;
  } ions[] = {
      {Nutrient::K, 39.0983, 1, 0}, {Nutrient::Na, 22.98977, 1, 0}, {Nutrient::NAmmonium, 14.007, 1, 0},
      {Nutrient::Ca, 40.078, 2, 0}, {Nutrient::Mg, 24.305, 2, 0},   {Nutrient::NNitrate, 14.007, 0, 1},
      {Nutrient::Cl, 35.45, 0, 1},  {Nutrient::P, 30.973762, 0, 1}, {Nutrient::S, 32.06, 0, 2},
      {Nutrient::Fe, 55.845, 0, 0}, {Nutrient::B, 10.81, 0, 0},     {Nutrient::N, 14.007, 0, 1}};
  for (const auto& ion : ions) {
    const auto balance = balanceOf({{ion.nutrient, ion.milligrams}}, 0);
    EXPECT_NEAR(balance.cationsMeqPerL, ion.cations, 1e-3) << nutrientKey(ion.nutrient);
    EXPECT_NEAR(balance.anionsMeqPerL, ion.anions, 1e-3) << nutrientKey(ion.nutrient);
  }
  EXPECT_DOUBLE_EQ(balanceOf({}, 0.7).anionsMeqPerL, 0.7) << "alkalinity left in the feed is an anion";
  EXPECT_DOUBLE_EQ(balanceOf({}, -0.7).anionsMeqPerL, 0);
}

TEST(TargetBalance, ASumOfNitrogenBesideItsFormsIsCountedOnce) {
  const auto forms = balanceOf({{Nutrient::NAmmonium, 14.007}, {Nutrient::N, 42.021}}, 0);
  EXPECT_NEAR(forms.cationsMeqPerL, 1, 1e-3);
  EXPECT_NEAR(forms.anionsMeqPerL, 2, 1e-3) << "what ammonium leaves of three is nitrate";
  const auto both = balanceOf({{Nutrient::NNitrate, 14.007}, {Nutrient::N, 42.021}}, 0);
  EXPECT_NEAR(both.anionsMeqPerL, 1, 1e-3) << "a stated nitrate is the nitrate";
  const auto less = balanceOf({{Nutrient::NAmmonium, 28.014}, {Nutrient::N, 14.007}}, 0);
  EXPECT_NEAR(less.anionsMeqPerL, 0, 1e-9) << "never less than none";
}

TEST(TargetBalance, WhatTheTargetLeavesOpenClosesIt) {
  const auto sulfate = balanceOf({{Nutrient::K, 391}, {Nutrient::NNitrate, 112.056}}, 0);
  ASSERT_TRUE(sulfate.closes);
  EXPECT_EQ(sulfate.closes->nutrient, Nutrient::S);
  EXPECT_NEAR(sulfate.closes->to, 2 / 2.0 * 32.06, 0.05) << "two milliequivalents are one millimole";
  EXPECT_TRUE(sulfate.canBalance);
  const auto nitrate = balanceOf({{Nutrient::K, 391}, {Nutrient::S, 128.24}}, 0);
  ASSERT_TRUE(nitrate.closes);
  EXPECT_EQ(nitrate.closes->nutrient, Nutrient::NNitrate);
  EXPECT_NEAR(nitrate.closes->to, 2 * 14.007, 0.05);
  const auto chloride = balanceOf({{Nutrient::K, 391}, {Nutrient::S, 128.24}, {Nutrient::N, 0}}, 0);
  ASSERT_TRUE(chloride.closes);
  EXPECT_EQ(chloride.closes->nutrient, Nutrient::Cl) << "a stated nitrogen is not free, in whatever form";
  const auto potassium = balanceOf({{Nutrient::NNitrate, 140.07}, {Nutrient::Ca, 160.312}}, 0);
  ASSERT_TRUE(potassium.closes);
  EXPECT_EQ(potassium.closes->nutrient, Nutrient::K);
  EXPECT_NEAR(potassium.closes->to, 2 * 39.0983, 0.05);
  const auto sodium = balanceOf({{Nutrient::NNitrate, 140.07}, {Nutrient::Ca, 160.312}, {Nutrient::K, 0}}, 0);
  ASSERT_TRUE(sodium.closes);
  EXPECT_EQ(sodium.closes->nutrient, Nutrient::Na);
}

TEST(TargetBalance, OneInAHundredIsNoGap) {
  const auto near = balanceOf({{Nutrient::K, 390.983}, {Nutrient::NNitrate, 14.007 * 9.91}}, 0);
  EXPECT_FALSE(near.closes);
  EXPECT_TRUE(near.canBalance);
  EXPECT_TRUE(balanceOf({{Nutrient::K, 390.983}, {Nutrient::NNitrate, 14.007 * 9.89}}, 0).closes);
  EXPECT_TRUE(balanceOf({{Nutrient::K, 390.983 * 9.89 / 10}, {Nutrient::NNitrate, 140.07}}, 0).closes)
      << "of the larger side, whichever it is";
}

TEST(TargetBalance, EachRowAloneClosesTheGapAndTheSmallestChangeStandsFirst) {
  // 6 meq of cations against 10 of anions, nothing open.
  const std::vector<TargetRow> rows{{Nutrient::K, 39.0983},        {Nutrient::Ca, 40.078},
                                    {Nutrient::Mg, 12.1525},       {Nutrient::Na, 22.98977},
                                    {Nutrient::NNitrate, 112.056}, {Nutrient::Cl, 17.725},
                                    {Nutrient::S, 24.045}};
  const auto balance = balanceOf(rows, 0);
  EXPECT_NEAR(balance.cationsMeqPerL, 5, 2e-3);
  EXPECT_NEAR(balance.anionsMeqPerL, 10, 2e-3);
  EXPECT_FALSE(balance.canBalance);
  const auto* calcium = shiftOf(balance.oneAlone, Nutrient::Ca);
  ASSERT_TRUE(calcium);
  EXPECT_NEAR(calcium->to, 3.5 * 40.078, 0.05) << "five more milliequivalents";
  const auto* nitrate = shiftOf(balance.oneAlone, Nutrient::NNitrate);
  ASSERT_TRUE(nitrate);
  EXPECT_NEAR(nitrate->to, 3 * 14.007, 0.05);
  EXPECT_FALSE(shiftOf(balance.oneAlone, Nutrient::Cl)) << "half a milliequivalent can't give five";
  EXPECT_FALSE(shiftOf(balance.oneAlone, Nutrient::S));
  EXPECT_EQ(balance.oneAlone.front().nutrient, Nutrient::NNitrate) << "-62 %; calcium would take +250 %";
  for (std::size_t i = 1; i < balance.oneAlone.size(); ++i) {
    const auto change = [&](const IonShift& s) { return std::abs(s.to / s.from - 1); };
    EXPECT_LE(change(balance.oneAlone[i - 1]), change(balance.oneAlone[i]));
  }
  for (const auto& shift : balance.oneAlone) {
    auto mended = rows;
    for (auto& row : mended)
      if (row.nutrient == shift.nutrient) row.milligramsPerLitre = shift.to;
    const auto after = balanceOf(mended, 0);
    EXPECT_NEAR(after.cationsMeqPerL, after.anionsMeqPerL, 1e-9) << nutrientKey(shift.nutrient);
  }
}

TEST(Ratio, AmountsByMassMolesAndEquivalents) {
  const struct {
    Nutrient nutrient;
    double atomicWeight;
    int charge;
  } elements[] = {{Nutrient::K, 39.0983, 1}, {Nutrient::Ca, 40.078, 2},      {Nutrient::Mg, 24.305, 2},
                  {Nutrient::S, 32.06, 2},   {Nutrient::P, 30.973762, 1},    {Nutrient::Fe, 55.845, 2},
                  {Nutrient::Mn, 54.938, 2}, {Nutrient::Zn, 65.38, 2},       {Nutrient::Cu, 63.546, 2},
                  {Nutrient::N, 14.007, 1},  {Nutrient::NNitrate, 14.007, 1}};
  for (const auto& [n, weight, charge] : elements) {
    EXPECT_DOUBLE_EQ(amountPerMilligram(n, RatioBasis::Mass), 1);
    EXPECT_NEAR(amountPerMilligram(n, RatioBasis::Moles) * weight, 1, 2e-4) << nutrientKey(n);
    EXPECT_NEAR(amountPerMilligram(n, RatioBasis::Equivalents) * weight, charge, 4e-4) << nutrientKey(n);
  }
}

TEST(Ratio, StandsAsItIsInTheFeed) {
  NutrientAmounts feed;
  feed.add(Nutrient::K, 4 * 39.0983);
  feed.add(Nutrient::Ca, 2 * 40.078);
  feed.add(Nutrient::Mg, 24.305);
  RatioWish wish{{Nutrient::K}, {Nutrient::Ca, Nutrient::Mg}, 1, RatioBasis::Moles, 10, 1};
  EXPECT_NEAR(*ratioOf(wish, feed), 4.0 / 3, 1e-4);
  wish.basis = RatioBasis::Equivalents;
  EXPECT_NEAR(*ratioOf(wish, feed), 4.0 / 6, 1e-4);
  wish.basis = RatioBasis::Mass;
  EXPECT_NEAR(*ratioOf(wish, feed), 156.3932 / 104.461, 1e-4);
  EXPECT_FALSE(ratioOf(wish, {})) << "nothing against nothing is no ratio";
}

TEST(Ratio, ItsBandIncludesItsEdges) {
  const RatioWish wish{{Nutrient::K}, {Nutrient::Ca}, 2, RatioBasis::Mass, 10, 1};
  EXPECT_DOUBLE_EQ(wish.low(), 1.8);
  EXPECT_DOUBLE_EQ(wish.high(), 2.2);
  EXPECT_TRUE(wish.contains(1.8) && wish.contains(2.2) && wish.contains(2));
  EXPECT_FALSE(wish.contains(1.799) || wish.contains(2.201));
}

TEST(Ratio, AMissIsMeasuredAgainstWhatTheUpperSideIsWantedToBe) {
  const RatioWish wish{{Nutrient::K}, {Nutrient::Ca, Nutrient::Mg}, 1.5, RatioBasis::Mass, 10, 1};
  EXPECT_DOUBLE_EQ(*ratioDivisor({{Nutrient::K, 200}, {Nutrient::Ca, 100}}, wish), 200);
  EXPECT_DOUBLE_EQ(*ratioDivisor({{Nutrient::Ca, 100}, {Nutrient::Mg, 40}}, wish), 210)
      << "no wish for potassium: what the ratio makes of the other side";
  EXPECT_FALSE(ratioDivisor({{Nutrient::Fe, 2}}, wish));
}

TEST(ScaleTarget, TracesFollowOnlyWhereAsked) {
  const std::vector<TargetRow> rows{{Nutrient::K, 200}, {Nutrient::Fe, 2}, {Nutrient::Si, 10}};
  const auto majors = scaled(rows, 1.5, false), all = scaled(rows, 1.5, true);
  EXPECT_DOUBLE_EQ(majors[0].milligramsPerLitre, 300);
  EXPECT_DOUBLE_EQ(majors[1].milligramsPerLitre, 2);
  EXPECT_DOUBLE_EQ(majors[2].milligramsPerLitre, 10) << "silicon is given for itself";
  EXPECT_DOUBLE_EQ(all[1].milligramsPerLitre, 3);
  EXPECT_DOUBLE_EQ(all[2].milligramsPerLitre, 15);
}

TEST(ScaleTarget, TheFactorIsTheInverseOfTheConductivityFromThinToStrong) {
  for (const auto& target : targetCatalogue()) {
    const auto now = conductivityOfTarget(target.rows, 0.3);
    if (!now) continue;
    const auto same = factorForConductivity(target.rows, 0.3, *now, true);
    ASSERT_TRUE(same) << target.id;
    EXPECT_NEAR(*same, 1, 1e-4) << target.id;
    double before = 0;
    for (const double wanted : {0.4, 0.9, 2.2, 4.5, 9.0}) {
      const auto factor = factorForConductivity(target.rows, 0.3, wanted, true);
      ASSERT_TRUE(factor) << target.id << " at " << wanted;
      EXPECT_NEAR(*conductivityOfTarget(scaled(target.rows, *factor, true), 0.3), wanted, 1e-5) << target.id;
      EXPECT_GT(*factor, before);
      before = *factor;
    }
  }
}

TEST(ScaleTarget, WhatCannotBeReachedSaysWhichFigureAndWhatWouldBeRight) {
  const std::vector<TargetRow> rows{{Nutrient::K, 200}, {Nutrient::NNitrate, 70}};
  const auto high = factorForConductivity(rows, 0, 2000, true);
  ASSERT_FALSE(high);
  EXPECT_EQ(high.problem().code, ProblemCode::OutOfRange);
  EXPECT_EQ(high.problem().where, "target.ec");
  EXPECT_EQ(high.problem().values.front(), "2000");
  EXPECT_EQ(factorForConductivity(rows, 0, 0, true).problem().where, "target.ec");
  EXPECT_EQ(factorForConductivity({{Nutrient::Fe, 2}, {Nutrient::K, 0}}, 0, 2, true).problem().code,
            ProblemCode::MissingKey);
}

TEST(TargetCatalogue, EveryTargetNamesItsSourceAndWantsOnlyWhatItStates) {
  std::set<std::string> ids;
  for (const auto& target : targetCatalogue()) {
    EXPECT_TRUE(ids.insert(target.id).second) << target.id << " twice";
    EXPECT_FALSE(target.source.empty() || target.confidence.empty() || target.name.empty()) << target.id;
    EXPECT_EQ(findTarget(target.id), &target);
    for (const auto& row : target.rows) {
      EXPECT_GT(row.milligramsPerLitre, 0) << target.id;
      EXPECT_DOUBLE_EQ(row.tolerancePercent, isTraceElement(row.nutrient) ? 15 : 5);
    }
  }
  EXPECT_EQ(findTarget("no such target"), nullptr);
}

TEST(SeasonRules, TheMiddleOfTheRangeAndNeverARootZone) {
  for (const auto& rule : seasonRules("tomato")) {
    ASSERT_TRUE(rule.range && rule.range->ecLow && rule.range->ecHigh);
    EXPECT_DOUBLE_EQ(rule.milliSiemensPerCm, (*rule.range->ecLow + *rule.range->ecHigh) / 2);
    EXPECT_EQ(rule.range->stage.find("root zone"), std::string::npos);
    EXPECT_EQ(rule.name.starts_with(rule.range->season + ": "), rule.range->season != "any") << rule.name;
    EXPECT_NE(rule.name.find("tomato"), std::string::npos);
  }
  const auto rules = seasonRules("Tomato, on wires");
  ASSERT_FALSE(rules.empty());
  EXPECT_NE(rules.front().range->season, "any") << "its seasons first";
  EXPECT_EQ(rules.back().range->season, "any");
}

} // namespace
} // namespace butte::core
