/// The acid beside the water: typed, chosen and read as a grower would.
#include "stations/water/acid_curve.h"
#include "window_fixture.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHelpEvent>
#include <QStackedWidget>

using ::testing::HasSubstr;
using ::testing::Not;

namespace butte::app {

class AcidPanelTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    press(Qt::Key_1, Qt::ControlModifier);
    QApplication::processEvents();
  }

  std::string text(const char* label) { return find<QLabel>(label)->text().toStdString(); }

  /// The combo box by keyboard: typing the first letters picks the entry.
  void choose(const char* box, const QString& letters) {
    auto* combo = find<QComboBox>(box);
    combo->setFocus();
    QTest::keyClicks(combo, letters);
    emit combo->activated(combo->currentIndex());
  }

  void read(int row, const QString& ml, const QString& ph) {
    type("titrationMl" + QString::number(row), ml);
    type("titrationPh" + QString::number(row), ph);
  }

  void clearReadings() {
    for (int row = 7; row >= 0; --row)
      type("titrationMl" + QString::number(row), "");
  }

  double dose() { return editor().answer().acid.forWater->gramsPerLitre; }
};

TEST_F(AcidPanelTest, StandsBesideTheWaterOnly) {
  EXPECT_TRUE(find<QLabel>("acidDose")->isVisible());
  press(Qt::Key_3, Qt::ControlModifier);
  EXPECT_FALSE(find<QLabel>("acidDose")->isVisible());
}

TEST_F(AcidPanelTest, AnAcidThatBringsMoreThanTheTargetSaysSo) {
  clearReadings(); // the report counts
  EXPECT_THAT(text("acidConsequences"), Not(HasSubstr("alone is more than the target")));
  choose("acidProduct", "phosphoric acid 75");
  EXPECT_THAT(text("acidConsequences"), HasSubstr("mg/L P"));
  EXPECT_THAT(text("acidConsequences"), HasSubstr("its phosphorus alone is more than the target's 31"));
  type("water_HCO3", "40");
  EXPECT_THAT(text("acidConsequences"), Not(HasSubstr("phosphorus alone")));
}

// A curve that is kept must be the curve of what stands there now.
TEST_F(AcidPanelTest, TheCurveFollowsWaterAndAcidAndNothingElse) {
  clearReadings();
  auto* curve = window->findChild<AcidCurve*>();
  curve->setFixedSize(364, 240); // whatever room the words above it take
  const auto grabbed = [&] {
    QApplication::processEvents();
    return curve->grab().toImage();
  };
  const auto first = grabbed();
  editor().set(told("potassium"), "/target/rows/3/mg_per_l", "206", false);
  EXPECT_EQ(grabbed(), first) << "another target, the same water";
  type("water_HCO3", "250");
  const auto harder = grabbed();
  EXPECT_NE(harder, first);
  choose("acidProduct", "sulfuric acid 37");
  EXPECT_NE(grabbed(), harder);
  QTest::qWait(QApplication::keyboardInputInterval() + 100); // letters typed at once would go on from there
  choose("acidProduct", "nitric acid 60");
  EXPECT_EQ(find<QComboBox>("acidProduct")->currentText(), "nitric acid 60 %");
  EXPECT_EQ(grabbed(), harder);
}

TEST_F(AcidPanelTest, TheDoseAnswersAsTheAimIsTyped) {
  EXPECT_THAT(text("acidDose"), HasSubstr("mL per L"));
  const double before = dose();
  type("acidTarget", "6.4");
  EXPECT_LT(dose(), 0.7 * before);
  type("acidTarget", "13"); // out of range: red, and the last good aim stays
  EXPECT_TRUE(find("acidTarget")->isWrong());
  EXPECT_EQ(editor().document().given.acid.targetPh, 6.4);
}

TEST_F(AcidPanelTest, AnotherAcidAnotherDoseAndItsCaution) {
  choose("acidProduct", "phos");
  EXPECT_THAT(text("acidConsequences"), HasSubstr(" P"));
  EXPECT_THAT(text("acidCaution"), HasSubstr("Acid into water"));
  EXPECT_EQ(editor().document().given.acid.product->id.substr(0, 5), "h3po4");
}

TEST_F(AcidPanelTest, OwnReadingsMoveTheAlkalinityAndComeBackWithUndo) {
  EXPECT_THAT(text("titrationVerdict"), HasSubstr("1.57"));
  EXPECT_THAT(text("titrationVerdict"), HasSubstr("left out"));
  const double before = dose();
  clearReadings();
  EXPECT_THAT(text("titrationVerdict"), HasSubstr("Type how much acid"));
  editor().endMerging();
  read(0, "0", "7.2");
  read(1, "6", "6.6"); // a stronger water than the report says
  EXPECT_EQ(editor().document().given.titration->readings.size(), 2u);
  EXPECT_GT(dose(), 1.2 * before);
  EXPECT_THAT(text("titrationVerdict"), HasSubstr("Still to add"));
  for (int i = 0; i < 40 && editor().canUndo(); ++i)
    press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_NEAR(dose(), before, 1e-9);
  EXPECT_EQ(find("titrationMl3")->text(), "6");
}

TEST_F(AcidPanelTest, AHalfTypedRowIsKeptAndCountsForNothing) {
  type("titrationMl7", "14");
  EXPECT_EQ(editor().document().given.titration->readings.size(), 7u);
  EXPECT_EQ(find("titrationMl7")->text(), "14");
  type("titrationPh7", "4.4");
  EXPECT_EQ(editor().document().given.titration->readings.size(), 8u);
}

TEST_F(AcidPanelTest, TheReportStandsAgainWhenTheReadingsAreSwitchedOff) {
  const double withReadings = editor().answer().water.netAlkalinityMeqPerL;
  QTest::mouseClick(find<QCheckBox>("titrationUse"), Qt::LeftButton, Qt::NoModifier, QPoint(8, 8));
  EXPECT_NE(editor().answer().water.netAlkalinityMeqPerL, withReadings);
  EXPECT_NEAR(editor().answer().water.netAlkalinityMeqPerL, 99.7 / 61.016, 0.001);
}

TEST_F(AcidPanelTest, TooFewReadingsForBothSaySo) {
  clearReadings();
  read(0, "0", "7.3");
  choose("titrationSeek", "find b");
  EXPECT_THAT(text("titrationVerdict"), HasSubstr("Too few readings"));
}

TEST_F(AcidPanelTest, TheCurveSaysWhatItShows) {
  auto* curve = window->findChild<AcidCurve*>();
  ASSERT_NE(curve, nullptr);
  EXPECT_THAT(curve->description().toStdString(), HasSubstr("pH from 7.3"));
  EXPECT_THAT(curve->description().toStdString(), HasSubstr("7 own readings"));
  clearReadings();
  type("water_HCO3", "");
  EXPECT_THAT(text("acidDose"), HasSubstr("Not known"));
  EXPECT_THAT(curve->description().toStdString(), HasSubstr("not known"));
}

TEST_F(AcidPanelTest, ReadingsStayWithTheBottleTheyWereMadeWith) {
  choose("acidProduct", "phos");
  EXPECT_THAT(window->findChild<AcidCurve*>()->description().toStdString(), Not(HasSubstr("own readings")));
  EXPECT_THAT(text("titrationVerdict"), HasSubstr("Read with nitric acid"));
  EXPECT_THAT(text("titrationVerdict"), HasSubstr("1.57")); // the water is the same
}

TEST_F(AcidPanelTest, OwnReadingsStandInForAReportWithoutAlkalinity) {
  type("water_HCO3", "");
  EXPECT_THAT(text("acidDose"), HasSubstr("mL per L"));
  EXPECT_NEAR(editor().answer().water.netAlkalinityMeqPerL, 1.57, 0.03);
  press(Qt::Key_3, Qt::ControlModifier);
  EXPECT_THAT(text("figureAlkalinity"), HasSubstr("0.50 meq/L"));
}

TEST_F(AcidPanelTest, VinegarSaysAPlausibleStepForATenthOfPh) {
  choose("acidProduct", "acetic");
  EXPECT_THAT(text("acidConsequences"), HasSubstr("0.1 pH takes"));
  const auto& dose = *editor().answer().acid.forWater;
  EXPECT_LT(0.1 * dose.gramsPerLitrePerPh, dose.gramsPerLitre);
}

TEST_F(WindowTest, TheFiguresExplainThemselvesWhenThePointerRests) {
  auto* ec = find<QLabel>("figureEc");
  EXPECT_TRUE(ec->toolTip().isEmpty()); // worked out only when asked for
  QHelpEvent rest(QEvent::ToolTip, QPoint(4, 4), ec->mapToGlobal(QPoint(4, 4)));
  QApplication::sendEvent(ec, &rest);
  EXPECT_THAT(ec->toolTip().toStdString(), HasSubstr("mS/cm in a feed of 10 °C"));
}

TEST_F(AcidPanelTest, ADryAcidIsWeighed) {
  clearReadings();
  choose("acidProduct", "citric");
  const auto units = window->findChildren<QLabel*>("titrationUnit0");
  ASSERT_EQ(units.size(), 1);
  EXPECT_EQ(units[0]->text(), "g");
  EXPECT_THAT(text("acidDose"), HasSubstr("g/L"));
}

TEST_F(AcidPanelTest, UnitsSwitchTheDoseAndTheSampleAndTouchNothing) {
  const auto before = editor().json();
  trigger("units_gal_us");
  EXPECT_THAT(text("acidDose"), HasSubstr("per US gal"));
  EXPECT_EQ(find("titrationSample")->text(), "26.4"); // 100 L
  EXPECT_EQ(editor().json(), before);
}

TEST_F(WindowTest, TheFeedsPhStandsWithItsFigures) {
  EXPECT_EQ(find<QLabel>("figurePh")->text(), "5.8 / 6.7");
  type("alkalinityLeft", "1.2");
  EXPECT_GT(editor().answer().feed.ph, 6.2);
}

TEST_F(WindowTest, ATankThatIsTooStrongSaysWhatLiesOnItsFloor) {
  press(Qt::Key_4, Qt::ControlModifier);
  type("stockFactor", "600");
  const auto ceilings = window->findChildren<QLabel*>("tankCeiling1");
  ASSERT_EQ(ceilings.size(), 1);
  EXPECT_THAT(ceilings[0]->text().toStdString(), HasSubstr("too strong"));
  EXPECT_THAT(ceilings[0]->text().toStdString(), HasSubstr("Falls out"));
  EXPECT_THAT(ceilings[0]->text().toStdString(), HasSubstr("potassium sulfate"));
}

TEST_F(WindowTest, AFeedThatWouldCloudSaysSo) {
  press(Qt::Key_1, Qt::ControlModifier);
  type("water_HCO3", "400");
  type("waterPh", "8.2");
  for (int row = 7; row >= 0; --row)
    type("titrationMl" + QString::number(row), "");
  EXPECT_THAT(find<QLabel>("waterBalance")->text().toStdString(),
              HasSubstr("calcite (lime scale) may fall out"));
  type("alkalinityLeft", ""); // no acid
  press(Qt::Key_3, Qt::ControlModifier);
  EXPECT_THAT(find<QLabel>("reasons")->text().toStdString(), HasSubstr("The feed: about"));
}

} // namespace butte::app
