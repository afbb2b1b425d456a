// What a run came to: its +-, its verdict and what to look at first. Limits are reckoned by hand; a whole
// uncertainty is held against the Monte Carlo of the guide's supplement (JCGM 101:2008) in miniature.
#include "run/run_result.h"

#include "formula/formula_answer.h"
#include "formula/mix.h"
#include "support/two_tanks.h"

#include <cmath>
#include <gmock/gmock.h>
#include <random>

namespace butte::core {
namespace {

using test::grams;
using test::stateAfter;

const ElementResult& elementOf(const RunResult& result, Nutrient nutrient) {
  return *std::find_if(result.elements.begin(), result.elements.end(),
                       [&](const ElementResult& one) { return one.nutrient == nutrient; });
}

TEST(RunResult, AGoodRunIsAsPlanned) {
  const auto plan = test::twoTanks();
  const auto state = stateAfter(plan, test::goodRun(plan));
  const auto result = runResult(plan, state);
  const auto verdict = judged(plan, state, result);
  EXPECT_EQ(verdict.verdict, RunVerdict::AsPlanned);
  EXPECT_TRUE(verdict.check.empty());
  for (const auto& one : result.elements) {
    EXPECT_NEAR(one.offPercent, 0, 1e-9) << nutrientKey(one.nutrient);
    EXPECT_GT(one.plusMinusMgPerLitre, 0) << nutrientKey(one.nutrient);
    EXPECT_FALSE(one.movedBy);
  }
}

// Calcium comes from one salt alone: its content 1 %, up to 3 % of drawn water (half of it is the limit), the
// scale's half step of 0.05 g in 800, volume 1 %, dosing 1 %, each rectangular: drawn 200,000 times.
TEST(RunResult, ThePlusMinusIsWhatDrawingLotsGives) {
  const auto plan = test::twoTanks();
  const auto state = stateAfter(plan, test::goodRun(plan));
  const auto result = runResult(plan, state);
  const double content = usualContentPercent(plan.shelf[0]) / 100;
  const double moisture = usualMoisturePercent(plan.shelf[0]) / 200;
  std::mt19937_64 random(5);
  std::uniform_real_distribution<double> limit(-1, 1);
  double sum = 0, squares = 0;
  constexpr int draws = 200000;
  for (int i = 0; i < draws; ++i) {
    const double factor = (1 + content * limit(random)) * (1 + moisture * limit(random)) *
                          (1 + 0.05 / 800 * limit(random)) * (1 + 0.01 * limit(random)) *
                          (1 + 0.01 * limit(random));
    sum += factor, squares += factor * factor;
  }
  const double deviation = std::sqrt(squares / draws - sum / draws * (sum / draws));
  const auto& calcium = elementOf(result, Nutrient::Ca);
  EXPECT_NEAR(calcium.plusMinusMgPerLitre / calcium.actualMgPerLitre, 2 * deviation, 0.02 * 2 * deviation);
}

TEST(RunResult, AWeightThatIsOffIsNamedFirst) {
  const auto plan = test::twoTanks();
  auto deeds = test::goodRun(plan);
  for (auto& deed : deeds)
    if (auto* weighed = std::get_if<did::Weighed>(&deed);
        weighed && weighed->product == test::magnesiumSulfate)
      weighed->mass = weighed->mass * 1.08;
  const auto state = stateAfter(plan, deeds);
  const auto result = runResult(plan, state);
  const auto verdict = judged(plan, state, result);
  EXPECT_EQ(verdict.verdict, RunVerdict::Close) << "8 % is below what plants show";
  ASSERT_EQ(verdict.check.size(), 2u) << "magnesium and sulfur";
  const auto& first = result.elements[verdict.check[0]];
  EXPECT_NEAR(first.offPercent, 8, 1e-9);
  ASSERT_TRUE(first.movedBy);
  EXPECT_EQ(result.deviations[*first.movedBy].product, test::magnesiumSulfate);
}

TEST(RunResult, FarOffAndFallenAreSaid) {
  const auto plan = test::twoTanks();
  auto far = test::goodRun(plan, 1.0);
  for (auto& deed : far)
    if (auto* weighed = std::get_if<did::Weighed>(&deed); weighed && weighed->product == test::calciumNitrate)
      weighed->mass = weighed->mass * 1.3;
  auto state = stateAfter(plan, far);
  EXPECT_EQ(judged(plan, state, runResult(plan, state)).verdict, RunVerdict::Off);
  auto wrong = test::goodRun(plan);
  for (auto& deed : wrong)
    if (auto* tipped = std::get_if<did::Tipped>(&deed); tipped && tipped->product == test::magnesiumSulfate)
      tipped->vessel = 0;
    else if (auto* clear = std::get_if<did::Clear>(&deed); clear && clear->product == test::magnesiumSulfate)
      clear->vessel = 0;
  state = stateAfter(plan, wrong);
  const auto verdict = judged(plan, state, runResult(plan, state));
  EXPECT_EQ(verdict.verdict, RunVerdict::FallsOut) << "gypsum";
  EXPECT_EQ(verdict.fallenIn, std::vector<std::size_t>{0});
}

// A vessel of feed in which half the water is missing reads far too high: the likeliest cause is the volume.
TEST(RunResult, AMeterThatSaysOtherwiseGetsItsCauses) {
  auto plan = test::twoTanks();
  plan.vessels = {
      runVessel("vessel", Volume::fromLitres(100), 1, plan.shelf, {grams(80), grams(30), grams(40), {}, {}})};
  setTolerances(plan, grams(0.1));
  auto deeds = test::goodRun(plan);
  const auto expected = runResult(plan, stateAfter(plan, deeds)).actual.milliSiemensPerCm();
  const auto judgedAt = [&](double read) {
    auto more = deeds;
    more.push_back(did::Read{0, Conductivity::fromMilliSiemensPerCm(read), {}});
    const auto state = stateAfter(plan, more);
    return judged(plan, state, runResult(plan, state));
  };
  const auto fine = judgedAt(expected * 1.03);
  EXPECT_EQ(fine.verdict, RunVerdict::AsPlanned) << "a pen reads no closer than 5 %";
  ASSERT_EQ(fine.readings.size(), 1u);
  EXPECT_TRUE(fine.readings[0].causes.empty());
  const auto high = judgedAt(expected * 1.25);
  EXPECT_EQ(high.verdict, RunVerdict::ReadsOtherwise);
  ASSERT_FALSE(high.readings[0].causes.empty());
  const bool volume =
      std::any_of(high.readings[0].causes.begin(), high.readings[0].causes.end(), [](const auto& c) {
        return c.cause == ReadingCause::WrongVolume && std::abs(c.value - 80) < 5;
      });
  EXPECT_TRUE(volume) << "80 L instead of 100 would explain it";
}

} // namespace
} // namespace butte::core
