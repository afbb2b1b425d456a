/// The Target station, and several crops from one set of tanks.
#include "stations/target/crops_matrix.h"
#include "stations/target/crops_page.h"
#include "stations/target/stage_line.h"
#include "support/told.h"
#include "window_fixture.h"

#include <QCheckBox>
#include <QComboBox>

namespace butte::app {

using core::Nutrient;
using ::testing::HasSubstr;

class TargetPageTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->showStation(Station::Target);
    QApplication::processEvents();
  }
  std::string label(const QString& name) { return find<QLabel>(name)->text().toStdString(); }
  double wanted(Nutrient nutrient) {
    for (const auto& row : editor().document().given.request.rows) {
      if (row.nutrient == nutrient) return row.milligramsPerLitre;
    }
    return -1;
  }
  void choose(const QString& name, int index) {
    auto* box = find<QComboBox>(name);
    box->showPopup();
    box->hidePopup();
    ASSERT_LT(index, box->count());
    box->setCurrentIndex(index);
    emit box->activated(index);
    QApplication::processEvents();
  }
  int entry(const QString& name, const QString& part) {
    auto* box = find<QComboBox>(name);
    box->showPopup();
    box->hidePopup();
    for (int i = 0; i < box->count(); ++i) {
      if (box->itemText(i).contains(part)) return i;
    }
    ADD_FAILURE() << part.toStdString();
    return 0;
  }
};

TEST_F(TargetPageTest, AFigureKeepsItsUnitAndTheFeedItsValue) {
  const double before = wanted(Nutrient::K);
  choose("targetUnit_K", 1);
  EXPECT_NEAR(wanted(Nutrient::K), before, 1e-6) << "another unit, the same target";
  type("target_K", "6");
  EXPECT_NEAR(wanted(Nutrient::K), 6 * 39.098, 1e-3) << "mmol/L";
  choose("targetUnit_Ca", 2);
  type("target_Ca", "8");
  EXPECT_NEAR(wanted(Nutrient::Ca), 4 * 40.078, 1e-3) << "meq/L, two charges";
  EXPECT_EQ(editor().json()["target"]["rows"][static_cast<std::size_t>(4)]["unit"], "meq/L");
  reopenWindow();
  EXPECT_NEAR(wanted(Nutrient::K), 6 * 39.098, 1e-3);
}

TEST_F(TargetPageTest, ATargetThatCannotBeDissolvedSaysWhoMustGive) {
  for (const char* key : {"cap_Na", "cap_Cl"})
    EXPECT_NE(find<NumberField>(key), nullptr);
  type("target_N_NO3", "300");
  EXPECT_THAT(label("targetBalance"), HasSubstr("closes")) << "sodium is still open";
  // Nothing left open: potassium, calcium, sodium and chloride all stated.
  auto rows = editor().json()["target"]["rows"];
  rows.push_back({{"nutrient", "Na"}, {"mg_per_l", "5"}, {"tolerance_percent", "50"}});
  rows.push_back({{"nutrient", "Cl"}, {"mg_per_l", "5"}, {"tolerance_percent", "50"}});
  editor().set(told("all stated"), "/target/rows", rows);
  EXPECT_THAT(label("targetBalance"), HasSubstr("No water can hold this"));
  click("takeNearest");
  EXPECT_THAT(label("targetBalance"), HasSubstr("can be dissolved"));
  editor().undo();
  EXPECT_NEAR(wanted(Nutrient::NNitrate), 300, 1e-9);
}

TEST_F(TargetPageTest, ScalingKeepsTheRatiosAndLeavesTheTraces) {
  const double k = wanted(Nutrient::K), ca = wanted(Nutrient::Ca), fe = wanted(Nutrient::Fe);
  type("targetEcWanted", "1.0");
  click("scaleTarget");
  EXPECT_NEAR(wanted(Nutrient::K) / wanted(Nutrient::Ca), k / ca, 0.01);
  EXPECT_LT(wanted(Nutrient::K), k);
  EXPECT_DOUBLE_EQ(wanted(Nutrient::Fe), fe);
  EXPECT_THAT(label("targetEc"), HasSubstr("1.00"));
  editor().undo();
  EXPECT_DOUBLE_EQ(wanted(Nutrient::K), k);
}

TEST_F(TargetPageTest, TheSeasonsRuleIsNamedAndUndone) {
  type("targetCrop", "strawberry");
  const double k = wanted(Nutrient::K);
  choose("seasonRule", entry("seasonRule", "summer"));
  EXPECT_NE(wanted(Nutrient::K), k);
  EXPECT_THAT(editor().undoWords().toStdString(), HasSubstr("summer"));
}

TEST_F(TargetPageTest, NitrogenAsASumWithItsShareOfAmmonium) {
  type("nitrogenTotal", "150");
  type("ammoniumShare", "10");
  EXPECT_NEAR(wanted(Nutrient::NNitrate), 135, 0.1);
  EXPECT_NEAR(wanted(Nutrient::NAmmonium), 15, 0.1);
  EXPECT_EQ(wanted(Nutrient::N), -1) << "nitrate and ammonium are what is asked for";
}

TEST_F(TargetPageTest, ARatioIsWishedForSeenAndDropped) {
  choose("addRatio", 2);
  ASSERT_EQ(editor().document().given.request.ratios.size(), 1u);
  EXPECT_NEAR(editor().document().given.request.ratios[0].value, wanted(Nutrient::K) / wanted(Nutrient::Ca),
              0.01)
      << "begins from the target's own";
  type("ratioValue0", "3");
  EXPECT_THAT(label("ratioNow0"), HasSubstr("▲"));
  click("removeRatio0");
  EXPECT_TRUE(editor().document().given.request.ratios.empty());
}

TEST_F(TargetPageTest, ACapHoldsTheFeed) {
  const double before = editor().answer().feed.milligramsPerLitre.of(Nutrient::NAmmonium);
  type("cap_N_NH4", "3");
  ASSERT_EQ(editor().document().given.request.caps.size(), 1u);
  EXPECT_LE(editor().answer().feed.milligramsPerLitre.of(Nutrient::NAmmonium), 3 + 1e-6);
  type("cap_N_NH4", "");
  EXPECT_NEAR(editor().answer().feed.milligramsPerLitre.of(Nutrient::NAmmonium), before, 1e-9);
}

TEST_F(TargetPageTest, ThePhAndTheAlkalinityLeftBelongToTheTarget) {
  type("targetPh", "6.1");
  EXPECT_DOUBLE_EQ(editor().document().given.acid.targetPh, 6.1);
  type("targetAlkalinityLeft", "0.9");
  EXPECT_DOUBLE_EQ(*editor().document().given.request.alkalinityLeftMeqPerL, 0.9);
  type("targetAlkalinityLeft", "");
  EXPECT_FALSE(editor().document().given.request.alkalinityLeftMeqPerL);
}

TEST_F(TargetPageTest, StagesOfACropStandInTime) {
  type("targetCrop", "strawberry");
  type("targetStage", "fruiting");
  type("targetWeek", "9");
  click("keepStage");
  type("targetName", "Plant-up");
  type("target_K", "130");
  type("targetWeek", "0");
  click("keepStage");
  ASSERT_FALSE(book().flush());
  QApplication::processEvents();
  auto* line = find<StageLine>("stageLine");
  window->showStation(Station::Formula);
  window->showStation(Station::Target);
  EXPECT_THAT(line->text().toStdString(), ::testing::StartsWith("Plant-up from week 0"));
  QTest::mouseClick(line, Qt::LeftButton, {}, line->stageAt(1));
  EXPECT_NEAR(wanted(Nutrient::K), 205, 1e-9) << "the later stage is in the formula again";
}

TEST_F(TargetPageTest, SeveralCropsShareTheTanks) {
  click("severalCrops");
  choose("addCrop", 1);
  choose("addCrop", entry("addCrop", "lettuce"));
  auto* page = window->findChild<CropsPage*>();
  ASSERT_TRUE(QTest::qWaitFor([&] { return page->answer().has_value() && page->answer()->crops.size() == 2; },
                              10000));
  EXPECT_THAT(label("cropsWords"), HasSubstr("with tanks of its own"));
  auto* matrix = window->findChild<CropsMatrix*>();
  EXPECT_THAT(matrix->rowText(1).toStdString(), HasSubstr("of each tank"));
  const double corrected = page->answer()->crops[0].misfit + page->answer()->crops[1].misfit;
  auto* box = find<QCheckBox>("cropCorrections");
  QTest::mouseClick(box, Qt::LeftButton, {}, QPoint(8, box->height() / 2));
  ASSERT_TRUE(QTest::qWaitFor([&] { return page->answer().has_value(); }, 10000));
  EXPECT_GE(page->answer()->crops[0].misfit + page->answer()->crops[1].misfit, corrected - 1e-9);
  click("useCropWeights");
  EXPECT_TRUE(editor().document().given.request.shelf[0].locked.has_value());
  editor().undo();
  EXPECT_FALSE(editor().document().given.request.shelf[0].locked.has_value());
  QTest::mouseClick(matrix, Qt::LeftButton, {}, matrix->removeMark(1));
  EXPECT_EQ(editor().document().crops.size(), 1u);
}

} // namespace butte::app
