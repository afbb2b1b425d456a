// Loggers in the real window: found, heard, mapped to a vessel, kept, lost, taken back.
#include "edits/tank_edits.h"
#include "serve/tank_server.h"
#include "stations/tank/stream_dialog.h"
#include "stations/tank/tank_page.h"
#include "stations/tank/vessel_card.h"
#include "streams/local_time.h"
#include "window_fixture.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFile>
#include <QListWidget>
#include <QPushButton>
#include <QTcpServer>

namespace butte::app {
namespace {

using ::testing::HasSubstr;
using ::testing::Not;

class StreamDialogTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->streams().setPace(quick);
    vessel = TankEdits(window->desk()).makeVessel("pond").value();
    ASSERT_FALSE(TankEdits(window->desk()).setAmount(vessel, "volume", {"1200", "L"}));
    openDialog();
  }
  void TearDown() override {
    dialog.reset();
    window.reset();
  }
  void openDialog() {
    dialog = std::make_unique<StreamDialog>(window->desk(), window->streams(), nullptr);
    dialog->show();
    QApplication::processEvents();
  }
  template <class T> T* part(const QString& name) { return dialog->findChild<T*>(name); }
  void press(const char* name) { QTest::mouseClick(part<QPushButton>(name), Qt::LeftButton); }
  void typeInto(QLineEdit* field, const QString& text) {
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, text);
    QTest::keyClick(field, Qt::Key_Return);
    QApplication::processEvents();
  }
  void typeAddress(const QString& text) { typeInto(part<QComboBox>("streamAddress")->lineEdit(), text); }
  void listen() { QTest::mouseClick(part<QCheckBox>("streamListens"), Qt::LeftButton, {}, {5, 8}); }
  bool rowSays(int row, const QString& words) {
    return QTest::qWaitFor(
        [&] {
          auto* label = part<QLabel>("streamSays" + QString::number(row));
          return label && label->text().contains(words);
        },
        8000);
  }
  void choose(const QString& name, const QString& entry) {
    auto* box = part<QComboBox>(name);
    ASSERT_NE(box, nullptr) << name.toStdString();
    const int index = box->findText(entry);
    ASSERT_GE(index, 0) << entry.toStdString();
    box->setCurrentIndex(index);
    emit box->activated(index);
    QApplication::processEvents();
  }
  std::string text(const char* name) { return part<QLabel>(name)->text().toStdString(); }
  std::vector<book::Reading> readings() {
    window->streams().keepNow();
    return TankEdits(window->desk()).readings(vessel)->readings;
  }
  std::vector<book::Reading> readingsOf(const std::string& quantity) {
    auto all = readings();
    std::erase_if(all, [&](const auto& reading) { return reading.quantity != quantity; });
    return all;
  }
  void writeCsv(const QByteArray& text, bool anew = false) {
    QFile file(folder.filePath("logger.csv"));
    ASSERT_TRUE(file.open(anew ? QIODevice::WriteOnly : QIODevice::Append));
    file.write(text);
  }
  /// Rows a quarter of an hour apart, the last one now.
  QByteArray quarters(int count, int untilAgo = 0) {
    QByteArray out;
    const auto now = QDateTime::currentDateTime().addSecs(-900LL * untilAgo);
    for (int i = count - 1; i >= 0; --i)
      out += now.addSecs(-900LL * i).toString("yyyy-MM-dd HH:mm:ss").toLatin1() + ";1,62;5,9;" +
             QByteArray::number(1100 - i) + "\n";
    return out;
  }
  void followCsv() {
    press("addStream");
    typeAddress("file:" + folder.filePath("logger.csv"));
    listen();
  }

  ports::StreamWish quick{devices::DateOrder::DayFirst, {}, 100, 20, {}};
  QTemporaryDir folder;
  std::string vessel;
  std::unique_ptr<StreamDialog> dialog;
};

TEST_F(StreamDialogTest, AStandInIsHeardMappedKeptAndTakenBack) {
  press("addStandIn");
  ASSERT_TRUE(rowSays(0, "mS/cm")) << text("streamState");
  EXPECT_THAT(text("streamState"), HasSubstr("Say whose"));
  EXPECT_TRUE(readings().empty()) << "nothing is taken before somebody said whose it is";
  EXPECT_EQ(part<QComboBox>("streamQuantity1")->currentText(), "pH");
  EXPECT_EQ(part<QComboBox>("streamUnit2")->currentText(), "L");
  for (int row = 0; row < 4; ++row)
    choose("streamVessel" + QString::number(row), "pond");
  ASSERT_TRUE(QTest::qWaitFor([&] { return readings().size() >= 4; }, 8000));
  EXPECT_NEAR(readingsOf("ec").front().value, window->streams().standIn()->tank().truth().msPerCm, 0.1);
  EXPECT_NEAR(readingsOf("level").front().value, 1000, 60);
  EXPECT_THAT(text("streamDay"), HasSubstr("readings kept"));
  // The card of the vessel speaks while the logger does.
  window->showStation(Station::Tank);
  window->tankPage().showVessel(vessel);
  ASSERT_TRUE(QTest::qWaitFor([&] { return window->tankPage().isSettled(); }, 10000));
  QApplication::processEvents();
  const VesselCard* card = nullptr;
  for (const auto* one : window->tankPage().findChildren<VesselCard*>())
    if (one->uid() == vessel) card = one;
  ASSERT_NE(card, nullptr);
  EXPECT_THAT(card->said().toStdString(), HasSubstr("pH 5."));
  const auto kept = readings().size();
  press("strikeStreamDay");
  EXPECT_TRUE(TankEdits(window->desk()).readings(vessel)->readings.empty());
  ASSERT_TRUE(static_cast<bool>(window->desk().book().undo()));
  EXPECT_GE(TankEdits(window->desk()).readings(vessel)->readings.size(), kept);
}

TEST_F(StreamDialogTest, AFileThatGrowsIsBroughtInOnceAndFollowed) {
  writeCsv("Zeit;EC (mS/cm);pH;level (L)\n" + quarters(96, 1));
  followCsv();
  ASSERT_TRUE(rowSays(0, "1,62"));
  for (int row = 0; row < 3; ++row)
    choose("streamVessel" + QString::number(row), "pond");
  ASSERT_TRUE(QTest::qWaitFor([&] { return readingsOf("level").size() >= 95; }, 8000));
  const auto before = readingsOf("level");
  EXPECT_EQ(before.back().value, 1100);
  EXPECT_EQ(before.back().typed, "1100 L");
  writeCsv(quarters(1));
  ASSERT_TRUE(QTest::qWaitFor([&] { return readingsOf("level").size() == before.size() + 1; }, 8000));
  // Closed and opened again: what is in the book is not brought in twice, what came meanwhile is.
  dialog.reset();
  writeCsv(QDateTime::currentDateTime().addSecs(1).toString("yyyy-MM-dd HH:mm:ss").toLatin1() +
           ";1,62;5,9;1099\n");
  reopenWindow();
  window->streams().setPace(quick);
  ASSERT_TRUE(QTest::qWaitFor(
      [&] {
        const auto level = readingsOf("level");
        return !level.empty() && level.back().value == 1099;
      },
      8000));
  window->streams().keepNow();
  const auto after = readingsOf("level");
  EXPECT_EQ(after.back().value, 1099);
  for (std::size_t i = 1; i < after.size(); ++i)
    EXPECT_LT(after[i - 1].at.seconds, after[i].at.seconds) << "no moment twice";
}

TEST_F(StreamDialogTest, WhatIsNotUnderstoodAndWhatIsWildIsSaidNotDropped) {
  writeCsv("time;ec;ph;level\n" + quarters(20, 6) +
           "gar\x1b"
           "bage\n" +
           quarters(2, 4).replace("5,9", "14") + quarters(3, 1));
  followCsv();
  ASSERT_TRUE(rowSays(1, "5,9"));
  choose("streamVessel1", "pond");
  ASSERT_TRUE(QTest::qWaitFor([&] { return readingsOf("ph").size() >= 20; }, 8000));
  QApplication::processEvents();
  EXPECT_THAT(text("streamDay"), HasSubstr("2 wild"));
  EXPECT_THAT(text("streamDay"), HasSubstr("1 not understood, such as \"gar·bage\""));
  const auto doubted = TankEdits(window->desk()).readings(vessel)->doubted;
  ASSERT_FALSE(doubted.empty());
  EXPECT_EQ(doubted.front().mark, "wild");
  EXPECT_EQ(doubted.front().value, 14);
  for (const auto& reading : readingsOf("ph"))
    EXPECT_EQ(reading.value, 5.9);
}

TEST_F(StreamDialogTest, ARegisterIsAskedForAndScaled) {
  QTcpServer probe;
  probe.listen(QHostAddress::LocalHost);
  const auto port = probe.serverPort();
  probe.close();
  sim::TankServer server;
  ASSERT_TRUE(server.serveModbus(port));
  server.start(0.1);
  press("addStream");
  typeAddress(QString("modbus:tcp:127.0.0.1:%1 unit 1").arg(port));
  listen();
  typeInto(part<QLineEdit>("streamRegister"), "coil 7");
  EXPECT_THAT(text("streamState"), HasSubstr("holding 100 f32"));
  typeInto(part<QLineEdit>("streamRegister"), "holding 1");
  ASSERT_TRUE(rowSays(0, "5")) << text("streamState");
  choose("streamQuantity0", "pH");
  choose("streamVessel0", "pond");
  typeInto(part<QLineEdit>("streamFactor0"), "0.01");
  ASSERT_TRUE(QTest::qWaitFor([&] { return !readingsOf("ph").empty(); }, 8000)) << text("streamState");
  EXPECT_NEAR(readingsOf("ph").back().value, server.tank().truth().ph, 0.1);
}

TEST_F(StreamDialogTest, ALevelInCentimetresNeedsTheVesselsMeasures) {
  writeCsv("time;depth\n");
  followCsv();
  writeCsv(QDateTime::currentDateTime().toString("yyyy-MM-dd HH:mm:ss").toLatin1() + ";50\n");
  ASSERT_TRUE(rowSays(0, "50"));
  EXPECT_EQ(part<QComboBox>("streamQuantity0")->currentText(), "level");
  choose("streamUnit0", "cm above the floor");
  choose("streamVessel0", "pond");
  EXPECT_TRUE(readingsOf("level").empty());
  ASSERT_TRUE(
      QTest::qWaitFor([&] { return text("streamState").find("measures") != std::string::npos; }, 3000))
      << text("streamState");
  ASSERT_FALSE(TankEdits(window->desk())
                   .setMeasures(vessel, core::Vessel{core::VesselShape::Rectangular, 100, 200, 60}));
  writeCsv(QDateTime::currentDateTime().addSecs(3).toString("yyyy-MM-dd HH:mm:ss").toLatin1() + ";50\n");
  ASSERT_TRUE(QTest::qWaitFor([&] { return !readingsOf("level").empty(); }, 8000));
  EXPECT_NEAR(readingsOf("level").back().value, 1000, 1e-9) << "100 by 200 cm, 50 cm high";
}

TEST_F(StreamDialogTest, ABadAddressIsSaidInWordsAndNothingTypedIsLost) {
  press("addStream");
  typeAddress("htp:somewhere");
  EXPECT_THAT(text("streamState"), HasSubstr("htp:somewhere"));
  EXPECT_EQ(part<QComboBox>("streamAddress")->currentText(), "htp:somewhere");
  typeAddress("tcp:127.0.0.1:1");
  listen();
  ASSERT_TRUE(
      QTest::qWaitFor([&] { return text("streamState").find("Not there") != std::string::npos; }, 5000));
}

TEST_F(StreamDialogTest, ABrokersPasswordIsKeptOnThisComputerAlone) {
  press("addStream");
  typeAddress("mqtt:anna@127.0.0.1:1/glass/#");
  ASSERT_TRUE(part<QLineEdit>("streamPassword")->isVisible());
  typeInto(part<QLineEdit>("streamPassword"), "not for the book");
  const auto uid = StreamEdits(window->desk()).all().front().first.uid;
  EXPECT_EQ(window->streams().password(uid), "not for the book");
  QFile book(window->desk().path());
  ASSERT_TRUE(book.open(QIODevice::ReadOnly));
  EXPECT_FALSE(book.readAll().contains("not for the book"));
}

TEST_F(StreamDialogTest, ALoggerIsOneStepOfUndoAndComesBack) {
  press("addStream");
  typeInto(part<QLineEdit>("streamName"), "pump house");
  EXPECT_EQ(part<QListWidget>("streamList")->item(0)->text(), "pump house");
  press("removeStream");
  EXPECT_TRUE(StreamEdits(window->desk()).all().empty());
  ASSERT_TRUE(static_cast<bool>(window->desk().book().undo()));
  EXPECT_EQ(StreamEdits(window->desk()).all().front().second.name, "pump house");
}

TEST(UnitsOfLoggers, AreTakenAsTheyAreWritten) {
  for (const auto& [quantity, said, meant] :
       std::vector<std::array<const char*, 3>>{{"ec", "mS/cm", "mS/cm"},
                                               {"ec", "µS/cm", "uS/cm"},
                                               {"ec", "uS", "uS/cm"},
                                               {"ec", "", "mS/cm"},
                                               {"temperature", "°C", "C"},
                                               {"temperature", "F", "F"},
                                               {"level", "l", "L"},
                                               {"level", "litres", "L"},
                                               {"level", "gal", "gal_us"},
                                               {"level", "%", "%"},
                                               {"level", "cm", "cm"},
                                               {"ph", "", ""},
                                               {"ph", "pH", ""}})
    EXPECT_EQ(unitMeant(quantity, said), meant) << quantity << " " << said;
}

/// Another zone for as long as a test takes.
class ZoneTest : public ::testing::Test {
protected:
  void SetUp() override { set("CET-1CEST,M3.5.0,M10.5.0/3"); }
  void TearDown() override { set(m_before); }
  static void set(const QByteArray& zone) {
    zone.isEmpty() ? qunsetenv("TZ") : static_cast<bool>(qputenv("TZ", zone));
    tzset();
  }
  QByteArray m_before = qgetenv("TZ");
};

// GNU date: TZ=CET-1CEST,M3.5.0,M10.5.0/3 date -d '2026-10-25 02:30 CEST' +%s and CET; 2026-03-29 03:30.
TEST_F(ZoneTest, TheHourThatComesTwiceIsToldByTheRowBefore) {
  using devices::CivilTime;
  constexpr std::int64_t now = 1800000000, summer = 1792888200, winter = summer + 3600;
  const CivilTime half{2026, 10, 25, 2, 30, 0};
  EXPECT_EQ(secondsOf(half, now, summer - 900), summer);
  EXPECT_EQ(secondsOf(half, now, summer + 1), winter) << "it was half past two before";
  EXPECT_EQ(secondsOf(half, now, winter + 7200), std::clamp(secondsOf(half, now, {}), summer, winter))
      << "a clock that was put back";
  EXPECT_EQ(secondsOf(CivilTime{2026, 3, 29, 3, 30, 0}, now, {}), 1774747800);
  EXPECT_EQ(secondsOf(std::int64_t{5}, now, {}), 5);
  EXPECT_EQ(secondsOf({}, now, 7), now);
}

} // namespace
} // namespace butte::app
