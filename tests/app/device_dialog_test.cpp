// Scales and pens: set up, heard line by line, kept, and found wrong in words.
#include "serve/sim_server.h"
#include "services/device_desk.h"
#include "stations/bench/device_dialog.h"
#include "stations/bench/scale_check_dialog.h"
#include "window_fixture.h"

#include <QComboBox>
#include <QListWidget>
#include <QPushButton>
#include <QTcpServer>

namespace butte::app {
namespace {

using core::Mass;
using ::testing::HasSubstr;

class DeviceDialogTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    dialog = std::make_unique<DeviceDialog>(window->devices(), editor(), nullptr);
    dialog->show();
    QApplication::processEvents();
  }
  void TearDown() override {
    dialog.reset();
    window.reset();
  }
  template <class T> T* part(const char* name) { return dialog->findChild<T*>(name); }
  void press(const char* name) { QTest::mouseClick(part<QPushButton>(name), Qt::LeftButton); }
  void typeInto(QLineEdit* field, const QString& text) {
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, text);
    QTest::keyClick(field, Qt::Key_Return);
    QApplication::processEvents();
  }
  bool lineShows(const QString& words) {
    return QTest::qWaitFor([&] { return part<QLabel>("deviceLines")->text().contains(words); }, 5000);
  }
  std::string state() { return part<QLabel>("deviceState")->text().toStdString(); }

  sim::SimServer sim{{Mass::fromGrams(1), Mass::fromKilograms(60), "g", 0, 0.05}, 2};
  std::unique_ptr<DeviceDialog> dialog;
};

TEST_F(DeviceDialogTest, AScaleIsHeardLineByLineAndKept) {
  press("addScale");
  typeInto(part<QComboBox>("deviceName")->lineEdit(), "big one");
  typeInto(part<QComboBox>("deviceAddress")->lineEdit(), "serial:" + sim.scaleCable());
  sim.bench().apply(sim::act::Pour{Mass::fromGrams(250), 0});
  EXPECT_TRUE(lineShows("250 g, still")) << part<QLabel>("deviceLines")->text().toStdString();
  EXPECT_THAT(state(), HasSubstr("heard"));
  const auto kept = keptDevices(*settings);
  ASSERT_EQ(kept.size(), 1u);
  EXPECT_EQ(kept[0].name, "big one");
  dialog.reset();
  reopenWindow();
  ASSERT_NE(window->devices().scale("big one"), nullptr);
  EXPECT_TRUE(QTest::qWaitFor([&] {
    const auto now = window->devices().scale("big one")->scaleNow();
    return now.state != devices::WatchState::Silent && std::abs(now.shown.grams() - 250) < 2;
  }));
}

TEST_F(DeviceDialogTest, AScaleOnTheNetworkToo) {
  ASSERT_TRUE(sim.listen());
  press("addScale");
  typeInto(part<QComboBox>("deviceAddress")->lineEdit(), QString("tcp:127.0.0.1:%1").arg(sim.scalePort()));
  EXPECT_TRUE(lineShows("0 g, still")) << state();
}

TEST_F(DeviceDialogTest, APatternOfOnesOwnIsTriedAtOnce) {
  press("addScale");
  typeInto(part<QComboBox>("deviceAddress")->lineEdit(), "serial:" + sim.scaleCable());
  typeInto(part<QLineEdit>("devicePattern"), "W#{weight:kg}");
  EXPECT_TRUE(lineShows("no weight")) << "its lines are others";
  typeInto(part<QLineEdit>("devicePattern"), "{stable:ST|US},NT,{weight} {unit}");
  EXPECT_TRUE(lineShows("0 g, still"));
  typeInto(part<QLineEdit>("devicePattern"), "{weight");
  EXPECT_THAT(state(), HasSubstr("brace"));
}

TEST_F(DeviceDialogTest, WhatCanNotBeIsSaid) {
  press("addScale");
  typeInto(part<QComboBox>("deviceAddress")->lineEdit(), "COM3");
  EXPECT_THAT(state(), HasSubstr("serial:"));
  typeInto(part<QComboBox>("deviceAddress")->lineEdit(), "serial:/nowhere/at/all");
  EXPECT_THAT(state(), HasSubstr("Not there"));
  typeInto(part<QComboBox>("deviceAddress")->lineEdit(), "serial:/dev/zero");
  EXPECT_THAT(state(), HasSubstr("Not there"));
  press("removeDevice");
  EXPECT_TRUE(window->devices().kept().empty());
  EXPECT_EQ(part<QListWidget>("deviceList")->count(), 0);
}

TEST_F(DeviceDialogTest, APenIsHeardToo) {
  press("addPen");
  typeInto(part<QComboBox>("deviceAddress")->lineEdit(), "serial:" + sim.penCable());
  sim.bench().apply(
      sim::act::Dip{core::Conductivity::fromMilliSiemensPerCm(2), 6, core::Temperature::fromCelsius(20)});
  EXPECT_TRUE(lineShows("mS/cm")) << state();
}

class ScaleCheckTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    dialog = std::make_unique<ScaleCheckDialog>(window->desk(), editor(), window->units(), window->devices());
    dialog->show();
    QApplication::processEvents();
  }
  void TearDown() override {
    dialog.reset();
    window.reset();
  }
  void typeInto(const char* name, const QString& text) {
    auto* field = dialog->findChild<QLineEdit*>(name);
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, text);
  }
  void keep() { QTest::mouseClick(dialog->findChild<QPushButton*>("keepCheck"), Qt::LeftButton); }
  std::string words(const char* name) { return dialog->findChild<QLabel*>(name)->text().toStdString(); }
  std::unique_ptr<ScaleCheckDialog> dialog;
};

TEST_F(ScaleCheckTest, AScaleThatIsOffIsSaidKeptAndStandsBeforeTheNextRun) {
  EXPECT_THAT(words("checkList"), HasSubstr("not been checked"));
  keep();
  EXPECT_THAT(words("checkVerdict"), HasSubstr("Type the weight"));
  typeInto("checkKnown", "1 kg");
  typeInto("checkShown", "1000 g");
  keep();
  EXPECT_THAT(words("checkVerdict"), HasSubstr("right"));
  QTest::qWait(1100); // the book knows whole seconds
  typeInto("checkKnown", "2000 g");
  typeInto("checkShown", "2040 g");
  keep();
  EXPECT_THAT(words("checkVerdict"), HasSubstr("+2.00 %"));
  EXPECT_THAT(words("checkVerdict"), HasSubstr("calibrate"));
  EXPECT_THAT(words("checkList"), HasSubstr("shows it right"));
  window->showStation(Station::Bench);
  click("weighHere");
  EXPECT_THAT(find<QLabel>("runPreparation")->text().toStdString(), HasSubstr("calibrate"));
  EXPECT_THAT(find<QLabel>("runPreparation")->text().toStdString(), HasSubstr("never checked"))
      << "the other scale";
}

TEST_F(ScaleCheckTest, WhatTheCableSaysComesByItself) {
  sim::SimServer sim{{Mass::fromGrams(1), Mass::fromKilograms(60), "g", 0, 0.05}, 2};
  const auto scale = dialog->findChild<QComboBox*>("checkScale")->currentText();
  window->devices().keep({{DeviceSetting::Kind::Scale, scale, "serial:" + sim.scaleCable(), {}, {}, {}, {}}});
  sim.bench().apply(sim::act::Pour{Mass::fromGrams(500), 0});
  EXPECT_TRUE(
      QTest::qWaitFor([&] { return dialog->findChild<QLineEdit*>("checkShown")->text() == "500"; }, 8000))
      << words("checkVerdict");
  window->devices().keep({});
}

} // namespace
} // namespace butte::app
