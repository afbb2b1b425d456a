#pragma once
// The Tank station under a hand: tanks are named, filled, read.
#include "edits/tank_edits.h"
#include "stations/tank/tank_page.h"
#include "window_fixture.h"

#include <QComboBox>
#include <QPushButton>
#include <QStatusBar>

namespace butte::app {

using book::TankDid;
using core::AdviceKind;
using core::Nutrient;

class TankPageTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->showStation(Station::Tank);
    settle();
  }
  TankPage& page() { return window->tankPage(); }
  const TankStory& story() { return page().story(); }
  void settle() {
    QApplication::processEvents();
    ASSERT_TRUE(QTest::qWaitFor([&] { return page().isSettled(); }, 20000));
    QApplication::processEvents();
  }
  void newTank(const char* name) {
    window->prompts().words = [=](const QString&, const QString&, const QString&) { return QString(name); };
    click("newTank");
    settle();
  }
  void enterIn(const QString& field, const QString& text) {
    type(field, text);
    press(Qt::Key_Return);
    settle();
  }
  void choose(const QString& name, const QString& entry) {
    auto* box = find<QComboBox>(name);
    const int index = box->findText(entry, Qt::MatchContains);
    ASSERT_GE(index, 0) << entry.toStdString();
    box->setCurrentIndex(index);
    emit box->activated(index);
    settle();
  }
  std::vector<book::Reading> readings() {
    return TankEdits(window->desk()).readings(page().vessel())->readings;
  }
  VesselLog log() { return *TankEdits(window->desk()).log(page().vessel()); }
  std::string text(const char* name) { return find<QLabel>(name)->text().toStdString(); }
  QString status() { return window->statusBar()->currentMessage(); }
  int placeOf(AdviceKind kind) {
    for (std::size_t i = 0; i < story().advice.size(); ++i)
      if (story().advice[i].kind == kind) return static_cast<int>(i);
    return -1;
  }
  /// "Drained 100": of the litres that the person measures in.
  void tellDone(const char* entry, const char* amount) {
    choose("tankDid", entry);
    type("tankAmount", amount);
    click("tankKeepDone");
    settle();
  }
  /// A vessel of 300 L, filled with the formula in hand.
  void filledTank() {
    newTank("bucket row");
    type("vesselFullMark", "300");
    settle();
    click("tankNow");
    choose("tankDid", "filled to the mark with feed");
    click("tankKeepDone");
    settle();
    ASSERT_EQ(story().none, NoStory::None);
  }
};

} // namespace butte::app
