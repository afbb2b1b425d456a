// Mends that a grower takes at the Formula station, kind by kind: another water, a cap, a held weight, a
// product of the shelf or of the shop. Each is taken, keeps its word, and is undone.
#include "window_fixture.h"

#include "edits/formula_edits.h"
#include "edits/shelf_edits.h"
#include "edits/target_edits.h"
#include "edits/water_edits.h"
#include "mends/mend_edits.h"
#include "mends/mend_finder.h"
#include "support/told.h"

using ::testing::HasSubstr;

namespace butte::app {

using core::MendKind;
using core::Nutrient;

class MendKindsTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    editor().set(told("the report alone"), "/water/titration", nullptr);
    window->showStation(Station::Formula);
  }

  const std::vector<OfferedMend>& offers() {
    EXPECT_TRUE(QTest::qWaitFor([&] { return !window->mends().isSearching(); }, 20000));
    return window->mends().offers();
  }
  int offNow() {
    auto request = editor().document().given.request;
    request.water = editor().answer().waters.water;
    return core::offBands(request, editor().answer().solution.grams);
  }
  /// Takes the offer of this kind and undoes it; false where there is none.
  bool takeAndUndo(MendKind kind) {
    const auto& found = offers();
    for (std::size_t i = 0; i < found.size(); ++i) {
      if (found[i].mend.kind != kind) continue;
      const auto offer = found[i];
      const auto before = editor().json();
      window->mends().take(static_cast<int>(i));
      EXPECT_NE(editor().json(), before) << offer.words.toStdString();
      EXPECT_LE(offNow(), offer.mend.offBefore) << offer.words.toStdString();
      EXPECT_EQ(offNow(), offer.mend.offAfter) << offer.words.toStdString();
      press(Qt::Key_Z, Qt::ControlModifier);
      EXPECT_EQ(editor().json(), before) << offer.words.toStdString();
      return true;
    }
    return false;
  }
  /// One source, untreated, with much calcium sulfate.
  static void oneHardSource(WaterEdits& water) {
    while (water.count() > 1)
      water.remove(water.count() - 1);
    water.setTreatment(0, SourceTreatment::None);
    water.setReported(0, "Ca", "180", "mg/L");
    water.setReported(0, "SO4", "430", "mg/L");
  }
  /// Only these products stay on.
  void onlyOn(const QStringList& ids) {
    const auto products = editor().document().products; // switching one makes the list anew
    for (const auto& product : products)
      ShelfEdits(editor()).setOn(product.id, ids.contains(QString::fromStdString(product.id)));
  }
  /// The target asks for these alone, mg/L.
  void wish(const std::vector<std::pair<Nutrient, const char*>>& rows) {
    TargetEdits target(editor());
    const auto old = target.rows();
    for (const auto& row : old)
      target.setFigure(row.nutrient, {});
    for (const auto& [nutrient, figure] : rows)
      target.setFigure(nutrient, {figure, "mg/L"});
  }
};

TEST_F(MendKindsTest, AHeldWeightIsLetFree) {
  wish({{Nutrient::K, "200"}});
  onlyOn({"kno3"});
  ShelfEdits(editor()).hold("kno3", {"100", "g"}, false);
  ASSERT_GT(offNow(), 0);
  EXPECT_TRUE(takeAndUndo(MendKind::LetFree));
}

TEST_F(MendKindsTest, ACapIsLiftedAsFarAsNeeded) {
  wish({{Nutrient::K, "200"}});
  onlyOn({"sop"});
  TargetEdits(editor()).setCap(Nutrient::S, "20");
  ASSERT_GT(offNow(), 0);
  bool found = false;
  for (const auto& offer : offers()) {
    if (offer.mend.kind != MendKind::LiftCap) continue;
    found = true;
    EXPECT_NEAR(offer.mend.value, 200 * 32.06 / (2 * 39.0983), 6)
        << "what the sulfate brings along, to a tenth";
  }
  EXPECT_TRUE(found);
  EXPECT_TRUE(takeAndUndo(MendKind::LiftCap));
}

TEST_F(MendKindsTest, AProductSwitchedOffIsSwitchedOn) {
  wish({{Nutrient::K, "200"}, {Nutrient::NNitrate, "70"}});
  onlyOn({"epsom"});
  EXPECT_TRUE(takeAndUndo(MendKind::AddProduct));
}

TEST_F(MendKindsTest, SomeOfAHardWaterGoesThroughAMembrane) {
  WaterEdits water(editor());
  oneHardSource(water);
  wish({{Nutrient::Ca, "80"}, {Nutrient::S, "70"}});
  onlyOn({"can_double", "sop", "kno3"});
  ASSERT_GT(offNow(), 0) << "the water alone brings too much";
  bool found = false;
  for (const auto& offer : offers())
    found = found || offer.mend.kind == MendKind::MorePure;
  ASSERT_TRUE(found);
  for (std::size_t i = 0; i < offers().size(); ++i) {
    if (offers()[i].mend.kind != MendKind::MorePure) continue;
    const auto before = editor().json();
    EXPECT_THAT(offers()[i].words.toStdString(), HasSubstr("membrane"));
    window->mends().take(static_cast<int>(i));
    ASSERT_EQ(water.count(), 2u) << "raw, and through the membrane";
    EXPECT_EQ(water.membraneRejection(1), "97");
    EXPECT_EQ(editor().document().water.sources[0].name, editor().document().water.sources[1].name);
    EXPECT_LT(editor().answer().waters.water.milligramsPerLitre.of(Nutrient::Ca), 84);
    press(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_EQ(editor().json(), before);
    break;
  }
}

TEST_F(MendKindsTest, ABlendTakesMoreOfItsPurerPart) {
  WaterEdits water(editor());
  oneHardSource(water);
  water.addSource("Rain");
  for (const auto* ion : {"Ca", "SO4"})
    water.setReported(1, ion, "1", "mg/L");
  water.setShares({90, 10}, false);
  wish({{Nutrient::Ca, "80"}, {Nutrient::S, "70"}});
  onlyOn({"can_double", "sop", "kno3"});
  ASSERT_GT(offNow(), 0);
  EXPECT_TRUE(takeAndUndo(MendKind::MorePure));
}

TEST_F(MendKindsTest, AnOfferThatIsNotThereDoesNothing) {
  const auto before = editor().json();
  window->mends().take(-1);
  window->mends().take(99);
  window->mends().preview(99);
  EXPECT_EQ(editor().json(), before);
  EXPECT_FALSE(editor().overlay());
}

} // namespace butte::app
