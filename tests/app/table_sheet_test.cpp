// Tables of others' making, brought in as a hand would.
#include "tables/table_sheet.h"
#include "window_fixture.h"

#include <QClipboard>
#include <QComboBox>
#include <QProgressBar>
#include <QPushButton>

namespace butte::app {
namespace {

using book::Kind;
using ::testing::HasSubstr;

class TableSheetTest : public WindowTest {
protected:
  QString fileWith(const QString& name, const QByteArray& bytes) {
    QFile file(folder.filePath(name));
    EXPECT_TRUE(file.open(QIODevice::WriteOnly));
    file.write(bytes);
    return file.fileName();
  }
  TableSheet* sheet() {
    QApplication::processEvents();
    for (auto* one : window->findChildren<TableSheet*>()) {
      if (one->isVisible()) return one;
    }
    return nullptr;
  }
  std::string text(const QString& name) { return sheet()->findChild<QLabel*>(name)->text().toStdString(); }
  QPushButton* takeButton() { return sheet()->findChild<QPushButton*>("takeRows"); }
  /// An item of a combo, chosen by its place in the list with the keyboard.
  void choose(const QString& name, const QString& item) {
    auto* box = sheet()->findChild<QComboBox*>(name);
    ASSERT_NE(box, nullptr) << name.toStdString();
    const int wanted = box->findText(item);
    ASSERT_GE(wanted, 0) << item.toStdString();
    box->setFocus();
    QTest::keyClick(box, Qt::Key_Home);
    for (int i = 0; i < wanted; ++i)
      QTest::keyClick(box, Qt::Key_Down);
    ASSERT_EQ(box->currentIndex(), wanted);
    QApplication::processEvents();
  }
  void take() {
    ASSERT_TRUE(takeButton()->isEnabled()) << text("tableAsks") << text("tableRows");
    QTest::mouseClick(takeButton(), Qt::LeftButton);
    QApplication::processEvents();
  }
  std::size_t count(Kind kind) { return book().store().list(kind, false)->size(); }
};

constexpr auto logger = "# logger 12\n#,Date Time,Temp (F),EC (uS/cm),pH\n"
                        "1,3/4/26 07:15,68.2,1850,5.9\n2,3/5/26 07:15,68.9,1870,5.9\n";

TEST_F(TableSheetTest, ALoggersFileAsksForItsVesselAndItsDaysAndIsRememberedTheSecondTime) {
  ASSERT_TRUE(window->books().importTableFrom(fileWith("north.csv", logger)));
  ASSERT_NE(sheet(), nullptr);
  EXPECT_FALSE(takeButton()->isEnabled());
  EXPECT_THAT(text("tableAsks"), HasSubstr("Which vessel"));
  EXPECT_THAT(text("tableAsks"), HasSubstr("3/4 can be read in two ways"));
  QTest::keyClicks(sheet()->findChild<QLineEdit*>("tableName"), "North pond");
  choose("tableDates", "4 March (month first)");
  EXPECT_THAT(text("tableRows"), HasSubstr("taken: 6, that would not: 0"));
  take();
  const auto readings = book().store().readings(std::nullopt, 20);
  ASSERT_EQ(readings->size(), 6u);
  for (const auto& reading : *readings) {
    EXPECT_EQ(reading.vesselName, "North pond");
    EXPECT_THAT(reading.at.iso(), ::testing::StartsWith("2026-03-0"));
    // From degrees Fahrenheit and uS/cm.
    const double wanted = reading.quantity == "temperature" ? 20.3 : reading.quantity == "ec" ? 1.86 : 5.9;
    EXPECT_NEAR(reading.value, wanted, 0.3) << reading.quantity;
  }
  // The next file of this header: nothing is asked.
  const QByteArray next = QByteArray(logger).replace("3/4/26", "4/6/26").replace("3/5/26", "4/7/26");
  window->books().importTableFrom(fileWith("north-april.csv", next));
  ASSERT_NE(sheet(), nullptr);
  EXPECT_TRUE(takeButton()->isEnabled());
  EXPECT_THAT(text("tableKnown"), HasSubstr("as you answered"));
  take();
  EXPECT_EQ(book().store().readings(std::nullopt, 20)->size(), 12u);
  // Taken back: the rows first, what was remembered of the layout last.
  ASSERT_TRUE(static_cast<bool>(book().undo()));
  EXPECT_EQ(book().store().readings(std::nullopt, 20)->size(), 6u);
  ASSERT_TRUE(static_cast<bool>(book().undo()));
  EXPECT_EQ(count(Kind::PaperLayout), 1u);
  ASSERT_TRUE(static_cast<bool>(book().undo()));
  EXPECT_EQ(count(Kind::PaperLayout), 0u);
}

TEST_F(TableSheetTest, APriceListFromASpreadsheetsClipboardBecomesProducts) {
  QApplication::clipboard()->setText("Item\tPack size (lb)\tCost per bag\tNitrate-N\tPotash (K2O)\n"
                                     "Potassium nitrate TG\t50\t$62.00\t13.7%\t46.3%\n"
                                     "Calcium nitrate GH\t50\t$31.50\t14.5%\t\n");
  trigger("pasteTable");
  ASSERT_NE(sheet(), nullptr);
  EXPECT_THAT(text("tableRows"), HasSubstr("taken: 2"));
  take();
  const auto products = book().store().list(Kind::Product, false);
  ASSERT_EQ(products->size(), 2u);
  const auto body = (**book().record(products->at(0).ref)).body;
  const auto other = (**book().record(products->at(1).ref)).body;
  const auto& potash = body["name"] == "Potassium nitrate TG" ? body : other;
  // $62.00 for 50 lb of 0.45359237 kg (definition).
  EXPECT_NEAR(std::stod(potash["entry"]["price_per_kg"].get<std::string>()), 62.0 / (50 * 0.45359237), 1e-6);
  EXPECT_EQ(potash["currency"], "USD");
}

TEST_F(TableSheetTest, AColumnTakenForSomethingElseIsReadSo) {
  window->books().importTableFrom(
      fileWith("tests.csv", "Day;EC in;EC out\n14-Mar-2026;1,8;2,4\n15-Mar-2026;1,8;2,5\n"));
  ASSERT_NE(sheet(), nullptr);
  QTest::keyClicks(sheet()->findChild<QLineEdit*>("tableName"), "Drain");
  choose("column2", "EC");
  EXPECT_EQ(sheet()->findChild<QComboBox*>("column1")->currentIndex(), 0) << "one column each";
  take();
  const auto readings = book().store().readings(std::nullopt, 9);
  ASSERT_EQ(readings->size(), 2u);
  EXPECT_GT(readings->front().value, 2.3);
}

TEST_F(TableSheetTest, ATableOfNothingKnownIsShownAndAsksInsteadOfBeingRefused) {
  window->books().importTableFrom(fileWith("pony.csv", "pony,height\nStar,148\n"));
  ASSERT_NE(sheet(), nullptr);
  EXPECT_FALSE(takeButton()->isEnabled());
  EXPECT_THAT(text("tableAsks"), HasSubstr("say above a column what it holds"));
  QTest::mouseClick(sheet()->findChild<QPushButton*>("leaveTable"), Qt::LeftButton);
  EXPECT_EQ(sheet(), nullptr);
  EXPECT_TRUE(troubles.isEmpty());
}

TEST_F(TableSheetTest, OfAVeryWideTableNothingIsTakenThatDoesNotShow) {
  QByteArray header = "Day;Sump", row = "14-Mar-2026;North";
  for (int i = 0; i < 80; ++i)
    header += ";x" + QByteArray::number(i), row += ";1";
  window->books().importTableFrom(fileWith("wide.csv", header + ";EC;pH\n" + row + ";1.8;5.9\n"));
  ASSERT_NE(sheet(), nullptr);
  EXPECT_THAT(text("tableKnown"), HasSubstr("first 60 columns"));
  EXPECT_FALSE(takeButton()->isEnabled());
}

/// A logger's file of many days: a line each hour, three readings a line.
QByteArray longLog(int lines) {
  QByteArray out = "Stamp;Sump;EC (mS/cm);pH;Temp (C)\n";
  for (int i = 0; i < lines; ++i)
    out += QString("2026-%1-%2 %3:%4;Long;1.8%5;5.9;20.5\n")
               .arg(1 + i / 40320, 2, 10, QChar('0'))
               .arg(1 + i / 1440 % 28, 2, 10, QChar('0'))
               .arg(i / 60 % 24, 2, 10, QChar('0'))
               .arg(i % 60, 2, 10, QChar('0'))
               .arg(i % 10)
               .toUtf8();
  return out;
}

TEST_F(TableSheetTest, ALongTableIsTakenInPiecesAndIsOneStepBack) {
  window->books().importTableFrom(fileWith("long.csv", longLog(3000)));
  ASSERT_NE(sheet(), nullptr);
  EXPECT_THAT(text("tableRows"), HasSubstr("Of the first rows"));
  QTest::mouseClick(takeButton(), Qt::LeftButton);
  int pieces = 0;
  while (sheet() && pieces < 100000) {
    EXPECT_TRUE(book().store().readings(std::nullopt, 1)->empty()) << "nothing shows before all is there";
    ++pieces;
  }
  EXPECT_GT(pieces, 9000 / 500);
  EXPECT_EQ(book().store().counts()->readings, 9000);
  EXPECT_EQ(book().store().readings(std::nullopt, 20)->size(), 20u);
  ASSERT_TRUE(static_cast<bool>(book().undo()));
  EXPECT_TRUE(book().store().readings(std::nullopt, 1)->empty());
  ASSERT_TRUE(static_cast<bool>(book().redo()));
  EXPECT_EQ(book().store().readings(std::nullopt, 20)->size(), 20u);
}

TEST_F(TableSheetTest, ALongTableThatIsStoppedLeavesTheBookAsItWas) {
  window->books().importTableFrom(fileWith("long.csv", longLog(15000))); // read behind the window's thread
  for (int i = 0; i < 100000 && !sheet(); ++i)
    QTest::qWait(1);
  ASSERT_NE(sheet(), nullptr);
  QTest::mouseClick(takeButton(), Qt::LeftButton);
  auto* progress = sheet()->findChild<QProgressBar*>("takingProgress");
  for (int i = 0; i < 100000 && progress->value() == 0; ++i)
    QTest::qWait(1);
  EXPECT_TRUE(progress->isVisible());
  EXPECT_LT(progress->value(), 100);
  QTest::mouseClick(sheet()->findChild<QPushButton*>("stopTaking"), Qt::LeftButton);
  QTest::qWait(20);
  ASSERT_NE(sheet(), nullptr) << "the columns can be looked at again";
  EXPECT_FALSE(progress->isVisible());
  EXPECT_TRUE(takeButton()->isEnabled());
  EXPECT_EQ(book().store().counts()->readings, 0);
  EXPECT_EQ(count(Kind::PaperLayout), 0u);
  QTest::keyClick(sheet(), Qt::Key_Escape);
  EXPECT_EQ(sheet(), nullptr);
}

TEST_F(TableSheetTest, WhatWasRememberedCanBeLookedAtAndThrownAway) {
  window->books().importTableFrom(fileWith("north.csv", logger));
  QTest::keyClicks(sheet()->findChild<QLineEdit*>("tableName"), "North pond");
  choose("tableDates", "4 March (month first)");
  take();
  window->showStation(Station::Book);
  click("sectionPapers");
  EXPECT_THAT(find<QLabel>("layoutSaid")->text().toStdString(), HasSubstr("“temp (f)”: temperature, °F"));
  EXPECT_THAT(find<QLabel>("layoutSaid")->text().toStdString(), HasSubstr("all of “North pond”"));
  EXPECT_FALSE(find<QAbstractButton>("useThing")->isVisible());
  click("binThing");
  EXPECT_EQ(count(Kind::PaperLayout), 0u);
  window->books().importTableFrom(fileWith("north-again.csv", logger));
  ASSERT_NE(sheet(), nullptr);
  EXPECT_FALSE(takeButton()->isEnabled()) << "asks again";
}

} // namespace
} // namespace butte::app
