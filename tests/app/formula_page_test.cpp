/// The formula as an instrument: bands by hand, aims, mends tried and taken, a second formula laid over.
#include "edits/shelf_edits.h"
#include "edits/stock_edits.h"
#include "mends/mend_finder.h"
#include "print/stage_card.h"
#include "support/told.h"
#include "typed_numbers.h"
#include "window_fixture.h"

#include <QCheckBox>
#include <QComboBox>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QSignalSpy>

namespace butte::app {

using core::Nutrient;
using ::testing::HasSubstr;
using ::testing::Not;

class FormulaPageTest : public WindowTest {
protected:
  /// What was solved: the request with the water that the sources came to.
  core::SolveRequest solved() {
    auto request = editor().document().given.request;
    request.water = editor().answer().waters.water;
    return request;
  }

  std::string label(const QString& name) { return find<QLabel>(name)->text().toStdString(); }

  void choose(const QString& name, const QString& entry) {
    auto* box = find<QComboBox>(name);
    box->showPopup(); // lists are looked up when opened
    box->hidePopup();
    const int index = box->findText(entry);
    ASSERT_GE(index, 0) << entry.toStdString();
    box->setCurrentIndex(index);
    emit box->activated(index);
  }

  void drag(QPoint from, QPoint to) {
    auto* lanes = window->findChild<ElementLanes*>();
    QTest::mousePress(lanes, Qt::LeftButton, {}, from);
    QTest::mouseMove(lanes, (from + to) / 2);
    QTest::mouseMove(lanes, to);
    QTest::mouseRelease(lanes, Qt::LeftButton, {}, to);
    QApplication::processEvents();
  }

  const core::TargetRow& row(Nutrient nutrient) {
    for (const auto& r : editor().document().given.request.rows) {
      if (r.nutrient == nutrient) return r;
    }
    ADD_FAILURE();
    return editor().document().given.request.rows.front();
  }

  bool waitForMends() {
    return QTest::qWaitFor([&] { return !window->mends().offers().empty(); }, 10000);
  }
};

// Common practice: a held recipe is made weaker with its weights' proportions kept; a meter then reads in
// proportion but for the water, and a little more, for thin solutions conduct better.
TEST_F(FormulaPageTest, HalfStrengthIsHalfOfAllWeightsByOnePress) {
  type("weight_kno3", "300");
  type("weight_epsom", "200");
  const double target = editor().document().given.request.rows[0].milligramsPerLitre;
  trigger("strengthHalf");
  EXPECT_NEAR(grams("kno3"), 150, 1e-9);
  EXPECT_NEAR(grams("epsom"), 100, 1e-9);
  EXPECT_NEAR(editor().document().given.request.rows[0].milligramsPerLitre, target / 2, 0.01);
  EXPECT_EQ(editor().undoWords(), "50 % of the strength");
  editor().undo();
  EXPECT_NEAR(grams("kno3"), 300, 1e-9) << "one step";
}

TEST_F(FormulaPageTest, AHeldRecipeIsBroughtToAnEcWithItsProportionsKept) {
  const auto products = editor().document().products; // typing makes new ones
  for (const auto& product : products) {
    if (!product.on) continue;
    const auto found = editor().gramsOf(product.id);
    if (found && *found > core::Mass{})
      type("weight_" + QString::fromStdString(product.id), QString::number(found->grams(), 'g', 4));
  }
  const double before = grams("kno3"), other = grams("mkp");
  window->units().setConductivity(ConductivityShown::Ppm500);
  window->prompts().words = [](const QString&, const QString& label, const QString&) {
    EXPECT_TRUE(label.contains("ppm (500)"));
    return QString("700");
  };
  trigger("strengthToEc");
  EXPECT_NEAR(editor().answer().feed.conductivity.ppm500(), 700, 3);
  EXPECT_NEAR(grams("kno3") / before, grams("mkp") / other, 0.001);
  EXPECT_LT(grams("kno3"), before);
  window->prompts().words = [](const QString&, const QString&, const QString&) { return QString("20"); };
  trigger("strengthToEc");
  ASSERT_EQ(troubles.size(), 1) << "the water alone reads more";
}

// 115 g per 100 L stands on bags (common practice); in 10 US gal that is 43.5 g.
TEST_F(FormulaPageTest, ADoseByItsLabelsRateIsTypedAsSuch) {
  type("batch", "10 gal");
  type("weight_epsom", "115 g per 100 L");
  QApplication::processEvents();
  ASSERT_TRUE(editor().gramsOf("epsom"));
  EXPECT_NEAR(editor().gramsOf("epsom")->grams(), 1.15 * 37.85411784, 1e-3);
  type("weight_epsom", "115 g per 100 somethings");
  EXPECT_TRUE(find<NumberField>("weight_epsom")->isWrong());
  EXPECT_NEAR(editor().gramsOf("epsom")->grams(), 1.15 * 37.85411784, 1e-3) << "what stood before counts";
}

// A normal sheet and a boosted one of the same crop (common practice): what one stage has of its own stays
// its own, what the farm has is one.
TEST_F(FormulaPageTest, StagesOfACropShareTheWaterAndPartTheTarget) {
  auto* strip = find<QWidget>("stageStrip");
  EXPECT_FALSE(strip->isVisible()) << "no row for what is not there";
  QStringList answers{"normal", "boosted"};
  window->prompts().words = [&](const QString&, const QString&, const QString&) {
    return answers.takeFirst();
  };
  const auto before = editor().json();
  const auto wantedK = [&] {
    for (const auto& row : editor().document().given.request.rows)
      if (row.nutrient == core::Nutrient::K) return row.milligramsPerLitre;
    return 0.0;
  };
  const auto normalK = wantedK();
  trigger("addStage");
  QApplication::processEvents();
  ASSERT_TRUE(strip->isVisible());
  EXPECT_TRUE(find<QAbstractButton>("stage1")->isChecked());
  type("target_K", "300");
  type("batch", "500");
  click("stage0");
  QApplication::processEvents();
  EXPECT_EQ(wantedK(), normalK);
  EXPECT_EQ(editor().document().given.request.volume, core::Volume::fromLitres(500))
      << "one batch, one set of tanks";
  EXPECT_EQ(editor().undoWords(), "stage “normal” opened");

  // Laid over, to see what the other has more.
  auto* against = find<QComboBox>("compareWith");
  against->showPopup();
  against->hidePopup();
  const int at = against->findText("stage boosted");
  ASSERT_GE(at, 0);
  emit against->activated(at);
  ASSERT_TRUE(editor().overlay());
  EXPECT_GT(editor().overlay()->milligramsPerLitre.of(core::Nutrient::K), normalK + 30);

  const auto card = stageCardHtml(editor(), window->units(), "today").toStdString();
  for (const auto* wanted : {"normal", "boosted", "Tank A", "potassium nitrate", "EC to expect", "today"})
    EXPECT_THAT(card, ::testing::HasSubstr(wanted));
  EXPECT_LT(card.find("normal"), card.find("boosted"));

  answers = {"boosted", "second truss"}; // a name that is there already, then a good one
  click("stageAdd");
  EXPECT_EQ(editor().document().stages.size(), 2u);
  click("stageAdd");
  EXPECT_EQ(editor().document().stage, "second truss");
  for (int i = 0; i < 6 && editor().json() != before; ++i)
    editor().undo();
  EXPECT_EQ(editor().json(), before);
  QApplication::processEvents();
  EXPECT_FALSE(strip->isVisible());
}

// A stage that would harm the crop says so on the card too, though another one is in hand.
TEST_F(FormulaPageTest, TheCardWarnsOfTheStageThatIsNotInHand) {
  QStringList answers{"normal", "boosted"};
  window->prompts().words = [&](const QString&, const QString&, const QString&) {
    return answers.takeFirst();
  };
  trigger("addStage");
  QApplication::processEvents();
  const auto card = [&] { return stageCardHtml(editor(), window->units(), "today"); };
  EXPECT_FALSE(card().contains("Do not mix"));
  type("weight_h3bo3", "100 g"); // some 17 mg/L of boron
  ASSERT_FALSE(editor().answer().harmful.empty());
  click("stage0");
  ASSERT_TRUE(editor().answer().harmful.empty());
  EXPECT_TRUE(card().contains("Do not mix"));
  EXPECT_TRUE(card().contains("B harmful"));
}

TEST_F(FormulaPageTest, TheCardSaysTheDoseAsTheHandStatesIt) {
  QStringList answers{"normal", "boosted"};
  window->prompts().words = [&](const QString&, const QString&, const QString&) {
    return answers.takeFirst();
  };
  trigger("addStage");
  const auto card = [&] { return stageCardHtml(editor(), window->units(), "today").toStdString(); };
  EXPECT_THAT(card(), ::testing::HasSubstr("10.0 mL per L (1:100)"));
  StockEdits(editor()).setForm(core::RatioForm::MlPerUsGallon);
  EXPECT_THAT(card(), ::testing::HasSubstr("37.9 mL per US gal (1:100)"));
}

TEST_F(FormulaPageTest, ACardOfStagesIsOnePage) {
  QStringList answers{"normal", "boosted"};
  window->prompts().words = [&](const QString&, const QString&, const QString&) {
    return answers.takeFirst();
  };
  trigger("addStage");
  const auto path = folder.filePath("card.pdf");
  window->prompts().fileToMake = [&](const QString&, const QString& suggested, const QString&) {
    EXPECT_TRUE(suggested.endsWith("Ormsey Glass, strawberry fruiting - stages.pdf"))
        << suggested.toStdString();
    return path;
  };
  QApplication::processEvents();
  click("stageCard");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  EXPECT_EQ(file.readAll().count("/Type /Page\n"), 1);
}

TEST_F(FormulaPageTest, ACopyIsASiblingOfItsOwn) {
  type("target_K", "210");
  const auto original = window->desk().inHand();
  const auto before = editor().json();
  trigger("copyFormula");
  EXPECT_NE(window->desk().inHand(), original);
  EXPECT_TRUE(QString::fromStdString(editor().document().name).endsWith(", copy"));
  EXPECT_EQ(editor().json()["shelf"], before["shelf"]);
  type("target_K", "190");
  ASSERT_FALSE(window->desk().openFormula(original));
  EXPECT_EQ(editor().json()["target"], before["target"]);
}

TEST_F(FormulaPageTest, ABandIsDraggedAtItsEdgeAndUndoneInOneStep) {
  auto* lanes = window->findChild<ElementLanes*>();
  const double before = row(Nutrient::K).tolerancePercent;
  const auto edge = lanes->bandEdge(Nutrient::K);
  drag(edge, edge + QPoint(24, 0));
  EXPECT_GT(row(Nutrient::K).tolerancePercent, before + 1);
  EXPECT_THAT(editor().undoWords().toStdString(), HasSubstr("band"));
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(row(Nutrient::K).tolerancePercent, before);
}

TEST_F(FormulaPageTest, PlusAndMinusWidenAndNarrowTheBandOfTheLaneInFocus) {
  auto* lanes = window->findChild<ElementLanes*>();
  lanes->setFocus();
  const double before = row(Nutrient::NNitrate).tolerancePercent;
  QTest::keyClick(lanes, Qt::Key_Plus);
  QTest::keyClick(lanes, Qt::Key_Plus);
  EXPECT_DOUBLE_EQ(row(Nutrient::NNitrate).tolerancePercent, before + 1);
  QTest::keyClick(lanes, Qt::Key_Minus);
  EXPECT_DOUBLE_EQ(row(Nutrient::NNitrate).tolerancePercent, before + 0.5);
}

TEST_F(FormulaPageTest, AMendIsLookedAtThenTakenThenUndone) {
  const int off = core::offBands(solved(), editor().answer().solution.grams);
  ASSERT_GT(off, 0) << "the demo leaves bands";
  ASSERT_TRUE(waitForMends());
  const auto json = editor().json();
  click("mend0");
  ASSERT_TRUE(editor().overlay()) << "shown before it is taken";
  EXPECT_EQ(editor().json(), json) << "and nothing changed yet";
  click("mend0");
  EXPECT_FALSE(editor().overlay()) << "a second press takes it off again";
  click("mend0");
  click("takeMend0");
  EXPECT_FALSE(editor().overlay());
  EXPECT_LT(core::offBands(solved(), editor().answer().solution.grams), off);
  EXPECT_THAT(label("changeLine"), HasSubstr("Changed"));
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(editor().json(), json);
}

TEST_F(FormulaPageTest, EveryOfferedMendKeepsItsWordWhenTaken) {
  ASSERT_TRUE(waitForMends());
  const auto offers = window->mends().offers();
  ASSERT_GE(offers.size(), 3u);
  for (std::size_t i = 0; i < offers.size(); ++i) {
    ASSERT_TRUE(waitForMends());
    ASSERT_EQ(window->mends().offers().size(), offers.size());
    window->mends().take(static_cast<int>(i));
    EXPECT_EQ(core::offBands(solved(), editor().answer().solution.grams), offers[i].mend.offAfter)
        << offers[i].words.toStdString();
    editor().undo();
    QApplication::processEvents();
  }
}

TEST_F(FormulaPageTest, TheBandsFirstLeaveLessOffThanTheNearest) {
  const double nearest = editor().answer().solution.violation;
  choose("aimWay", "bands first");
  EXPECT_EQ(editor().document().given.request.require, core::Require::BandsFirst);
  EXPECT_LT(editor().answer().solution.violation, nearest);
  press(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(find<QComboBox>("aimWay")->currentText(), "come nearest");
}

TEST_F(FormulaPageTest, TheCheapestSaysWhichPriceIsMissing) {
  const auto at = std::to_string(editor().indexOf("kno3"));
  editor().set(told("no price"), "/shelf/" + at + "/price_per_kg", nullptr);
  choose("aimWay", "cheapest");
  EXPECT_THAT(label("solveState"), HasSubstr("no price: potassium nitrate"));
  for (std::size_t i = 0; i < editor().json()["shelf"].size(); ++i)
    editor().set(told("price"), "/shelf/" + std::to_string(i) + "/price_per_kg", "2");
  EXPECT_EQ(label("solveState"), "");
  EXPECT_EQ(editor().document().given.request.objective, core::Objective::Cheapest);
}

TEST_F(FormulaPageTest, FewProductsAreSearchedBehindTheWindowAndMarkedUntilFound) {
  type("aimAtMost", "7");
  EXPECT_TRUE(editor().isSearching());
  EXPECT_THAT(label("solveState"), HasSubstr("searching"));
  ASSERT_TRUE(QTest::qWaitFor([&] { return !editor().isSearching(); }, 20000));
  int used = 0;
  for (const auto& grams : editor().answer().solution.grams)
    used += grams > core::Mass{};
  EXPECT_LE(used, 7);
  EXPECT_GE(used, 5);
  type("aimAtMost", "");
  EXPECT_FALSE(editor().isSearching());
}

TEST_F(FormulaPageTest, ScaleStepsAreWholeAndNoWorseThanOneByOne) {
  QTest::mouseClick(find<QCheckBox>("aimSteps"), Qt::LeftButton, {},
                    QPoint(8, find<QCheckBox>("aimSteps")->height() / 2));
  ASSERT_TRUE(editor().document().aim.wholeSteps);
  const auto& rounded = editor().answer().rounded;
  ASSERT_TRUE(rounded);
  EXPECT_LE(rounded->misfit, rounded->oneByOne + 1e-12);
  // Some 260 g and 145 g: more than the fine scale takes, so in steps of the coarse one.
  const double coarse = editor().document().scales.back().readability.grams();
  ASSERT_NEAR(coarse, 5, 1e-9);
  for (const char* id : {"kno3", "sop", "mgn6"})
    EXPECT_NEAR(grams(id) / coarse, std::round(grams(id) / coarse), 1e-6) << id;
}

TEST_F(FormulaPageTest, AnotherWaterIsLaidOverAndTakenOffAgain) {
  choose("compareWith", "pure water instead");
  ASSERT_TRUE(editor().overlay());
  EXPECT_LT(editor().overlay()->milligramsPerLitre.of(Nutrient::Na),
            editor().answer().feed.milligramsPerLitre.of(Nutrient::Na));
  choose("compareWith", "Compare with…");
  EXPECT_FALSE(editor().overlay());
}

TEST_F(FormulaPageTest, TheErrorOfTheConductivityIsFoundOnceTypingRests) {
  EXPECT_TRUE(QTest::qWaitFor([&] { return label("figureEc").find("±") != std::string::npos; }, 5000))
      << label("figureEc");
  EXPECT_THAT(lane(Nutrient::K).toStdString(), HasSubstr("±"));
}

/// Every weight of the shelf held as it is computed, in this unit, one of them ten times too heavy.
void typeSheetWithASlip(FormulaEditor& editor, const std::string& unit, double gramsPerUnit) {
  const auto shelf = editor.document().given.request.shelf;
  const auto weights = editor.answer().solution.grams;
  std::vector<std::pair<std::size_t, exchange::Amount>> sheet;
  for (std::size_t j = 0; j < shelf.size(); ++j) {
    const double typed = weights[j].grams() / gramsPerUnit * (shelf[j].id == "mkp" ? 10 : 1);
    sheet.push_back({static_cast<std::size_t>(editor.indexOf(shelf[j].id)),
                     {QString::number(typed, 'g', 6).toStdString(), unit}});
  }
  ShelfEdits(editor).holdAll(sheet);
}

TEST_F(FormulaPageTest, ASheetTypedInFullIsAuditedAndOnePressTakesWhatFits) {
  EXPECT_FALSE(find<QLabel>("sheetSlip")->isVisible()) << "no sheet yet";
  const auto right = editor().gramsOf("mkp")->grams();
  typeSheetWithASlip(editor(), "g", 1);
  const auto words = label("sheetSlip");
  EXPECT_TRUE(find<QLabel>("sheetSlip")->isVisible()) << "above everything that follows from it";
  EXPECT_THAT(words, HasSubstr("A slip in the sheet?"));
  EXPECT_THAT(words, HasSubstr("monopotassium phosphate"));
  EXPECT_THAT(words, HasSubstr("a decimal point?"));
  EXPECT_THAT(label("reasons"), Not(HasSubstr("A slip")));
  click("takeWhatFits");
  EXPECT_NEAR(editor().gramsOf("mkp")->grams(), right, 1e-4 * right) << "to the digit that was typed";
  EXPECT_FALSE(find<QLabel>("sheetSlip")->isVisible());
  editor().undo();
  EXPECT_NEAR(editor().gramsOf("mkp")->grams(), 10 * right, 0.01 * right);
}

TEST_F(FormulaPageTest, TheVerdictOnASheetSpeaksInTheUnitShown) {
  window->units().setMass(MassShown::Pounds);
  typeSheetWithASlip(editor(), "lb", 453.59237);
  EXPECT_THAT(label("sheetSlip"), HasSubstr(" lb stands"));
  EXPECT_THAT(label("sheetSlip"), Not(HasSubstr(" g ")));
  EXPECT_THAT(find<QPushButton>("takeWhatFits")->text().toStdString(), HasSubstr(" lb"));
  click("takeWhatFits");
  const auto at = static_cast<std::size_t>(editor().indexOf("mkp"));
  EXPECT_EQ(editor().document().products[at].held->unit, "lb");
}

TEST_F(FormulaPageTest, DoubtfulLabelsAreSaidWhileTyping) {
  click("ownProduct");
  type("productFormula", "Ca(NO3)2.4H2O");
  EXPECT_THAT(label("productDoubts"), HasSubstr("tetrahydrate"));
  type("productFormula", "");
  type("label_N_NO3", "15.5");
  type("label_Ca", "19");
  EXPECT_THAT(label("productDoubts"), HasSubstr("ammonium"));
  type("label_N_NO3", "25");
  EXPECT_THAT(label("productDoubts"), HasSubstr("% of the product as ions"));
  type("label_N_NO3", "13.5");
  type("label_Ca", "");
  EXPECT_EQ(find<QLineEdit>("label_Ca")->text(), "");
  type("label_K2O", "46");
  EXPECT_THAT(label("productDoubts"), HasSubstr("same composition")) << "potassium nitrate stands there";
}

TEST_F(FormulaPageTest, ALabelIsReadAsItStandsOnTheBag) {
  click("ownProduct");
  type("productName", "blend");
  find<QPlainTextEdit>("labelText")
      ->setPlainText("Guaranteed analysis\nTotal Nitrogen (N) .... 10.6%\n   9.6% Nitrate Nitrogen\n   1% "
                     "Urea Nitrogen\n"
                     "Soluble Potash (K2O) .... 33%\nIron (Fe) .... 0.3%\n   0.3% chelated by DTPA\n"
                     "Derived from: potassium nitrate, urea\nDensity 1.24 kg/L\n");
  EXPECT_EQ(find<QLineEdit>("label_N_NO3")->text(), "9.6");
  EXPECT_EQ(find<QLineEdit>("label_K2O")->text(), "33");
  EXPECT_EQ(find<QLineEdit>("label_Fe")->text(), "0.3") << "the chelated line is a part of the whole";
  EXPECT_EQ(find<QLineEdit>("productDensity")->text(), "1.24");
  EXPECT_THAT(label("labelRead"), HasSubstr("5 figures read"));
  EXPECT_THAT(label("labelRead"), HasSubstr("Fe is held by DTPA"));
  EXPECT_EQ(editor().indexOf("own_1"), -1) << "nothing is taken without a look";
  type("label_Fe", "0.35");
  click("putProduct");
  const auto at = static_cast<std::size_t>(editor().indexOf("own_1"));
  const auto& product = editor().document().allProducts[at];
  EXPECT_NEAR(product.composition.massFraction.of(Nutrient::NNitrate), 0.096, 1e-9);
  EXPECT_NEAR(product.composition.massFraction.of(Nutrient::Fe), 0.0035, 1e-9) << "mended by hand";
  EXPECT_NEAR(product.composition.massFraction.of(Nutrient::K), 0.33 * 0.83015, 1e-4);
  editor().undo(); // out of the book again
  EXPECT_GE(editor().indexOf("own_1"), 0);
  editor().undo();
  EXPECT_EQ(editor().indexOf("own_1"), -1);
}

TEST_F(FormulaPageTest, APriceMayBePerBag) {
  click("ownProduct");
  type("productName", "blend");
  type("label_N_NO3", "10");
  type("label_P2O5", "12");
  type("productBagPrice", "50");
  type("productBag", "25");
  type("productCode", "BL");
  click("putProduct");
  const auto at = static_cast<std::size_t>(editor().indexOf("own_1"));
  EXPECT_DOUBLE_EQ(*editor().document().allProducts[at].pricePerKg, 2);
  EXPECT_EQ(editor().document().products[at].code, "BL");
}

TEST_F(FormulaPageTest, AnOwnProductIsInTheBookAtOnceAndOnTheNextFormulasList) {
  click("ownProduct");
  type("productName", "raft blend");
  type("label_N_NO3", "10");
  type("label_P2O5", "12");
  click("putProduct");
  const auto kept = book().store().list(book::Kind::Product, false);
  ASSERT_TRUE(kept && kept->size() == 1);
  EXPECT_EQ(kept->front().name, "raft blend");
  trigger("undo"); // no question: what the press beside the shelf did goes in two steps
  EXPECT_TRUE(book().store().list(book::Kind::Product, false)->empty());
  EXPECT_GE(editor().indexOf("own_1"), 0);
  trigger("undo");
  EXPECT_EQ(editor().indexOf("own_1"), -1);
  trigger("redo");
  trigger("redo");
  takeEmptyFormula();
  window->showStation(Station::Formula);
  auto* choice = find<QComboBox>("addProduct");
  choice->showPopup();
  choice->hidePopup();
  const int at = choice->findText("raft blend (own)");
  ASSERT_EQ(at, 1) << "before the shipped ones";
  choice->setCurrentIndex(at);
  emit choice->activated(at);
  ASSERT_EQ(editor().document().products.size(), 1u);
  EXPECT_NEAR(editor().document().allProducts[0].composition.massFraction.of(Nutrient::NNitrate), 0.1, 1e-9);
}

TEST_F(FormulaPageTest, AProductIsTakenOffTheShelfAndBroughtBack) {
  ASSERT_GE(editor().indexOf("kno3"), 0);
  find<QLineEdit>("weight_kno3")->setFocus();
  QTest::keyClick(find<QLineEdit>("weight_kno3"), Qt::Key_Delete, Qt::ControlModifier);
  QApplication::processEvents();
  EXPECT_EQ(editor().indexOf("kno3"), -1);
  editor().undo();
  EXPECT_GE(editor().indexOf("kno3"), 0);
}

TEST_F(FormulaPageTest, WhatTheShelfCostsOrWhichPricesAreMissingIsSaid) {
  EXPECT_THAT(label("shelfTotal"), HasSubstr("costs 1.55")) << "as the figure of the feed below says";
  auto typed = ShelfEdits(editor()).typedProduct("kno3");
  typed.pricePerKg = "";
  ASSERT_FALSE(ShelfEdits(editor()).put("kno3", typed, false));
  EXPECT_THAT(label("shelfTotal"), HasSubstr("no price: potassium nitrate"));
}

} // namespace butte::app
