#include "document/formula_editor.h"
#include "document/formula_file.h"
#include "edits/acid_edits.h"
#include "edits/formula_edits.h"
#include "edits/shelf_edits.h"
#include "edits/stock_edits.h"
#include "edits/target_edits.h"
#include "edits/water_edits.h"
#include "json_reader.h"

#include <QString>
#include <gmock/gmock.h>

namespace butte::app {
namespace {

using core::Nutrient;

/// The demo's formula, in no book.
class EditsTest : public ::testing::Test {
protected:
  void SetUp() override { editor.load(*readFormulaFile(":/demo/ormsey.json")); }

  /// The document, whatever the order of its keys: what was taken out and put back stands at the end.
  nlohmann::json content() const { return nlohmann::json::parse(editor.json().dump()); }

  /// Every edit is one step, told in words, and taken back without a trace.
  void oneStep(const char* words, const std::function<void()>& edit) {
    const auto before = content();
    edit();
    EXPECT_NE(content(), before) << words;
    EXPECT_EQ(editor.undoWords().toStdString(), words);
    editor.undo();
    EXPECT_EQ(content(), before) << words;
    editor.endMerging();
  }

  FormulaEditor editor;
};

TEST_F(EditsTest, EveryOneIsOneStepInAGrowersWordsAndLeavesNoTraceWhenTakenBack) {
  FormulaEdits formula(editor);
  TargetEdits target(editor);
  ShelfEdits shelf(editor);
  WaterEdits water(editor);
  StockEdits stock(editor);
  AcidEdits acid(editor);
  oneStep("named “Other”", [&] { formula.setName("Other"); });
  oneStep("weights for 264 US gal", [&] { formula.setBatch({"264", "gal_us"}); });
  oneStep("aim: bands first", [&] { formula.setWay("bands_first"); });
  oneStep("at most 8 products", [&] { formula.setAtMost("8"); });
  oneStep("weights in the scale's steps", [&] { formula.setWholeSteps(true); });
  oneStep("first scale shows steps of 0.1 g", [&] { formula.setScaleReadability(0, {"0.1", "g"}); });
  oneStep("no acid in the recipe", [&] { formula.setAlkalinityLeft(""); });
  oneStep("potassium target to 5.4 mmol/L", [&] { target.setFigure(Nutrient::K, {"5.4", "mmol/L"}); });
  oneStep("potassium left free", [&] { target.setFigure(Nutrient::K, {}); });
  oneStep("potassium in meq/L", [&] { target.setUnit(Nutrient::K, "meq/L"); });
  oneStep("calcium band to ±9 %", [&] { target.setTolerance(Nutrient::Ca, "9"); });
  oneStep("sodium at most 40 mg/L", [&] { target.setCap(Nutrient::Na, "40"); });
  oneStep("nitrogen 150 mg/L, 5 % as ammonium", [&] { target.setNitrogen("150", "5"); });
  oneStep("potassium nitrate switched off", [&] { shelf.setOn("kno3", false); });
  oneStep("potassium nitrate held at 0.5 kg", [&] { shelf.hold("kno3", {"0.5", "kg"}, false); });
  oneStep("urea put on the shelf", [&] { shelf.add("urea", "urea"); });
  oneStep("potassium nitrate taken off the shelf", [&] { shelf.remove("kno3"); });
  oneStep("water: calcium to 2 mg/L", [&] { water.setReported(0, "Ca", "2", "mg/L"); });
  oneStep("water: calcium below 0.5 mg/L", [&] { water.setReported(0, "Ca", "<0.5", "mg/L"); });
  oneStep("water pH to 6.1", [&] { water.setPh(0, "6.1"); });
  oneStep("a source added", [&] { water.addSource("Rain"); });
  water.addSource("Rain");
  oneStep("treatment: softener", [&] { water.setTreatment(1, SourceTreatment::Softener); });
  oneStep("blend 50 : 50", [&] { water.setShares({50, 50}, false); });
  oneStep("drain is used again", [&] { water.setDrainUsedAgain(true); });
  oneStep("stock strength to 150", [&] { stock.setStrength("150"); });
  oneStep("strength to 1:200", [&] { stock.setFactor(200); });
  oneStep("dilution as mL per US gal", [&] { stock.setForm(core::RatioForm::MlPerUsGallon); });
  oneStep("tank volume to 26 US gal", [&] { stock.setTankVolume(0, {"26", "gal_us"}); });
  oneStep("own ratio 1:64", [&] { stock.setOwnRatio(1, "64"); });
  oneStep("a tank added", [&] { stock.addTank(core::TankUse::Traces); });
  oneStep("feed used per day to 900 L", [&] { stock.setDosing("feed_per_day", {"900", "L"}); });
  oneStep("drawn from tank 2 to 7 L", [&] { stock.setDosing("drawn/1/volume", {"7", "L"}); });
  oneStep("dosed by hand", [&] { stock.setDevice(core::DosingDevice::Hand); });
  oneStep("aim of the acid to pH 6", [&] { acid.setAim("6", "hno3_60"); });
}

TEST_F(EditsTest, TheTanksOwnFigures) {
  StockEdits stock(editor);
  oneStep("coldest tank to 6 °C", [&] { stock.setColdest({"6", "C"}); });
  oneStep("margin to 15 %", [&] { stock.setMargin("15"); });
  oneStep("tank name to North", [&] { stock.setTankName(0, "North"); });
  oneStep("tank holds traces and chelates", [&] { stock.setTankUse(1, core::TankUse::Traces); });
  oneStep("made up with rain, distilled or membrane water", [&] { stock.setMadeWithPure(0); });
  WaterEdits(editor).addSource("Rain");
  oneStep("made up with Rain", [&] { stock.setMadeWithSource(0, 1, "Rain"); });
  oneStep("vessel of the tank", [&] { stock.setVesselShape(0, core::VesselShape::Round); });
  stock.setVesselShape(0, core::VesselShape::Rectangular);
  stock.setVesselAcross(0, "40");
  stock.setVesselAlong(0, "60");
  stock.setVesselHeight(0, "55");
  EXPECT_EQ(stock.vessel(0).along, "60");
  oneStep("vessel not known", [&] { stock.setVesselUnknown(0); });
  oneStep("mixed on 2026-11-02", [&] { stock.setMixedOn("2026-11-02"); });
  stock.setMixedOn("2026-11-02");
  editor.endMerging();
  oneStep("day of mixing taken out", [&] { stock.setMixedOn(""); });
}

TEST_F(EditsTest, AStrengthIsTheSameInWhateverFormItIsStated) {
  StockEdits stock(editor);
  const double before = editor.document().given.stock.factor;
  for (int form = 0; form < core::ratioFormCount; ++form) {
    stock.setForm(static_cast<core::RatioForm>(form));
    EXPECT_EQ(stock.form(), static_cast<core::RatioForm>(form));
    EXPECT_NEAR(editor.document().given.stock.factor, before, 0.005 * before) << stock.strength();
    stock.setFactor(128);
    EXPECT_NEAR(editor.document().given.stock.factor, 128, 0.3) << stock.strength();
    stock.setFactor(before);
  }
}

TEST_F(EditsTest, ASourcesNameFormsAndTreatment) {
  WaterEdits water(editor);
  oneStep("water named “Roof”", [&] { water.setName(0, "Roof"); });
  water.setReported(0, "SO4", "30", "mg/L");
  const double before = editor.answer().waters.water.milligramsPerLitre.of(Nutrient::S);
  water.setStatedAs(0, "SO4", "S");
  EXPECT_TRUE(water.reported(0, "S"));
  EXPECT_FALSE(water.reported(0, "SO4"));
  EXPECT_NEAR(editor.answer().waters.water.milligramsPerLitre.of(Nutrient::S) / before, 96.06 / 32.06, 0.02)
      << "the same figure says three times as much";
  water.setStatedAs(0, "never there", "S");
  water.addSource("Second");
  water.setReported(1, "Ca", "80", "mg/L");
  water.setReported(1, "HCO3", "244", "mg/L");
  water.setTreatment(1, SourceTreatment::Membrane);
  oneStep("rejection of the membrane to 94 %", [&] { water.setMembraneRejection(1, "94"); });
  oneStep("recovery of the membrane to 40 %", [&] { water.setMembraneRecovery(1, "40"); });
  oneStep("membrane holds back 88 % of sodium", [&] { water.setIonRejection(1, Nutrient::Na, "88"); });
  EXPECT_EQ(water.membraneRejection(1), "97");
  EXPECT_EQ(water.membraneRecovery(1), "50");
  water.setTreatment(1, SourceTreatment::Softener);
  oneStep("softener leaves 0.4 meq/L", [&] { water.setSoftenerLeaves(1, "0.4"); });
  water.setTreatment(1, SourceTreatment::None);
  EXPECT_EQ(water.softenerLeaves(1), "");
}

TEST_F(EditsTest, RatiosAndCropsOfATarget) {
  TargetEdits target(editor);
  target.addRatio({{Nutrient::K}, {Nutrient::Ca}, 1.5, core::RatioBasis::Mass, 10, 1}, "K : Ca");
  const auto last = target.ratios().size() - 1;
  oneStep("band of the ratio to ±6 %", [&] { target.setRatioTolerance(last, "6"); });
  oneStep("ratio to 1.7", [&] { target.setRatioValue(last, "1.7"); });
  const auto before = target.ratios().size();
  target.removeRatio(last);
  EXPECT_EQ(target.ratios().size(), before - 1);
  target.setFigure(Nutrient::Cl, {"12", "mg/L"});
  ASSERT_TRUE(target.row(Nutrient::Cl)) << "a row that was not there";
  EXPECT_EQ(target.row(Nutrient::Cl)->tolerancePercent, "5");
  target.setFigure(Nutrient::Si, {"10", "mg/L"});
  EXPECT_EQ(target.row(Nutrient::Si)->figure.digits, "10");
}

TEST_F(EditsTest, FiguresComeBackAsTheyWereTyped) {
  TargetEdits target(editor);
  target.setFigure(Nutrient::Mg, {"1.10", "mmol/L"});
  EXPECT_EQ(target.row(Nutrient::Mg)->figure, (exchange::Amount{"1.10", "mmol/L"}));
  target.moveTo(Nutrient::Mg, 30);
  EXPECT_EQ(target.row(Nutrient::Mg)->figure.unit, "mmol/L") << "dragged, it stays in its own unit";
  EXPECT_NEAR(editor.document().given.request.rows[5].milligramsPerLitre, 30, 0.2);
  FormulaEdits(editor).setBatch({"12.50", "gal_us"});
  EXPECT_EQ(FormulaEdits(editor).batch(), (exchange::Amount{"12.50", "gal_us"}));
  StockEdits stock(editor);
  stock.setDosing("readings/1/ec", {"1.58", "mS/cm"});
  EXPECT_EQ(stock.dosing("readings/1/ec").digits, "1.58");
  stock.setDosing("readings/1/ec", {});
  EXPECT_TRUE(stock.dosing("readings/1/ec").isEmpty());
  WaterEdits water(editor);
  water.setReported(0, "Ca", "<80.0", "mg/L");
  EXPECT_TRUE(water.reported(0, "Ca")->below);
  EXPECT_EQ(water.reported(0, "Ca")->figure.digits, "80.0");
}

TEST_F(EditsTest, WhatDoesNotReadOrComputeChangesNothingAndIsKeptNowhere) {
  WaterEdits(editor).addSource("Rain");
  const exchange::Json before = editor.json();
  QString refused;
  QObject::connect(&editor, &FormulaEditor::refused, [&](const QString& words) { refused = words; });
  StockEdits(editor).setStrength("-3");
  EXPECT_FALSE(refused.isEmpty());
  refused.clear();
  WaterEdits(editor).setShares({0, 0}, false); // reads, but no water comes of it
  EXPECT_FALSE(refused.isEmpty()) << "the blend needs a share above 0";
  EXPECT_EQ(editor.json(), before);
  EXPECT_EQ(editor.undoWords(), "a source added") << "no step was kept of what was refused";
}

} // namespace
} // namespace butte::app
