// A practice run in the real window: the hands press what stands on the panel, the scale and the pens are on
// their pseudo-terminals, and the debrief tells what truly happened.
#include "edits/bench_edits.h"
#include "serve/sim_server.h"
#include "services/device_desk.h"
#include "stations/bench/practice/debrief_view.h"
#include "stations/bench/practice/practice_panel.h"
#include "stations/bench/run_page.h"
#include "window_fixture.h"

#include <QComboBox>
#include <QListWidget>
#include <QPushButton>
#include <QRegularExpression>

namespace butte::app {
namespace {

using core::Mass;
using core::Mishap;
using core::RunPhase;
using ::testing::HasSubstr;

/// How a helper goes about it.
struct Manner {
  bool gear = true, looks = true, shutsWindow = true, readsLabels = true, waits = true, checksPens = true;
};

class PracticeRunTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->showStation(Station::Bench);
  }
  RunPage* page() { return window->findChild<RunPage*>(); }
  const BenchEdits& run() { return page()->run(); }
  RunPhase phase() { return run().at().phase; }
  PracticePanel* panel() { return window->findChild<PracticePanel*>(); }
  std::string label(const char* name) { return find<QLabel>(name)->text().toStdString(); }

  /// With these mishaps: seeds are tried until one has all of them.
  void begin(const std::vector<Mishap>& wanted) {
    click("practiceRun"); // its seed is by chance: it goes into the bin, another is begun
    for (std::uint64_t seed = 1; seed < 5000; ++seed) {
      const auto mishaps = core::seedMishaps(run().firstPlan(), seed);
      const bool all = std::all_of(wanted.begin(), wanted.end(), [&](Mishap one) {
        return std::any_of(mishaps.begin(), mishaps.end(), [&](const auto& m) { return m.mishap == one; });
      });
      if (!all) continue;
      window->prompts().goOn = [](const QString&, const QString&, const QString&) { return true; };
      click("runEnd");
      page()->beginPractice(editor(), seed);
      click("practiceRun");
      ASSERT_EQ(run().practice().seed, seed);
      return;
    }
    FAIL() << "no seed has them";
  }
  /// Goes to a vessel and does something there.
  void at(std::size_t vessel, const QString& name) {
    find<QComboBox>("practiceVessels")->setCurrentIndex(static_cast<int>(vessel));
    press(name);
  }
  void press(const QString& name) {
    auto* button = panel()->findChild<QPushButton*>(name);
    ASSERT_NE(button, nullptr) << name.toStdString();
    ASSERT_TRUE(button->isVisible()) << name.toStdString();
    QTest::mouseClick(button, Qt::LeftButton);
    QApplication::processEvents();
  }
  void takeTub(std::size_t product) {
    auto* tubs = find<QComboBox>("practiceTubs");
    const int index = tubs->findText(run().nameOf(product));
    ASSERT_GE(index, 0);
    tubs->setCurrentIndex(index);
    emit tubs->activated(index);
  }
  std::size_t product() {
    const auto at = run().at();
    return run().plan().vessels[at.vessel].steps[at.step].product;
  }

  void weigh(const Manner& manner) {
    takeTub(product());
    if (manner.looks) press("practiceLook");
    if (manner.shutsWindow) press("practiceWindow");
    press("practiceCup");
    const auto at = run().at();
    const auto wanted = core::toWeighNow(run().state(), run().plan(), at.vessel, at.step);
    panel()->world()->pour(wanted); // a steady hand
    type("runMass", QString::number(wanted.grams(), 'f', 4) + " g");
    click("runNext");
  }
  void tip(const Manner& manner) {
    auto* own = panel()->findChild<QPushButton*>("practiceFarther");
    if (manner.readsLabels && own->isVisible()) press("practiceFarther");
    at(run().at().vessel, "practiceTip");
    click("runNext");
  }
  void dissolve(const Manner& manner) {
    const auto vessel = run().at().vessel;
    at(vessel, "practiceStir");
    at(vessel, "practiceStir");
    for (int more = 0; manner.waits && more < 20; ++more) {
      if (panel()->world()->truth().vessels[vessel].looksClear()) break;
      at(vessel, "practiceStir");
    }
    click("runNext");
  }
  void measure(const Manner& manner) {
    const auto vessel = run().at().vessel;
    if (manner.checksPens) {
      press("practiceStandard");
      press("practiceCalibrate");
    }
    at(vessel, "practiceDip");
    auto& haste = *window->devices().standIn();
    haste.setHaste(30); // the pens come to rest
    // Still, and no longer in what it hung in before: a hand sees the figure change.
    const auto full = core::madeUpTo(run().plan(), run().state(), vessel);
    const auto& there = panel()->world()->truth().vessels[vessel];
    const auto real = core::trueReading(run().firstPlan(), there, full).conductivity;
    const double shown = manner.checksPens ? 1 : 0.86; // of a pen that nobody set right
    const auto isThere = [&] {
      const auto pen = window->devices().pen()->penNow();
      return pen.still && pen.conductivity && std::abs(*pen.conductivity / real - shown) < 0.03 &&
             find<QLabel>("scaleWords")->text().contains("still, press");
    };
    ASSERT_TRUE(QTest::qWaitFor(isThere, 20000)) << label("scaleWords");
    click("runNext");
  }
  void walk(const Manner& manner) {
    if (manner.gear)
      for (const char* piece : {"practiceGoggles", "practiceGloves", "practiceMask"})
        press(piece);
    for (int steps = 0; phase() != RunPhase::Done && steps < 400; ++steps) {
      const auto vessel = run().at().vessel;
      switch (phase()) {
      case RunPhase::Pour:
      case RunPhase::TopUp:
        at(vessel, "practiceWater");
        click("runNext");
        break;
      case RunPhase::Weigh:
        weigh(manner);
        break;
      case RunPhase::Tip:
        tip(manner);
        break;
      case RunPhase::Dissolve:
        dissolve(manner);
        break;
      case RunPhase::Measure:
        measure(manner);
        break;
      default:
        click("runNext");
      }
    }
    ASSERT_EQ(phase(), RunPhase::Done);
  }
  double points() {
    const auto match = QRegularExpression("^(\\d+)").match(find<QLabel>("debriefPoints")->text());
    return match.captured(1).toDouble();
  }
  QStringList moments() {
    QStringList out;
    auto* list = find<QListWidget>("debriefMoments");
    for (int i = 0; i < list->count(); ++i)
      out << list->item(i)->text();
    return out;
  }
};

TEST_F(PracticeRunTest, ACarefulHandGetsAllPointsAndSeesEveryMomentWell) {
  begin({Mishap::Draught, Mishap::MislabelledCup, Mishap::WontDissolve, Mishap::DriftingPen,
         Mishap::SwappedCups});
  walk({});
  EXPECT_GE(points(), 98) << moments().join("\n").toStdString();
  for (const auto& moment : moments())
    EXPECT_TRUE(moment.startsWith("✓")) << moment.toStdString();
  EXPECT_GE(moments().size(), 8);
}

TEST_F(PracticeRunTest, ACarelessHandIsShownEachMomentAgain) {
  begin({Mishap::Draught, Mishap::MislabelledCup, Mishap::WontDissolve, Mishap::DriftingPen,
         Mishap::SwappedCups});
  Manner careless;
  careless = {false, false, false, false, false, false};
  walk(careless);
  EXPECT_LT(points(), 60) << moments().join("\n").toStdString();
  const auto told = moments().join("\n").toStdString();
  EXPECT_THAT(told, HasSubstr("▲ Goggles"));
  EXPECT_THAT(told, HasSubstr("wrong lid was used"));
  EXPECT_THAT(told, HasSubstr("was not waited for"));
  EXPECT_THAT(told, HasSubstr("the wrong one was taken"));
  EXPECT_THAT(told, HasSubstr("were believed"));
  auto* list = find<QListWidget>("debriefMoments");
  for (int i = 0; i < list->count(); ++i) {
    list->setCurrentRow(i);
    EXPECT_FALSE(find<QLabel>("debriefMoment")->text().isEmpty());
  }
  // Nothing of it becomes a batch, and it is over.
  const auto before = window->desk().book().store().list(book::Kind::Batch, false)->size();
  click("runNext");
  EXPECT_EQ(window->desk().book().store().list(book::Kind::Batch, false)->size(), before);
  EXPECT_FALSE(BenchEdits::unfinished(window->desk(), RunSort::Practice) &&
               *BenchEdits::unfinished(window->desk(), RunSort::Practice) == run().ref());
}

TEST_F(PracticeRunTest, TheScaleOnItsCableTakesWhatTheHandPours) {
  begin({});
  window->devices().standIn()->setHaste(4);
  window->devices().setHaste(4);
  press("practiceWindow");
  click("runNext");
  at(0, "practiceWater");
  click("runNext");
  ASSERT_EQ(phase(), RunPhase::Weigh);
  takeTub(product());
  press("practiceLook");
  press("practiceWindow");
  press("practiceCup");
  const auto says = [&](const char* words) {
    return QTest::qWaitFor([&] { return label("scaleWords").find(words) != std::string::npos; }, 15000);
  };
  ASSERT_TRUE(says("lies on it")) << label(
      "scaleWords"); // else no tare is seen, and the first scoop is doubted
  press("practiceTare");
  ASSERT_TRUE(says("At zero")) << label("scaleWords");
  for (int i = 0; i < 3; ++i) {
    press("practiceScoop");
    QTest::qWait(400); // a hand is no quicker
  }
  const auto at = run().at();
  const auto wanted = core::toWeighNow(run().state(), run().plan(), at.vessel, at.step);
  panel()->world()->pour(wanted * 0.25);
  ASSERT_TRUE(QTest::qWaitFor([&] { return phase() == RunPhase::Tip; }, 20000)) << label("scaleWords");
  const auto& weighed = std::get<core::did::Weighed>(run().events().back().deed);
  EXPECT_FALSE(weighed.typed);
  EXPECT_NEAR(panel()->world()->truth().cup[weighed.product].grams(), wanted.grams(), 0.01);
}

TEST_F(PracticeRunTest, ItGoesOnWhereItStoodAfterTheProgramWent) {
  begin({});
  press("practiceGoggles");
  click("runNext");
  at(0, "practiceWater");
  click("runNext");
  weigh({});
  const auto truth = run().practice().truth;
  ASSERT_GE(truth.size(), 3u);
  const auto cup = panel()->world()->truth().cup;
  reopenWindow();
  window->showStation(Station::Bench);
  click("practiceRun");
  EXPECT_EQ(run().practice().truth, truth);
  EXPECT_EQ(phase(), RunPhase::Tip);
  EXPECT_EQ(panel()->world()->truth().cup, cup);
  EXPECT_TRUE(panel()->findChild<QPushButton*>("practiceGoggles")->isChecked());
}

} // namespace
} // namespace butte::app
