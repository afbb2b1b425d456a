// Blends, membranes, softeners, acid first, estimates, verdicts.
#include "chem/ions.h"
#include "formula/acid_choices.h"
#include "water/estimate.h"
#include "water/verdict.h"
#include "water/water_plan.h"

#include <cmath>
#include <gmock/gmock.h>

using namespace butte;
using namespace butte::core;

namespace {

TypedReport boreReport() {
  TypedReport report;
  report.rows = {
      {"Ca", 78}, {"Mg", 14}, {"Na", 23}, {"Cl", 34}, {"SO4", 41}, {"NO3", 12}, {"alkalinity_as_CaCO3", 203},
      {"B", 0.06}};
  report.conductivityMsPerCm = 0.58;
  report.ph = 7.8;
  return report;
}
TypedReport rainReport() {
  TypedReport report;
  report.rows = {{"Ca", 1.2}, {"Mg", 0}, {"Na", 1.5}, {"Cl", 2.2}, {"SO4", 1.5}, {"NO3", 0.8}, {"HCO3", 1.2}};
  report.conductivityMsPerCm = 0.02;
  report.ph = 5.6;
  return report;
}
Water bore() {
  return *waterOf(boreReport());
}
Water rain() {
  return *waterOf(rainReport());
}

double imbalance(const Water& water) {
  const auto ions = ionBalance(water.milligramsPerLitre, water.alkalinityMeqPerL.value_or(0));
  return ions.cationsMeqPerL() - ions.anionsMeqPerL();
}

const Verdict& verdictOf(const std::vector<Verdict>& all, const std::string& property) {
  return *std::find_if(all.begin(), all.end(), [&](const auto& v) { return v.property == property; });
}

} // namespace

TEST(Blend, IonsAndAlkalinityAddUpAndThePhFollows) {
  const auto water = blended({{rain(), 60}, {bore(), 40}});
  EXPECT_NEAR(water.milligramsPerLitre.of(Nutrient::Ca), 0.6 * 1.2 + 0.4 * 78, 1e-9);
  EXPECT_NEAR(*water.alkalinityMeqPerL, 0.6 * *rain().alkalinityMeqPerL + 0.4 * *bore().alkalinityMeqPerL,
              1e-12);
  EXPECT_NEAR(*water.conductivityMsPerCm, 0.6 * 0.02 + 0.4 * 0.58, 1e-12);
  // Hard water sets the pH; the rain's dissolved carbon dioxide pulls it down a little.
  EXPECT_GT(*water.ph, 7.0);
  EXPECT_LT(*water.ph, 7.8);
  EXPECT_FALSE(water.measured[static_cast<std::size_t>(Nutrient::B)])
      << "the rain report says nothing of boron";
}

TEST(Blend, WithItselfItStaysItself) {
  const auto water = blended({{bore(), 1}, {bore(), 3}});
  EXPECT_NEAR(*water.ph, 7.8, 0.01);
  for (const auto n : allNutrients)
    EXPECT_NEAR(water.milligramsPerLitre.of(n), bore().milligramsPerLitre.of(n), 1e-9);
}

TEST(Blend, TheShareThatJustMeetsALimitIsFound) {
  const std::vector<BlendPart> parts{{bore(), 1}, {rain(), 1}, {pureWater(), 1}};
  for (const auto& limit : {BlendLimit{BlendGoal::Alkalinity, 0.8}, BlendLimit{BlendGoal::Conductivity, 0.3},
                            BlendLimit{BlendGoal::Calcium, 30}}) {
    // Pure water measured no calcium and holds none.
    const auto share = largestShare(parts, 0, limit);
    ASSERT_TRUE(static_cast<bool>(share)) << static_cast<int>(limit.goal);
    auto blend = parts;
    blend[0].share = *share;
    blend[1].share = blend[2].share = (1 - *share) / 2;
    EXPECT_NEAR(*amountOf(limit.goal, blended(blend)), limit.atMost, 1e-9);
  }
  EXPECT_DOUBLE_EQ(*largestShare(parts, 0, {BlendGoal::Sodium, 23.5}), 1) << "the bore alone is within it";
  const std::vector<BlendPart> salty{{rain(), 1}, {bore(), 1}};
  const auto least = largestShare(salty, 0, {BlendGoal::Sodium, 5});
  ASSERT_TRUE(least);
  EXPECT_NEAR(*amountOf(BlendGoal::Sodium, blended({{rain(), *least}, {bore(), 1 - *least}})), 5, 1e-9)
      << "no more rain than it takes";
  EXPECT_EQ(largestShare({{bore(), 1}, {bore(), 1}}, 0, {BlendGoal::Sodium, 5}).problem().code,
            ProblemCode::CannotReach);
  EXPECT_EQ(largestShare({{bore(), 1}}, 0, {BlendGoal::Sodium, 5}).problem().code,
            ProblemCode::NotDeterminable);
}

TEST(Blend, WhatIsNotPouredNeedNotBeKnown) {
  WaterReport unknown;
  unknown.conductivityMsPerCm = 0.4; // its sodium was not measured
  const auto pond = *normaliseWater(unknown);
  const BlendLimit limit{BlendGoal::Sodium, 10};
  const auto without = largestShare({{bore(), 1}, {pond, 0}, {rain(), 1}}, 0, limit);
  ASSERT_TRUE(without) << "of the pond there is nothing in it";
  EXPECT_NEAR(*without, *largestShare({{bore(), 1}, {rain(), 1}}, 0, limit), 1e-12);
  EXPECT_EQ(largestShare({{bore(), 1}, {pond, 1}, {rain(), 1}}, 0, limit).problem().code,
            ProblemCode::NotDeterminable);
  EXPECT_EQ(largestShare({{pond, 0}, {rain(), 1}}, 0, limit).problem().code, ProblemCode::NotDeterminable)
      << "the one that is asked for has to be known, poured or not";
}

TEST(Blend, TheWorstOfSeveralReportsTakesTheHighestOfEach) {
  auto later = bore();
  later.milligramsPerLitre.add(Nutrient::Na, 10);
  later.milligramsPerLitre.add(Nutrient::Ca, -20);
  later.ph = 7.5;
  const auto worst = worstOf({bore(), later});
  EXPECT_DOUBLE_EQ(worst.milligramsPerLitre.of(Nutrient::Na), 33);
  EXPECT_DOUBLE_EQ(worst.milligramsPerLitre.of(Nutrient::Ca), 78);
  EXPECT_DOUBLE_EQ(*worst.ph, 7.8);
}

TEST(ReverseOsmosis, MassIsKeptAndThePermeateBalances) {
  ReverseOsmosis plant;
  plant.rejectionPercent = 96;
  plant.recoveryPercent = 40;
  const auto feed = bore();
  const auto out = throughMembrane(feed, plant);
  EXPECT_NEAR(out.wasteLitresPerLitre, 1.5, 1e-12) << "40 of 100 L come through, 60 go to waste";
  for (const auto n : allNutrients) {
    const double back =
        0.4 * out.water.milligramsPerLitre.of(n) + 0.6 * out.concentrate.milligramsPerLitre.of(n);
    EXPECT_NEAR(back, feed.milligramsPerLitre.of(n), 1e-9) << nutrientKey(n);
  }
  EXPECT_NEAR(0.4 * *out.water.alkalinityMeqPerL + 0.6 * *out.concentrate.alkalinityMeqPerL,
              *feed.alkalinityMeqPerL, 1e-9);
  EXPECT_NEAR(imbalance(out.water), 0.04 * imbalance(feed), 1e-9) << "what the report left open, and no more";
  // Common practice: permeate is sour, boron hardly held back, nitrate less than sodium, calcium better.
  EXPECT_LT(*out.water.ph, 6.8);
  EXPECT_GT(out.passedOf(feed, Nutrient::B), 0.4);
  EXPECT_GT(out.passedOf(feed, Nutrient::NNitrate), out.passedOf(feed, Nutrient::Na));
  EXPECT_LT(out.passedOf(feed, Nutrient::Ca), out.passedOf(feed, Nutrient::Na));
  plant.rejectionOf[Nutrient::B] = 80;
  EXPECT_NEAR(throughMembrane(feed, plant).passedOf(feed, Nutrient::B), 0.2, 1e-12);
}

TEST(Softener, SodiumTakesTheHardnessesPlace) {
  const auto out = softened(bore(), 0.2);
  const auto before = ionBalance(bore().milligramsPerLitre, 0), after = ionBalance(out.milligramsPerLitre, 0);
  EXPECT_NEAR(after.of(Ion::Ca) + after.of(Ion::Mg), 0.2, 1e-9);
  EXPECT_NEAR(after.cationsMeqPerL(), before.cationsMeqPerL(), 1e-4);
  EXPECT_DOUBLE_EQ(*out.alkalinityMeqPerL, *bore().alkalinityMeqPerL) << "a softener leaves the alkalinity";
}

TEST(AcidFirst, TakesTheAlkalinityAndBringsItsElement) {
  const auto acid = compositionFromFormula("HNO3", 60);
  const auto out = acidified(bore(), *acid, 1);
  ASSERT_TRUE(static_cast<bool>(out));
  const double taken = *bore().alkalinityMeqPerL - 1;
  EXPECT_NEAR(out->gramsPerLitre, taken * 63.012 / 1000 / 0.6, 1e-5) << "a mmol of HNO3 takes a meq";
  EXPECT_NEAR(out->water.milligramsPerLitre.of(Nutrient::NNitrate) -
                  bore().milligramsPerLitre.of(Nutrient::NNitrate),
              taken * 14.007, 1e-3);
  EXPECT_DOUBLE_EQ(*out->water.alkalinityMeqPerL, 1);
  EXPECT_NEAR(imbalance(out->water), imbalance(bore()), 1e-6);
  EXPECT_LT(*out->water.ph, 6.6) << "closed, with all the carbon dioxide still in it";
  EXPECT_EQ(acidified(rain(), *acid, 1).problem().code, ProblemCode::CannotReach);
}

TEST(Plan, SourcesTreatedBlendedAndAcidified) {
  WaterPlan plan;
  plan.parts.push_back({boreReport(), ReverseOsmosis{97, 50, {}}, 3});
  plan.parts.push_back({boreReport(), {}, 1});
  const auto answer = planWater(plan);
  ASSERT_TRUE(static_cast<bool>(answer));
  EXPECT_NEAR(answer->parts[0].wasteLitresPerLitre, 0.75, 1e-12);
  const double permeate = *answer->parts[0].treated.alkalinityMeqPerL;
  EXPECT_NEAR(*answer->water.alkalinityMeqPerL, 0.75 * permeate + 0.25 * *bore().alkalinityMeqPerL, 1e-9);
  plan.acid = AcidFirst{*compositionFromFormula("HNO3", 60), 1.367, 0.5};
  EXPECT_NEAR(*planWater(plan)->water.alkalinityMeqPerL, 0.5, 1e-12);
  plan.parts[0].share = plan.parts[1].share = 0;
  EXPECT_EQ(planWater(plan).problem().code, ProblemCode::OutOfRange);
  plan.parts[1].share = 1;
  plan.parts[1].report.rows[0].unit = "furlong";
  EXPECT_EQ(planWater(plan).problem().where, "parts[1].Ca.unit");
  EXPECT_EQ(planWater({})->water.milligramsPerLitre, NutrientAmounts{}) << "no source is pure water";
}

/// Common practice: kits and a pen. The truth must lie inside the honest range, for waters of every kind.
TEST(Estimate, TheTruthLiesInsideTheRange) {
  TypedReport soft;
  soft.rows = {{"Ca", 12}, {"Mg", 2}, {"Na", 8}, {"Cl", 12}, {"SO4", 9}, {"NO3", 3}, {"HCO3", 33}};
  soft.conductivityMsPerCm = 0.11;
  TypedReport salty;
  salty.rows = {{"Ca", 60}, {"Mg", 20}, {"Na", 110}, {"Cl", 190}, {"SO4", 60}, {"NO3", 5}, {"HCO3", 170}};
  salty.conductivityMsPerCm = 1.0;
  for (const auto& full : {boreReport(), soft, salty}) {
    const auto truth = *waterOf(full);
    const auto ions = ionBalance(truth.milligramsPerLitre, 0);
    for (const bool kits : {true, false}) {
      TypedReport little;
      little.conductivityMsPerCm = full.conductivityMsPerCm;
      little.estimateTheRest = true;
      if (kits) {
        little.rows = {{"hardness_as_CaCO3", (ions.of(Ion::Ca) + ions.of(Ion::Mg)) * 50.043},
                       {"alkalinity_as_CaCO3", *truth.alkalinityMeqPerL * 50.043}};
      }
      const auto guess = *waterOf(little);
      EXPECT_THAT(guess.remarks, ::testing::Contains(WaterRemark::Estimated));
      for (const auto n :
           {Nutrient::Ca, Nutrient::Mg, Nutrient::Na, Nutrient::Cl, Nutrient::S, Nutrient::NNitrate})
        EXPECT_LE(std::abs(guess.milligramsPerLitre.of(n) - truth.milligramsPerLitre.of(n)),
                  guess.plusMinusMgPerL.of(n) + 0.5)
            << nutrientKey(n) << " kits " << kits << " EC " << *full.conductivityMsPerCm << ": "
            << guess.milligramsPerLitre.of(n) << " +- " << guess.plusMinusMgPerL.of(n) << " for "
            << truth.milligramsPerLitre.of(n);
    }
  }
}

TEST(Estimate, LessKnownIsWiderAndWhatIsMeasuredStays) {
  TypedReport unknown;
  unknown.estimateTheRest = true;
  auto pen = unknown;
  pen.conductivityMsPerCm = 0.5;
  auto kits = pen;
  kits.rows = {{"hardness_as_CaCO3", 180}, {"alkalinity_as_CaCO3", 150}};
  const auto width = [](const TypedReport& r) { return waterOf(r)->plusMinusMgPerL.of(Nutrient::Ca); };
  EXPECT_GT(width(unknown), width(pen));
  EXPECT_GT(width(pen), width(kits));
  kits.rows.push_back({"Na", 17});
  EXPECT_DOUBLE_EQ(waterOf(kits)->milligramsPerLitre.of(Nutrient::Na), 17);
  EXPECT_DOUBLE_EQ(waterOf(kits)->plusMinusMgPerL.of(Nutrient::Na), 0);
}

// Limits: data/water_limits.csv, where each row names its source.
TEST(Verdict, SystemAndCropAndTargetDecide) {
  const auto open = verdictsOn(bore(), {}, {});
  EXPECT_EQ(verdictOf(open, "Na").level, VerdictLevel::Fine) << "23 mg/L; fine to 34 (open)";
  EXPECT_EQ(verdictOf(open, "alkalinity_as_CaCO3").level, VerdictLevel::Watch)
      << "203; fine to 100, too high above 300";
  const auto loop = verdictsOn(bore(), {GrowingSystem::Recirculating, false, ""}, {});
  EXPECT_EQ(verdictOf(loop, "Na").level, VerdictLevel::Watch);
  EXPECT_EQ(verdictOf(loop, "alkalinity_as_CaCO3").level, VerdictLevel::TooHigh);
  EXPECT_EQ(
      verdictOf(verdictsOn(bore(), {GrowingSystem::Recirculating, false, "Rose, winter"}, {}), "Na").level,
      VerdictLevel::TooHigh);
  EXPECT_EQ(verdictOf(open, "F").level, VerdictLevel::NotMeasured) << "not measured is not fine";
  const auto wanted = verdictsOn(bore(), {}, {{Nutrient::Ca, 60, 5, 1}});
  EXPECT_EQ(verdictOf(wanted, "Ca").level, VerdictLevel::TooHigh) << "78 mg/L against a target of 60";
  EXPECT_TRUE(verdictOf(wanted, "Ca").targetMgPerL.has_value());
  EXPECT_EQ(open.back().level, VerdictLevel::NotMeasured) << "the worst first";
}

// FAO Irrigation and Drainage Paper 29, Ayers & Westcot 1985 (from memory): water on leaves harms above 3
// meq/L of sodium (69 mg/L) or chloride (106), and leaves white deposits above 1.5 meq/L of bicarbonate (90).
TEST(Verdict, WhatWetsTheLeavesIsJudgedForThemToo) {
  auto water = bore();
  water.milligramsPerLitre.add(Nutrient::Na, 80 - water.milligramsPerLitre.of(Nutrient::Na));
  const auto onLeaves = [](const std::vector<Verdict>& verdicts, const char* property) {
    return std::find_if(verdicts.begin(), verdicts.end(), [&](const Verdict& v) {
      return v.property == property && v.limit->use == "overhead";
    });
  };
  const auto roots = verdictsOn(water, {}, {});
  EXPECT_EQ(onLeaves(roots, "Na"), roots.end()) << "the roots alone are wetted";
  const auto both = verdictsOn(water, {GrowingSystem::Recirculating, true, ""}, {{Nutrient::Cl, 300, 5, 1}});
  ASSERT_NE(onLeaves(both, "Na"), both.end()) << "whichever way the drain goes";
  EXPECT_EQ(onLeaves(both, "Na")->level, VerdictLevel::Watch) << "80 mg/L: above 69";
  EXPECT_EQ(verdictOf(both, "Na").level, VerdictLevel::TooHigh) << "the roots' own verdict stands beside it";
  EXPECT_EQ(onLeaves(both, "HCO3")->level, VerdictLevel::Watch)
      << "from the alkalinity: 203 as CaCO3 are 247";
  EXPECT_NEAR(*onLeaves(both, "HCO3")->value, 203 * 61.017 / 50.043, 1.5);
  water.milligramsPerLitre.add(Nutrient::Cl, 200 - water.milligramsPerLitre.of(Nutrient::Cl));
  const auto wanted = verdictsOn(water, {GrowingSystem::Open, true, ""}, {{Nutrient::Cl, 300, 5, 1}});
  EXPECT_EQ(onLeaves(wanted, "Cl")->level, VerdictLevel::Watch)
      << "a target for roots is no leave for leaves";
}

TEST(Verdict, EveryLimitIsOrderedAndNamesItsSource) {
  for (const auto& limit : waterLimits()) {
    EXPECT_LE(limit.fineBelow, limit.tooHighAbove) << limit.property;
    EXPECT_FALSE(limit.source.empty() || limit.whatToDo.empty() || limit.why.empty()) << limit.property;
  }
}

// FAO Irrigation and Drainage Paper 29 (from memory): SAR = Na / sqrt((Ca + Mg) / 2), meq/L.
TEST(Verdict, SodiumAdsorptionRatio) {
  EXPECT_NEAR(*sodiumAdsorptionRatio(bore()), 1.0004 / std::sqrt((3.8924 + 1.1520) / 2), 1e-3);
}

TEST(AcidChoices, StandSideBySideForTheSameAlkalinity) {
  const std::vector<TargetRow> target{
      {Nutrient::NNitrate, 150, 5, 1}, {Nutrient::P, 40, 5, 1}, {Nutrient::S, 50, 5, 1}};
  const auto choices = acidChoices(bore(), 0.5, target);
  const double taken = *bore().alkalinityMeqPerL - 0.5;
  const auto of = [&](const std::string& id) {
    return *std::find_if(choices.begin(), choices.end(), [&](const auto& c) { return c.product->id == id; });
  };
  EXPECT_NEAR(of("hno3_60").bringsMgPerL.of(Nutrient::NNitrate), taken * 14.007, 0.01);
  EXPECT_NEAR(of("h3po4_75").bringsMgPerL.of(Nutrient::P), taken * 30.974, 0.01) << "counted to H2PO4";
  EXPECT_NEAR(of("h2so4_96").bringsMgPerL.of(Nutrient::S), taken * 16.03, 0.01);
  EXPECT_GT(of("h3po4_75").shareOfTarget, 1) << "3.6 meq/L by phosphoric acid alone bring 110 mg/L of P";
  EXPECT_TRUE(of("citric").weak);
  EXPECT_GT(of("citric").gramsPerLitre, 0);
  EXPECT_TRUE(acidChoices(rain(), 0.5, target).empty());
}
