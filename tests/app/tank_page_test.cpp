// The tank in the real window: name it, fill it, read it, take an advice, undo; as a hand would.
#include "edits/bench_edits.h"
#include "stations/bench/run_page.h"
#include "stations/tank/advice_matrix.h"
#include "stations/tank/element_bands.h"
#include "stations/tank/facts_panel.h"
#include "stations/tank/tank_page.h"
#include "stations/tank/tank_picture.h"
#include "stations/tank/vessel_card.h"
#include "tank_walk.h"

#include <QAction>
#include <QCheckBox>
#include <QComboBox>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QStatusBar>

namespace butte::app {
namespace {

using ::testing::HasSubstr;

// No tank at all: keys and presses find nothing to take.
TEST_F(TankPageTest, WithoutATankNothingCanBeTaken) {
  auto* matrix = window->findChild<AdviceMatrix*>();
  matrix->setFocus();
  for (const auto key : {Qt::Key_Down, Qt::Key_Up, Qt::Key_Return})
    QTest::keyClick(matrix, key);
  QTest::mouseClick(matrix, Qt::LeftButton, {}, {40, 40});
  EXPECT_EQ(matrix->chosen(), -1);
  EXPECT_FALSE(find<QPushButton>("adviceDo")->isEnabled());
}

TEST_F(TankPageTest, WhatWasWorkedOutForAnotherVesselIsNotTaken) {
  filledTank();
  window->findChild<AdviceMatrix*>()->choose(0);
  newTank("second");
  page().showVessel(window->findChildren<VesselCard*>().first()->uid());
  EXPECT_EQ(story().none, NoStory::NoLog) << "at once, before anything new is worked out";
  EXPECT_FALSE(find<QPushButton>("adviceDo")->isEnabled());
  settle();
}

TEST_F(TankPageTest, ANewTankSaysWhatItNeedsStepByStep) {
  const auto before = TankEdits(window->desk()).vessels().size();
  newTank("bucket row");
  EXPECT_EQ(TankEdits(window->desk()).vessels().size(), before + 1);
  EXPECT_EQ(story().none, NoStory::NoVolume);
  EXPECT_THAT(text("tankAhead"), HasSubstr("full mark"));
  type("vesselFullMark", "300");
  settle();
  EXPECT_EQ(story().none, NoStory::NoLog) << "the formula in hand fills it";
  EXPECT_THAT(text("tankAhead"), HasSubstr("Nothing is in its log"));
  click("tankNow");
  click("tankKeepDone");
  settle();
  EXPECT_EQ(story().none, NoStory::None);
  const auto feed = editor().answer().feed;
  EXPECT_NEAR(story().now()->of(Nutrient::K).value, feed.milligramsPerLitre.of(Nutrient::K), 0.5);
  newTank("Bucket Row");
  EXPECT_THAT(status().toStdString(), HasSubstr("There is a tank called Bucket Row already"));
}

TEST_F(TankPageTest, ReadingsAreLoggedInTwoKeystrokesAndTakenBack) {
  filledTank();
  const auto before = readings().size();
  window->showStation(Station::Water);
  window->showStation(Station::Tank);
  settle();
  EXPECT_EQ(QApplication::focusWidget(), find<>("tankEc")) << "a hand comes to read";
  enterIn("tankEc", "1.71");
  ASSERT_EQ(readings().size(), before + 1);
  EXPECT_NEAR(readings().back().value, 1.71, 1e-12);
  EXPECT_TRUE(find<>("tankEc")->text().isEmpty());
  type("tankPh", "6,1");
  type("tankTemperature", "66 F");
  enterIn("tankLevel", "60 gal");
  ASSERT_EQ(readings().size(), before + 4);
  trigger("undo");
  settle();
  EXPECT_EQ(readings().size(), before + 1) << "what was read together goes together";
  trigger("redo");
  settle();
  EXPECT_EQ(readings().size(), before + 4);
  const auto level = TankEdits(window->desk()).lastReadings(page().vessel()).at("level");
  EXPECT_NEAR(level.value, 60 * 3.785411784, 1e-3);
}

TEST_F(TankPageTest, ALevelInCentimetresGoesByTheVesselsMeasures) {
  filledTank();
  click("tankFacts");
  choose("vesselShape", "round");
  type("vesselAcross", "60");
  settle();
  click("tankNow");
  enterIn("tankLevel", "50 cm");
  const auto level = TankEdits(window->desk()).lastReadings(page().vessel()).at("level");
  EXPECT_NEAR(level.value, 3.14159265 * 30 * 30 * 50 / 1000, 0.01);
  EXPECT_EQ(level.typed, "50 cm") << "kept as it was typed";
}

TEST_F(TankPageTest, UndoSaysWhatItTakesBack) {
  filledTank();
  EXPECT_THAT(window->findChild<QAction*>("undo")->text().toStdString(),
              HasSubstr("bucket row: filled to 300 L"));
  click("tankFacts");
  click("vesselWaste");
  settle();
  EXPECT_TRUE(log().facts.drainsToWaste);
  EXPECT_THAT(window->findChild<QAction*>("undo")->text().toStdString(),
              HasSubstr("bucket row, drains to waste: ✓"));
  trigger("undo");
  settle();
  EXPECT_FALSE(log().facts.drainsToWaste);
  EXPECT_FALSE(find<QCheckBox>("vesselWaste")->isChecked());
}

TEST_F(TankPageTest, BadInputIsNamedAndNothingIsLost) {
  filledTank();
  const auto before = readings().size();
  enterIn("tankPh", "19");
  EXPECT_TRUE(find<>("tankPh")->isWrong());
  EXPECT_THAT(status().toStdString(), HasSubstr("pH read in the tank"));
  EXPECT_EQ(readings().size(), before);
  EXPECT_EQ(find<>("tankPh")->text(), "19") << "what was typed stays";
  type("tankPh", "");
  choose("tankDid", "drained");
  type("tankAmount", "");
  click("tankKeepDone");
  EXPECT_THAT(status().toStdString(), HasSubstr("How much"));
  choose("tankDid", "roots");
  click("tankKeepDone");
  EXPECT_THAT(status().toStdString(), HasSubstr("in your words"));
  const auto lines = log().lines.size();
  type("tankText", "white <b>all over</b>");
  click("tankKeepDone");
  settle();
  ASSERT_EQ(log().lines.size(), lines + 1);
  click("tankLogTab");
  EXPECT_THAT(find<QListWidget>("tankLog")->item(0)->text().toStdString(),
              HasSubstr("roots: white <b>all over</b>"));
}

TEST_F(TankPageTest, AnAdviceIsTakenIntoTheLogAndTakenBack) {
  filledTank();
  tellDone("drained", "120");
  const int refill = placeOf(AdviceKind::RefillAsPlanned);
  ASSERT_EQ(story().advice[static_cast<std::size_t>(refill)].notOpen, core::NotOpen::None);
  EXPECT_NEAR(story().advice[static_cast<std::size_t>(refill)].pour.litres(), 120, 3);
  auto* matrix = window->findChild<AdviceMatrix*>();
  matrix->setFocus();
  QTest::keyClick(matrix, Qt::Key_Down);
  EXPECT_EQ(matrix->chosen(), 0);
  EXPECT_THAT(text("adviceDoing"), HasSubstr("Pour in"));
  const auto lines = log().lines.size();
  QTest::keyClick(matrix, Qt::Key_Return);
  settle();
  ASSERT_EQ(log().lines.size(), lines + 1);
  EXPECT_EQ(log().lines.back().second.did, TankDid::Poured);
  EXPECT_NEAR(story().now()->litres.value, 300, 3);
  EXPECT_EQ(story().advice[static_cast<std::size_t>(refill)].notOpen, core::NotOpen::Full);
  EXPECT_THAT(matrix->lineText(refill).toStdString(), HasSubstr("it is full"));
  trigger("undo");
  settle();
  EXPECT_EQ(log().lines.size(), lines);
}

TEST_F(TankPageTest, SaltsForTheTargetGoIntoTheLogByWeight) {
  filledTank();
  choose("tankDid", "drained");
  type("tankAmount", "100");
  click("tankKeepDone");
  choose("tankDid", "filled to the mark with water");
  click("tankKeepDone");
  settle();
  const int salts = placeOf(AdviceKind::RefillBySalts);
  window->findChild<AdviceMatrix*>()->choose(salts);
  EXPECT_THAT(text("adviceDoing"), HasSubstr("weigh in"));
  const auto wanted = story().advice[static_cast<std::size_t>(salts)].after;
  click("adviceDo");
  settle();
  EXPECT_EQ(log().lines.back().second.did, TankDid::Salts);
  for (const auto n : {Nutrient::NNitrate, Nutrient::K, Nutrient::Ca})
    EXPECT_NEAR(story().now()->of(n).value, wanted.milligramsPerLitre.of(n),
                0.01 * wanted.milligramsPerLitre.of(n));
}

TEST_F(TankPageTest, SaltsAreWeighedAtTheBench) {
  filledTank();
  tellDone("drained", "100");
  const int salts = placeOf(AdviceKind::RefillBySalts);
  window->findChild<AdviceMatrix*>()->choose(salts);
  const auto grams = story().advice[static_cast<std::size_t>(salts)].grams;
  click("adviceWeigh");
  const auto& run = window->findChild<RunPage*>()->run();
  ASSERT_TRUE(run.isOpen());
  EXPECT_EQ(run.sort(), RunSort::Bags) << "for a vessel that is full already: nothing to dissolve here";
  core::Mass planned, wanted;
  for (const auto& bag : run.plan().vessels)
    for (const auto& step : bag.steps)
      planned = planned + step.planned;
  for (const auto mass : grams)
    wanted = wanted + mass;
  EXPECT_NEAR(planned.grams(), wanted.grams(), 0.01);
  EXPECT_THAT(run.plan().vessels.front().name, HasSubstr("bucket row"));
}

TEST_F(TankPageTest, AnAnalysisIsPastedAndTheBandShrinks) {
  filledTank();
  click("tankRoot");
  auto* paste = find<QPlainTextEdit>("analysisText");
  paste->setFocus();
  paste->insertPlainText("Potassium 150 mg/L\nCalcium 3.5 mmol/L\nbanana 7");
  EXPECT_THAT(text("analysisRead"), HasSubstr("K 150"));
  EXPECT_THAT(text("analysisRead"), HasSubstr("Ca 140"));
  const auto before = story().now()->of(Nutrient::K);
  click("analysisKeep");
  settle();
  const auto after = story().now()->of(Nutrient::K);
  EXPECT_LT(std::abs(after.value - 150), std::abs(before.value - 150));
  EXPECT_TRUE(paste->toPlainText().isEmpty());
  trigger("undo");
  settle();
  EXPECT_NEAR(story().now()->of(Nutrient::K).value, before.value, 0.01) << "some seconds later";
}

TEST_F(TankPageTest, ADrainsAnalysisLeadsToAnAdjustedFeed) {
  filledTank();
  click("tankRoot");
  type("rootGiven", "100");
  type("rootDrained", "25");
  type("rootEc", "2.4");
  click("rootKeep");
  settle();
  EXPECT_THAT(text("rootSideBySide"), HasSubstr("25 % drained"));
  EXPECT_THAT(text("rootSideBySide"), HasSubstr("for 30 % give 107 L where 100 L was given"));
  choose("rootWhere", "root zone");
  type("rootEc", "2.1");
  click("rootKeep");
  settle();
  EXPECT_THAT(text("rootSideBySide"), HasSubstr("root zone EC 2.1 mS/cm · drain EC 2.4 mS/cm"));
  EXPECT_THAT(text("steered"), HasSubstr("With an analysis of drain"));
  choose("analysisOf", "of the drain");
  auto* paste = find<QPlainTextEdit>("analysisText");
  paste->insertPlainText("K 90 mg/L, Ca 320 mg/L, Mg 60 mg/L");
  EXPECT_THAT(text("steered"), HasSubstr("K much too low: feed"));
  click("analysisKeep");
  settle();
  EXPECT_THAT(text("steered"), HasSubstr("K much too low: feed")) << "from the log";
  const auto feed = story().request.plan.refill.milligramsPerLitre.of(Nutrient::K);
  EXPECT_NEAR(story().now()->of(Nutrient::K).value, feed, 1) << "the tank itself was not analysed";
  click("steerTarget");
  EXPECT_EQ(window->station(), Station::Target);
  for (const auto& row : editor().document().given.request.rows) {
    if (row.nutrient != Nutrient::K) continue;
    EXPECT_NEAR(row.milligramsPerLitre, 1.25 * feed, 0.01 * feed);
  }
}

TEST_F(TankPageTest, HotAndColdWaterAreBlendedAndAHeaterReckoned) {
  filledTank();
  enterIn("tankTemperature", "12");
  click("tankWarmth");
  type("warmWanted", "20");
  type("warmHot", "60");
  type("warmCold", "10");
  EXPECT_THAT(text("warmAnswer"), HasSubstr("60.0 L of hot water and 240 L of cold"));
  type("warmWatts", "1000");
  EXPECT_THAT(text("warmAnswer"), HasSubstr("takes 2.8 hours")); // 300 x 4.18 x 8 kJ at 1 kW
  EXPECT_THAT(text("warmAnswer"), HasSubstr("mg/L of oxygen"));
  type("warmWanted", "80");
  EXPECT_THAT(text("warmAnswer"), HasSubstr("Neither of these waters"));
}

TEST_F(TankPageTest, AWrongLineGoesIntoTheBin) {
  filledTank();
  tellDone("poured in water", "500");
  click("tankLogTab");
  auto* list = find<QListWidget>("tankLog");
  list->setCurrentRow(0);
  EXPECT_THAT(list->item(0)->text().toStdString(), HasSubstr("500"));
  click("tankStrike");
  settle();
  EXPECT_EQ(log().lines.size(), 1u);
  trigger("undo");
  settle();
  EXPECT_EQ(log().lines.size(), 2u);
}

/// The made-up farm, two months in.
class SampleTankTest : public TankPageTest {
protected:
  void SetUp() override {
    bareWindow();
    window->books().start(true, {});
    window->resize(1280, 800);
    showWindow();
    window->showStation(Station::Tank);
    settle();
  }
};

TEST_F(SampleTankTest, TheDemosTabletopShowsWhatThePlantsLeave) {
  ASSERT_EQ(story().none, NoStory::None);
  const auto& now = *story().now();
  const auto feed = story().request.plan.refill.milligramsPerLitre;
  EXPECT_LT(now.of(Nutrient::K).high, feed.of(Nutrient::K)) << "drawn down";
  EXPECT_GT(now.of(Nutrient::Ca).low, feed.of(Nutrient::Ca)) << "left behind";
  EXPECT_THAT(window->findChild<ElementBands*>()->lineText(Nutrient::K).toStdString(), HasSubstr("mg/L"));
  EXPECT_GT(window->findChild<TankPicture*>()->markCount(), 100);
  const auto cards = window->findChildren<VesselCard*>();
  ASSERT_EQ(cards.size(), 3);
  QTest::mouseClick(cards[1], Qt::LeftButton);
  settle();
  EXPECT_EQ(page().vessel(), cards[1]->uid());
  EXPECT_FALSE(story().cropKnown) << "no uptake of pak choi is published here";
  EXPECT_THAT(text("tankAhead"), HasSubstr("No published uptake"));
}

TEST_F(SampleTankTest, AFeedAsPlantsTakeItBecomesTheTarget) {
  const int uptake = placeOf(AdviceKind::FeedByUptake);
  const auto feed = story().advice[static_cast<std::size_t>(uptake)].feed;
  window->findChild<AdviceMatrix*>()->choose(uptake);
  click("adviceDo");
  EXPECT_EQ(window->station(), Station::Target);
  for (const auto& row : editor().document().given.request.rows) {
    if (row.nutrient != Nutrient::K) continue;
    EXPECT_NEAR(row.milligramsPerLitre, feed.milligramsPerLitre.of(Nutrient::K),
                0.005 * row.milligramsPerLitre);
  }
  trigger("undo");
}

// The units are chosen at any time, and touch nothing that is kept.
TEST_F(TankPageTest, InUnitsOfTheStatesNothingIsMetric) {
  window->units().setAll(UnitsOf::UnitedStates);
  settle();
  filledTank(); // 300 gal: typed in the unit beside the field
  EXPECT_NEAR(log().facts.fullVolume().usGallons(), 300, 1e-6);
  tellDone("drained", "50");
  window->findChild<AdviceMatrix*>()->choose(placeOf(AdviceKind::RefillAsPlanned));
  EXPECT_THAT(text("adviceDoing"), HasSubstr("gal"));
  EXPECT_THAT(text("adviceDoing"), ::testing::Not(HasSubstr(" L ")));
}

TEST_F(TankPageTest, ALogGoesOutAsATableAndComesIntoAnotherTank) {
  filledTank();
  enterIn("tankEc", "1.5");
  const auto path = folder.filePath("log.csv");
  window->prompts().fileToMake =
      window->prompts().fileToOpen = [=](const QString&, const QString&, const QString&) { return path; };
  click("tankLogTab");
  click("tankLogOut");
  EXPECT_THAT(status().toStdString(), HasSubstr("log.csv"));
  const auto lines = log().lines.size();
  click("tankLogIn");
  settle();
  EXPECT_EQ(log().lines.size(), lines) << "what stands there already is left out";
  newTank("second row");
  click("tankLogTab");
  click("tankLogIn");
  settle();
  ASSERT_EQ(log().lines.size(), lines) << status().toStdString();
  EXPECT_EQ(log().lines.front().second.did, TankDid::Filled);
  ASSERT_TRUE(static_cast<bool>(book().undo()));
  EXPECT_TRUE(log().lines.empty()) << "one step";
  QFile(path).remove();
  click("tankLogIn");
  EXPECT_THAT(status().toStdString(), HasSubstr("can't be read"));
  QFile bad(path);
  ASSERT_TRUE(bad.open(QIODevice::WriteOnly));
  bad.write("at,did\n2026-11-22,drunk\n");
  bad.close();
  click("tankLogIn");
  EXPECT_THAT(status().toStdString(), HasSubstr("row 2"));
}

TEST_F(TankPageTest, AFillThatTheLevelShowsIsLoggedWithOnePress) {
  filledTank();
  auto* fills = find<QPushButton>("logFills");
  EXPECT_FALSE(fills->isVisible());
  // Read by a logger: drunk down, then full again, and nobody wrote down why.
  std::vector<book::Reading> levels;
  const auto start = log().lines.front().second.at.seconds;
  auto line = log().lines.front();
  line.second.at.seconds = start - 5 * 86400;
  ASSERT_FALSE(book().replaceBody(line.first, toJson(line.second), told("moved")));
  double litres = 300;
  for (int hour = 1; hour < 118; ++hour) {
    litres = hour == 100 ? 300 : litres - 0.9;
    if (hour % 4 == 0)
      levels.push_back({0, page().vessel(), "level", {start - 5 * 86400 + hour * 3600}, litres, "", {}, {}});
  }
  ASSERT_FALSE(book().store().addReadings(levels));
  page().showVessel(page().vessel());
  settle();
  click("tankNow");
  ASSERT_TRUE(fills->isVisible());
  EXPECT_THAT(fills->text().toStdString(), HasSubstr("1 fill"));
  click("logFills");
  settle();
  ASSERT_EQ(log().lines.size(), 2u);
  EXPECT_EQ(log().lines.back().second.volume.digits, "300");
  EXPECT_FALSE(fills->isVisible()) << "now it fits";
  ASSERT_TRUE(static_cast<bool>(book().undo()));
  settle();
  EXPECT_EQ(log().lines.size(), 1u);
}

TEST_F(TankPageTest, ATankMayBeFilledWithWaterAlone) {
  filledTank();
  const double feed = story().request.plan.refill.milligramsPerLitre.of(Nutrient::K);
  ASSERT_GT(feed, 50);
  click("tankFacts");
  auto* box = find<QComboBox>("vesselFormula");
  box->showPopup();
  box->hidePopup();
  choose("vesselFormula", "only the water of");
  EXPECT_LT(story().request.plan.refill.milligramsPerLitre.of(Nutrient::K), 0.2 * feed);
  EXPECT_TRUE(log().facts.filledWithWater);
  EXPECT_THAT(box->currentText().toStdString(), HasSubstr("only the water of"));
  ASSERT_TRUE(static_cast<bool>(book().undo()));
  settle();
  EXPECT_NEAR(story().request.plan.refill.milligramsPerLitre.of(Nutrient::K), feed, 1e-9);
}

} // namespace
} // namespace butte::app
