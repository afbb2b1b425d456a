// A whole run at the bench by typing and pressing, the mishaps that happen, and coming back to it.
#include "book/batch.h"
#include "edits/bench_edits.h"
#include "panel/sim_panel.h"
#include "run/run_result.h"
#include "stations/bench/run_gauge.h"
#include "stations/bench/run_page.h"
#include "window_fixture.h"

#include <QLabel>
#include <QPushButton>

namespace butte::app {
namespace {

using core::RunPhase;
using ::testing::HasSubstr;

class RunPageTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->showStation(Station::Bench);
    QApplication::processEvents();
  }
  const BenchEdits& run() { return window->findChild<RunPage*>()->run(); }
  RunPhase phase() { return run().state().next.phase; }
  std::string label(const char* name) {
    QApplication::processEvents();
    return find<QLabel>(name)->text().toStdString();
  }
  double missing() {
    const auto& next = run().state().next;
    return core::stillToWeigh(run().state(), run().plan(), next.vessel, next.step).grams();
  }
  std::size_t product() {
    const auto& next = run().state().next;
    return run().plan().vessels[next.vessel].steps[next.step].product;
  }
  void weigh(double grams) {
    type("runMass", QString::number(grams, 'f', 4) + " g");
    click("runNext");
  }
  /// All stands ready.
  void begin() {
    click("weighHere");
    ASSERT_EQ(phase(), RunPhase::Prepare);
    click("runNext");
  }
  void pourAndWeighFirst() {
    begin();
    click("runNext"); // the water is in
    ASSERT_EQ(phase(), RunPhase::Weigh);
  }
  /// Step by step until nothing is left, just as it is asked for.
  int walkToTheEnd() {
    int steps = 0;
    for (; phase() != RunPhase::Done && steps < 300; ++steps) {
      if (phase() == RunPhase::Weigh) {
        weigh(missing());
        continue;
      }
      if (phase() == RunPhase::Measure) {
        type("runEc", "1.7");
        type("runPh", "5.9");
      }
      click("runNext");
    }
    return steps;
  }
};

TEST_F(RunPageTest, AWholeRunEndsAsABatchWithWhatWasWeighed) {
  begin();
  EXPECT_EQ(phase(), RunPhase::Pour);
  EXPECT_THAT(label("runHeading"), HasSubstr("Water into A"));
  EXPECT_THAT(label("runFigure"), HasSubstr("100 L"));
  click("runNext");
  EXPECT_THAT(label("runHeading"), HasSubstr("Weigh calcium nitrate"));
  EXPECT_THAT(label("runCaution"), HasSubstr("goggles"));
  type("runLot", "CN-7");
  walkToTheEnd();
  ASSERT_EQ(phase(), RunPhase::Done) << label("runHeading") << label("runLog");
  EXPECT_THAT(label("runResult"), HasSubstr("potassium nitrate"));
  const auto plan = run().plan();
  const auto weighed = run().state().vessels[0].of[plan.vessels[0].steps[0].product].in;
  click("runNext");
  EXPECT_EQ(window->station(), Station::Book);
  const auto head = book().store().batches({}, std::nullopt, 1)->front();
  const auto batch = book::batchFromJson((*book().record({book::Kind::Batch, head.uid}))->body);
  ASSERT_TRUE(static_cast<bool>(batch));
  EXPECT_NEAR(*batch->weights[0].actualGrams(), weighed.grams(), 1e-3);
  EXPECT_EQ(batch->weights[0].lot, "CN-7");
  EXPECT_EQ(batch->weights[1].lot, "") << "the lot was of the first bag alone";
  for (const auto& line : batch->weights)
    EXPECT_NEAR(*line.deviationPercent(), 0, 0.05) << line.productName;
  EXPECT_FALSE(BenchEdits::unfinished(window->desk(), RunSort::Batch)) << "it is over";
}

TEST_F(RunPageTest, OneKeyLeadsThroughEveryStep) {
  begin();
  press(Qt::Key_Return);
  ASSERT_EQ(phase(), RunPhase::Weigh);
  const auto text = QString::number(missing(), 'f', 3) + " g";
  QTest::keyClicks(QApplication::focusWidget(), text);
  press(Qt::Key_Return);
  EXPECT_EQ(phase(), RunPhase::Tip);
  EXPECT_EQ(run().events().size(), 3u) << "one press, one event";
  press(Qt::Key_Return);
  EXPECT_EQ(phase(), RunPhase::Dissolve);
  press(Qt::Key_Return);
  EXPECT_EQ(phase(), RunPhase::Weigh);
  EXPECT_EQ(run().events().size(), 5u);
  press(Qt::Key_F9);
  EXPECT_EQ(phase(), RunPhase::Dissolve);
}

TEST_F(RunPageTest, AnOvershootIsTakenOutAcceptedOrTheWholeMadeLarger) {
  pourAndWeighFirst();
  const double wanted = missing();
  weigh(1.1 * wanted);
  EXPECT_EQ(phase(), RunPhase::Decide);
  EXPECT_THAT(label("runHeading"), HasSubstr("Too much"));
  EXPECT_FALSE(find<QPushButton>("runNext")->isVisible()) << "nothing goes on by itself";
  EXPECT_THAT(label("runAcceptCost"), HasSubstr("Ca +"));
  EXPECT_THAT(label("runLargerCost"), HasSubstr("1.100 times"));
  click("runTakeOut");
  EXPECT_EQ(phase(), RunPhase::Tip);
  EXPECT_NEAR(run().state().cup[product()].grams(), wanted, 1e-3);
  click("runStrike"); // it was not taken out after all
  EXPECT_EQ(phase(), RunPhase::Decide);
  click("runLarger");
  EXPECT_EQ(phase(), RunPhase::Tip);
  EXPECT_NEAR(run().state().ratio, 1.1, 1e-6);
  walkToTheEnd();
  const auto result = core::runResult(run().plan(), run().state());
  EXPECT_NEAR(result.actualMgPerLitre.of(core::Nutrient::K) / result.plannedMgPerLitre.of(core::Nutrient::K),
              1, 1e-3);
}

TEST_F(RunPageTest, ItGoesOnAfterTheProgramWasKilledWhereItStood) {
  pourAndWeighFirst();
  weigh(missing() / 2);
  weigh(missing());
  click("runNext");
  ASSERT_EQ(phase(), RunPhase::Dissolve);
  const auto events = run().events();
  reopenWindow(); // nothing was closed in order: every event is in the file already
  window->showStation(Station::Bench);
  QApplication::processEvents();
  click("weighHere");
  EXPECT_EQ(phase(), RunPhase::Dissolve);
  EXPECT_EQ(run().events(), events);
  EXPECT_THAT(label("runDetail"), HasSubstr("dissolves for 0 min"));
}

TEST_F(RunPageTest, ThePlanStaysWhatItWasWhileTheFormulaChanges) {
  pourAndWeighFirst();
  const double wanted = missing();
  click("runLeave");
  EXPECT_EQ(window->station(), Station::Bench);
  window->showStation(Station::Target);
  QApplication::processEvents();
  type("target_Ca", "60");
  window->showStation(Station::Bench);
  QApplication::processEvents();
  click("weighHere");
  EXPECT_NEAR(missing(), wanted, 1e-9);
}

TEST_F(RunPageTest, HandsChangeAndSomethingIsLeftOut) {
  pourAndWeighFirst();
  window->prompts().words = [](const QString&, const QString&, const QString&) { return QString("M.A."); };
  click("runHandOver");
  EXPECT_EQ(run().state().who, "M.A.");
  EXPECT_THAT(label("runLog"), HasSubstr("handed over to M.A."));
  const auto first = product();
  click("runSkip");
  EXPECT_NE(product(), first);
  press(Qt::Key_F9);
  EXPECT_EQ(product(), first) << "the last entry is struck";
}

// What is typed is what the display shows: in the scale's unit, whatever the person thinks in.
TEST_F(RunPageTest, TheScalesOwnUnitIsAskedAndShown) {
  window->units().setAll(UnitsOf::UnitedStates);
  pourAndWeighFirst();
  EXPECT_THAT(label("runFigure"), ::testing::EndsWith(" g")) << "the demo's scales show grams";
  EXPECT_THAT(label("runDetail"), HasSubstr(" lb in all"));
  const double half = std::round(missing() / 2);
  type("runMass", QString::number(half));
  click("runNext");
  EXPECT_NEAR(run().state().cup[product()].grams(), half, 1e-9);
  type("runMass", "1 lb");
  click("runNext");
  EXPECT_NEAR(run().state().cup[product()].grams(), half + 453.59237, 1e-6) << "another unit is said with it";
}

TEST_F(RunPageTest, AWrongVolumeIsNotTakenForTheUsualOne) {
  begin();
  for (const auto* text : {"12 bananas", "0"}) {
    type("runVolume", text);
    click("runNext");
    EXPECT_EQ(phase(), RunPhase::Pour) << text;
  }
  type("runVolume", "90");
  click("runNext");
  EXPECT_NEAR(run().state().vessels[0].water.litres(), 90, 1e-9);
}

TEST_F(RunPageTest, BadInputIsNamedAndNothingIsTold) {
  pourAndWeighFirst();
  const auto count = run().events().size();
  click("runNext");
  EXPECT_EQ(run().events().size(), count) << "no weight, no event";
  type("runMass", "12 bananas");
  click("runNext");
  EXPECT_EQ(run().events().size(), count);
  type("runMass", "0");
  click("runNext");
  EXPECT_EQ(run().events().size(), count);
  EXPECT_EQ(find("runMass")->text(), "0") << "what was refused stays to be mended";
}

TEST_F(RunPageTest, EndedEarlyItIsABatchOfWhatIsInOrNothingAtAll) {
  begin();
  window->prompts().goOn = [](const QString&, const QString&, const QString&) { return true; };
  click("runEnd");
  EXPECT_FALSE(BenchEdits::unfinished(window->desk(), RunSort::Batch));
  EXPECT_EQ(window->station(), Station::Bench);
  EXPECT_EQ(*book().store().batchCount({}), 0);
  pourAndWeighFirst();
  weigh(missing());
  click("runNext");
  click("runEnd");
  EXPECT_EQ(*book().store().batchCount({}), 1);
}

TEST_F(RunPageTest, OneVesselOfFeedIsWeighedTheSameWay) {
  window->showStation(Station::Stocks);
  QApplication::processEvents();
  click("wayDirect");
  type("directVessel", "20 L");
  window->showStation(Station::Bench);
  QApplication::processEvents();
  begin();
  ASSERT_EQ(run().plan().vessels.size(), 1u);
  EXPECT_THAT(label("runFigure"), HasSubstr("18")) << "nine tenths of the water first";
  walkToTheEnd();
  click("runNext");
  const auto head = book().store().batches({}, std::nullopt, 1)->front();
  const auto batch = book::batchFromJson((*book().record({book::Kind::Batch, head.uid}))->body);
  EXPECT_NEAR(*batch->ecReadMilliSiemens(), 1.7, 1e-9)
      << "the vessel is the feed: its reading is the batch's";
}

TEST(RunGaugeTest, TheLastTenthIsAsWideAsTheNineBefore) {
  EXPECT_DOUBLE_EQ(RunGauge::placeOf(0), 0);
  EXPECT_DOUBLE_EQ(RunGauge::placeOf(0.9), 0.45);
  EXPECT_DOUBLE_EQ(RunGauge::placeOf(1), 0.9);
  EXPECT_DOUBLE_EQ(RunGauge::placeOf(5), 1);
}

TEST_F(RunPageTest, WhatHasToStandReadyIsSaidFirst) {
  click("weighHere");
  const auto text = label("runPreparation");
  EXPECT_THAT(text, HasSubstr("goggles"));
  EXPECT_THAT(text, HasSubstr("calcium nitrate"));
  EXPECT_THAT(text, HasSubstr("100 L of water first"));
  EXPECT_THAT(text, HasSubstr("dry spoons and cups"));
}

TEST_F(RunPageTest, WhatIsAskedAboutTroubleShutsWhenSomethingElseIsTold) {
  pourAndWeighFirst();
  press(Qt::Key_F4);
  ASSERT_TRUE(find<QWidget>("runTroublePanel")->isVisible());
  weigh(missing());
  EXPECT_EQ(phase(), RunPhase::Tip);
  EXPECT_FALSE(find<QWidget>("runTroublePanel")->isVisible()) << "its answers would be of the run before";
}

TEST_F(RunPageTest, TheStandInsPanelDoesNotKeepTheProgramOpen) {
  pourAndWeighFirst();
  click("runStandIn");
  auto* panel = window->devices().standInPanel();
  ASSERT_NE(panel, nullptr);
  EXPECT_TRUE(panel->isVisible());
  EXPECT_FALSE(panel->testAttribute(Qt::WA_QuitOnClose));
  click("runStandIn");
  EXPECT_EQ(window->devices().standInPanel(), nullptr);
}

TEST_F(RunPageTest, APauseHoldsAllAndIsInTheBook) {
  pourAndWeighFirst();
  click("runPause");
  EXPECT_THAT(label("runHeading"), HasSubstr("Paused"));
  click("runNext");
  EXPECT_EQ(phase(), RunPhase::Weigh) << "the press only went on";
  EXPECT_FALSE(run().state().paused);
}

TEST_F(RunPageTest, SulfateInTheCalciumTankIsToldWithWhatFallsAndWhatIsLost) {
  begin();
  // Up to the first salt of the second tank, which holds the sulfates.
  while (run().at().vessel == 0)
    phase() == RunPhase::Weigh
        ? weigh(missing())
        : (phase() == RunPhase::Measure ? type("runPh", "6") : void(), click("runNext"));
  click("runNext"); // its water
  while (run().nameOf(product()).toStdString().find("sulfate") == std::string::npos)
    phase() == RunPhase::Weigh ? weigh(missing()) : click("runNext");
  weigh(missing());
  ASSERT_EQ(phase(), RunPhase::Tip);
  press(Qt::Key_F4);
  click("troubleVessel");
  EXPECT_THAT(label("troubleQuestion"), HasSubstr("Where did"));
  click("troubleInto"); // the first: A
  EXPECT_THAT(label("runTrouble"), HasSubstr("does not belong"));
  EXPECT_THAT(label("runTrouble"), HasSubstr("gypsum"));
  EXPECT_THAT(label("runTrouble"), HasSubstr("Ca -"));
  EXPECT_TRUE(find<QPushButton>("runDiscard")->isVisible());
  click("runDiscard");
  EXPECT_EQ(run().state().vessels[0].of[run().plan().vessels[0].steps[0].product].in, core::Mass{});
  EXPECT_EQ(phase(), RunPhase::Pour) << "A begins anew";
  EXPECT_EQ(run().at().vessel, 0u);
}

TEST_F(RunPageTest, ATraceInTheOtherTankStaysClearAndIsLeftOutThere) {
  begin();
  // Of the second vessel a salt that harms nothing in the first: potassium nitrate.
  while (run().at().vessel == 0)
    phase() == RunPhase::Weigh
        ? weigh(missing())
        : (phase() == RunPhase::Measure ? type("runPh", "6") : void(), click("runNext"));
  click("runNext");
  const auto isNitrate = [&] { return run().nameOf(product()) == "potassium nitrate"; };
  for (int i = 0; i < 40 && !isNitrate(); ++i)
    phase() == RunPhase::Weigh ? weigh(missing()) : click("runNext");
  if (!isNitrate()) GTEST_FAIL() << "no potassium nitrate in B";
  weigh(missing());
  press(Qt::Key_F4);
  click("troubleVessel");
  click("troubleInto");
  EXPECT_THAT(label("runTrouble"), HasSubstr("can be used"));
  EXPECT_FALSE(find<QPushButton>("runDiscard")->isVisible());
  const auto stray = product();
  click("runLeaveOut");
  EXPECT_TRUE(run().state().vessels[1].of[stray].skipped);
}

TEST_F(RunPageTest, AnotherSaltInTheCupIsStruckAndToldAsItWas) {
  pourAndWeighFirst();
  const double grams = missing();
  weigh(grams);
  click("runNext"); // tipped
  ASSERT_EQ(phase(), RunPhase::Dissolve);
  press(Qt::Key_F4);
  click("troubleProduct");
  const auto was = run().plan().vessels[0].steps[0].product;
  for (auto* button : window->findChildren<QPushButton*>("troubleInstead"))
    if (button->text().contains("magnesium sulfate")) {
      QTest::mouseClick(button, Qt::LeftButton);
      break;
    }
  EXPECT_EQ(run().state().vessels[0].of[was].in, core::Mass{});
  double other = 0;
  for (std::size_t p = 0; p < run().plan().shelf.size(); ++p)
    other += run().state().vessels[0].of[p].in.grams();
  EXPECT_NEAR(other, grams, 1e-6) << "no gram is lost";
  EXPECT_THAT(label("runTrouble"), HasSubstr("does not belong"));
  EXPECT_EQ(phase(), RunPhase::Weigh) << "the first is still to be weighed";
  // Into the book as it is: the salt that nobody planned there has its line.
  window->prompts().goOn = [](const QString&, const QString&, const QString&) { return true; };
  click("runEnd");
  const auto head = book().store().batches({}, std::nullopt, 1)->front();
  const auto batch = book::batchFromJson((*book().record({book::Kind::Batch, head.uid}))->body);
  ASSERT_TRUE(static_cast<bool>(batch));
  double inBook = 0, unplanned = 0;
  for (const auto& line : batch->weights) {
    inBook += line.actualGrams().value_or(0);
    if (line.plannedGrams <= 0) unplanned += line.actualGrams().value_or(0);
  }
  EXPECT_NEAR(inBook, grams, 1e-3) << "no gram is lost on the way";
  EXPECT_NEAR(unplanned, grams, 1e-3);
}

TEST_F(RunPageTest, TooMuchWaterMakesAllLargerOrTheVesselWeaker) {
  pourAndWeighFirst();
  const double wanted = missing();
  press(Qt::Key_F4);
  click("troubleWater");
  type("troubleVolume", "220");
  click("troubleWaterIs");
  EXPECT_THAT(label("troubleQuestion"), HasSubstr("20.0 L above the mark"));
  click("troubleLarger");
  EXPECT_NEAR(missing(), 1.1 * wanted, 1e-6);
  EXPECT_NEAR(run().state().vessels[0].water.litres(), 220, 1e-9);
  press(Qt::Key_F9);
  press(Qt::Key_F9);
  press(Qt::Key_F4);
  click("troubleWater");
  type("troubleVolume", "220");
  click("troubleWaterIs");
  click("troubleWeaker");
  EXPECT_NEAR(missing(), wanted, 1e-6);
  EXPECT_NEAR(run().state().vessels[0].full->litres(), 220, 1e-9);
}

TEST_F(RunPageTest, AnEmptyBagMakesAllSmallerOrIsFollowedByAnother) {
  pourAndWeighFirst();
  const double wanted = missing();
  type("runLot", "OLD");
  weigh(0.6 * wanted);
  press(Qt::Key_F4);
  click("troubleBag");
  click("troubleSmaller");
  EXPECT_NEAR(run().state().ratio, 0.6, 1e-9);
  EXPECT_EQ(phase(), RunPhase::Tip);
  press(Qt::Key_F9);
  press(Qt::Key_F4);
  click("troubleBag");
  click("troubleSecondBag");
  type("runLot", "NEW");
  weigh(missing());
  EXPECT_EQ(phase(), RunPhase::Tip);
  ASSERT_EQ(run().state().lots.size(), 2u);
  EXPECT_EQ(run().state().lots[1].lot, "NEW");
}

TEST_F(RunPageTest, AnyLineThatIsNotSoIsStruck) {
  pourAndWeighFirst();
  weigh(missing());
  click("runNext");
  press(Qt::Key_F4);
  click("troubleLine");
  const auto lines = window->findChildren<QPushButton*>("troubleStrike");
  EXPECT_EQ(lines.size(), 4) << "ready, water, weight, tipped";
  EXPECT_THAT(lines.last()->text().toStdString(), HasSubstr("all stands ready"));
  QTest::mouseClick(lines[2], Qt::LeftButton); // the water
  EXPECT_EQ(phase(), RunPhase::Pour);
}

} // namespace
} // namespace butte::app
