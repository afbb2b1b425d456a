// One formula laid over another, one target beside another.
#include "window_fixture.h"

#include "edits/formula_edits.h"
#include "edits/target_edits.h"
#include "stations/target/target_table.h"
#include "support/painted_text.h"

#include <QComboBox>

using ::testing::HasSubstr;

namespace butte::app {

using core::Nutrient;

class CompareTest : public WindowTest {
protected:
  /// As a hand opens the list and takes an entry that holds these words.
  void choose(const QString& box, const QString& words) {
    auto* combo = find<QComboBox>(box);
    combo->showPopup();
    combo->hidePopup();
    for (int i = 0; i < combo->count(); ++i) {
      if (!combo->itemText(i).contains(words)) continue;
      combo->setCurrentIndex(i);
      emit combo->activated(i);
      QApplication::processEvents();
      return;
    }
    ADD_FAILURE() << "no entry with " << words.toStdString();
  }
  double overlaid(Nutrient n) {
    return editor().overlay() ? editor().overlay()->milligramsPerLitre.of(n) : -1;
  }
};

TEST_F(CompareTest, TheFormulaAsItStandsNowStaysWhileOneGoesOn) {
  window->showStation(Station::Formula);
  const double before = editor().answer().feed.milligramsPerLitre.of(Nutrient::K);
  choose("compareWith", "as it stands now");
  EXPECT_DOUBLE_EQ(overlaid(Nutrient::K), before);
  TargetEdits(editor()).setFigure(Nutrient::K, {"90", "mg/L"});
  EXPECT_DOUBLE_EQ(overlaid(Nutrient::K), before) << "the old one stays over the new";
  EXPECT_LT(editor().answer().feed.milligramsPerLitre.of(Nutrient::K), before - 50);
  choose("compareWith", "Compare with");
  EXPECT_FALSE(editor().overlay());
}

TEST_F(CompareTest, ANamedVersionAndAnotherFormulaAreLaidOver) {
  window->showStation(Station::Formula);
  const double before = editor().answer().feed.milligramsPerLitre.of(Nutrient::K);
  window->prompts().words = [](const QString&, const QString&, const QString&) { return QString("Spring"); };
  window->files().nameVersion();
  TargetEdits(editor()).setFigure(Nutrient::K, {"90", "mg/L"});
  editor().endMerging();
  choose("compareWith", "version 1");
  EXPECT_NEAR(overlaid(Nutrient::K), before, 1e-9);
  const auto first = window->desk().inHand();
  auto other = editor().json();
  other["name"] = "Autumn greens";
  ASSERT_FALSE(window->desk().addFormula(other, told("other")));
  ASSERT_FALSE(window->desk().openFormula(first));
  TargetEdits(editor()).setFigure(Nutrient::K, {"300", "mg/L"});
  editor().endMerging();
  choose("compareWith", "Autumn greens");
  EXPECT_LT(overlaid(Nutrient::K), 150);
  EXPECT_EQ(editor().overlay()->name, "Autumn greens");
}

TEST_F(CompareTest, OnePartOfTheBlendAndPureWater) {
  ASSERT_FALSE(window->desk().openSample());
  QApplication::processEvents();
  window->showStation(Station::Formula);
  const auto& sources = editor().document().water.sources;
  ASSERT_GT(sources.size(), 1u) << "the sample blends two waters";
  choose("compareWith", "only " + QString::fromStdString(sources[1].name));
  EXPECT_TRUE(editor().overlay());
  choose("compareWith", "pure water");
  ASSERT_TRUE(editor().overlay());
  EXPECT_EQ(editor().overlay()->name, "pure water instead");
}

TEST_F(CompareTest, AnotherTargetStandsBesideTheBars) {
  window->showStation(Station::Target);
  auto* table = window->findChild<TargetTable*>();
  ASSERT_TRUE(table);
  const auto before = test::PaintedText::of(*table);
  choose("targetCompare", "Hoagland");
  const auto with = test::PaintedText::of(*table);
  EXPECT_GT(with.size(), before.size());
  EXPECT_TRUE(with.filter("%").size() > before.filter("%").size()) << "how far apart, in percent";
  choose("targetCompare", "Compare with");
  EXPECT_EQ(test::PaintedText::of(*table).size(), before.size());
}

} // namespace butte::app
