/// The Stocks station as a hand uses it: drag, type, choose, print.
#include "stations/stocks/stocks_page.h"
#include "stations/stocks/strength_ruler.h"
#include "stations/stocks/tank_card.h"
#include "support/told.h"
#include "window_fixture.h"

#include <QAbstractButton>
#include <QCheckBox>
#include <QComboBox>
#include <QProcess>

using ::testing::HasSubstr;
using ::testing::Not;

namespace butte::app {

class StocksPageTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    press(Qt::Key_4, Qt::ControlModifier);
    QApplication::processEvents();
  }

  std::string text(const QString& label) {
    QApplication::processEvents();
    return find<QLabel>(label)->text().toStdString();
  }
  TankItems* items(int tank) { return find<TankItems>(QString("tankItems%1").arg(tank)); }
  void part(StocksPage::Part p) {
    window->stocksPage().showPart(p);
    QApplication::processEvents();
  }

  /// From a salt's row into the middle of another tank's card.
  void drag(const char* product, int from, int to, Qt::KeyboardModifiers keys = {}) {
    auto* source = items(from);
    auto* card = find<QWidget>(QString("tankCard%1").arg(to));
    const auto start = source->rowMiddle(product);
    ASSERT_GE(start.x(), 0) << product << " is not in tank " << from;
    const auto end = source->mapFromGlobal(card->mapToGlobal(card->rect().center()));
    QTest::mousePress(source, Qt::LeftButton, keys, start);
    QTest::mouseMove(source, start + QPoint(20, 5));
    QTest::mouseMove(source, end);
    QTest::mouseRelease(source, Qt::LeftButton, keys, end);
    QApplication::processEvents();
  }

  double gramsIn(std::size_t tank, const std::string& product) {
    const auto& shelf = editor().document().given.request.shelf;
    for (const auto& item : editor().answer().stock.tanks[tank].items) {
      if (shelf[item.product].id == product) return item.mass.grams();
    }
    return 0;
  }

  void choose(const QString& combo, int index) {
    auto* box = find<QComboBox>(combo);
    box->setCurrentIndex(index);
    emit box->activated(index);
    QApplication::processEvents();
  }
};

TEST_F(StocksPageTest, TanksSayWhatTheyHoldAndHowStrongTheyMayBe) {
  EXPECT_EQ(text("tankTitle0"), "A · calcium side");
  EXPECT_EQ(text("tankTitle1"), "B · sulfate and phosphate side");
  EXPECT_EQ(text("tankTitle2"), "acid");
  EXPECT_THAT(text("tankCeiling1"), HasSubstr("potassium sulfate gives out"));
  EXPECT_THAT(text("tankMade0"), HasSubstr("kg/L"));
}

TEST_F(StocksPageTest, ASaltDraggedIntoTheWrongTankFallsOutAndThePlantsLackIt) {
  const auto before = editor().json();
  drag("epsom", 1, 0);
  EXPECT_GT(gramsIn(0, "epsom"), 0);
  EXPECT_EQ(gramsIn(1, "epsom"), 0);
  EXPECT_THAT(text("tankCeiling0"), HasSubstr("gypsum"));
  EXPECT_THAT(text("tankCeiling0"), HasSubstr("calcium nitrate 15.5 % N meets magnesium sulfate"));
  EXPECT_THAT(text("tankCeiling0"), HasSubstr("The plants lack Ca"));
  EXPECT_THAT(find<QWidget>("station4")->accessibleName().toStdString(), HasSubstr("needs attention"));
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(editor().json(), before);
  EXPECT_THAT(text("tankCeiling0"), Not(HasSubstr("gypsum")));
}

TEST_F(StocksPageTest, HalfASaltGoesWithControlAndMassIsKept) {
  const double whole = gramsIn(0, "kno3") + gramsIn(1, "kno3");
  const double inB = gramsIn(1, "kno3");
  drag("kno3", 1, 0, Qt::ControlModifier);
  EXPECT_NEAR(gramsIn(1, "kno3"), inB / 2, 1e-6);
  EXPECT_NEAR(gramsIn(0, "kno3") + gramsIn(1, "kno3"), whole, 1e-6);
}

TEST_F(StocksPageTest, KeysMoveASaltAndBackspaceGivesItToTheRules) {
  auto* list = items(0);
  list->setFocus();
  while (list->rows().empty())
    QApplication::processEvents();
  press(Qt::Key_Down); // potassium nitrate
  press(Qt::Key_Right);
  EXPECT_EQ(gramsIn(0, "kno3"), 0);
  ASSERT_TRUE(editor().document().given.stock.shares.contains("kno3"));
  items(1)->setFocus();
  for (int i = 0; i < 12 && !items(1)->rows().empty() && items(1)->rows()[0].product != "kno3"; ++i)
    press(Qt::Key_Down);
  press(Qt::Key_Backspace);
  EXPECT_FALSE(editor().document().given.stock.shares.contains("kno3"));
  EXPECT_GT(gramsIn(0, "kno3"), 0);
}

TEST_F(StocksPageTest, TheRulerIsDraggedAndCountsAsOneStep) {
  auto* ruler = find<StrengthRuler>("strengthRuler");
  const auto before = editor().json();
  const QPoint from(static_cast<int>(ruler->xOf(100)), ruler->height() / 2);
  QTest::mousePress(ruler, Qt::LeftButton, {}, from);
  for (const double factor : {120.0, 150.0, 200.0})
    QTest::mouseMove(ruler, QPoint(static_cast<int>(ruler->xOf(factor)), from.y()));
  QTest::mouseRelease(ruler, Qt::LeftButton, {}, QPoint(static_cast<int>(ruler->xOf(200)), from.y()));
  EXPECT_NEAR(editor().document().given.stock.factor, 200, 5);
  editor().undo();
  EXPECT_EQ(editor().json(), before);
  ruler->setFocus();
  press(Qt::Key_Right);
  EXPECT_GT(editor().document().given.stock.factor, 100);
}

TEST_F(StocksPageTest, TheDilutionIsTypedInAnyForm) {
  choose("ratioForm", 1); // percent
  EXPECT_EQ(find("stockFactor")->text(), "1");
  type("stockFactor", "2");
  EXPECT_DOUBLE_EQ(editor().document().given.stock.factor, 50);
  choose("ratioForm", 5); // fluid ounces per US gallon
  EXPECT_EQ(find("stockFactor")->text(), "2.56");
  type("stockFactor", "1");
  EXPECT_NEAR(editor().document().given.stock.factor, 128, 1e-9);
  type("stockFactor", "0.0000001");
  EXPECT_TRUE(find("stockFactor")->isWrong());
  EXPECT_NEAR(editor().document().given.stock.factor, 128, 1e-9);
}

TEST_F(StocksPageTest, TanksComeAndGo) {
  trigger("addTank_traces");
  ASSERT_EQ(editor().answer().stock.tanks.size(), 4u);
  EXPECT_EQ(text("tankTitle3"), "C · traces");
  EXPECT_GT(gramsIn(3, "h3bo3"), 0);
  EXPECT_EQ(gramsIn(1, "h3bo3"), 0);
  drag("mkp", 1, 3);
  trigger("removeTank3");
  ASSERT_EQ(editor().answer().stock.tanks.size(), 3u);
  EXPECT_GT(gramsIn(1, "h3bo3"), 0) << "back to the rules";
  EXPECT_GT(gramsIn(1, "mkp"), 0) << "what stood there by hand, too";
  while (editor().canUndo() && editor().answer().stock.tanks.size() != 4)
    editor().undo();
  EXPECT_GT(gramsIn(3, "mkp"), 0);
}

TEST_F(StocksPageTest, TanksComeAndGoWhileFewProductsAreSought) {
  ASSERT_FALSE(editor().set(told("at most six"), "/aim", exchange::Json{{"at_most", "6"}}));
  part(StocksPage::Part::Levels);
  trigger("addTank_traces");
  EXPECT_EQ(text("tankTitle3").substr(0, 1), "C");
  trigger("removeTank3");
  trigger("removeTank2");
  EXPECT_EQ(editor().answer().stock.tanks.size(), 2u);
  EXPECT_TRUE(QTest::qWaitFor([&] { return !editor().isSearching(); }, 20000));
}

// Two bottles of 500 mL, 10 mL of each per US gallon, as a hobby grower keeps them (common practice).
TEST_F(StocksPageTest, SmallBottlesAreStatedAsBottlesAre) {
  trigger("units_us");
  type("tankVolume0", "500 mL");
  find("tankVolume0")->clearFocus();
  find("stockFactor")->setFocus();
  QApplication::processEvents();
  EXPECT_NEAR(editor().document().tanks.empty() ? 0
                                                : editor().answer().stock.tanks[0].tank.volume.millilitres(),
              500, 0.01);
  EXPECT_EQ(find("tankVolume0")->text(), "16.9") << "17 fl oz, not 0.132 US gal";
  EXPECT_THAT(find("tankVolume0")->accessibleName().toStdString(), HasSubstr("fl oz"));
  trigger("units_metric");
  EXPECT_EQ(find("tankVolume0")->text(), "500");
  EXPECT_THAT(find("tankVolume0")->accessibleName().toStdString(), HasSubstr("mL"));
  auto* form = find<QComboBox>("ratioForm");
  form->setCurrentIndex(form->findText("mL per US gal"));
  emit form->activated(form->currentIndex());
  type("stockFactor", "10");
  EXPECT_NEAR(editor().answer().stock.doseMlPerLitre, 10 / 3.785411784, 1e-6);
}

TEST_F(StocksPageTest, TheLastTankCanBeTakenAwayAndTheSaltsGoStraightIn) {
  trigger("removeTank2");
  trigger("removeTank1");
  ASSERT_EQ(editor().answer().stock.tanks.size(), 1u);
  trigger("removeTank0");
  EXPECT_TRUE(editor().answer().direct.has_value());
  EXPECT_TRUE(editor().answer().stock.tanks.empty());
  editor().undo();
  EXPECT_EQ(editor().answer().stock.tanks.size(), 1u);
}

TEST_F(StocksPageTest, AnAcidTankBringsTheAcidIntoTheFormula) {
  trigger("removeTank2");
  type("alkalinityLeft", "");
  QTest::mouseClick(find<QAbstractButton>("on_hno3_60"), Qt::LeftButton);
  EXPECT_LT(grams("hno3_60"), 0);
  trigger("addTank_acid");
  EXPECT_GT(grams("hno3_60"), 0);
  EXPECT_GT(gramsIn(2, "hno3_60"), 0);
  part(StocksPage::Part::Making);
  EXPECT_THAT(text("makingText"), HasSubstr("pH 5.8"));
  EXPECT_THAT(text("makingText"), HasSubstr("Never water into acid"));
}

TEST_F(StocksPageTest, TheAcidIsSetToTheAimedPhWithOneClick) {
  part(StocksPage::Part::Making);
  click("acidToPh");
  EXPECT_THAT(text("makingText"), HasSubstr("pH 5.8"));
}

TEST_F(StocksPageTest, ATankOnADoserOfItsOwnIsMadeStronger) {
  const double before = gramsIn(2, "hno3_60");
  type("tankRatio2", "200");
  EXPECT_NEAR(gramsIn(2, "hno3_60"), 2 * before, 1e-6);
  EXPECT_THAT(text("tankTitle2"), HasSubstr("1:200"));
  type("tankRatio2", "");
  EXPECT_NEAR(gramsIn(2, "hno3_60"), before, 1e-6);
}

TEST_F(StocksPageTest, AStockGoesOntoTheShelfAsALiquid) {
  trigger("stockAsProduct1");
  const auto& products = editor().document().products;
  EXPECT_EQ(products.back().name, "stock B · sulfate and phosphate side");
  EXPECT_FALSE(products.back().on);
  EXPECT_GT(*editor().document().allProducts.back().densityKgPerL, 1.02);
  EXPECT_GT(editor().document().allProducts.back().composition.massFraction.of(core::Nutrient::P), 0);
}

TEST_F(StocksPageTest, HardMakeUpWaterIsHeldAgainstTheTank) {
  trigger("madeWith_blend_0");
  EXPECT_THAT(text("tankMade0"), HasSubstr("the formula's water"));
  EXPECT_FALSE(editor().answer().stock.tanks[0].tank.makeUpPerLitre.mol == core::Solutes{}.mol);
}

TEST_F(StocksPageTest, UnitsChangeWithoutTouchingTheFormula) {
  const auto before = editor().json();
  trigger("units_gal_us");
  trigger("units_lb");
  EXPECT_EQ(find("tankVolume0")->text(), "52.8");
  EXPECT_THAT(text("dose"), HasSubstr("37.9 mL per US gal"));
  EXPECT_THAT(text("tankContents0"), HasSubstr(" lb "));
  EXPECT_EQ(editor().json(), before);
  type("tankVolume0", "50");
  EXPECT_NEAR(editor().document().given.stock.tanks[0].volume.usGallons(), 50, 1e-9);
  trigger("units_L");
  EXPECT_EQ(find("tankVolume0")->text(), "189");
}

TEST_F(StocksPageTest, TheWayToTheTapFollowsTheDevice) {
  part(StocksPage::Part::Way);
  auto* picture = find<QWidget>("dilutionPicture");
  EXPECT_THAT(picture->accessibleDescription().toStdString(), HasSubstr("16.0 L per hour"));
  choose("dosingDevice", 3); // setpoint
  type("setpoint", "1.2");
  EXPECT_THAT(text("wayNote"), HasSubstr("strength only sets how long the tanks last"));
  EXPECT_THAT(text("wayNote"), HasSubstr("without B the feed has P 0"));
  EXPECT_THAT(picture->accessibleDescription().toStdString(), HasSubstr("Feed, EC 1.20 mS/cm"));
  choose("dosingDevice", 1); // series
  EXPECT_THAT(text("wayNote"), HasSubstr("A 10.31 mL per L"));
  choose("dosingDevice", 2); // pumps
  type("pumpRun0", "20");
  type("pumpRun1", "18");
  EXPECT_THAT(text("wayNote"), HasSubstr("unequal"));
  EXPECT_THAT(picture->accessibleDescription().toStdString(), HasSubstr("800 runs per hour"));
}

TEST_F(StocksPageTest, ColdNightsShowWhatCrystallises) {
  type("stockFactor", "600");
  part(StocksPage::Part::Cold);
  const auto words = find<QWidget>("coldPanel")->accessibleDescription().toStdString();
  EXPECT_THAT(words, HasSubstr("potassium sulfate"));
  EXPECT_THAT(words, HasSubstr("5 °C"));
}

TEST_F(StocksPageTest, HowLongTheTanksLast) {
  part(StocksPage::Part::Supply);
  EXPECT_THAT(text("supplyTanks"), HasSubstr("8.3 days"));
  type("feedPerDay", "4000");
  EXPECT_THAT(text("supplyTanks"), HasSubstr("5.0 days"));
  EXPECT_THAT(text("supplySeason"), HasSubstr("600"));
  type("mixedOn", "2026-13-40");
  EXPECT_EQ(editor().document().dosing.mixedOn, "2026-11-23") << "no such day";
  type("feedPerDay", "");
  EXPECT_THAT(text("supplyTanks"), HasSubstr("Type how much feed"));
}

TEST_F(StocksPageTest, AVesselIsPlannedStepByStep) {
  part(StocksPage::Part::Vessel);
  EXPECT_THAT(text("vesselSteps"), HasSubstr("of A · calcium side"));
  EXPECT_THAT(text("vesselSteps"), HasSubstr("1.67 mS/cm"));
  EXPECT_THAT(text("vesselSteps"), HasSubstr("the last"));
  EXPECT_THAT(find<QCheckBox>("vesselByReadings")->text().toStdString(), HasSubstr("stocks at 87 %"));
  const auto weak = text("vesselSteps");
  click("vesselByReadings");
  EXPECT_NE(text("vesselSteps"), weak) << "stocks at full strength need less";
  type("vesselTarget", "0.1");
  EXPECT_THAT(text("vesselSteps"), HasSubstr("▲"));
  type("vesselTarget", "1.4");
  type("vesselNow", "185");
  EXPECT_THAT(text("vesselSteps"), HasSubstr("drain <b>"));
  type("vesselNow", "999");
  EXPECT_THAT(text("vesselSteps"), HasSubstr("up to the full mark"));
}

TEST_F(StocksPageTest, ReadingsFitALineAndNameTheLikelyCauses) {
  part(StocksPage::Part::Reading);
  EXPECT_THAT(text("readingLine"), HasSubstr("base <b>0.28 mS/cm"));
  EXPECT_THAT(text("readingCauses"), HasSubstr("below what was expected"));
  EXPECT_THAT(text("readingCauses"), HasSubstr("The vessel holds"));
  type("readingEc2", "1.64");
  EXPECT_THAT(text("readingCauses"), HasSubstr("a pen reads no closer"));
}

TEST_F(StocksPageTest, LevelsTellTheLineAndTheCloggedSide) {
  part(StocksPage::Part::Levels);
  choose("vesselShape0", 1);
  type("vessel_across_cm0", "57");
  EXPECT_THAT(text("vesselLine0"), HasSubstr("78.4 cm"));
  type("lineFor", "190");
  EXPECT_THAT(text("vesselLine0"), HasSubstr("74.5 cm"));
  type("drawn0", "20");
  type("drawn1", "1");
  EXPECT_THAT(text("drawnVerdict"), HasSubstr("Tank B gives next to nothing"));
  type("drawn1", "20");
  EXPECT_THAT(text("drawnVerdict"), HasSubstr("They draw alike"));
  type("drawnFeed", "2200");
  EXPECT_THAT(text("drawnVerdict"), HasSubstr("1:110"));
}

TEST_F(StocksPageTest, AWeakTankShowsWhatThePlantsThenLack) {
  part(StocksPage::Part::Levels);
  EXPECT_THAT(text("drawnVerdict"), HasSubstr("weaker or stronger than planned"));
  type("ofPlan0", "70");
  EXPECT_THAT(text("drawnVerdict"), HasSubstr("Tank A holds <b>70 %</b> of its planned salts"));
  EXPECT_THAT(text("drawnVerdict"), HasSubstr("no longer in their ratio"));
  const auto answer = editor().answer();
  const double calcium = answer.feed.milligramsPerLitre.of(core::Nutrient::Ca);
  const double water = answer.water.milligramsPerLitre.of(core::Nutrient::Ca);
  EXPECT_THAT(text("drawnVerdict"),
              HasSubstr("Ca " + localFigure(water + 0.7 * (calcium - water)).toStdString() + " of " +
                        localFigure(calcium).toStdString()));
  part(StocksPage::Part::Way);
  choose("dosingDevice", 3);
  part(StocksPage::Part::Levels);
  EXPECT_THAT(text("drawnVerdict"), HasSubstr("The meter reads right all the same"));
  type("ofPlan1", "70");
  type("ofPlan2", "70");
  EXPECT_THAT(text("drawnVerdict"), Not(HasSubstr("no longer in their ratio"))) << "both sides alike weak";
  editor().undo();
  EXPECT_THAT(text("drawnVerdict"), HasSubstr("no longer in their ratio"));
  type("ofPlan0", "");
  type("ofPlan1", "");
  EXPECT_THAT(text("drawnVerdict"), HasSubstr("weaker or stronger than planned")) << "as planned again";
}

TEST_F(StocksPageTest, ASecondSetStandsBeside) {
  auto second = *readFormulaFile(":/demo/ormsey.json");
  second["name"] = "Gerbera set";
  second["stock"]["factor"] = "80";
  const auto kept = book().create(book::Kind::Formula, second, told("second set"));
  ASSERT_TRUE(kept);
  auto* beside = find<QComboBox>("besideSet");
  beside->showPopup();
  beside->hidePopup();
  const int at = beside->findText("Gerbera set");
  ASSERT_GT(at, 0);
  choose("besideSet", at);
  EXPECT_THAT(text("besideText"), HasSubstr("Gerbera set"));
  EXPECT_THAT(text("besideText"), HasSubstr("1:80"));
  EXPECT_THAT(text("besideText"), HasSubstr("another ratio"));
  choose("besideSet", 0);
  EXPECT_FALSE(find<QLabel>("besideText")->isVisible());
}

TEST_F(StocksPageTest, LabelsArePrinted) {
  const auto path = folder.filePath("labels.pdf");
  window->prompts().fileToMake = [&](const QString&, const QString&, const QString&) { return path; };
  part(StocksPage::Part::Making);
  click("labelsPdf");
  ASSERT_TRUE(QFile::exists(path));
  QProcess reader;
  reader.start("pdftotext", {"-layout", path, "-"});
  ASSERT_TRUE(reader.waitForFinished());
  const auto words = reader.readAllStandardOutput().toStdString();
  EXPECT_THAT(words, HasSubstr("calcium side"));
  EXPECT_THAT(words, HasSubstr("Never mix with a calcium concentrate"));
  EXPECT_THAT(words, HasSubstr("no classification of the mixture"));
  EXPECT_THAT(words, HasSubstr("1:100"));
}

} // namespace butte::app
