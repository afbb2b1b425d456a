// What must be known before anything is weighed stands on the card, the strip, the sheet and the labels in
// the same words; and nothing goes to paper or into the book while its weights are not sure.
#include "window_fixture.h"

#include "edits/formula_edits.h"
#include "edits/shelf_edits.h"
#include "edits/stock_edits.h"
#include "edits/water_edits.h"
#include "print/sheet_text.h"
#include "print/tank_labels.h"
#include "support/painted_text.h"
#include "window/line_bar.h"
#include "wording/before_mixing.h"

#include <QTextDocument>

namespace butte::app {

using ::testing::HasSubstr;
using ::testing::Not;

class BeforeMixingTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->resize(1280, 770);
  }
  static std::string plain(const QString& html) {
    QTextDocument document;
    document.setHtml(html);
    return document.toPlainText().toStdString();
  }
  std::string sheet() { return plain(benchSheetHtml(editor(), UnitsShown(*settings), "29 November 2026")); }
  std::string labels() {
    return plain(tankLabels(editor(), UnitsShown(*settings), "29 November 2026").join(""));
  }
  std::string cards() {
    return test::PaintedText::of(*window->findChild<LineBar*>()).join('\n').toStdString();
  }
};

TEST_F(BeforeMixingTest, WhatHarmsIsSaidEverywhere) {
  EXPECT_TRUE(beforeMixing(editor()).harmful.isEmpty());
  EXPECT_THAT(sheet(), Not(HasSubstr("Do not mix")));
  ShelfEdits(editor()).hold("h3bo3", {"640", "g"}, false);
  const auto told = beforeMixing(editor());
  ASSERT_EQ(told.harmful.size(), 1);
  const auto words = told.harmful[0].toStdString();
  EXPECT_THAT(words, HasSubstr("Boron 111 mg/L: above 1.00 it harms strawberry"));
  EXPECT_THAT(sheet(), HasSubstr("Do not mix this feed as it stands."));
  EXPECT_THAT(sheet(), HasSubstr(words));
  EXPECT_THAT(labels(), HasSubstr(words));
  window->showStation(Station::Formula);
  EXPECT_THAT(find<QLabel>("reasons")->text().toStdString(), HasSubstr(words));
  EXPECT_THAT(cards(), HasSubstr("HARMFUL"));
  EXPECT_THAT(cards(), Not(HasSubstr("all elements in band")));
  EXPECT_THAT(lane(core::Nutrient::B).toStdString(), HasSubstr("HARMFUL above 1.00"));
  editor().undo();
  EXPECT_THAT(cards(), Not(HasSubstr("HARMFUL")));
}

TEST_F(BeforeMixingTest, WhatRestsOnAGuessIsSaidOnThePaperToo) {
  EXPECT_TRUE(beforeMixing(editor()).unsure.isEmpty());
  EXPECT_THAT(sheet(), Not(HasSubstr("Not sure:")));
  WaterEdits(editor()).setGuessing(0, true);
  const auto told = beforeMixing(editor()).unsure;
  ASSERT_EQ(told.size(), 1);
  EXPECT_THAT(sheet(), HasSubstr("Not sure:"));
  EXPECT_THAT(sheet(), HasSubstr(told[0].toStdString()));
  EXPECT_THAT(find<QLabel>("reasons")->text().toStdString(), HasSubstr(told[0].toStdString()));
}

TEST_F(BeforeMixingTest, ALabelThatLeavesIonsOutMakesTheEcUnsure) {
  TypedProduct bag;
  bag.name = "bag without its sulfate";
  bag.label = {{"N_NO3", "7"}, {"K2O", "46"}};
  ASSERT_FALSE(ShelfEdits(editor()).put("", bag, true));
  const auto& products = editor().document().products;
  const auto own = std::find_if(products.begin(), products.end(), [](const auto& p) { return p.own; });
  ASSERT_NE(own, products.end());
  ShelfEdits(editor()).hold(own->id, {"300", "g"}, false);
  window->showStation(Station::Formula);
  const auto unstated = editor().answer().feed.unstatedMeqPerLitre;
  ASSERT_GT(unstated, 0.3);
  const auto told = beforeMixing(editor()).unsure;
  ASSERT_EQ(told.size(), 1);
  EXPECT_THAT(told[0].toStdString(), HasSubstr("of ions unstated"));
  EXPECT_THAT(sheet(), HasSubstr(told[0].toStdString()));
  EXPECT_THAT(find<QLabel>("figureEc")->text().toStdString(), HasSubstr("≈ "));
  EXPECT_THAT(find<QLabel>("figureEc")->text().toStdString(), HasSubstr("up to"));
}

TEST_F(BeforeMixingTest, WhatFallsOutInATankStandsOnTheSheetAndOnThatTanksLabelOnly) {
  StockEdits(editor()).move("sop", 1, 0, false); // potassium sulfate beside the calcium
  const auto told = beforeMixing(editor());
  ASSERT_FALSE(told.falling().isEmpty());
  const auto all = told.falling().join('\n').toStdString();
  EXPECT_THAT(all, HasSubstr("gypsum"));
  const auto paper = sheet();
  EXPECT_THAT(paper, HasSubstr("Before you weigh"));
  for (const auto& line : told.falling())
    EXPECT_THAT(paper, HasSubstr(line.toStdString()));
  const auto inA = fallingInTank(editor(), "A"), inB = fallingInTank(editor(), "B");
  ASSERT_FALSE(inA.isEmpty());
  EXPECT_TRUE(inB.isEmpty()) << inB.join('\n').toStdString();
  EXPECT_THAT(labels(), HasSubstr(inA.first().toStdString()));
  EXPECT_THAT(cards(), HasSubstr("falls out: read first"));
}

TEST_F(BeforeMixingTest, NothingLeavesWhileFewProductsAreSought) {
  FormulaEdits(editor()).setAtMost("9");
  ASSERT_TRUE(editor().isSearching());
  const auto path = folder.filePath("sheet.pdf");
  EXPECT_FALSE(window->files().exportSheetTo(path));
  EXPECT_FALSE(QFile::exists(path));
  EXPECT_THAT(troubles.join('\n').toStdString(), HasSubstr("still being sought"));
  EXPECT_FALSE(window->files().exportLabelsTo(path));
  window->showStation(Station::Bench);
  click("mixedIt");
  EXPECT_TRUE(book().store().batches({}, std::nullopt, 5)->empty())
      << "no batch of weights that are not its own";
  EXPECT_EQ(troubles.size(), 3);
  ASSERT_TRUE(QTest::qWaitFor([&] { return !editor().isSearching(); }, 20000));
  EXPECT_TRUE(window->files().exportSheetTo(path));
  EXPECT_TRUE(QFile::exists(path));
}

} // namespace butte::app
