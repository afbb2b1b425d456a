// Deliveries, counts, what to buy, what it costs: as a hand would, in the real window.
#include "shelf_walk.h"

#include "formula/other_shelf.h"

#include <QDir>

namespace butte::app {
namespace {

using ::testing::HasSubstr;
using ::testing::Not;

constexpr auto kno3 = "potassium nitrate", cano3 = "calcium nitrate 15.5 % N";

TEST_F(ShelfPageTest, AnEmptyShelfSaysHowToBegin) {
  EXPECT_THAT(text("lotFacts"), HasSubstr("Tell the first delivery"));
  EXPECT_FALSE(find<QWidget>("notArrived")->isVisible());
}

TEST_F(ShelfPageTest, ADeliveryStandsInItsBagsAndUndoTakesItBack) {
  delivered(kno3, "2", "25", "48.50", "KN-77");
  EXPECT_THAT(said("kno3"), HasSubstr("50.0 kg left"));
  EXPECT_THAT(find<QListWidget>("lots")->item(0)->text().toStdString(), HasSubstr("KN-77"));
  EXPECT_THAT(find<QListWidget>("lots")->item(0)->text().toStdString(), HasSubstr("1.94 EUR per kg"));
  trigger("undo");
  settle();
  EXPECT_EQ(page().story().products.size(), 0u);
  trigger("redo");
  settle();
  EXPECT_THAT(said("kno3"), HasSubstr("50.0 kg left"));
  click("lotDelivery");
  EXPECT_EQ(find<>("lotBag")->text(), "25") << "the last delivery is proposed";
  EXPECT_EQ(find<>("lotPrice")->text(), "48.50");
}

TEST_F(ShelfPageTest, ABatchTakesOutOfTheBagsAndACountCorrectsThem) {
  delivered(kno3, "2", "25", "48.50");
  mixed("kno3", kno3, 5, 0);
  EXPECT_THAT(said("kno3"), HasSubstr("45.0 kg left"));
  type("lotAmount", "41.5");
  press(Qt::Key_Return);
  settle();
  EXPECT_THAT(said("kno3"), HasSubstr("41.5 kg left"));
  EXPECT_THAT(find<QListWidget>("lotHistory")->item(0)->text().toStdString(), HasSubstr("41.5 kg counted"));
  choose("lotDid", "thrown away");
  type("lotAmount", "500 g"); // another unit than asked for
  click("lotLog");
  settle();
  EXPECT_THAT(said("kno3"), HasSubstr("41.0 kg left"));
  find<QListWidget>("lotHistory")->setCurrentRow(0);
  click("lotStrikeLine");
  settle();
  EXPECT_THAT(said("kno3"), HasSubstr("41.5 kg left"));
}

TEST_F(ShelfPageTest, TheBagOnTheScaleIsTakenWhereItStandsStill) {
  delivered(kno3, "1", "25", "48.50");
  click("lotFromScale");
  EXPECT_THAT(status().toStdString(), HasSubstr("No scale"));
  page().scaleShows = [] { return std::optional(core::Mass::fromKilograms(18.25)); };
  click("lotFromScale");
  press(Qt::Key_Return);
  settle();
  EXPECT_THAT(said("kno3"), HasSubstr("18.2 kg left"));
}

TEST_F(ShelfPageTest, TheFirstToRunOutStandsInFrontAndOnTheCard) {
  delivered(cano3, "4", "25", "20");
  delivered(kno3, "1", "25", "48.50");
  for (const int days : {1, 8, 15, 22}) {
    mixed("kno3", kno3, 6, days);
    mixed("can_double", cano3, 5, days);
  }
  // A batch before the delivery takes nothing from it.
  EXPECT_THAT(said("kno3"), HasSubstr("25.0 kg left"));
  EXPECT_THAT(said("kno3"), HasSubstr("4.2 weeks"));
  EXPECT_EQ(window->findChildren<ProductPlank*>().size(), 2);
  EXPECT_EQ(page().story().products.front().id, "kno3");
  type("lotAmount", "3");
  page().showProduct("kno3");
  type("lotAmount", "3");
  press(Qt::Key_Return);
  settle();
  EXPECT_THAT(said("kno3"), HasSubstr("order within 3 days"));
  const auto card = find<QAbstractButton>("station7")->accessibleName().toStdString();
  EXPECT_THAT(card, HasSubstr(kno3));
  EXPECT_THAT(card, HasSubstr("needs attention"));
}

TEST_F(ShelfPageTest, WhatToBuyIsWholeBagsAtLeastCostOnScreenTableAndPaper) {
  delivered(kno3, "1", "25", "50");
  click("newDelivery");
  auto* box = find<QComboBox>("lotProduct");
  box->setCurrentIndex(box->findText(kno3));
  type("lotBag", "5");
  type("lotPrice", "12");
  click("lotOffer");
  settle();
  EXPECT_THAT(said("kno3"), HasSubstr("25.0 kg left")) << "an offer brings nothing";
  for (const int days : {1, 8, 15, 22})
    mixed("kno3", kno3, 7, days);
  type("shelfWeeks", "4");
  settle();
  click("shelfOrder");
  const auto paper = find<QTextBrowser>("orderPaper")->toPlainText().toStdString();
  EXPECT_THAT(paper, HasSubstr("1 × 5 kg")) << "28 kg in four weeks, 25 are there";
  EXPECT_THAT(paper, HasSubstr("12.00 EUR"));
  const auto path = folder.filePath("list.csv");
  window->prompts().fileToMake = [&](const QString&, const QString&, const QString&) { return path; };
  click("orderTable");
  QFile table(path);
  ASSERT_TRUE(table.open(QIODevice::ReadOnly));
  EXPECT_EQ(table.readLine().toStdString().substr(0, 19), "to buy,bags,bag (kg");
  EXPECT_THAT(table.readLine().toStdString(), HasSubstr("potassium nitrate,1,5,"));
  window->prompts().fileToMake = [&](const QString&, const QString&, const QString&) {
    return folder.filePath("list.pdf");
  };
  click("orderPdf");
  QFile pdf(folder.filePath("list.pdf"));
  ASSERT_TRUE(pdf.open(QIODevice::ReadOnly));
  EXPECT_TRUE(pdf.read(5) == "%PDF-");
  type("shelfWeeks", "20");
  settle();
  EXPECT_THAT(find<QTextBrowser>("orderPaper")->toPlainText().toStdString(), HasSubstr("25 kg"));
}

TEST_F(ShelfPageTest, WithoutWhatHasNotArrivedTheFormulaIsSolvedAgain) {
  delivered(cano3, "1", "25", "20");
  click("notArrived");
  EXPECT_THAT(text("otherwiseWords"), HasSubstr("leave their bands"));
  EXPECT_THAT(text("otherwiseWords"), HasSubstr("Ca "));
  EXPECT_GE(editor().shelfIndexOf("can_double"), 0) << "nothing was done yet";
  click("otherwiseTake");
  EXPECT_EQ(editor().shelfIndexOf("can_double"), -1);
  click("notArrived");
  EXPECT_THAT(text("otherwiseWords"), HasSubstr("nothing changes"));
}

TEST_F(ShelfPageTest, WhatIsToBeUsedUpGoesAsFarAsTheBandsAllow) {
  // One that can take more, and one that can't, as the core finds them.
  const auto& given = editor().document().given;
  const auto most = core::Mass::fromKilograms(25);
  std::optional<std::size_t> more, none;
  for (std::size_t i = 0; i < given.request.shelf.size(); ++i)
    (core::withMostOf(given, editor().answer(), i, most) ? more : none) = i;
  ASSERT_TRUE(more && none);
  const auto ask = [&](std::size_t index) {
    const auto& product = given.request.shelf[index];
    delivered(product.name.c_str(), "1", product.liquid ? "15" : "25", "20");
    page().showProduct(product.id);
    click("useFirst");
    return product.id;
  };
  ask(*none);
  EXPECT_THAT(text("otherwiseWords"), HasSubstr("can take no more"));
  EXPECT_FALSE(find<QPushButton>("otherwiseTake")->isVisible());
  const auto id = ask(*more);
  EXPECT_THAT(text("otherwiseWords"), HasSubstr("nothing leaves its band"));
  const auto before = *editor().gramsOf(id);
  click("otherwiseTake");
  EXPECT_GT(*editor().gramsOf(id), before);
}

TEST_F(ShelfPageTest, MoneyIsPaidByTheLotAndChangesWithAPrice) {
  delivered(kno3, "1", "25", "50");
  mixed("kno3", kno3, 5, 0);
  click("shelfMoney");
  EXPECT_THAT(text("moneyTotal"), HasSubstr("10.00 EUR for 1 batch: 10.00 EUR per m³"));
  EXPECT_THAT(find<QTextBrowser>("moneyLines")->toPlainText().toStdString(), HasSubstr("lettuce"));
  choose("whatIfProduct", kno3);
  type("whatIfPrice", "3");
  EXPECT_THAT(text("whatIfWords"), HasSubstr("15.00 EUR instead of 10.00 EUR (+5.00 EUR)"));
  EXPECT_THAT(find<QTextBrowser>("moneyElements")->toPlainText().toStdString(), HasSubstr("EUR per kg"));
  trigger("units_us");
  settle();
  EXPECT_THAT(text("moneyTotal"), HasSubstr("37.85 EUR per 1000 US gal"));
}

TEST_F(ShelfPageTest, WhatCanNotBeIsSaidAndNothingIsLost) {
  delivered("no such salt", "1", "25", "20");
  EXPECT_THAT(status().toStdString(), HasSubstr("No product is called"));
  EXPECT_EQ(page().story().products.size(), 0u);
  auto* box = find<QComboBox>("lotProduct");
  box->setCurrentIndex(box->findText(kno3));
  type("lotBags", "-2");
  click("lotKeep");
  EXPECT_EQ(page().story().products.size(), 0u);
  type("lotBags", "2");
  type("lotBag", "25");
  type("lotPrice", "0");
  click("lotKeep");
  settle();
  EXPECT_THAT(status().toStdString(), HasSubstr("above 0"));
  type("lotPrice", "20");
  type("lotBest", "soon");
  click("lotKeep");
  EXPECT_THAT(status().toStdString(), HasSubstr("“soon” is no day"));
  type("lotBest", "2031-02");
  type("lotSupplier", "=cmd|'/c calc'!A0 <b>depot</b>");
  click("lotKeep");
  settle();
  ASSERT_EQ(page().story().shelf.lots.size(), 1u);
  EXPECT_EQ(QDateTime::fromSecsSinceEpoch(page().story().shelf.lots[0].second.bestBefore->seconds).date(),
            QDate(2031, 2, 28));
  EXPECT_THAT(find<QListWidget>("lots")->item(0)->text().toStdString(), HasSubstr("<b>depot</b>"));
  click("lotLog");
  EXPECT_THAT(status().toStdString(), HasSubstr("How much"));
  type("lotAmount", "-3");
  click("lotLog");
  settle();
  EXPECT_THAT(said("kno3"), HasSubstr("50.0 kg left"));
}

TEST_F(ShelfPageTest, AnOpenedBagThatTakesWaterSaysHowToKnow) {
  delivered(cano3, "1", "25", "20");
  choose("lotDid", "opened");
  click("lotLog");
  settle();
  EXPECT_THAT(text("lotDamp"), HasSubstr("takes water from the air"));
  choose("lotDid", "sample was dried");
  type("lotAmount", "20");
  type("lotDried", "16.2");
  type("lotSealed", "20");
  type("lotSealedDried", "17");
  click("lotLog");
  settle();
  EXPECT_THAT(text("lotDamp"), HasSubstr("95.3 %"));
}

TEST_F(ShelfPageTest, ALotIsCorrectedWhereItStands) {
  delivered(kno3, "2", "25", "48.50", "KN-77");
  click("lotCorrect");
  EXPECT_EQ(find<QLineEdit>("lotMark")->text(), "KN-77");
  type("lotBags", "3");
  click("lotKeep");
  settle();
  EXPECT_EQ(page().story().shelf.lots.size(), 1u);
  EXPECT_THAT(said("kno3"), HasSubstr("75.0 kg left"));
  click("lotStrike");
  settle();
  EXPECT_EQ(page().story().shelf.lots.size(), 0u);
}

TEST_F(ShelfPageTest, ByKeysAlone) {
  delivered(kno3, "2", "25", "48.50");
  delivered(cano3, "2", "25", "20");
  press(Qt::Key_1, Qt::ControlModifier);
  press(Qt::Key_7, Qt::ControlModifier);
  settle();
  const auto focused = [] { return qobject_cast<ProductPlank*>(QApplication::focusWidget()); };
  ASSERT_NE(focused(), nullptr) << "the station begins at a plank";
  const auto first = focused()->product();
  press(first == page().story().products.front().id ? Qt::Key_Down : Qt::Key_Up);
  ASSERT_NE(focused(), nullptr);
  EXPECT_NE(focused()->product(), first);
  press(Qt::Key_Space);
  EXPECT_EQ(page().product(), focused()->product());
}

TEST_F(ShelfPageTest, OtherUnitsLoseNothingThatWasTyped) {
  click("newDelivery");
  auto* box = find<QComboBox>("lotProduct");
  box->setCurrentIndex(box->findText(kno3));
  type("lotBags", "3");
  type("lotBag", "10");
  type("lotMark", "KN-9");
  trigger("units_us");
  EXPECT_EQ(find<>("lotBags")->text(), "3");
  EXPECT_EQ(find<QLineEdit>("lotMark")->text(), "KN-9");
  EXPECT_NEAR(find<>("lotBag")->digits().toDouble(), 22.0462, 0.001) << "the same bag in pounds";
}

} // namespace
} // namespace butte::app
