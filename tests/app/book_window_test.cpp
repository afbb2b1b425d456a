// The window and its book: kept as one types, taken back after a night, found, two windows, first start.
#include "services/units_shown.h"
#include "support/told.h"
#include "window_fixture.h"

#include "target/scale_target.h"

#include "book/book_json.h"
#include "book/open_book.h"
#include "window/finder.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QDir>
#include <QDropEvent>
#include <QListWidget>
#include <QMimeData>

using ::testing::HasSubstr;

namespace butte::app {

TEST_F(WindowTest, WhatIsTypedIsKeptWithoutSavingAndUndoneAfterANight) {
  const auto before = editor().json();
  type("stockFactor", "150");
  press(Qt::Key_Tab);
  window.reset(); // no question, no save
  reopenWindow();
  EXPECT_EQ(editor().json()["stock"]["factor"], "150");
  EXPECT_EQ(editor().undoWords(), "stock strength to 150") << "the step's own words";
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(editor().json(), before);
  press(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(editor().json()["stock"]["factor"], "150");
}

TEST_F(WindowTest, TheMarkSaysWhenAllIsKept) {
  auto* mark = find<QLabel>("keptMark");
  window->showStation(Station::Stocks);
  QTest::qWait(50); // painted once: what follows is the typing alone
  type("stockFactor", "150");
  EXPECT_THAT(mark->text().toStdString(), HasSubstr("keeping"));
  EXPECT_TRUE(QTest::qWaitFor([&] { return mark->text().contains("kept"); }, 3000))
      << mark->text().toStdString();
}

TEST_F(WindowTest, UndoLeadsToTheFormulaItWasDoneIn) {
  const auto first = window->desk().inHand();
  type("stockFactor", "150");
  window->files().newFormula();
  ASSERT_NE(window->desk().inHand(), first);
  editor().undo(); // the new formula itself
  QApplication::processEvents();
  editor().undo();
  QApplication::processEvents();
  EXPECT_EQ(window->desk().inHand(), first);
  EXPECT_EQ(editor().json()["stock"]["factor"], "100");
}

TEST_F(WindowTest, ADeletedFormulaLiesInTheBinAndComesBack) {
  const auto ref = window->desk().inHand();
  trigger("binFormula");
  QApplication::processEvents();
  EXPECT_NE(window->desk().inHand(), ref);
  reopenWindow();
  EXPECT_EQ(book().store().bin()->size(), 1u);
  press(Qt::Key_Z, Qt::ControlModifier);
  QApplication::processEvents();
  EXPECT_EQ(window->desk().inHand(), ref) << "taken back, and shown";
  EXPECT_TRUE(book().store().bin()->empty());
}

TEST_F(WindowTest, ASecondWindowOnlyLooksAndSaysWhoWrites) {
  QSettings other(folder.filePath("other.ini"), QSettings::IniFormat);
  MainWindow second(other, folder.filePath("other"));
  ASSERT_FALSE(second.desk().openBook(bookPath()));
  second.show();
  auto* banner = second.findChild<QLabel*>("bookBanner");
  EXPECT_TRUE(banner->isVisible());
  EXPECT_THAT(banner->text().toStdString(), HasSubstr("has it open since"));
  EXPECT_EQ(second.editor().json(), editor().json());
  EXPECT_TRUE(second.editor().set(told("x"), "/stock/factor", "150"));
  EXPECT_EQ(second.editor().json()["stock"]["factor"], "100") << "refused";
  type("stockFactor", "170");
  press(Qt::Key_Tab);
  ASSERT_FALSE(book().flush());
  second.books().lookAgain();
  EXPECT_EQ(second.editor().json()["stock"]["factor"], "170") << "a new look";
}

TEST_F(WindowTest, ControlKFindsThingsCommandsAndHelp) {
  press(Qt::Key_K, Qt::ControlModifier);
  auto* finder = find<Finder>("finder");
  ASSERT_TRUE(finder->isVisible());
  QTest::keyClicks(find<QLineEdit>("finderText"), "ormsey");
  EXPECT_THAT(finder->shownNames().value(0).toStdString(), HasSubstr("Ormsey Glass"));
  press(Qt::Key_Escape);
  EXPECT_FALSE(finder->isVisible());
  press(Qt::Key_K, Qt::ControlModifier);
  QTest::keyClicks(find<QLineEdit>("finderText"), "ounces");
  EXPECT_EQ(finder->shownNames().mid(0, 2),
            (QStringList{"Weights in ounces", "Weights in pounds and ounces"}));
  press(Qt::Key_Return);
  EXPECT_EQ(window->units().mass(), MassShown::Ounces) << "the command was done";
  press(Qt::Key_K, Qt::ControlModifier);
  QTest::keyClicks(find<QLineEdit>("finderText"), "swallows");
  press(Qt::Key_Return);
  EXPECT_TRUE(find<QLabel>("finderHelp")->isVisible());
  EXPECT_THAT(find<QLabel>("finderHelp")->text().toStdString(), HasSubstr("Alkalinity"));
}

TEST_F(WindowTest, ControlKTakesAFormulaInHand) {
  const auto demo = window->desk().inHand();
  window->files().newFormula();
  press(Qt::Key_K, Qt::ControlModifier);
  QTest::keyClicks(find<QLineEdit>("finderText"), "strawb fruit");
  press(Qt::Key_Return);
  EXPECT_EQ(window->desk().inHand(), demo);
}

TEST_F(WindowTest, DroppedOnTheWindowABookOpensAndAFormulaComesIn) {
  auto other = book::createBook(folder.filePath("other.butte").toStdString(), "Other farm");
  ASSERT_TRUE(static_cast<bool>(other));
  std::move(other).value().reset();
  const auto drop = [&](const QString& path) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(path)});
    QDragEnterEvent enter({50, 50}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window.get(), &enter);
    QDropEvent event({50, 50}, Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window.get(), &event);
  };
  drop(folder.filePath("other.butte"));
  EXPECT_EQ(book().farm(), "Other farm");
  QFile::copy(":/demo/ormsey.json", folder.filePath("f.butte.json"));
  drop(folder.filePath("f.butte.json"));
  EXPECT_THAT(editor().document().name, HasSubstr("Ormsey"));
  drop(folder.filePath("f.butte.json") + "x");
  EXPECT_EQ(troubles.size(), 1) << "what is not there is said";
  EXPECT_EQ(window->desk().recentBooks().size(), 2);
}

TEST_F(WindowTest, ABrokenBookIsRefusedAndTheOpenOneStays) {
  QFile bad(folder.filePath("bad.butte"));
  ASSERT_TRUE(bad.open(QIODevice::WriteOnly));
  bad.write("no book at all, but long enough to be looked at");
  bad.close();
  const auto before = editor().json();
  EXPECT_FALSE(window->books().openBook(bad.fileName()));
  ASSERT_EQ(troubles.size(), 1);
  EXPECT_THAT(troubles[0].toStdString(), HasSubstr("not a farm book"));
  EXPECT_EQ(editor().json(), before);
  type("stockFactor", "150");
  EXPECT_EQ(editor().json()["stock"]["factor"], "150") << "the open book goes on";
}

TEST_F(WindowTest, TheFirstStartEndsInAWorkingFormula) {
  bareWindow();
  QFile::remove(bookPath());
  settings->clear();
  window->books().start(false, {});
  showWindow();
  EXPECT_TRUE(find<QAbstractButton>("firstMake")->isVisible());
  auto* crop = find<QComboBox>("firstCrop");
  crop->setCurrentIndex(crop->findText("lettuce", Qt::MatchContains));
  type("firstEc", "0.4");
  type("firstAlkalinity", "120");
  type("firstWho", "kl");
  click("firstMake");
  EXPECT_FALSE(find<QAbstractButton>("firstMake")->isVisible());
  EXPECT_GT(editor().answer().feed.conductivity.milliSiemensPerCm(), 0.8);
  std::size_t weighed = 0;
  for (const auto& mass : editor().answer().solution.grams)
    weighed += mass.grams() > 0;
  EXPECT_GE(weighed, 8u) << "a formula that can be weighed";
  EXPECT_EQ(window->desk().initials(), "kl");
  EXPECT_EQ(editor().document().crop.find("lettuce"), 0u);
  EXPECT_TRUE(QFile::exists(window->desk().firstBookPath()));
}

// One or a few gallons are mixed in the jug itself; tanks are for more (common practice).
TEST_F(WindowTest, AFirstFormulaOfAJugGoesStraightIntoIt) {
  bareWindow();
  QFile::remove(bookPath());
  settings->clear();
  window->books().start(false, {});
  showWindow();
  window->units().setVolume(VolumeShown::UsGallons);
  type("firstBatch", "5");
  click("firstMake");
  ASSERT_TRUE(editor().answer().direct.has_value());
  EXPECT_NEAR(editor().document().given.request.volume.usGallons(), 5, 1e-9);
  window->showStation(Station::Stocks);
  QApplication::processEvents();
  EXPECT_TRUE(find<QWidget>("directVessel")->isVisible());
}

TEST_F(WindowTest, ALettuceComesOutAsStrongAsTheSeasonWants) {
  bareWindow();
  QFile::remove(bookPath());
  settings->clear();
  window->books().start(false, {});
  showWindow();
  window->units().setConductivity(ConductivityShown::Ppm500);
  auto* crop = find<QComboBox>("firstCrop");
  crop->lineEdit()->selectAll();
  QTest::keyClicks(crop->lineEdit(), "dutch substrate feed, lettuce"); // any part of its name
  press(Qt::Key_Escape);                                               // the list of what fits
  auto* strength = find<QComboBox>("firstStrength");
  crop->setCurrentIndex(crop->findText("Dutch substrate feed, lettuce", Qt::MatchContains));
  ASSERT_GT(strength->count(), 1);
  EXPECT_GT(strength->currentIndex(), 0) << "its own 2.9 mS/cm is no lettuce's";
  EXPECT_TRUE(strength->currentText().contains("ppm (500)")) << strength->currentText().toStdString();
  strength->setCurrentIndex(strength->findText("summer", Qt::MatchContains));
  const double wanted = strength->currentData().toDouble();
  ASSERT_GT(wanted, 0.8);
  type("firstEc", "250"); // ppm
  type("firstPh", "7.5");
  click("firstMake");
  EXPECT_NEAR(editor().document().given.waterPlan->parts[0].report.conductivityMsPerCm.value_or(0), 0.5,
              1e-9);
  EXPECT_NEAR(editor().document().given.waterPlan->parts[0].report.ph.value_or(0), 7.5, 1e-9);
  const auto ec = core::conductivityOfTarget(editor().document().given.request.rows, 0);
  ASSERT_TRUE(ec);
  EXPECT_NEAR(*ec, wanted, 0.02);
}

TEST_F(WindowTest, TheFirstStepsHaveAWayBackAndASortedList) {
  window->showFirstStart();
  const auto* crop = find<QComboBox>("firstCrop");
  for (int i = 1; i < crop->count(); ++i)
    EXPECT_LE(QString::localeAwareCompare(crop->itemText(i - 1), crop->itemText(i)), 0);
  EXPECT_LT(crop->findText("general · general", Qt::MatchContains), 0);
  find<QLineEdit>("firstWho")->setFocus();
  press(Qt::Key_Escape);
  QApplication::processEvents();
  EXPECT_FALSE(find<QAbstractButton>("firstMake")->isVisible());
  window->showFirstStart();
  find<QComboBox>("firstCrop")->setEditText("triffid");
  click("firstMake");
  EXPECT_TRUE(find<QAbstractButton>("firstMake")->isVisible()) << "there is no such crop";
}

TEST_F(WindowTest, ANewFormulaBeginsWithTheFarmsOwnWaterShelfAndBatch) {
  type("weight_kno3", "400"); // held
  const auto before = editor().json();
  window->files().newFormula();
  const auto& now = editor().json();
  for (const auto* key : {"water", "batch", "scales", "alkalinity_left"})
    EXPECT_EQ(now[key], before[key]) << key;
  ASSERT_EQ(now["shelf"].size(), before["shelf"].size());
  for (const auto& entry : now["shelf"])
    EXPECT_FALSE(entry.contains("held")) << entry["id"];
  EXPECT_TRUE(now["target"]["rows"].empty());
  EXPECT_FALSE(now.contains("crop"));
}

TEST_F(WindowTest, TheSampleBookIsOneClickAwayAndMarked) {
  window->showFirstStart();
  click("firstSample");
  EXPECT_TRUE(window->desk().isSample());
  EXPECT_THAT(find<QLabel>("bookBanner")->text().toStdString(), HasSubstr("SAMPLE"));
  EXPECT_GT(book().store().counts()->batches, 50);
  const auto newest = book().store().batches({}, std::nullopt, 1);
  EXPECT_LT(book::Moment::now().seconds - newest->front().at.seconds, 3 * 86400)
      << "the sample is always of these days";
  EXPECT_FALSE(window->desk().recentBooks().contains(window->desk().path()))
      << "the grower's own book stays the one that opens";
}

TEST_F(WindowTest, TheWholeBookGoesIntoAFileAndBecomesABookAgain) {
  type("stockFactor", "150");
  const auto json = folder.filePath("all.json");
  ASSERT_TRUE(window->books().writeJsonTo(json));
  ASSERT_TRUE(window->books().bookFromJsonFile(json, folder.filePath("again.butte")))
      << (troubles.isEmpty() ? "" : troubles[0].toStdString());
  EXPECT_EQ(editor().json()["stock"]["factor"], "150");
  EXPECT_EQ(window->desk().path(), folder.filePath("again.butte"));
  editor().undo();
  EXPECT_EQ(editor().json()["stock"]["factor"], "100") << "undo came along";
}

TEST_F(WindowTest, TheShippedFiguresAProductHadStayInTheFormula) {
  const auto& shelf = editor().json()["shelf"];
  ASSERT_TRUE(shelf[0].contains("as_shipped"));
  EXPECT_EQ(shelf[0]["as_shipped"]["formula"], "5Ca(NO3)2·NH4NO3·10H2O");
  auto changed = editor().json();
  changed["shelf"][1]["as_shipped"]["purity_percent"] =
      "50"; // as if the catalogue had said so when it was taken
  const double before = grams("kno3");
  ASSERT_FALSE(editor().set(told("other figures"), "/shelf", changed["shelf"]));
  EXPECT_GT(grams("kno3"), 1.5 * before) << "the formula goes by what it carries, not by today's catalogue";
}

// What growers call things: common practice.
TEST_F(WindowTest, TheFinderKnowsTheNamesThatGrowersUse) {
  auto* finder = find<Finder>("finder");
  const std::pair<const char*, const char*> known[] = {{"epsom", "magnesium sulfate"},
                                                       {"vinegar", "vinegar: acetic acid 5 %"},
                                                       {"battery acid", "battery acid: sulfuric acid 37 %"},
                                                       {"bleach", "Bleach is no pH tool"},
                                                       {"teaspoon", "Teaspoons, drops and fluid ounces"},
                                                       {"recipe", "Recipe, formula, feed chart"},
                                                       {"misprint", "A misprint in a recipe"}};
  for (const auto& [typed, wanted] : known) {
    window->findText(typed);
    EXPECT_TRUE(finder->shownNames().join("|").contains(wanted))
        << typed << ": " << finder->shownNames().join("|").toStdString();
  }
  window->findText("help ");
  EXPECT_GT(finder->shownNames().size(), 40) << "all there is";
}

TEST_F(WindowTest, TheFinderPutsAShippedProductOnTheShelf) {
  takeEmptyFormula();
  press(Qt::Key_K, Qt::ControlModifier);
  QTest::keyClicks(find<QLineEdit>("finderText"), "KNO3");
  ASSERT_FALSE(find<Finder>("finder")->shownNames().isEmpty());
  EXPECT_EQ(find<Finder>("finder")->shownNames().front(), "potassium nitrate");
  press(Qt::Key_Return);
  ASSERT_EQ(editor().document().products.size(), 1u);
  EXPECT_TRUE(editor().json()["shelf"][0].contains("as_shipped"));
  editor().undo();
  EXPECT_TRUE(editor().document().products.empty());
}

TEST_F(WindowTest, ClosingIsNoQuestionWhenAllIsKept) {
  type("stockFactor", "150");
  EXPECT_TRUE(window->close());
  reopenWindow();
  EXPECT_EQ(editor().json()["stock"]["factor"], "150");
}

TEST_F(WindowTest, UndoMayKeepToTheFormulaInHand) {
  type("batch", "500");
  editor().endMerging();
  auto& book = window->desk().book();
  const auto volume = [&] { return editor().document().given.request.volume; };
  const auto typedVolume = volume();
  const auto vessel = book.create(book::Kind::Vessel, book::Json{{"name", "Rain butt"}},
                                  {core::DeedCode::Told, {"a vessel"}});
  ASSERT_TRUE(static_cast<bool>(vessel));
  trigger("undoHere");
  trigger("undo"); // nothing is asked: the water is not touched
  EXPECT_NE(volume(), typedVolume);
  EXPECT_FALSE((*book.record(*vessel))->binnedAt) << "the vessel stays";
  trigger("redo");
  EXPECT_EQ(volume(), typedVolume);
  window->showStation(Station::Book); // there all counts, by time
  trigger("undo");
  EXPECT_TRUE((*book.record(*vessel))->binnedAt);
  window->showStation(Station::Formula);
  trigger("undoHere");
}

/// Another file in the book's place: what can't be taken back is not said to be.
TEST_F(WindowTest, AnUndoThatIsRefusedIsNotSaidToBeDone) {
  type("batch", "500");
  ASSERT_FALSE(window->desk().book().flush());
  const auto other = folder.filePath("other.butte");
  ASSERT_TRUE(QFile::copy(bookPath(), other));
  ASSERT_EQ(std::rename(other.toStdString().c_str(), bookPath().toStdString().c_str()), 0);
  QStringList said;
  QObject::connect(&editor(), &FormulaEditor::refused, [&](const QString& words) { said << words; });
  EXPECT_FALSE(editor().undo());
  ASSERT_EQ(said.size(), 1);
  EXPECT_THAT(said[0].toStdString(), ::testing::HasSubstr("another file is in its place"));
  trigger("undo");
  EXPECT_EQ(said.size(), 2);
  for (const auto* label : window->findChildren<QLabel*>())
    EXPECT_THAT(label->text().toStdString(), ::testing::Not(::testing::HasSubstr("Undone")));
}

} // namespace butte::app
