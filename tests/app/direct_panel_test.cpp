// Salts straight into one vessel, as a hand does it at the Stocks station, and what paper and book then say.
#include "print/sheet_text.h"
#include "print/tank_labels.h"
#include "services/units_shown.h"
#include "stations/stocks/ladder_picture.h"
#include "stations/stocks/stocks_page.h"
#include "window_fixture.h"

#include <QAbstractButton>
#include <QCheckBox>
#include <QLabel>
#include <QTextDocument>

namespace butte::app {
namespace {

using ::testing::HasSubstr;
using ::testing::Not;

class DirectPanelTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->showStation(Station::Stocks);
    QApplication::processEvents();
    click("wayDirect");
  }
  std::string ladder() {
    QApplication::processEvents();
    return find<LadderPicture>("ladder")->accessibleDescription().toStdString();
  }
  std::string headline() { return find<QAbstractButton>("station4")->accessibleName().toStdString(); }
  std::string sheet() {
    QTextDocument paper;
    paper.setHtml(benchSheetHtml(editor(), window->units(), "today"));
    return paper.toPlainText().toStdString();
  }
  double toWeigh(const std::string& id) {
    const auto& shelf = editor().document().given.request.shelf;
    for (const auto& step : (*editor().answer().direct)->steps)
      if (shelf[step.product].id == id) return step.mass.grams();
    return 0;
  }
};

// Half a step of the scale against the weight: a gram scale is 50 % off on a gram (common practice: 2 %).
TEST_F(DirectPanelTest, AScaleThatIsTooCoarseIsSaidBesideTheWeight) {
  type("directVessel", "20 L");
  window->showStation(Station::Bench);
  type("scale0_readability", "1");
  type("scale1_readability", "");
  window->showStation(Station::Formula);
  QApplication::processEvents();
  const auto& answer = editor().answer();
  const auto at = static_cast<std::size_t>(editor().shelfIndexOf("kno3"));
  ASSERT_TRUE(answer.weighed[at]);
  const auto& step = *answer.weighed[at];
  EXPECT_NEAR(step.errorPercent, 100 * 0.5 / step.exact.grams(), 1e-6);
  int coarse = 0;
  for (const auto* row : window->findChildren<QWidget*>()) {
    if (!row->inherits("butte::app::ProductRow")) continue;
    for (const auto* label : row->findChildren<QLabel*>())
      coarse += label->text().startsWith("▲ ±");
  }
  int wanted = 0;
  for (std::size_t j = 0; j < answer.weighed.size(); ++j) {
    const auto& product = editor().document().given.request.shelf[j];
    wanted += answer.weighed[j] && answer.weighed[j]->tooFine && !(product.liquid && product.densityKgPerL);
  }
  EXPECT_GT(wanted, 3);
  EXPECT_EQ(coarse, wanted);
  window->showStation(Station::Bench);
  type("scale0_readability", "0.001");
  window->showStation(Station::Formula);
  QApplication::processEvents();
  EXPECT_FALSE(editor().answer().weighed[at]->tooFine);
}

TEST_F(DirectPanelTest, OneVolumeRulesVesselWeightsAndSheet) {
  window->units().setVolume(VolumeShown::UsGallons);
  type("directVessel", "5");
  EXPECT_NEAR(editor().document().given.request.volume.usGallons(), 5, 1e-9);
  EXPECT_THAT(headline(), HasSubstr("straight into a vessel, 5.00 US gal to the mark"));
  EXPECT_THAT(ladder(), HasSubstr("4.50 US gal of water first"));
  EXPECT_THAT(sheet(), HasSubstr("Straight into one vessel of 5.00 US gal"));
  EXPECT_THAT(sheet(), Not(HasSubstr("Tank A")));
  EXPECT_THAT(sheet(), Not(HasSubstr("Dose")));
  // The formula's own volume is the same fact.
  window->showStation(Station::Formula);
  type("batch", "10");
  window->showStation(Station::Stocks);
  EXPECT_THAT(ladder(), HasSubstr("9.00 US gal of water first"));
}

TEST_F(DirectPanelTest, ItIsOneStepOfUndoAndTheTanksComeBackAsTheyWere) {
  EXPECT_TRUE(editor().answer().direct.has_value());
  EXPECT_TRUE(editor().answer().stock.tanks.empty());
  editor().undo();
  EXPECT_FALSE(editor().answer().direct.has_value());
  EXPECT_FALSE(editor().answer().stock.tanks.empty());
  QApplication::processEvents();
  EXPECT_TRUE(find<QWidget>("stockFactor")->isVisible());
  EXPECT_FALSE(find<QWidget>("directVessel")->isVisible());
}

// Calcium last, each salt with what the meter shows after it, the end as the formula has it (common
// practice).
TEST_F(DirectPanelTest, TheLadderEndsAtTheFeedsOwnReading) {
  const auto said = ladder();
  EXPECT_LT(said.find("monopotassium phosphate"), said.find("magnesium sulfate"));
  EXPECT_LT(said.find("magnesium sulfate"), said.find("calcium nitrate"));
  const auto end = "EC " + window->units().text(editor().answer().feed.conductivity).toStdString();
  EXPECT_THAT(said, HasSubstr(end));
  EXPECT_GT(said.rfind(end), said.find("calcium nitrate"));
}

TEST_F(DirectPanelTest, AVesselIsToppedUpByWhatItReads) {
  type("directVessel", "100");
  const auto full = toWeigh("kno3");
  ASSERT_GT(full, 0);
  type("directPresent", "50");
  EXPECT_NEAR(toWeigh("kno3"), full / 2, 1e-6 * full);
  type("directReading", "0.9"); // thinner than the feed's 1.67
  EXPECT_GT(toWeigh("kno3"), full * 0.55);
  EXPECT_LT(toWeigh("kno3"), full);
  EXPECT_THAT(ladder(), HasSubstr("50.0 L is in it"));
  EXPECT_THAT(sheet(), HasSubstr("50.0 L of feed is in it"));
  type("directReading", "");
  type("directPresent", "");
  EXPECT_NEAR(toWeigh("kno3"), full, 1e-6 * full);
}

TEST_F(DirectPanelTest, MoreThanTheVesselHoldsIsSaidAndNothingIsLost) {
  type("directVessel", "100");
  type("directPresent", "150");
  QApplication::processEvents();
  EXPECT_THAT(find<QLabel>("directProblem")->text().toStdString(), HasSubstr("150"));
  EXPECT_FALSE(find<QWidget>("ladder")->isVisible());
  EXPECT_THAT(headline(), HasSubstr("needs attention"));
  EXPECT_THAT(sheet(), HasSubstr("150"));
  type("directVessel", "200");
  QApplication::processEvents();
  EXPECT_TRUE(find<QWidget>("ladder")->isVisible());
  EXPECT_FALSE(find<QWidget>("directProblem")->isVisible());
}

TEST_F(DirectPanelTest, WhatTheScaleCantShowIsNoNought) {
  type("directVessel", "4");
  EXPECT_THAT(ladder(), HasSubstr("on this scale"));
  EXPECT_THAT(ladder(), Not(HasSubstr("; 0 g ")));
  EXPECT_THAT(sheet(), Not(HasSubstr("\n0 g")));
}

// A liquid is measured by its volume: no scale is too coarse for it, on screen and on paper alike.
TEST_F(DirectPanelTest, NoScaleIsTooCoarseForALiquid) {
  type("directVessel", "2");
  const auto paper = sheet();
  const auto acid = paper.find("nitric acid 60 %");
  ASSERT_NE(acid, std::string::npos);
  const auto row = paper.substr(acid, paper.find("Each salt", acid) - acid);
  EXPECT_THAT(row, HasSubstr("mL"));
  EXPECT_THAT(row, Not(HasSubstr("too coarse")));
}

TEST_F(DirectPanelTest, TheBatchIsOfTheVessel) {
  type("directVessel", "20");
  window->showStation(Station::Bench);
  click("mixedIt");
  const auto batches = book().store().batches({}, std::nullopt, 5);
  ASSERT_EQ(batches->size(), 1u);
  EXPECT_NEAR(batches->front().litres, 20, 1e-9);
  const auto record = book().record({book::Kind::Batch, batches->front().uid});
  const auto& weights = (**record).body["weights"];
  ASSERT_EQ(weights.size(), (*editor().answer().direct)->steps.size());
  EXPECT_EQ(weights[0]["tank"], "the vessel");
  EXPECT_NEAR(weights[0]["planned_g"].get<double>(), (*editor().answer().direct)->steps[0].mass.grams(),
              1e-6);
}

TEST_F(DirectPanelTest, TheCautionStandsWhereAcidIsPoured) {
  QApplication::processEvents();
  EXPECT_THAT(find<QLabel>("directNotes")->text().toStdString(),
              HasSubstr("nitric acid 60 %: acid into water"));
}

// Whatever part of the tanks is open: there are none any more.
TEST_F(DirectPanelTest, TheWayIsChangedUnderEveryPartOfTheTanks) {
  for (int part = 0; part < StocksPage::partCount; ++part) {
    click("wayStocks");
    window->stocksPage().showPart(static_cast<StocksPage::Part>(part));
    QApplication::processEvents();
    click("wayDirect");
    EXPECT_TRUE(editor().answer().direct.has_value()) << part;
  }
}

// Acid first or last are two schools; picture, sheet and what is told of the acid follow the choice.
TEST_F(DirectPanelTest, AcidMayGoInBeforeTheSalts) {
  auto* box = find<QCheckBox>("directAcidFirst");
  ASSERT_TRUE(box->isVisibleTo(window.get()));
  const auto acidComesFirst = [&] {
    const auto paper = sheet(), picture = ladder();
    const auto first = [](const std::string& text) {
      return text.find("nitric acid") < text.find("monopotassium phosphate");
    };
    EXPECT_EQ(first(paper), first(picture)) << "paper and picture say the same";
    return first(picture);
  };
  EXPECT_FALSE(acidComesFirst());
  click("directAcidFirst");
  EXPECT_TRUE(acidComesFirst());
  editor().undo();
  EXPECT_FALSE(acidComesFirst());
  EXPECT_FALSE(box->isChecked());
}

// Without a scale: level spoons, told in tablespoons and eighths of a teaspoon, with their error (common
// practice: a third off where no spoon was weighed, some 10 % where ten were).
TEST_F(DirectPanelTest, SpoonsAreToldWhereNoScaleIsAndAreLearntFromTen) {
  type("directVessel", "5 gal");
  window->showStation(Station::Bench);
  type("scale1_readability", "");
  type("scale0_readability", "");
  QApplication::processEvents();
  EXPECT_TRUE(find<QCheckBox>("levelSpoons")->isChecked()) << "something has to measure it";
  EXPECT_THAT(sheet(), HasSubstr("tsp level"));
  window->showStation(Station::Stocks);
  EXPECT_THAT(ladder(), HasSubstr("surer once ten level teaspoons"));
  const auto at = static_cast<std::size_t>(editor().shelfIndexOf("epsom"));
  const auto before = editor().answer().weighed[at]->errorPercent;
  window->showStation(Station::Formula);
  QTest::keyClick(find<NumberField>("weight_epsom"), Qt::Key_F4);
  type("productTenTeaspoons", "48 g");
  click("putProduct");
  QApplication::processEvents();
  EXPECT_LT(editor().answer().weighed[at]->errorPercent, before / 2);
  EXPECT_NEAR(editor().answer().weighed[at]->shown.grams() / editor().answer().weighed[at]->teaspoons, 4.8,
              1e-6);
  window->showStation(Station::Bench);
  click("levelSpoons"); // no spoons, no scale: the usual one comes back
  QApplication::processEvents();
  EXPECT_EQ(find<NumberField>("scale0_readability")->text().toStdString(), "1");
  EXPECT_THAT(sheet(), Not(HasSubstr("tsp level")));
}

TEST_F(DirectPanelTest, TheLabelIsOneForTheVessel) {
  const auto labels = tankLabels(editor(), window->units(), "today");
  ASSERT_EQ(labels.size(), 1);
  EXPECT_THAT(labels.front().toStdString(), HasSubstr("finished feed"));
  EXPECT_THAT(labels.front().toStdString(), HasSubstr("Not for drinking"));
}

TEST_F(DirectPanelTest, ItStaysThroughClosingAndOpening) {
  type("directPresent", "12.5");
  reopenWindow();
  window->showStation(Station::Stocks);
  QApplication::processEvents();
  EXPECT_TRUE(find<QWidget>("directPresent")->isVisible());
  EXPECT_EQ(find<NumberField>("directPresent")->text().toStdString(), "12.5");
}

} // namespace
} // namespace butte::app
