// What is known of a vessel, in the real window: plants by their number, a level as it is read, what is let
// off every day, what the medium brings, a day's watering, a batch as filling, salts as the Bench weighed
// them.
#include "edits/bench_edits.h"
#include "edits/record_edits.h"
#include "fields/filling_combo.h"
#include "stations/bench/run_page.h"
#include "stations/tank/advice_matrix.h"
#include "tank_walk.h"

#include <QCheckBox>
#include <QPlainTextEdit>

namespace butte::app {
namespace {

using core::RunPhase;
using ::testing::HasSubstr;

class TankVesselTest : public TankPageTest {
protected:
  void fact(const char* field, const char* typed) {
    type(field, typed);
    settle();
  }
  const BenchEdits& run() { return window->findChild<RunPage*>()->run(); }
};

TEST_F(TankVesselTest, PlantsByTheirNumberStandOnTheirCropsGround) {
  filledTank();
  click("tankFacts");
  auto* crop = find<QComboBox>("vesselCrop");
  crop->setCurrentText("lettuce");
  emit crop->activated(crop->currentIndex());
  fact("vesselGround", "2");
  const double byArea = story().request.flow.transpirationLPerDay;
  fact("vesselGround", "");
  fact("vesselPlants", "36"); // 18 heads of lettuce a square metre: common practice
  EXPECT_NEAR(story().request.flow.transpirationLPerDay, byArea, 0.02 * byArea);
  EXPECT_FALSE(story().waterGuessed);
  trigger("undo");
  settle();
  EXPECT_TRUE(page().facts().plants.empty());
}

TEST_F(TankVesselTest, ALevelIsTypedAsItIsRead) {
  filledTank();
  click("tankFacts");
  fact("vesselLowMark", "100");
  fact("vesselStickFull", "10");
  fact("vesselStickLow", "0");
  click("tankNow");
  const auto reads = [&](const char* typed, double litres) {
    enterIn("tankLevel", typed);
    const auto last = readings();
    ASSERT_FALSE(last.empty()) << typed;
    EXPECT_EQ(last.back().quantity, "level") << typed;
    EXPECT_NEAR(last.back().value, litres, 1e-6) << typed;
    EXPECT_EQ(last.back().typed, typed) << "kept as it was typed";
    trigger("undo");
    settle();
  };
  reads("5 stick", 200);
  reads("stick 2.5", 150);
  reads("full", 300);
  reads("Low", 100);
  reads("3/4 full", 225);
  reads("75 %", 225);
  const auto before = readings().size();
  for (const char* wrong : {"5 sticks", "3/0 full", "half full of fish", "9 cm"}) {
    enterIn("tankLevel", wrong);
    EXPECT_EQ(readings().size(), before) << wrong;
    EXPECT_EQ(find<QLineEdit>("tankLevel")->text(), wrong) << "it stands there to be mended";
  }
}

TEST_F(TankVesselTest, AirIsReadBesideTheWater) {
  filledTank();
  enterIn("tankAir", "77 F");
  ASSERT_EQ(readings().back().quantity, "air");
  EXPECT_NEAR(readings().back().value, 25, 1e-9);
}

TEST_F(TankVesselTest, WhatIsLetOffEveryDayIsOneLine) {
  filledTank();
  const double before = story().request.flow.drainLPerDay;
  tellDone("let off every day", "12");
  EXPECT_EQ(log().lines.back().second.did, TankDid::Bleeds);
  EXPECT_NEAR(story().request.flow.drainLPerDay, before + 12, 1e-9);
  EXPECT_NEAR(story().request.plan.bledDaily.litres(), 12, 1e-9);
  tellDone("let off every day", "0");
  EXPECT_NEAR(story().request.flow.drainLPerDay, before, 1e-9);
}

TEST_F(TankVesselTest, WhatTheMediumBringsIsToldByItsLitre) {
  filledTank();
  const double before = story().now()->of(Nutrient::K).value;
  click("tankRoot");
  find<QPlainTextEdit>("analysisText")->setPlainText("K 90 mg/L");
  choose("analysisOf", "brought by the medium");
  click("analysisKeep");
  settle();
  EXPECT_THAT(status().toStdString(), HasSubstr("How much medium"));
  type("analysisMedium", "20");
  click("analysisKeep");
  settle();
  EXPECT_EQ(log().lines.back().second.did, TankDid::Medium);
  EXPECT_NEAR(story().now()->of(Nutrient::K).value - before, 90.0 * 20 / 300, 0.2);
}

TEST_F(TankVesselTest, ADaysWateringIsPlannedAndKept) {
  filledTank();
  click("tankRoot");
  type("rootGiven", "100");
  type("rootDrained", "25");
  click("rootKeep");
  settle();
  fact("steerShare", "25");
  fact("irrigationShot", "10");
  fact("irrigationFirst", "7.5");
  fact("irrigationLast", "16.5");
  EXPECT_THAT(text("irrigationPlan"), HasSubstr("10 turns of 10"));
  EXPECT_THAT(text("irrigationPlan"), HasSubstr("every 60 min from 07:30 to 16:30"));
  fact("irrigationLast", "6");
  EXPECT_THAT(text("irrigationPlan"), HasSubstr("can't be before the first"));
  fact("irrigationLast", "25");
  EXPECT_TRUE(find<NumberField>("irrigationLast")->isWrong());
  fact("irrigationLast", "12");
  fact("irrigationShot", "0.01");
  EXPECT_THAT(text("irrigationPlan"), HasSubstr("give more at once"));
  reopenWindow();
  window->showStation(Station::Tank);
  settle();
  EXPECT_EQ(page().facts().irrigation.firstHour, "7.5") << "nothing typed is lost";
  EXPECT_EQ(page().facts().irrigation.drainPercent, "25");
}

TEST_F(TankVesselTest, SouthOfTheEquatorIsSaid) {
  filledTank();
  click("tankFacts");
  click("vesselSouthern");
  settle();
  EXPECT_TRUE(page().facts().southern);
  EXPECT_TRUE(isSouthern(QLocale::Australia));
  EXPECT_FALSE(isSouthern(QLocale::Norway));
}

// What a run at the bench weighed for a tank goes into its log as it was weighed.
TEST_F(TankVesselTest, SaltsComeBackFromTheBenchAsTheyWereWeighed) {
  filledTank();
  tellDone("drained", "100");
  const int salts = placeOf(AdviceKind::RefillBySalts);
  window->findChild<AdviceMatrix*>()->choose(salts);
  const auto lines = log().lines.size();
  click("adviceWeigh");
  ASSERT_TRUE(run().isOpen());
  core::Mass planned, weighed;
  for (int steps = 0; run().at().phase != RunPhase::Done && steps < 200; ++steps) {
    const auto at = run().at();
    if (at.phase == RunPhase::Weigh) {
      const auto missing = core::stillToWeigh(run().state(), run().plan(), at.vessel, at.step);
      type("runMass", QString::number(missing.grams() * 1.01, 'f', 4) + " g");
      click("runNext");
    } else if (at.phase == RunPhase::Decide) {
      click("runAccept");
    } else {
      click("runNext");
    }
  }
  ASSERT_EQ(run().at().phase, RunPhase::Done);
  for (std::size_t v = 0; v < run().plan().vessels.size(); ++v)
    for (const auto& step : run().plan().vessels[v].steps) {
      planned = planned + step.planned;
      weighed = weighed + run().state().vessels[v].of[step.product].in;
    }
  EXPECT_THAT(find<QPushButton>("runTankLog")->text().toStdString(), HasSubstr("bucket row with"));
  click("runTankLog");
  EXPECT_FALSE(find<QPushButton>("runTankLog")->isEnabled()) << "once";
  window->showStation(Station::Tank);
  settle();
  ASSERT_EQ(log().lines.size(), lines + 2) << "water and salts";
  double logged = 0;
  for (const auto& [ref, line] : log().lines)
    for (const auto& one : line.weighed)
      logged += one.amount.value();
  EXPECT_NEAR(logged, weighed.grams(), 1e-3);
  EXPECT_GT(weighed.grams(), planned.grams());
  trigger("undo");
  settle();
  EXPECT_EQ(log().lines.size(), lines) << "one step";
}

TEST_F(TankVesselTest, ABatchFillsAsItWasWeighed) {
  window->showStation(Station::Bench);
  click("mixedIt");
  const auto ref = window->desk().book().store().batches({}, std::nullopt, 1)->front();
  BatchEdits edits(window->desk());
  ASSERT_TRUE(edits.load(ref.uid));
  // Twice the first salt.
  const auto first = edits.batch().weights.front();
  const auto twice = QString::number(2 * first.plannedGrams, 'f', 6).toStdString();
  ASSERT_FALSE(edits.setActual(0, {twice, "g"}));
  const auto id = first.productId;
  const double litres = edits.batch().litres, extra = first.plannedGrams * 1000 / litres;
  window->showStation(Station::Tank);
  settle();
  newTank("bucket row");
  type("vesselFullMark", "300");
  find<FillingCombo>("vesselFormula")->fill();
  choose("vesselFormula", "batch of");
  EXPECT_EQ(page().facts().batchUid, ref.uid);
  click("tankNow");
  choose("tankDid", "filled to the mark with feed");
  click("tankKeepDone");
  settle();
  ASSERT_EQ(story().none, NoStory::None);
  const auto& shelf = editor().document().given.request.shelf;
  const auto product = std::find_if(shelf.begin(), shelf.end(), [&](const auto& p) { return p.id == id; });
  ASSERT_NE(product, shelf.end());
  const auto& feed = editor().answer().feed.milligramsPerLitre;
  for (const auto n : {Nutrient::NNitrate, Nutrient::Ca, Nutrient::K, Nutrient::Mg})
    EXPECT_NEAR(story().now()->of(n).value, feed.of(n) + extra * product->composition.massFraction.of(n),
                0.01 * feed.of(n) + 0.1);
  click("tankLogTab");
  EXPECT_EQ(log().lines.back().second.batchUid, ref.uid);
}

} // namespace
} // namespace butte::app
