// The Water station, worked as a hand would: typed, pasted, dragged, pressed, read.
#include "window_fixture.h"

#include "edits/water_edits.h"
#include "paint/theme.h"
#include "stations/water/blend_bar.h"
#include "stations/water/drift_chart.h"
#include "stations/water/ion_stacks.h"
#include "stations/water/verdict_scales.h"

#include <QAbstractButton>
#include <QCheckBox>
#include <QComboBox>
#include <QPlainTextEdit>
#include <QStatusBar>

using ::testing::HasSubstr;
using ::testing::Not;

namespace butte::app {

using core::Nutrient;

class WaterPageTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->showStation(Station::Water);
    QApplication::processEvents();
  }
  const core::Water& water() { return editor().answer().waters.water; }
  std::string label(const QString& name) { return find<QLabel>(name)->text().toStdString(); }
  std::string readRows() { return find<QWidget>("readingRows")->accessibleDescription().toStdString(); }
  void choose(const QString& name, const QString& entry) {
    auto* box = find<QComboBox>(name);
    const int index = box->findText(entry);
    ASSERT_GE(index, 0) << entry.toStdString();
    box->setCurrentIndex(index);
    emit box->activated(index);
  }
  void take(const QString& name) { choose("waterChoice", name); }
};

TEST_F(WaterPageTest, AFigureKeepsItsUnitAndItsNormalFormStandsBeside) {
  choose("unit_Ca", "meq/L");
  type("water_Ca", "2");
  EXPECT_NEAR(water().milligramsPerLitre.of(Nutrient::Ca), 40.078, 1e-2);
  EXPECT_THAT(label("normal_Ca"), HasSubstr("40.1 mg/L"));
  const auto& row = editor().json()["water"]["rows"][0];
  EXPECT_EQ(row["amount"], "2");
  EXPECT_EQ(row["unit"], "meq/L");
  // The figure was right, its unit was not: it stays as typed.
  choose("unit_Ca", "mg/L");
  EXPECT_EQ(editor().json()["water"]["rows"][0]["mg_per_l"], "2");
  editor().undo();
  EXPECT_EQ(editor().json()["water"]["rows"][0]["unit"], "meq/L");
}

TEST_F(WaterPageTest, AWaterThatNobodyNamedIsCalledByWhatItHolds) {
  take("Pure water (RO, distilled)");
  EXPECT_EQ(editor().document().waterName, "Pure water");
  EXPECT_EQ(find<QLineEdit>("waterName")->placeholderText(), "Pure water");
  EXPECT_TRUE(find<QLineEdit>("waterName")->text().isEmpty());
  type("water_Ca", "80");
  EXPECT_EQ(editor().document().waterName, "Own water") << "pure no more";
  type("water_Ca", "");
  type("waterEc", "0.6");
  EXPECT_EQ(editor().document().waterName, "Own water");
  type("waterName", "Well at the barn");
  EXPECT_EQ(editor().document().waterName, "Well at the barn");
  take("Unknown tap (guess it)");
  EXPECT_EQ(editor().document().waterName, "Unknown tap");
}

TEST_F(WaterPageTest, AGuessedAlkalinityLooksLikeOne) {
  const auto verdicts = [this] { return label("waterVerdicts"); };
  EXPECT_THAT(label("waterResult"), Not(HasSubstr("guessed")));
  take("Unknown tap (guess it)");
  ASSERT_GT(water().alkalinityPlusMinusMeqPerL, 0);
  EXPECT_THAT(label("waterResult"), HasSubstr("alkalinity ≈ 150 ± "));
  EXPECT_THAT(label("waterResult"), HasSubstr("(guessed)"));
  EXPECT_THAT(verdicts(), HasSubstr("≈ "));
  EXPECT_THAT(label("acidConsequences"), HasSubstr("dosed against a guess"));
  type("water_HCO3", "180");
  EXPECT_THAT(label("waterResult"), Not(HasSubstr("guessed"))) << "measured now";
}

TEST_F(WaterPageTest, LessThanIsTakenAndShown) {
  type("water_B", "<0,05");
  EXPECT_DOUBLE_EQ(water().milligramsPerLitre.of(Nutrient::B), 0.025);
  EXPECT_DOUBLE_EQ(water().plusMinusMgPerL.of(Nutrient::B), 0.025);
  type("water_B", "<");
  EXPECT_TRUE(find("water_B")->isWrong());
  EXPECT_DOUBLE_EQ(water().plusMinusMgPerL.of(Nutrient::B), 0.025) << "the last good one counts";
  type("water_B", "0.05");
  EXPECT_DOUBLE_EQ(water().plusMinusMgPerL.of(Nutrient::B), 0);
}

TEST_F(WaterPageTest, TheMixUpIsNamedAndOnePressReadsItRight) {
  take("Ormsey bore, older report");
  EXPECT_THAT(label("waterBalance"), HasSubstr("Standard Methods 1030 E"));
  EXPECT_THAT(find<QAbstractButton>("rereading0")->text().toStdString(), HasSubstr("alkalinity as CaCO3"));
  EXPECT_LT(*water().alkalinityMeqPerL, 3.4) << "nothing is changed by itself";
  click("rereading0");
  EXPECT_NEAR(*water().alkalinityMeqPerL, 201 / 50.043, 0.01);
  EXPECT_THAT(label("waterBalance"), HasSubstr("fits together"));
  editor().undo();
  EXPECT_LT(*water().alkalinityMeqPerL, 3.4);
}

TEST_F(WaterPageTest, TwoSourcesAreBlendedByDraggingTheirBorder) {
  take("Ormsey bore");
  click("addSource");
  take("Glasshouse roof, rain");
  ASSERT_EQ(WaterEdits(editor()).count(), 2u);
  type("waterShare", "60");
  EXPECT_NEAR(water().milligramsPerLitre.of(Nutrient::Ca), 0.4 * 78 + 0.6 * 1.2, 0.01);
  auto* bar = find<BlendBar>("blendBar");
  constexpr double leastOfBoth = 240; // room for both names, which no share takes
  const double at = bar->edge(1), room = bar->width() - leastOfBoth;
  const auto from = QPoint(static_cast<int>(at), 20), to = QPoint(static_cast<int>(at + 0.2 * room), 20);
  QTest::mousePress(bar, Qt::LeftButton, {}, from);
  QTest::mouseMove(bar, to);
  QMouseEvent move(QEvent::MouseMove, QPointF(to), bar->mapToGlobal(QPointF(to)), Qt::NoButton,
                   Qt::LeftButton, {});
  QApplication::sendEvent(bar, &move);
  QTest::mouseRelease(bar, Qt::LeftButton, {}, to);
  EXPECT_NEAR(editor().answer().waters.parts[0].share, 0.60, 0.015);
  QTest::keyClick(bar, Qt::Key_Left);
  EXPECT_NEAR(editor().answer().waters.parts[0].share, 0.59, 0.015);
  click("removeSource");
  EXPECT_EQ(WaterEdits(editor()).count(), 1u);
}

TEST_F(WaterPageTest, TheShareForALimitIsFound) {
  take("Glasshouse roof, rain");
  click("addSource");
  take("Ormsey bore");
  type("blendLimit", "40");
  click("findShare");
  EXPECT_NEAR(*water().alkalinityMeqPerL * 50.043, 40, 0.5) << "shares are kept to a tenth of a percent";
  choose("blendGoal", "sodium, mg/L");
  type("blendLimit", "1");
  click("findShare");
  EXPECT_NEAR(*water().alkalinityMeqPerL * 50.043, 40, 0.5)
      << "rain alone has 1.5: refused in words, nothing changed";
}

TEST_F(WaterPageTest, AMembraneASoftenerAndAcidBeforeUse) {
  take("Ormsey bore");
  choose("waterTreatment", "reverse osmosis");
  EXPECT_LT(water().milligramsPerLitre.of(Nutrient::Na), 1);
  EXPECT_THAT(label("treatedWater"), HasSubstr("1.00 L waste per L"));
  type("roRecovery", "25");
  EXPECT_THAT(label("treatedWater"), HasSubstr("3.00 L waste per L"));
  choose("roIon", "boron");
  const double usual = water().milligramsPerLitre.of(Nutrient::B);
  type("roIonRejection", "90");
  EXPECT_NEAR(water().milligramsPerLitre.of(Nutrient::B), 0.006, 1e-9);
  type("roIonRejection", "");
  EXPECT_DOUBLE_EQ(water().milligramsPerLitre.of(Nutrient::B), usual) << "as usual again";
  choose("waterTreatment", "softener");
  EXPECT_GT(water().milligramsPerLitre.of(Nutrient::Na), 110);
  choose("waterTreatment", "untreated");
  choose("acidFirst", "nitric acid 60 % first");
  type("acidFirstLeft", "1");
  EXPECT_NEAR(*water().alkalinityMeqPerL, 1, 1e-9);
  EXPECT_NEAR(water().milligramsPerLitre.of(Nutrient::NNitrate), 12 / 4.4268 + 3.057 * 14.007, 0.2);
  EXPECT_THAT(label("acidFirstDose"), HasSubstr("mL per L"));
  type("acidFirstLeft", "9");
  EXPECT_THAT(label("acidFirstDose"), HasSubstr("less already"));
}

TEST_F(WaterPageTest, FromAPenAndTwoKitsComesAWaterWithHonestRanges) {
  take("Unknown tap (guess it)");
  const double wide = water().plusMinusMgPerL.of(Nutrient::Ca);
  EXPECT_GT(wide, 10);
  choose("waterEcUnit", "ppm 500");
  type("waterEc", "240");
  choose("unit_hardness_as_CaCO3", "°dH");
  type("water_hardness_as_CaCO3", "10");
  choose("unit_alkalinity_as_CaCO3", "°dH");
  type("water_alkalinity_as_CaCO3", "8");
  EXPECT_LT(water().plusMinusMgPerL.of(Nutrient::Ca), wide);
  EXPECT_NEAR(*water().conductivityMsPerCm, 0.48, 1e-9);
  EXPECT_NEAR(*water().alkalinityMeqPerL, 8 * 0.3567, 0.01);
  EXPECT_THAT(find<ElementLanes>("elementLanes")->laneText(Nutrient::Ca).toStdString(), HasSubstr("±"));
  auto* box = find<QCheckBox>("waterEstimate");
  QTest::mouseClick(box, Qt::LeftButton, {}, QPoint(8, box->height() / 2));
  EXPECT_DOUBLE_EQ(water().milligramsPerLitre.of(Nutrient::Na), 0) << "no guessing";
}

TEST_F(WaterPageTest, APastedReportIsUnderstoodAndTheRestIsPlacedByHand) {
  click("pasteReport");
  find<QPlainTextEdit>("reportText")
      ->setPlainText("Calcium\t78\tmg/l\nMagnesium\t14\tmg/l\nHydrocarb.\t248\tmg/l\nSulphate\t41\tmg/"
                     "l\nChloride\t34\tmg/l\nSodium\t23\tmg/l\n");
  EXPECT_THAT(readRows(), HasSubstr("sulfate 41 mg/L"));
  EXPECT_NE(water().milligramsPerLitre.of(Nutrient::Ca), 78) << "nothing is taken yet";
  choose("place0", "bicarbonate");
  click("takeReport");
  EXPECT_DOUBLE_EQ(water().milligramsPerLitre.of(Nutrient::Ca), 78);
  EXPECT_NEAR(*water().alkalinityMeqPerL, 248 / 61.016, 0.001);
  editor().undo();
  EXPECT_NE(water().milligramsPerLitre.of(Nutrient::Ca), 78) << "one step of undo";
}

TEST_F(WaterPageTest, WhatIsNotClearAsksAndIsAnsweredByOnePress) {
  click("pasteReport");
  auto* text = find<QPlainTextEdit>("reportText");
  text->setPlainText("Parameter\tWell 1\tWell 2\tUnit\nCalcium\t78\t91\tmg/l\nMagnesium\t14\t15\tmg/l\n");
  EXPECT_THAT(label("reportFound"), HasSubstr("2 lines need your answer"));
  EXPECT_THAT(label("unplaced0"), HasSubstr("Calcium"));
  EXPECT_FALSE(text->extraSelections().isEmpty()) << "the source shows where it stands";
  click("takeReport");
  EXPECT_NE(water().milligramsPerLitre.of(Nutrient::Ca), 91) << "nothing is guessed";
  click("choice0_1");
  EXPECT_THAT(label("reportFound"), HasSubstr("2 figures read.")) << "one well is meant: magnesium follows";
  click("takeReport");
  EXPECT_DOUBLE_EQ(water().milligramsPerLitre.of(Nutrient::Ca), 91);
  EXPECT_DOUBLE_EQ(water().milligramsPerLitre.of(Nutrient::Mg), 15);
  editor().undo();
  EXPECT_NE(water().milligramsPerLitre.of(Nutrient::Ca), 91) << "one step of undo";
}

TEST_F(WaterPageTest, AnAnswerIsRememberedForTheNextPaperOfThatLayout) {
  const auto paper = [](const char* calcium, const char* magnesium, const char* odd) {
    return QString("Parameter\tWell 1\tWell 2\tUnit\nCalcium\t78\t%1\tmg/l\nMagnesium\t14\t%2\tmg/l\n"
                   "Sodium\t20\t21\tmg/l\nGlow index\t3\t%3\tmg/l\n")
        .arg(calcium, magnesium, odd);
  };
  click("pasteReport");
  auto* text = find<QPlainTextEdit>("reportText");
  text->setPlainText(paper("91", "15", "4"));
  EXPECT_FALSE(find<QLabel>("reportRecalled")->isVisible());
  click("choice0_1");
  click("leave3"); // what nobody knows is waved off
  EXPECT_THAT(label("reportFound"), HasSubstr("3 figures read."));
  click("takeReport");
  EXPECT_DOUBLE_EQ(water().milligramsPerLitre.of(Nutrient::Ca), 91);
  // Next year's sheet of the same laboratory.
  click("pasteReport");
  text->setPlainText(paper("95", "16", "5"));
  EXPECT_THAT(label("reportRecalled"), HasSubstr("4 lines are answered as you did"));
  EXPECT_THAT(label("reportFound"), HasSubstr("3 figures read."));
  click("choice0_1"); // pressed off: it asks again
  EXPECT_THAT(label("reportFound"), HasSubstr("1 line needs your answer"));
  click("choice0_1");
  click("takeReport");
  EXPECT_DOUBLE_EQ(water().milligramsPerLitre.of(Nutrient::Ca), 95);
  // In the book it can be looked at and taken back.
  window->showStation(Station::Book);
  click("sectionPapers");
  EXPECT_THAT(label("layoutSaid"), HasSubstr("“calcium”: figure 2 of 2"));
  EXPECT_THAT(label("layoutSaid"), HasSubstr("“glow index”: left out"));
  click("binThing");
  window->showStation(Station::Water);
  click("pasteReport");
  text->setPlainText(paper("96", "17", "6"));
  EXPECT_FALSE(find<QLabel>("reportRecalled")->isVisible()) << "what lies in the bin answers nothing";
}

TEST_F(WaterPageTest, AFigureThatAsksCanBeTypedToo) {
  click("pasteReport");
  find<QPlainTextEdit>("reportText")->setPlainText("Calcium\t1,250\tmg/l\nSodium\t20\tmg/l\n");
  EXPECT_THAT(label("reportFound"), HasSubstr("1 line needs your answer"));
  type("typed0", "125");
  EXPECT_THAT(label("reportFound"), HasSubstr("2 figures read."));
  click("takeReport");
  EXPECT_DOUBLE_EQ(water().milligramsPerLitre.of(Nutrient::Ca), 125);
}

TEST_F(WaterPageTest, AReadingIsCheckedAgainstItselfAsOneReads) {
  click("pasteReport");
  auto* text = find<QPlainTextEdit>("reportText");
  text->setPlainText(
      "Calcium 78 mg/l\nMagnesium 14 mg/l\nSodium 23 mg/l\nChloride 34 mg/l\nSulfate 41 mg/l\nNitrate 12 "
      "mg/l\nAlkalinity as CaCO3 203 mg/l\n");
  EXPECT_THAT(label("reportBalance"), HasSubstr("balances"));
  text->setPlainText(text->toPlainText().replace("78", "780"));
  EXPECT_THAT(label("reportBalance"), ::testing::Not(HasSubstr("balances"))) << "a wrong line shows at once";
}

TEST_F(WaterPageTest, AnOldSpreadsheetsFileIsReadAndItsFormulaNamed) {
  const auto path = folder.filePath("report.csv");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::WriteOnly));
  file.write("Calcium;=SUM(A1:A9);mg/l\nGesamth\xE4rte;14;\xB0"
             "dH\nNatrium;21,5;mg/l\nNatrium;22;mg/l\n");
  file.close();
  window->prompts().fileToOpen = [&](const QString&, const QString&, const QString&) { return path; };
  click("pasteReport");
  click("openReport");
  EXPECT_THAT(readRows(), HasSubstr("hardness"));
  EXPECT_THAT(readRows(), HasSubstr("21.5")) << "a decimal comma in the file";
  EXPECT_THAT(label("unplaced0"), HasSubstr("=SUM(A1:A9)"));
  EXPECT_THAT(label("unplaced0"), HasSubstr("a spreadsheet's formula, not its figure"));
  EXPECT_EQ(window->findChild<QComboBox*>("place0"), nullptr) << "there is no figure to place";
  EXPECT_THAT(label("unplaced1"), HasSubstr("a second time"));
  click("takeReport");
  EXPECT_DOUBLE_EQ(water().milligramsPerLitre.of(Nutrient::Na), 21.5);
}

TEST_F(WaterPageTest, ReportsOfOneSourceAreChosenAndTheDriftIsShown) {
  ASSERT_FALSE(window->desk().openSample());
  window->showStation(Station::Water);
  QApplication::processEvents();
  ASSERT_EQ(WaterEdits(editor()).count(), 2u) << "roof and bore";
  find<BlendBar>("blendBar")->setFocus();
  QTest::keyClick(find<BlendBar>("blendBar"), Qt::Key_Down);
  auto* reports = find<QComboBox>("waterReport");
  ASSERT_EQ(reports->count(), 5) << "four dates and the worst of all";
  EXPECT_THAT(find<DriftChart>("driftChart")->description().toStdString(), HasSubstr("alkalinity"));
  EXPECT_FALSE(find<QLabel>("newerReport")->isVisible());
  const double now = water().milligramsPerLitre.of(Nutrient::Ca);
  reports->setCurrentIndex(3);
  emit reports->activated(3);
  EXPECT_TRUE(find<QLabel>("newerReport")->isVisible()) << "an old report in use is said";
  EXPECT_THAT(label("waterBalance"), HasSubstr("Standard Methods"))
      << "its alkalinity stands in the wrong column";
  reports->setCurrentIndex(4);
  emit reports->activated(4);
  EXPECT_GE(water().milligramsPerLitre.of(Nutrient::Ca), now) << "the worst of each";
}

TEST_F(WaterPageTest, TheSystemAndTheTargetDecideTheVerdict) {
  take("Ormsey bore");
  choose("waterSystem", "drain runs to waste");
  EXPECT_THAT(label("waterVerdicts"), HasSubstr("alkalinity as CaCO3"));
  auto* scales = find<VerdictScales>("verdictScales");
  EXPECT_THAT(scales->accessibleDescription().toStdString(), HasSubstr("alkalinity as CaCO3 203 mg/L: "));
  QTest::mouseClick(scales, Qt::LeftButton, {}, QPoint(40, 26)); // the worst stands first
  EXPECT_THAT(window->statusBar()->currentMessage().toStdString(),
              HasSubstr("EC 0.58 mS/cm: watch. Fine to 0.50, too high above 1.00 mS/cm. Sonneveld"))
      << "limits and source are a press away";
  QTest::keyClick(scales, Qt::Key_Down);
  EXPECT_THAT(window->statusBar()->currentMessage().toStdString(), HasSubstr("Fine to "));
  const auto open = label("waterVerdicts");
  choose("waterSystem", "drain is used again");
  EXPECT_NE(label("waterVerdicts"), open);
  EXPECT_THAT(label("waterVerdicts"), HasSubstr("too high"));
  EXPECT_THAT(label("waterVerdicts"), HasSubstr("not measured, which is not zero"));
  EXPECT_THAT(label("waterVerdicts"), Not(HasSubstr("on leaves")));
  choose("waterOnLeaves", "over the leaves");
  EXPECT_THAT(label("waterVerdicts"), HasSubstr("bicarbonate on leaves"));
  EXPECT_THAT(label("waterVerdicts"), HasSubstr("White deposits"));
  editor().undo();
  EXPECT_THAT(label("waterVerdicts"), Not(HasSubstr("on leaves")));
}

TEST(VerdictScalesTest, EachFigureStandsBetweenItsOwnLimits) {
  core::WaterLimit limit;
  limit.fineBelow = 40;
  limit.tooHighAbove = 100;
  core::Verdict verdict;
  verdict.limit = &limit;
  const auto place = [&](double value) { return VerdictScales::placeOf(verdict, value); };
  EXPECT_DOUBLE_EQ(place(0), 0);
  EXPECT_DOUBLE_EQ(place(20), VerdictScales::watchFrom / 2);
  EXPECT_DOUBLE_EQ(place(40), VerdictScales::watchFrom);
  EXPECT_DOUBLE_EQ(place(70), (VerdictScales::watchFrom + VerdictScales::tooHighFrom) / 2);
  EXPECT_DOUBLE_EQ(place(100), VerdictScales::tooHighFrom);
  double before = 0;
  for (double value = 0; value < 1e6; value = value * 1.3 + 1) {
    EXPECT_GE(place(value), before) << value;
    EXPECT_LT(place(value), 1) << value;
    before = place(value);
  }
  limit.fineBelow = limit.tooHighAbove = 0; // of what must not be there at all
  EXPECT_DOUBLE_EQ(place(0), 0);
  EXPECT_DOUBLE_EQ(place(5), 1);
}

TEST_F(WaterPageTest, TheFacingStacksSayWhatTheyShow) {
  take("Ormsey bore");
  EXPECT_THAT(find<IonStacks>("ionStacks")->description().toStdString(),
              HasSubstr("cations 6.04, anions 6.06"));
  window->resize(1280, 800);
  EXPECT_FALSE(window->grab().isNull());
  applyTheme(true);
  EXPECT_FALSE(window->grab().isNull());
  applyTheme(false);
}

TEST_F(WaterPageTest, AnAcidOfTheTableEntersTheRecipeAndTheSaltsGiveWay) {
  take("Ormsey bore");
  const auto nitrate = [&] {
    double fromSalts = 0;
    const auto& shelf = editor().document().given.request.shelf;
    for (std::size_t j = 0; j < shelf.size(); ++j) {
      if (shelf[j].composition.role != core::ProductRole::Acid)
        fromSalts += shelf[j].composition.massFraction.of(Nutrient::NNitrate) *
                     editor().answer().solution.grams[j].grams();
    }
    return fromSalts;
  };
  click("acid_h3po4_75");
  EXPECT_TRUE(editor().gramsOf("h3po4_75").has_value());
  EXPECT_FALSE(editor().gramsOf("hno3_60").has_value()) << "one acid at a time";
  const double withPhosphoric = nitrate();
  click("acid_hno3_60");
  EXPECT_GT(editor().gramsOf("hno3_60")->grams(), 0);
  EXPECT_THAT(find<QWidget>("acidTable")->findChildren<QLabel*>().size(), ::testing::Gt(9));
  EXPECT_LT(nitrate(), withPhosphoric) << "the salts bring less nitrate where the acid brings some";
}

TEST_F(WaterPageTest, ABlendIsKeptInTheBookAsTheWaterThatCameOfIt) {
  take("Ormsey bore");
  click("addSource");
  take("Glasshouse roof, rain");
  type("waterShare", "50");
  const double calcium = water().milligramsPerLitre.of(Nutrient::Ca);
  window->bookPage().showSection(BookPage::Waters);
  window->showStation(Station::Book);
  click("keepInBook");
  const auto heads = book().store().list(book::Kind::Water, false);
  ASSERT_EQ(heads->size(), 1u);
  const auto body = (*book().record(heads->front().ref))->body;
  EXPECT_FALSE(body["reports"][0]["water"].contains("parts"));
  click("useThing");
  EXPECT_EQ(WaterEdits(editor()).count(), 1u);
  EXPECT_NEAR(water().milligramsPerLitre.of(Nutrient::Ca), calcium, 1e-4);
}

TEST_F(WaterPageTest, UpkeepOfASourceIsKept) {
  window->showStation(Station::Book);
  click("sectionWaters");
  click("keepInBook");
  const auto ref = book().store().list(book::Kind::Water, false)->front().ref;
  window->showRecord(ref);
  type("reportLaboratory0", "county");
  type("reportDate0", "2026-01-15");
  type("upkeepMonths_membrane", "24");
  type("upkeepLast_membrane", "2026-03-02");
  ASSERT_FALSE(book().flush());
  const auto upkeep = (*book().record(ref))->body["upkeep"];
  EXPECT_EQ((*book().record(ref))->body["reports"][0]["date"], "2026-01-15");
  EXPECT_EQ((*book().record(ref))->body["reports"][0]["laboratory"], "county");
  ASSERT_EQ(upkeep.size(), 1u);
  EXPECT_EQ(upkeep[0]["every_months"], "24");
  EXPECT_EQ(upkeep[0]["last"], "2026-03-02");
}

} // namespace butte::app
