#include "document/formula_editor.h"
#include "document/formula_file.h"
#include "print/sheet_text.h"
#include "services/units_shown.h"
#include "support/told.h"
#include "typed_numbers.h"
#include "window_fixture.h"

#include <QAbstractButton>
#include <QSignalSpy>
#include <QTextDocument>

using ::testing::HasSubstr;
using ::testing::Not;

namespace butte::app {
namespace {

exchange::Json demo() {
  return *readFormulaFile(":/demo/ormsey.json");
}

struct Units {
  QTemporaryDir folder;
  QSettings settings{folder.filePath("s.ini"), QSettings::IniFormat};
  UnitsShown shown{settings};
};

std::string sheetOf(const FormulaEditor& editor, const UnitsShown& units) {
  QTextDocument document;
  document.setHtml(benchSheetHtml(editor, units, dateOnSheet(QDate(2026, 3, 2))));
  return document.toPlainText().toStdString();
}

} // namespace

TEST(Editor, AnEditIsAnnouncedOnceAndTakenBackOnce) {
  FormulaEditor editor;
  editor.load(demo());
  QSignalSpy changed(&editor, &FormulaEditor::changed);
  EXPECT_FALSE(editor.set(told("strength"), "/stock/factor", "120"));
  EXPECT_EQ(changed.count(), 1);
  EXPECT_EQ(editor.undoWords(), "strength");
  editor.undo();
  EXPECT_EQ(editor.json(), demo());
  EXPECT_EQ(editor.redoWords(), "strength");
}

TEST(Editor, KeysInOneFieldMergeUntilTheFieldIsLeft) {
  FormulaEditor editor;
  editor.load(demo());
  for (const char* digits : {"1", "12", "120"})
    editor.set(told("strength"), "/stock/factor", digits, true);
  editor.endMerging();
  editor.set(told("strength"), "/stock/factor", "130", true);
  editor.undo();
  EXPECT_EQ(editor.json()["stock"]["factor"], "120");
  editor.undo();
  EXPECT_EQ(editor.json()["stock"]["factor"], "100");
  EXPECT_FALSE(editor.canUndo());
}

TEST(Editor, ANewEditAfterUndoDropsWhatCouldBeDoneAgain) {
  FormulaEditor editor;
  editor.load(demo());
  editor.set(told("a"), "/stock/factor", "120");
  editor.undo();
  editor.set(told("b"), "/stock/factor", "130");
  EXPECT_FALSE(editor.canRedo());
}

TEST(Editor, ARefusedEditChangesNothingAndSaysWhy) {
  FormulaEditor editor;
  editor.load(demo());
  QSignalSpy refused(&editor, &FormulaEditor::refused);
  EXPECT_TRUE(editor.set(told("nonsense"), "/stock/factor", "-3"));
  EXPECT_EQ(refused.count(), 1);
  EXPECT_EQ(editor.json(), demo());
  EXPECT_FALSE(editor.canUndo());
}

TEST(Editor, AnEditThatChangesNothingIsNoStep) {
  FormulaEditor editor;
  editor.load(demo());
  EXPECT_FALSE(editor.set(told("same"), "/stock/factor", "100"));
  EXPECT_FALSE(editor.canUndo());
}

TEST(Units, TextsCarryTheirUnitAndSensibleDigits) {
  Units units;
  auto& u = units.shown;
  EXPECT_EQ(u.text(core::Mass::fromGrams(1253)), "1.253 kg");
  EXPECT_EQ(u.text(core::Mass::fromGrams(62.63)), "62.6 g");
  EXPECT_EQ(u.text(core::Volume::fromLitres(20000)), "20.0 m³");
  EXPECT_EQ(u.dose(10), "10.0 mL per L");
  EXPECT_EQ(u.text(core::Conductivity::fromMilliSiemensPerCm(1.667)), "1.67 mS/cm");
  u.setMass(MassShown::Pounds);
  u.setVolume(VolumeShown::UsGallons);
  u.setConductivity(ConductivityShown::Ppm500);
  EXPECT_EQ(u.text(core::Mass::fromPounds(31.4)), "31.4 lb");
  EXPECT_EQ(u.text(core::Volume::fromUsGallons(50)), "50.0 US gal");
  EXPECT_EQ(u.text(core::Conductivity::fromMilliSiemensPerCm(1.3)), "650 ppm (500)");
  u.setVolume(VolumeShown::ImperialGallons);
  EXPECT_EQ(u.dose(10), "45.5 mL per imp gal");
}

TEST(Units, TheChoiceIsRemembered) {
  Units units;
  units.shown.setMass(MassShown::Ounces);
  const UnitsShown again(units.settings);
  EXPECT_EQ(again.mass(), MassShown::Ounces);
}

TEST(Sheet, SaysWhatABenchNeeds) {
  Units units;
  FormulaEditor editor;
  editor.load(demo());
  auto tanks = editor.json()["stock"]["tanks"];
  tanks.erase(2); // no acid tank: the acid is given apart
  ASSERT_FALSE(editor.set(told(""), "/stock/tanks", tanks));
  const auto sheet = sheetOf(editor, units.shown);
  for (const char* part : {"Tank A", "Tank B", "make up to 200 L", "calcium nitrate", "in this order",
                           "actual", "Begin with 100 L of water", "first 70 %", "57.5 mL", "10.0 mL per L",
                           "EC 1.67 mS/cm", "pH about 5.8", "20.0 m³", "Acid into water", "safety data sheet",
                           "fertility", "Oxidiser", "weighed by"})
    EXPECT_THAT(sheet, HasSubstr(part));
}

TEST(Sheet, SaysWhatAcidTheFeedStillNeedsOnlyWhereAPenWouldSeeIt) {
  Units units;
  FormulaEditor editor;
  editor.load(demo());
  EXPECT_THAT(sheetOf(editor, units.shown), Not(HasSubstr("To pH 5.8"))); // it stands there
  editor.set(told(""), "/alkalinity_left", exchange::amountJson("1.2", "meq/L"));
  const auto sheet = sheetOf(editor, units.shown);
  EXPECT_THAT(sheet, HasSubstr("To pH 5.8: about"));
  EXPECT_THAT(sheet, HasSubstr("mL of nitric acid 60 %"));
}

TEST(Sheet, PhosphateComesBeforeTheTracesAndTheChelateEndsItsTank) {
  Units units;
  FormulaEditor editor;
  editor.load(demo());
  const auto sheet = sheetOf(editor, units.shown);
  EXPECT_LT(sheet.find("monopotassium phosphate"), sheet.find("zinc sulfate"));
  EXPECT_LT(sheet.find("calcium nitrate"), sheet.find("iron DTPA"));
}

TEST(Sheet, NamesTheTanksAsTheGrowerDoes) {
  Units units;
  FormulaEditor editor;
  editor.load(demo());
  editor.set(told("name"), "/stock/tanks/0/name", "left");
  EXPECT_THAT(sheetOf(editor, units.shown), HasSubstr("Tank left — calcium side"));
}

TEST(Sheet, ACautionOnlyForWhatIsInIt) {
  Units units;
  FormulaEditor editor;
  editor.load(demo());
  editor.set(told("no boron"), "/shelf/9/on", false);
  EXPECT_THAT(sheetOf(editor, units.shown), Not(HasSubstr("fertility")));
}

TEST(Sheet, MarkupInNamesStaysText) {
  Units units;
  FormulaEditor editor;
  editor.load(demo());
  editor.set(told("name"), "/name", "<b>odd</b> & <script>");
  EXPECT_THAT(sheetOf(editor, units.shown), HasSubstr("<b>odd</b> & <script>"));
}

/// Every control a hand or a screen reader can reach must say what it is.
TEST_F(WindowTest, EveryControlHasAName) {
  for (auto* widget : window->findChildren<QWidget*>()) {
    if (!widget->isVisibleTo(window.get()) || (widget->focusPolicy() & Qt::TabFocus) == 0) continue;
    if (widget->inherits("QScrollArea") || widget->inherits("QTextBrowser") || widget->inherits("QLabel"))
      continue;
    const auto text = widget->property("text").toString();
    EXPECT_FALSE(widget->accessibleName().isEmpty() && text.isEmpty())
        << widget->metaObject()->className() << " " << widget->objectName().toStdString();
  }
}

TEST_F(WindowTest, TheWindowFitsASmallScreen) {
  EXPECT_LE(window->minimumSizeHint().width(), 1280);
  EXPECT_LE(window->minimumSizeHint().height(), 740); // a 768-line laptop with a bar
}

TEST_F(WindowTest, TheLineTellsTheStateInWords) {
  auto* formula = find<QAbstractButton>("station3");
  EXPECT_THAT(formula->accessibleName().toStdString(), HasSubstr("2 off the band"));
  EXPECT_THAT(formula->accessibleName().toStdString(), HasSubstr("needs attention"));
  QTest::mouseClick(find<QAbstractButton>("on_an"), Qt::LeftButton);
  EXPECT_THAT(formula->accessibleName().toStdString(), HasSubstr("all elements in band"));
}

TEST_F(WindowTest, AnEmptyFormulaTeachesTheFirstStep) {
  window->files().newFormula();
  EXPECT_THAT(find<QLabel>("reasons")->text().toStdString(), HasSubstr("Choose a target"));
}

} // namespace butte::app
