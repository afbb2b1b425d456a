#include "paint/theme.h"
#include "window_fixture.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QEnterEvent>
#include <QLineEdit>
#include <QTextBrowser>

using ::testing::HasSubstr;

namespace butte::app {

using core::Nutrient;

TEST_F(WindowTest, TypingATargetMovesTheLaneAndTheWeightsAtOnce) {
  const double before = grams("sop") + grams("kno3");
  window->showStation(Station::Target);
  type("target_K", "250");
  EXPECT_THAT(lane(Nutrient::K).toStdString(), HasSubstr("of 250 mg/L"));
  EXPECT_GT(grams("sop") + grams("kno3"), before * 1.05);
}

TEST_F(WindowTest, ATypedWeightIsHeldAndTheRestResolves) {
  const double sulfate = grams("sop");
  type("weight_kno3", "100");
  EXPECT_DOUBLE_EQ(grams("kno3"), 100);
  EXPECT_GT(grams("sop"), sulfate);
  EXPECT_EQ(find<QAbstractButton>("hold_kno3")->text(), "held");
  QTest::mouseClick(find<QAbstractButton>("hold_kno3"), Qt::LeftButton);
  EXPECT_NEAR(grams("sop"), sulfate, 1e-9);
}

TEST_F(WindowTest, TheHoldButtonHoldsWhatStandsThere) {
  QTest::mouseClick(find<QAbstractButton>("hold_epsom"), Qt::LeftButton);
  EXPECT_TRUE(editor().json()["shelf"][3].contains("held"));
  EXPECT_EQ(find("weight_epsom")->text().toStdString(),
            editor().json()["shelf"][3]["held"]["amount"].get<std::string>());
}

TEST_F(WindowTest, SwitchingASaltOffTakesItOutAndSaysWhatMisses) {
  QTest::mouseClick(find<QAbstractButton>("on_mkp"), Qt::LeftButton);
  EXPECT_LT(grams("mkp"), 0); // not in the formula
  EXPECT_THAT(find<QLabel>("reasons")->text().toStdString(),
              HasSubstr("no product on the shelf carries phosphorus"));
}

TEST_F(WindowTest, SwitchingTheSpareSaltOnMendsTheDemo) {
  QTest::mouseClick(find<QAbstractButton>("on_an"), Qt::LeftButton);
  EXPECT_THAT(lane(Nutrient::Ca).toStdString(), HasSubstr("in band"));
  EXPECT_THAT(lane(Nutrient::NAmmonium).toStdString(), HasSubstr("in band"));
}

TEST_F(WindowTest, UnitsSwitchWithoutTouchingTheFormula) {
  type("weight_kno3", "250");
  const auto before = editor().json();
  trigger("units_lb");
  trigger("units_gal_us");
  trigger("units_ppm700");
  EXPECT_EQ(editor().json(), before);
  EXPECT_THAT(find<QLabel>("figureEc")->text().toStdString(), HasSubstr("ppm (700)"));
  window->showStation(Station::Stocks);
  EXPECT_THAT(find<QLabel>("dose")->text().toStdString(), HasSubstr("37.9 mL per US gal"));
  EXPECT_NEAR(find("weight_kno3")->text().toDouble(), 0.5512, 0.0005); // pounds
  trigger("units_g");
  EXPECT_EQ(find("weight_kno3")->text(), "250");
}

TEST_F(WindowTest, UndoAndRedoWalkEveryEditBackAndForth) {
  const auto start = editor().json();
  window->showStation(Station::Target);
  type("target_K", "250");
  type("weight_kno3", "100");
  QTest::mouseClick(find<QAbstractButton>("on_mkp"), Qt::LeftButton);
  window->showStation(Station::Stocks);
  QTest::mouseClick(find<QAbstractButton>("swapLetters"), Qt::LeftButton);
  type("stockFactor", "150");
  const auto end = editor().json();
  int steps = 0;
  while (editor().json() != start && steps < 50) {
    press(Qt::Key_Z, Qt::ControlModifier);
    ++steps;
  }
  EXPECT_EQ(steps, 5); // a burst of keys in one field is one step
  EXPECT_EQ(editor().json(), start);
  for (int i = 0; i < 50 && editor().canRedo(); ++i)
    press(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(editor().json(), end);
}

TEST_F(WindowTest, TheTargetMarkCanBeDragged) {
  auto* lanes = window->findChild<ElementLanes*>();
  window->showStation(Station::Formula);
  QApplication::processEvents();
  lanes->grab(); // lays the lanes out
  const auto from = lanes->targetMark(Nutrient::K);
  QTest::mousePress(lanes, Qt::LeftButton, {}, from);
  QTest::mouseMove(lanes, from + QPoint(30, 0));
  QTest::mouseMove(lanes, from + QPoint(40, 0));
  QTest::mouseRelease(lanes, Qt::LeftButton, {}, from + QPoint(40, 0));
  EXPECT_GT(editor().document().given.request.rows[3].milligramsPerLitre, 210);
  editor().undo();
  EXPECT_DOUBLE_EQ(editor().document().given.request.rows[3].milligramsPerLitre, 205);
}

TEST_F(WindowTest, PointingAtAProductShowsAllThatItBrings) {
  auto* lanes = window->findChild<ElementLanes*>();
  window->showStation(Station::Formula);
  QApplication::processEvents();
  auto* row = window->findChild<QWidget*>("weight_kno3")->parentWidget();
  const auto plain = lanes->grab().toImage();
  QEnterEvent enter(QPointF(5, 5), QPointF(5, 5), row->mapToGlobal(QPointF(5, 5)));
  QApplication::sendEvent(row, &enter);
  const auto lit = lanes->grab().toImage();
  // What the product brings keeps its colour, all else in the lanes pales: calcium has none of it.
  const auto changed = [&](Nutrient n) {
    const int y = lanes->targetMark(n).y(), left = lanes->targetMark(n).x() - 60;
    int count = 0;
    for (int x = left; x < left + 50; ++x)
      count += plain.pixel(x, y) != lit.pixel(x, y);
    return count;
  };
  EXPECT_GT(changed(Nutrient::Ca), 40);
  EXPECT_LT(changed(Nutrient::K), changed(Nutrient::Ca));
  QEvent leave(QEvent::Leave);
  QApplication::sendEvent(row, &leave);
  EXPECT_EQ(lanes->grab().toImage(), plain);
}

TEST_F(WindowTest, ArrowKeysMoveTheTargetOfTheLaneInFocus) {
  auto* lanes = window->findChild<ElementLanes*>();
  lanes->setFocus();
  QTest::keyClick(lanes, Qt::Key_Right);
  EXPECT_NEAR(editor().document().given.request.rows[0].milligramsPerLitre, 143, 0.6);
}

TEST_F(WindowTest, WaterCanBeTypedInTheFormOfTheReport) {
  window->showStation(Station::Water);
  type("water_Ca", "78");
  EXPECT_DOUBLE_EQ(editor().answer().waters.water.milligramsPerLitre.of(Nutrient::Ca), 78);
  type("water_Fe", "0.4");
  EXPECT_DOUBLE_EQ(editor().answer().waters.water.milligramsPerLitre.of(Nutrient::Fe), 0.4);
  type("water_Fe", "");
  EXPECT_DOUBLE_EQ(editor().answer().waters.water.milligramsPerLitre.of(Nutrient::Fe), 0);
}

TEST_F(WindowTest, TheOlderReportWithItsMixUpIsCaught) {
  window->showStation(Station::Water);
  auto* choice = find<QComboBox>("waterChoice");
  choice->setCurrentIndex(choice->findText("Ormsey bore, older report"));
  emit choice->activated(choice->currentIndex());
  EXPECT_THAT(find<QLabel>("waterBalance")->text().toStdString(), HasSubstr("differ by 0.716"));
}

TEST_F(WindowTest, APublishedTargetIsTaken) {
  auto* choice = find<QComboBox>("targetChoice");
  choice->setCurrentIndex(choice->findData("dutch_gerbera"));
  emit choice->activated(choice->currentIndex());
  EXPECT_THAT(lane(Nutrient::K).toStdString(), HasSubstr("of 215"));
}

TEST_F(WindowTest, EveryDemoTargetIsTakenAndSolved) {
  auto* choice = find<QComboBox>("targetChoice");
  int taken = 0;
  for (int i = 0; i < choice->count(); ++i) {
    if (!choice->itemText(i).startsWith("demo · ")) continue;
    const auto name = choice->itemText(i).mid(7);
    choice->setCurrentIndex(i);
    emit choice->activated(i);
    ++taken;
    EXPECT_EQ(editor().document().targetName, name.toStdString());
    EXPECT_TRUE(editor().answer().checked);
    EXPECT_LE(editor().answer().solution.reasons.size(), 5u) << name.toStdString();
  }
  EXPECT_EQ(taken, 5);
}

TEST_F(WindowTest, EveryPublishedTargetIsTakenWithoutTrouble) {
  auto* choice = find<QComboBox>("targetChoice");
  for (int i = 1; i < choice->count(); ++i) {
    choice->setCurrentIndex(i);
    emit choice->activated(i);
    EXPECT_TRUE(editor().answer().checked) << choice->itemText(i).toStdString();
  }
  EXPECT_TRUE(troubles.isEmpty());
}

TEST_F(WindowTest, AReadyBlendIsTypedByItsLabel) {
  QTest::mouseClick(find<QAbstractButton>("ownProduct"), Qt::LeftButton);
  auto* name = find<QLineEdit>("productName");
  name->setFocus();
  QTest::keyClicks(name, "test blend");
  type("label_P2O5", "18");
  type("label_K2O", "38");
  type("label_N", "4");
  QTest::mouseClick(find<QAbstractButton>("putProduct"), Qt::LeftButton);
  const int at = editor().indexOf("own_1");
  ASSERT_GE(at, 0);
  EXPECT_NEAR(editor().document().allProducts[at].composition.massFraction.of(Nutrient::P), 0.0785572, 2e-6);
  EXPECT_EQ(editor().nameOf("own_1"), "test blend");
}

TEST_F(WindowTest, DetailsOpenFromTheKeyboardAndThePriceCounts) {
  auto* weight = find("weight_kno3");
  weight->setFocus();
  QTest::keyClick(weight, Qt::Key_F4);
  type("productPrice", "13,5"); // ten times the demo's
  const auto before = *editor().answer().feed.cost;
  QTest::mouseClick(find<QAbstractButton>("putProduct"), Qt::LeftButton);
  EXPECT_NEAR(*editor().answer().feed.cost - before, grams("kno3") / 1000 * (13.5 - 1.35), 1e-6);
}

TEST_F(WindowTest, AnImpossibleProductIsRefusedInWordsAndStaysToBeMended) {
  QTest::mouseClick(find<QAbstractButton>("ownProduct"), Qt::LeftButton);
  find<QLineEdit>("productName")->setText("odd");
  auto* formula = find<QLineEdit>("productFormula");
  formula->setFocus();
  QTest::keyClicks(formula, "Ca(NO3");
  QTest::mouseClick(find<QAbstractButton>("putProduct"), Qt::LeftButton);
  EXPECT_THAT(find<QLabel>("productProblem")->text().toStdString(), HasSubstr("position 7"));
  EXPECT_EQ(formula->text(), "Ca(NO3");
  EXPECT_LT(editor().indexOf("own_1"), 0);
}

TEST_F(WindowTest, AProductOfTheCatalogueGoesOnTheShelfAndTwiceOnlyOnce) {
  auto* choice = find<QComboBox>("addProduct");
  for (int i = 0; i < 2; ++i) {
    choice->setCurrentIndex(choice->findData("kcl"));
    emit choice->activated(choice->currentIndex());
  }
  int count = 0;
  for (const auto& p : editor().document().products)
    count += p.id == "kcl";
  EXPECT_EQ(count, 1);
}

TEST_F(WindowTest, SwappedLettersLeaveTheContentsWhereTheyAre) {
  window->showStation(Station::Stocks);
  const auto contents = find<QLabel>("tankContents0")->text();
  QTest::mouseClick(find<QAbstractButton>("swapLetters"), Qt::LeftButton);
  EXPECT_EQ(find<QLabel>("tankTitle0")->text(), "B · calcium side");
  EXPECT_EQ(find<QLabel>("tankContents0")->text(), contents);
}

TEST_F(WindowTest, AnOverstrongTankNamesTheSaltAndTheLimit) {
  type("stockFactor", "900");
  EXPECT_THAT(find<QLabel>("tankCeiling1")->text().toStdString(), HasSubstr("too strong"));
  EXPECT_THAT(find<QLabel>("tankCeiling1")->text().toStdString(), HasSubstr("potassium sulfate"));
}

TEST_F(WindowTest, ABiggerBatchKeepsTheStrengthOfHeldWeights) {
  type("weight_kno3", "100");
  const double before = editor().answer().feed.milligramsPerLitre.of(Nutrient::K);
  type("batch", "2000");
  EXPECT_NEAR(grams("kno3"), 200, 1e-9);
  EXPECT_NEAR(editor().answer().feed.milligramsPerLitre.of(Nutrient::K), before, 1e-9);
}

TEST_F(WindowTest, AFormulaGoesIntoAFileAndComesBackFromIt) {
  const auto path = folder.filePath("mine.butte.json");
  type("stockFactor", "150");
  window->prompts().fileToMake = [&](const QString&, const QString&, const QString&) { return path; };
  EXPECT_TRUE(window->files().saveAs());
  const auto written = editor().json();
  type("stockFactor", "160");
  EXPECT_TRUE(window->files().openFile(path));
  EXPECT_EQ(editor().json(), written);
  EXPECT_EQ(book().store().list(book::Kind::Formula, false)->size(), 3u)
      << "beside the others, not over them";
}

TEST_F(WindowTest, TheBenchSheetBecomesAOnePagePdf) {
  const auto path = folder.filePath("sheet.pdf");
  ASSERT_TRUE(window->files().exportSheetTo(path));
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  const auto bytes = file.readAll();
  EXPECT_TRUE(bytes.startsWith("%PDF"));
  EXPECT_GT(bytes.size(), 8000);
  EXPECT_EQ(bytes.count("/Type /Page\n"), 1);
}

TEST_F(WindowTest, TheSheetFollowsTheScaleAtHand) {
  window->showStation(Station::Bench);
  const auto text = [&] { return find<QTextBrowser>("sheetPreview")->toPlainText().toStdString(); };
  EXPECT_THAT(text(), HasSubstr("2.55 g"));
  EXPECT_THAT(text(), ::testing::Not(HasSubstr("too coarse")));
  type("scale0_readability", "1");
  EXPECT_TRUE(QTest::qWaitFor([&] { return text().find("too coarse") != std::string::npos; }, 5000))
      << "once the typing rests";
  EXPECT_THAT(text(), HasSubstr("Oxidiser"));
  EXPECT_THAT(text(), HasSubstr("Never water into acid"));
  EXPECT_THAT(text(), HasSubstr("Pre-stock"));
}

TEST_F(WindowTest, ALiquidOfOnesOwnKeepsItsDensity) {
  QTest::mouseClick(find<QAbstractButton>("ownProduct"), Qt::LeftButton);
  find<QLineEdit>("productName")->setText("pH down");
  QTest::keyClicks(find<QLineEdit>("productFormula"), "H3PO4");
  type("productPurity", "50");
  type("productDensity", "1,335");
  QTest::mouseClick(find<QAbstractButton>("putProduct"), Qt::LeftButton);
  const int at = editor().indexOf("own_1");
  ASSERT_GE(at, 0);
  EXPECT_TRUE(editor().document().allProducts[at].liquid);
  EXPECT_DOUBLE_EQ(*editor().document().allProducts[at].densityKgPerL, 1.335);
}

TEST_F(WindowTest, DarkAndLightSwitchWhileOneWorks) {
  trigger("darkTheme");
  EXPECT_TRUE(isDark());
  trigger("darkTheme");
  EXPECT_FALSE(isDark());
}

} // namespace butte::app
