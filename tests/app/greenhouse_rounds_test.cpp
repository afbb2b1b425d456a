// What a greenhouse does with its tanks, its papers and its book, week by week; every figure is reckoned here
// by hand.
#include "greenhouse_walk.h"
#include "print/tank_labels.h"
#include "stations/stocks/tank_items.h"
#include "window/book_actions.h"

#include <QFile>
#include <QListWidget>

namespace butte::app {
namespace {

using ::testing::HasSubstr;
using GreenhouseRounds = GreenhouseJobs;

// As strong as a cold store allows; a salt in the wrong tank; what comes out on a cold night.
TEST_F(GreenhouseRounds, TheStrongestStockInTheColdAndASaltInTheWrongTank) {
  takeTarget("Arizona tomato B");
  putSingleSalts();
  openTanks();
  fill("coldest", "41"); // degrees F
  fill("stockFactor", "100");
  QApplication::processEvents();
  double strongest = 1e9;
  for (const auto& made : editor().answer().stock.tanks)
    if (made.safeFactor) strongest = std::min(strongest, std::floor(*made.safeFactor));
  ASSERT_LT(strongest, 1e9);
  EXPECT_GT(strongest, 30);
  fill("stockFactor", QString::number(strongest));
  QApplication::processEvents();
  for (const auto& made : editor().answer().stock.tanks)
    EXPECT_TRUE(made.fallen.empty());
  openPart(StocksPage::Part::Cold);
  const auto calm = find<QWidget>("coldPanel")->accessibleDescription().toStdString();
  fill("stockFactor", QString::number(strongest * 3));
  QApplication::processEvents();
  EXPECT_NE(find<QWidget>("coldPanel")->accessibleDescription().toStdString(), calm);
  fill("stockFactor", "100");
  auto* list = find<TankItems>("tankItems1");
  list->setFocus();
  const auto& rows = list->rows();
  const auto at =
      std::find_if(rows.begin(), rows.end(), [](const auto& row) { return row.product == "epsom"; });
  ASSERT_NE(at, rows.end());
  for (auto step = at - rows.begin(); step > 0; --step)
    press(Qt::Key_Down);
  press(Qt::Key_Left);
  QApplication::processEvents();
  EXPECT_GT(inTank(0, "epsom"), 0);
  EXPECT_THAT(told("tankCeiling0"), HasSubstr("gypsum"));
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(inTank(0, "epsom"), 0);
}

// A batch with its lots, the batches that got a lot, a year's readings as a picture, a table, a copy.
TEST_F(GreenhouseRounds, ABatchIsKeptWithItsLotsAndFoundByThem) {
  takeTarget("Arizona tomato B");
  putSingleSalts();
  go(Station::Bench);
  hit("mixedIt");
  fill("lot0", "CN-7");
  fill("actual0", "12.5 lb");
  hit("sectionBatches");
  fill("filterLot", "CN-7");
  EXPECT_TRUE(QTest::qWaitFor([&] { return find<QLabel>("batchCount")->text().startsWith("1 "); }, 5000));
  fill("filterLot", "CN-8");
  EXPECT_TRUE(QTest::qWaitFor([&] { return !find<QLabel>("batchCount")->text().startsWith("1 "); }, 5000));
  fill("filterLot", "");
  hit("sectionReadings");
  fill("readingVessel", "north");
  for (const auto* value : {"1010", "985", "1120"}) {
    fill("readingValue", value);
    hit("keepReading");
  }
  EXPECT_EQ(book().store().readings(std::nullopt, 9)->size(), 3u);
  const auto path = folder.filePath("batches.csv");
  ASSERT_TRUE(window->books().exportTableTo(book::Kind::Batch, path, false));
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  EXPECT_THAT(file.readAll().toStdString(), HasSubstr("CN-7"));
  hit("sectionCopies");
  hit("copyNow");
  EXPECT_GE(find<QListWidget>("copies")->count(), 1); // the day's own may stand there too
  takeTarget("Arizona tomato A");
  go(Station::Book);
  hit("sectionCopies");
  ++actions;
  find<QListWidget>("copies")->setCurrentRow(0);
  window->prompts().goOn = [](const QString&, const QString&, const QString&) { return true; };
  hit("goBackCopy");
  EXPECT_EQ(editor().document().targetName, "Arizona tomato B");
}

// A week: mixed, weighed and logged; when to mix again, how much to dose, the filters, what to buy and its
// cost.
TEST_F(GreenhouseRounds, AWeek) {
  takeTarget("Arizona tomato B");
  putSingleSalts();
  openTanks();
  fill("tankVolume0", "50");
  fill("tankVolume1", "50");
  openPart(StocksPage::Part::Supply);
  fill("feedPerDay", "600");
  fill("mixedOn", "2026-11-23");
  fill("seasonDays", "7");
  EXPECT_THAT(told("supplyTanks"), HasSubstr("8.3 days")); // 50 gal at 1:100 make 5,000 gal
  EXPECT_THAT(told("supplySeason"), HasSubstr("7 days take 4200 US gal"));
  EXPECT_THAT(told("supplySeason"), HasSubstr("calcium nitrate"));
  openPart(StocksPage::Part::Vessel);
  fill("vesselFull", "200");
  fill("vesselNow", "150");
  fill("vesselReading", "900");
  EXPECT_THAT(told("vesselSteps"), HasSubstr("of A"));
  go(Station::Bench);
  hit("mixedIt");
  fill("actual0", "20.1 lb");
  fill("batchEc", "1010");
  hit("sectionReadings");
  fill("readingVessel", "north");
  fill("readingValue", "1005");
  hit("keepReading");
  EXPECT_EQ(*book().store().batchCount({}), 1);
  EXPECT_EQ(book().store().readings(std::nullopt, 9)->size(), 1u);
  hit("sectionWaters");
  hit("keepInBook");
  window->showRecord(book().store().list(book::Kind::Water, false)->front().ref);
  fill("upkeepMonths_membrane", "18");
  EXPECT_LE(actions, 40);
}

// Labels and sheet in pounds, on Letter and on A4: the same words, nothing metric.
TEST_F(GreenhouseRounds, LabelsAndSheetInPounds) {
  takeTarget("Arizona tomato B");
  putSingleSalts();
  openTanks();
  fill("tankVolume0", "50");
  fill("tankVolume1", "50");
  go(Station::Bench);
  choose("scale0_unit", "lb");
  fill("scale0_readability", "0.01");
  fill("scale0_capacity", "60");
  choose("scale1_unit", "oz");
  QApplication::processEvents();
  EXPECT_EQ(window->units().paper(), PaperShown::Letter);
  std::string labels;
  for (const auto& label : tankLabels(editor(), window->units(), "today"))
    labels += plain(label);
  for (const auto& text : {sheet(), labels}) {
    EXPECT_THAT(text, HasSubstr("gal"));
    EXPECT_THAT(text, ::testing::Not(::testing::ContainsRegex("[0-9] (kg|g|L|mL)[^a-zA-Z0-9/]")));
  }
  EXPECT_THAT(sheet(), HasSubstr(" lb"));
  trigger("paper_a4");
  EXPECT_EQ(window->units().paper(), PaperShown::A4);
}

} // namespace
} // namespace butte::app
