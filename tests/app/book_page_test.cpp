// The Book station, worked as a hand would.
#include "document/product_looks.h"
#include "stations/book/reading_picture.h"
#include "typed_numbers.h"
#include "window_fixture.h"

#include "book/copies.h"
#include "document/batch_record.h"
#include "paint/hatch.h"
#include "stations/book/batch_list.h"
#include "stations/book/batch_panel.h"
#include "stations/book/batch_picture.h"
#include "stations/book/compare_view.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QDir>
#include <QListView>
#include <QListWidget>
#include <QTextBrowser>

using ::testing::HasSubstr;

namespace butte::app {

class BookPageTest : public WindowTest {
protected:
  QString batchOf(int row) {
    const auto* list = find<QListView>("batchList");
    return list->model()->data(list->model()->index(row, 0), Qt::DisplayRole).toString();
  }
  int batchRows() { return find<QListView>("batchList")->model()->rowCount(); }
  void openSample() {
    ASSERT_FALSE(window->desk().openSample());
    window->showStation(Station::Book);
    QApplication::processEvents();
  }
};

TEST_F(BookPageTest, MixedItKeepsTheBatchWithItsVersionAndSheet) {
  window->showStation(Station::Bench);
  click("mixedIt");
  EXPECT_EQ(window->station(), Station::Book);
  ASSERT_EQ(book().store().counts()->batches, 1);
  const auto head = book().store().batches({}, std::nullopt, 1)->front();
  EXPECT_EQ(head.formulaVersion, 1);
  EXPECT_NEAR(head.litres, 20000, 1e-6);
  type("actual0", "16.2");
  type("lot0", "CN-2026-7");
  type("batchEc", "1.66");
  type("batchPh", "5.9");
  ASSERT_FALSE(book().flush());
  const auto record = book().record({book::Kind::Batch, head.uid});
  const auto batch = book::batchFromJson((*record)->body);
  ASSERT_TRUE(static_cast<bool>(batch));
  EXPECT_EQ(batch->weights[0].actual->digits, "16.2");
  EXPECT_EQ(batch->weights[0].lot, "CN-2026-7");
  EXPECT_NEAR(*batch->ecReadMilliSiemens(), 1.66, 1e-12);
  click("batchSheet");
  EXPECT_THAT(find<QTextBrowser>("keptSheet")->toPlainText().toStdString(), HasSubstr("make up to 200 L"));
  EXPECT_THAT(find<QTextBrowser>("keptSheet")->toPlainText().toStdString(),
              ::testing::Not(HasSubstr(sheetDayMark)));
}

TEST_F(BookPageTest, WhatABatchUsedDoesNotChangeUnderIt) {
  window->showStation(Station::Bench);
  click("mixedIt");
  const auto head = book().store().batches({}, std::nullopt, 1)->front();
  const auto before = book().record({book::Kind::Batch, head.uid});
  const auto planned = (*before)->body["weights"];
  window->showStation(Station::Target);
  type("target_K", "250");
  ASSERT_FALSE(book().flush());
  EXPECT_EQ((*book().record({book::Kind::Batch, head.uid}))->body["weights"], planned);
  const auto version = book().store().version(window->desk().inHand().uid, head.formulaVersion);
  EXPECT_EQ((*version)->body["target"]["rows"][3]["mg_per_l"], "205");
  window->showRecord({book::Kind::Batch, head.uid});
  click("batchFormula");
  auto* trail = find<QListWidget>("trail");
  ASSERT_EQ(trail->count(), 2) << "now, and the version that was used";
  EXPECT_THAT(trail->item(0)->text().toStdString(), HasSubstr("target K 205 to 250 mg/L"));
}

TEST_F(BookPageTest, AWeightInTheBatchIsUndoneAlsoAfterANight) {
  window->showStation(Station::Bench);
  click("mixedIt");
  const auto uid = book().store().batches({}, std::nullopt, 1)->front().uid;
  type("actual0", "16.2");
  reopenWindow();
  editor().undo();
  EXPECT_TRUE((*book().record({book::Kind::Batch, uid}))->body["weights"][0]["actual"].is_null());
}

TEST_F(BookPageTest, FiltersAnswerWhichBatchesGotThisLot) {
  openSample();
  const int all = static_cast<int>(*book().store().batchCount({}));
  ASSERT_GT(all, 80);
  const auto some = book().store().batches({}, std::nullopt, 20);
  const auto record = book().record({book::Kind::Batch, some->back().uid});
  const auto lot = (*record)->body["weights"][0]["lot"].get<std::string>();
  type("filterLot", QString::fromStdString(lot));
  book::BatchFilter filter;
  filter.lot = lot;
  const auto expected = *book().store().batchCount(filter);
  ASSERT_GT(expected, 0);
  ASSERT_LT(expected, all);
  EXPECT_TRUE(QTest::qWaitFor(
      [&] { return find<QLabel>("batchCount")->text() == QString("%1 batches").arg(expected); }, 2000));
  type("filterLot", "");
  type("filterOff", "2");
  EXPECT_TRUE(QTest::qWaitFor([&] { return batchRows() > 0 && batchRows() < 40; }, 2000));
  for (int i = 0; i < batchRows(); ++i)
    EXPECT_THAT(batchOf(i).toStdString(), HasSubstr("off plan"));
}

TEST_F(BookPageTest, AMarkInThePictureLeadsToItsBatches) {
  openSample();
  auto* picture = find<BatchPicture>("batchPicture");
  ASSERT_GT(picture->markCount(), 30);
  const int all = batchRows();
  QTest::mouseClick(picture, Qt::LeftButton, Qt::NoModifier,
                    picture->placeOf(picture->markCount() / 2).toPoint());
  EXPECT_LT(batchRows(), all);
  EXPECT_GE(batchRows(), 1);
  EXPECT_TRUE(find<QAbstractButton>("clearStretch")->isVisible());
  click("clearStretch");
  EXPECT_EQ(batchRows(), all);
  const auto before = picture->from();
  picture->setFocus();
  QTest::keyClick(picture, Qt::Key_Plus);
  EXPECT_GT(picture->from(), before) << "nearer";
  QTest::keyClick(picture, Qt::Key_Home);
  EXPECT_EQ(picture->from(), before);
}

TEST_F(BookPageTest, TwoVersionsStandSideBySideAndOneIsGoneBackTo) {
  openSample();
  window->bookPage().showRecord({book::Kind::Formula, "sample-formula-0"});
  auto* trail = find<QListWidget>("trail");
  ASSERT_EQ(trail->count(), 3);
  trail->clearSelection();
  trail->item(0)->setSelected(true);
  trail->item(2)->setSelected(true);
  click("compareVersions");
  auto* view = find<CompareView>("compareView");
  ASSERT_TRUE(view->isVisible());
  EXPECT_THAT(view->changes().join("\n").toStdString(), HasSubstr("target K 190 to 205 mg/L"));
  EXPECT_THAT(view->rowTexts().join("\n").toStdString(), HasSubstr("→"));
  trail->clearSelection();
  trail->item(2)->setSelected(true);
  click("goBackVersion");
  EXPECT_EQ(editor().json()["target"]["rows"][3]["mg_per_l"], "190")
      << "it was in hand, so the stations show it at once";
  editor().undo();
  EXPECT_EQ(editor().json()["target"]["rows"][3]["mg_per_l"], "205");
}

TEST_F(BookPageTest, TheBinGivesBack) {
  openSample();
  window->bookPage().showSection(BookPage::Bin);
  auto* list = find<QListView>("thingList");
  ASSERT_EQ(list->model()->rowCount(), 1);
  list->setCurrentIndex(list->model()->index(0, 0));
  const auto before = book().store().list(book::Kind::Formula, false)->size();
  click("binThing");
  EXPECT_EQ(book().store().list(book::Kind::Formula, false)->size(), before + 1);
}

TEST_F(BookPageTest, AWaterIsKeptAndUsedAgainWithoutChangingOldFormulas) {
  window->showStation(Station::Book);
  click("sectionWaters");
  click("keepInBook");
  ASSERT_EQ(book().store().list(book::Kind::Water, false)->size(), 1u);
  const auto first = window->desk().inHand();
  window->files().newFormula();
  const auto ref = book().store().list(book::Kind::Water, false)->front().ref;
  window->showRecord(ref);
  click("useThing");
  EXPECT_EQ(editor().document().waterName, "Roof 60 : bore 40");
  window->showStation(Station::Water);
  type("water_Ca", "55");
  ASSERT_FALSE(book().flush());
  EXPECT_EQ((*book().record(first))->body["water"]["rows"][0]["mg_per_l"], "31.9");
  EXPECT_EQ((*book().record(ref))->body["reports"][0]["water"]["rows"][0]["mg_per_l"], "31.9");
}

TEST_F(BookPageTest, GoingBackToACopyShowsWhatWouldChangeFirst) {
  window->showStation(Station::Book);
  click("sectionCopies");
  click("copyNow");
  auto* list = find<QListWidget>("copies");
  ASSERT_EQ(list->count(), 1);
  const auto old = editor().json();
  window->showStation(Station::Target);
  type("target_K", "250");
  window->files().newFormula();
  window->showStation(Station::Book);
  click("sectionCopies");
  list->setCurrentRow(0);
  const auto words = find<QLabel>("copyChanges")->text().toStdString();
  EXPECT_THAT(words, HasSubstr("1 formula made since would go"));
  EXPECT_THAT(words, HasSubstr("1 formula would stand as then"));
  QString asked;
  window->prompts().goOn = [&](const QString&, const QString& text, const QString&) {
    asked = text;
    return false;
  };
  click("goBackCopy");
  EXPECT_EQ(book().store().list(book::Kind::Formula, false)->size(), 3u) << "not told to: nothing happened";
  window->prompts().goOn = [](const QString&, const QString&, const QString&) { return true; };
  click("goBackCopy");
  EXPECT_THAT(asked.toStdString(), HasSubstr("made since would go"));
  EXPECT_EQ(book().store().list(book::Kind::Formula, false)->size(), 2u);
  EXPECT_EQ(editor().json(), old);
  EXPECT_EQ(book::copiesOf(bookPath().toStdString()).size(), 2u) << "what stood before is a copy now";
}

TEST_F(BookPageTest, AReadingIsTypedInItsOwnUnit) {
  window->showStation(Station::Book);
  click("sectionReadings");
  type("readingVessel", "north");
  find<QComboBox>("readingUnit")->setCurrentText("µS/cm");
  type("readingValue", "1580");
  click("keepReading");
  const auto readings = book().store().readings(std::nullopt, 5);
  ASSERT_EQ(readings->size(), 1u);
  EXPECT_NEAR(readings->front().value, 1.58, 1e-12);
  EXPECT_EQ(readings->front().typed, "1580 uS/cm");
  EXPECT_EQ(readings->front().vesselName, "north");
  type("readingVessel", "North"); // the same one, however it is written
  type("readingValue", "1600");
  click("keepReading");
  EXPECT_EQ(book().store().list(book::Kind::Vessel, false)->size(), 1u);
  editor().undo();
  editor().undo();
  EXPECT_TRUE(book().store().readings(std::nullopt, 5)->empty());
  EXPECT_TRUE(book().store().list(book::Kind::Vessel, false)->empty()) << "it came with its first reading";
}

TEST_F(BookPageTest, AVesselIsRenamedAndItsReadingsGoWithIt) {
  window->showStation(Station::Book);
  click("sectionReadings");
  type("readingVessel", "pond");
  type("readingValue", "1.6");
  click("keepReading");
  click("sectionVessels");
  const auto ref = book().store().list(book::Kind::Vessel, false)->front().ref;
  window->showRecord(ref);
  type("fact_name", "raft pond 2");
  type("fact_volume", "264");
  find<QComboBox>("fact_volumeUnit")->setCurrentIndex(1);
  emit find<QComboBox>("fact_volumeUnit")->activated(1);
  ASSERT_FALSE(book().flush());
  EXPECT_EQ((*book().record(ref))->body["volume"], exchange::amountJson("264", "gal_us"));
  EXPECT_EQ(book().store().readings(std::nullopt, 5)->front().vesselName, "raft pond 2");
  EXPECT_FALSE(find<QAbstractButton>("useThing")->isVisible()) << "a vessel is no part of a formula";
  click("binThing");
  EXPECT_TRUE(book().store().list(book::Kind::Vessel, false)->empty());
  EXPECT_EQ(book().store().readings(std::nullopt, 5)->size(), 1u) << "what was read stays";
}

TEST_F(BookPageTest, EveryVesselsLastReadingStandsLargeWithItsWeek) {
  window->showStation(Station::Book);
  click("sectionReadings");
  type("readingVessel", "pond");
  for (const auto* value : {"1.6", "1.9", "1.7"}) {
    type("readingValue", value);
    click("keepReading");
  }
  const auto told = [&] { return find<QWidget>("vesselsNow")->accessibleDescription().toStdString(); };
  ASSERT_TRUE(QTest::qWaitFor([&] { return told().find("1.7") != std::string::npos; }, 3000)) << told();
  EXPECT_THAT(told(), HasSubstr("pond: EC 1.7 mS/cm"));
  EXPECT_THAT(told(), HasSubstr("1.60 mS/cm to 1.90 mS/cm"));
  trigger("units_ppm500");
  ASSERT_TRUE(QTest::qWaitFor([&] { return told().find("850 ppm (500)") != std::string::npos; }, 3000))
      << told();
  click("sectionCopies");
  EXPECT_FALSE(find<QWidget>("vesselsNow")->isVisible());
}

// A slipped decimal point is seen in the picture, pressed there, and put right where it is seen.
TEST_F(BookPageTest, AReadingIsSeenInThePictureAndCorrected) {
  window->showStation(Station::Book);
  click("sectionReadings");
  type("readingVessel", "pond");
  for (const auto* value : {"1.6", "16", "1.7"}) {
    type("readingValue", value);
    click("keepReading");
  }
  auto* picture = find<ReadingPicture>("readingPicture");
  ASSERT_TRUE(QTest::qWaitFor([&] { return picture->markCount() > 0; }));
  QString told;
  QObject::connect(picture, &ReadingPicture::explained, picture, [&](const QString& words) { told = words; });
  const auto place = picture->placeOf(0).toPoint();
  QTest::mouseMove(picture, place + QPoint(1, 1));
  QTest::mouseClick(picture, Qt::LeftButton, {}, place);
  EXPECT_THAT(told.toStdString(), HasSubstr("pond"));
  auto* list = find<QListView>("readingList");
  ASSERT_TRUE(list->currentIndex().isValid()) << "the press leads to the list";
  for (int row = 0; row < list->model()->rowCount(); ++row) {
    if (list->model()->index(row, 0).data().toString().contains("16 mS"))
      list->setCurrentIndex(list->model()->index(row, 0));
  }
  QApplication::processEvents();
  ASSERT_TRUE(find<QWidget>("correctReading")->isVisible());
  EXPECT_EQ(find<NumberField>("readingRight")->text(), "16");
  type("readingRight", "1.6");
  click("correctReading");
  const auto values = [&] {
    std::multiset<double> out;
    for (const auto& r : *book().store().readings(std::nullopt, 9))
      out.insert(r.value);
    return out;
  };
  EXPECT_EQ(values(), (std::multiset<double>{1.6, 1.6, 1.7}));
  EXPECT_EQ(window->editor().undoWords(), "EC of pond corrected to 1.6 mS/cm");
  window->editor().undo();
  EXPECT_EQ(values(), (std::multiset<double>{1.6, 1.7, 16}));
  ASSERT_TRUE(QTest::qWaitFor([&] { return find<NumberField>("readingRight")->text() == "16"; }))
      << "the one in hand stays in hand";
  click("binReading");
  EXPECT_EQ(values().size(), 2u);
  window->editor().undo();
  EXPECT_EQ(values().size(), 3u);
}

TEST_F(BookPageTest, ReadingsAreShownOfOneVesselAndQuantity) {
  window->showStation(Station::Book);
  click("sectionReadings");
  for (const auto* vessel : {"pond", "north"}) {
    type("readingVessel", vessel);
    type("readingValue", "1.6");
    click("keepReading");
  }
  auto* quantity = find<QComboBox>("readingQuantity");
  quantity->setCurrentIndex(1); // pH
  type("readingValue", "5.8");
  click("keepReading");
  auto* list = find<QListView>("readingList");
  ASSERT_TRUE(QTest::qWaitFor([&] { return list->model()->rowCount() == 3; }));
  auto* of = find<QComboBox>("readingsOfVessel");
  const int north = of->findText("north");
  ASSERT_GT(north, 0);
  of->setCurrentIndex(north);
  emit of->activated(north);
  EXPECT_EQ(list->model()->rowCount(), 2);
  auto* what = find<QComboBox>("readingsOfQuantity");
  what->setCurrentIndex(1);
  emit what->activated(1);
  EXPECT_EQ(list->model()->rowCount(), 1);
  EXPECT_THAT(list->model()->index(0, 0).data().toString().toStdString(), HasSubstr("5.8"));
  EXPECT_EQ(find<ReadingPicture>("readingPicture")->markCount(), 1);
}

TEST_F(BookPageTest, ATableShowsRowByRowWhatItWouldTakeBeforeAnythingIsWritten) {
  QFile table(folder.filePath("waters.csv"));
  ASSERT_TRUE(table.open(QIODevice::WriteOnly));
  table.write("water;date;Ca (mg/L);pH\r\nSpring;2026-03-02;62,5;7,4\r\nSpring;soon;60;7,4\r\n");
  table.close();
  QString shown;
  window->prompts().goOn = [&](const QString&, const QString& text, const QString&) {
    shown = text;
    return false;
  };
  EXPECT_FALSE(window->books().importTableFrom(table.fileName()));
  EXPECT_THAT(shown.toStdString(), HasSubstr("row 3, not taken: “soon” in “date” is no date"));
  EXPECT_TRUE(book().store().list(book::Kind::Water, false)->empty());
  window->prompts().goOn = [](const QString&, const QString&, const QString&) { return true; };
  EXPECT_TRUE(window->books().importTableFrom(table.fileName()));
  ASSERT_EQ(book().store().list(book::Kind::Water, false)->size(), 1u);
  editor().undo();
  EXPECT_TRUE(book().store().list(book::Kind::Water, false)->empty());
}

TEST_F(BookPageTest, ATargetAStockPlanAndAProductGoFromOneFormulaToAnother) {
  window->showStation(Station::Book);
  for (const auto* section : {"sectionTargets", "sectionProducts", "sectionStockPlans"}) {
    click(section);
    click("keepInBook");
  }
  type("stockFactor", "150"); // the plan in the book stays 1:100
  takeEmptyFormula();
  const auto use = [&](book::Kind kind) {
    const auto heads = book().store().list(kind, false);
    ASSERT_EQ(heads->size(), 1u) << book::code(kind);
    window->showRecord(heads->front().ref);
    click("useThing");
  };
  use(book::Kind::Target);
  EXPECT_EQ(editor().document().targetName, "Strawberry, fruiting (tabletop)");
  use(book::Kind::StockPlan);
  EXPECT_DOUBLE_EQ(editor().document().given.stock.factor, 100);
  EXPECT_DOUBLE_EQ(editor().document().given.stock.tanks[0].volume.litres(), 200);
  use(book::Kind::Product);
  ASSERT_EQ(editor().document().products.size(), 1u);
  EXPECT_EQ(editor().document().products[0].name, "raft blend 6-11-31");
  use(book::Kind::Product);
  EXPECT_EQ(editor().document().products.size(), 1u) << "the same product is not there twice";
}

TEST_F(BookPageTest, AProductsBagHazardsAndLookAreTypedAndGoWithIt) {
  window->showStation(Station::Book);
  click("sectionProducts");
  click("keepInBook");
  const auto ref = book().store().list(book::Kind::Product, false)->front().ref;
  window->showRecord(ref);
  type("fact_bag", "25");
  type("fact_hazards", "h272 H318");
  EXPECT_THAT(find<QLabel>("hazardWords")->text().toStdString(), HasSubstr("Oxidiser"));
  click("tone_5b7fa6");
  type("fact_note", "left of the door");
  ASSERT_FALSE(book().flush());
  const auto body = (*book().record(ref))->body;
  EXPECT_EQ(body["bag"], exchange::amountJson("25", "kg"));
  EXPECT_EQ(body["hazards"], exchange::Json({"H272", "H318"}));
  click("useThing");
  const auto& products = editor().document().products;
  const auto& product = *std::find_if(products.begin(), products.end(), [](const auto& p) { return p.own; });
  const auto id = product.id;
  EXPECT_EQ(product.hazards, (std::vector<std::string>{"H272", "H318"}));
  EXPECT_EQ(lookIn(editor().document(), id).fill, QColor("#5b7fa6")) << "every picture shows it so";
  click("keepInBook");
  EXPECT_EQ((*book().record(ref))->body, body) << "keeping it anew loses nothing of what the book knows";
  editor().undo();
  EXPECT_NE(lookIn(editor().document(), id).fill, QColor("#5b7fa6"));
}

TEST_F(BookPageTest, ATargetsStageAndSeasonAreTypedAndStayWhenItIsKeptAnew) {
  window->showStation(Station::Book);
  click("sectionTargets");
  click("keepInBook");
  const auto ref = book().store().list(book::Kind::Target, false)->front().ref;
  window->showRecord(ref);
  type("fact_stage", "fruiting");
  type("fact_season", "short days");
  type("target_K", "241");
  click("keepInBook");
  const auto body = (*book().record(ref))->body;
  EXPECT_EQ(body["stage"], "fruiting");
  EXPECT_EQ(body["season"], "short days");
  EXPECT_NE(body["target"], exchange::Json());
}

TEST_F(BookPageTest, KeepingTheSameTwiceMakesNothingNew) {
  window->showStation(Station::Book);
  click("sectionTargets");
  click("keepInBook");
  const auto steps = book().store().counts()->steps;
  click("keepInBook");
  EXPECT_EQ(book().store().counts()->steps, steps);
}

TEST_F(BookPageTest, ABatchGoesIntoTheBinAndComesBackWithUndo) {
  window->showStation(Station::Bench);
  click("mixedIt");
  ASSERT_EQ(batchRows(), 1);
  click("batchBin");
  EXPECT_EQ(batchRows(), 0);
  window->bookPage().showSection(BookPage::Bin);
  EXPECT_EQ(find<QListView>("thingList")->model()->rowCount(), 1);
  editor().undo();
  EXPECT_EQ(*book().store().batchCount({}), 1);
}

TEST_F(BookPageTest, ANamedVersionStandsInTheTrail) {
  window->prompts().words = [](const QString&, const QString&, const QString&) {
    return QString("before the heat");
  };
  window->showRecord(window->desk().inHand());
  window->showStation(Station::Book);
  window->bookPage().showRecord(window->desk().inHand());
  click("nameVersion");
  auto* trail = find<QListWidget>("trail");
  ASSERT_EQ(trail->count(), 1);
  EXPECT_THAT(trail->item(0)->text().toStdString(), HasSubstr("version 1 “before the heat” · named"));
}

TEST_F(BookPageTest, TablesAreWrittenFromTheWindow) {
  window->showStation(Station::Bench);
  click("mixedIt");
  const auto path = folder.filePath("batches.csv");
  ASSERT_TRUE(window->books().exportTableTo(book::Kind::Batch, path, true));
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  const auto text = file.readAll();
  EXPECT_TRUE(text.startsWith("batch;time;formula;crop;water;volume (L);"));
  EXPECT_GT(text.count("\r\n"), 12);
  EXPECT_FALSE(window->books().exportTableTo(book::Kind::Batch, folder.filePath("no/such/x.csv"), false));
  EXPECT_EQ(troubles.size(), 1);
}

TEST_F(BookPageTest, AReadOnlyWindowOffersNoWriting) {
  window->showStation(Station::Bench);
  click("mixedIt");
  ASSERT_FALSE(book().flush());
  QSettings other(folder.filePath("other.ini"), QSettings::IniFormat);
  MainWindow second(other, folder.filePath("other"));
  ASSERT_FALSE(second.desk().openBook(bookPath()));
  second.show();
  second.showStation(Station::Book);
  QApplication::processEvents();
  EXPECT_FALSE(second.findChild<QWidget*>("batchBin")->isEnabled());
  EXPECT_TRUE(second.findChild<QLineEdit*>("actual0")->isReadOnly());
  second.bookPage().showSection(BookPage::Waters);
  EXPECT_FALSE(second.findChild<QWidget*>("keepInBook")->isVisible());
}

} // namespace butte::app
