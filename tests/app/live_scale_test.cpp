// Whole batches on a scale over a pseudo-terminal: the stand-in plays the scale, the test plays the hand.
#include "device_port.h"
#include "edits/bench_edits.h"
#include "run/run_result.h"
#include "serve/sim_server.h"
#include "services/device_desk.h"
#include "stations/bench/run_page.h"
#include "window_fixture.h"

#include <QCheckBox>
#include <QElapsedTimer>
#include <QPushButton>

namespace butte::app {
namespace {

using core::Mass;
using core::RunPhase;
using ::testing::HasSubstr;

class LiveScaleTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    hurry();
    window->devices().keep(
        {{DeviceSetting::Kind::Scale, "bench", "serial:" + sim.scaleCable(), {}, {}, {}, "T"},
         {DeviceSetting::Kind::Pen, "pen", "serial:" + sim.penCable(), {}, {}, {}, {}}});
    window->showStation(Station::Bench);
    click("weighHere");
    click("runNext"); // all stands ready
    click("runNext"); // the water
  }
  /// Scale and watch alike, so that a test does not wait as a hand does.
  void hurry() {
    sim.setHaste(haste);
    window->devices().setHaste(haste);
  }
  void TearDown() override {
    window.reset(); // before the scale goes
  }

  const BenchEdits& run() { return window->findChild<RunPage*>()->run(); }
  RunPhase phase() { return run().at().phase; }
  std::string label(const char* name) { return find<QLabel>(name)->text().toStdString(); }
  Mass toWeigh() {
    const auto at = run().at();
    return core::toWeighNow(run().state(), run().plan(), at.vessel, at.step);
  }
  bool until(const std::function<bool()>& what, int milliseconds = 15000) {
    return QTest::qWaitFor(what, milliseconds);
  }
  bool shows(const char* words) {
    return until([&] { return label("scaleWords").find(words) != std::string::npos; });
  }
  void cupOnAndTare() {
    sim.bench().apply(sim::act::LayOn{Mass::fromGrams(38)});
    ASSERT_TRUE(shows("lies on it")) << label("scaleWords");
    click("scaleTare");
    ASSERT_TRUE(shows("At zero")) << label("scaleWords");
  }
  void tip() {
    sim.bench().apply(sim::act::Lift{});
    QTest::qWait(300);
    click("runNext");
    sim.bench().apply(sim::act::Tip{});
    click("runNext"); // it is clear
  }

  double haste = 3;
  sim::SimServer sim{{Mass::fromGrams(1), Mass::fromKilograms(60), "g", 0.3, 0.1}, 11};
};

TEST_F(LiveScaleTest, AGoodPourIsTakenByItselfAndGoesOn) {
  cupOnAndTare();
  const auto wanted = toWeigh();
  sim.bench().apply(sim::act::Pour{wanted * 0.95, 0.5});
  ASSERT_TRUE(shows("Slowly now")) << label("scaleWords");
  EXPECT_EQ(phase(), RunPhase::Weigh);
  sim.bench().apply(sim::act::Pour{wanted * 0.05, 0.3});
  ASSERT_TRUE(until([&] { return phase() == RunPhase::Tip; })) << label("scaleWords");
  const auto& weighed = std::get<core::did::Weighed>(run().events().back().deed);
  EXPECT_FALSE(weighed.typed);
  EXPECT_NEAR(weighed.mass.grams(), wanted.grams(), 3);
  tip();
  EXPECT_EQ(phase(), RunPhase::Weigh) << "the second salt";
  ASSERT_TRUE(shows("At zero"));
}

TEST_F(LiveScaleTest, TheFigureFallsWithThePourAndInTheScalesOwnUnit) {
  cupOnAndTare();
  const auto wanted = toWeigh();
  sim.bench().apply(sim::act::Pour{wanted * 0.5, 0});
  EXPECT_TRUE(until([&] {
    const auto figure = find<QLabel>("runFigure")->text().remove(',').remove(" g").toDouble();
    return std::abs(figure - wanted.grams() / 2) < 3;
  })) << label("runFigure");
  sim.bench().apply(sim::act::ShowIn{"lb"});
  EXPECT_TRUE(until([&] { return find<QLabel>("runFigure")->text().endsWith(" lb"); })) << label("runFigure");
}

TEST_F(LiveScaleTest, AnOvershootIsTakenOutOnTheScale) {
  cupOnAndTare();
  const auto wanted = toWeigh();
  sim.bench().apply(sim::act::Pour{wanted * 1.1, 0.3});
  ASSERT_TRUE(shows("too much")) << label("scaleWords");
  EXPECT_EQ(run().events().size(), 2u) << "nothing is taken by itself";
  sim.bench().apply(sim::act::TakeOut{wanted * 0.1});
  EXPECT_TRUE(until([&] { return phase() == RunPhase::Tip; })) << label("scaleWords");
}

TEST_F(LiveScaleTest, AnOvershootMayBeTakenAsItIsAndDecidedThen) {
  cupOnAndTare();
  sim.bench().apply(sim::act::Pour{toWeigh() * 1.1, 0.3});
  ASSERT_TRUE(shows("too much")) << label("scaleWords");
  QTest::qWait(800); // it comes to rest
  click("runNext");
  EXPECT_EQ(phase(), RunPhase::Decide);
  click("runAccept");
  EXPECT_EQ(phase(), RunPhase::Tip);
}

TEST_F(LiveScaleTest, ALostCableIsSaidAndThePourGoesOnWhenItIsBack) {
  cupOnAndTare();
  const auto wanted = toWeigh();
  sim.bench().apply(sim::act::Pour{wanted * 0.5, 0});
  ASSERT_TRUE(shows("Pour"));
  sim.bench().apply(sim::act::Unplug{12});
  ASSERT_TRUE(shows("Nothing comes")) << label("scaleWords");
  ASSERT_TRUE(shows("Pour")) << "it came back by itself: " << label("scaleWords");
  sim.bench().apply(sim::act::Pour{wanted * 0.5, 0});
  EXPECT_TRUE(until([&] { return phase() == RunPhase::Tip; })) << label("scaleWords");
}

TEST_F(LiveScaleTest, ATypedWeightCountsWhileTheScaleIsSilent) {
  sim.bench().apply(sim::act::Unplug{1000});
  ASSERT_TRUE(shows("Nothing comes")) << label("scaleWords");
  type("runMass", QString::number(toWeigh().grams(), 'f', 2) + " g");
  click("runNext");
  EXPECT_EQ(phase(), RunPhase::Tip);
}

TEST_F(LiveScaleTest, AForgottenTareIsAskedAfter) {
  ASSERT_TRUE(shows("At zero"));
  sim.bench().apply(sim::act::LayOn{Mass::fromGrams(940)});
  ASSERT_TRUE(shows("Is that the container?")) << label("scaleWords");
  EXPECT_TRUE(find<QPushButton>("scaleSalt")->isVisible());
  click("scaleZero");
  ASSERT_TRUE(shows("At zero")) << label("scaleWords");
  sim.bench().apply(sim::act::Pour{toWeigh(), 1});
  EXPECT_TRUE(until([&] { return phase() == RunPhase::Tip; })) << label("scaleWords");
  EXPECT_NEAR(std::get<core::did::Weighed>(run().events().back().deed).mass.grams(),
              sim.bench().scale.content().grams(), 3);
}

TEST_F(LiveScaleTest, WhatWasStruckIsNotTakenAgainByItself) {
  cupOnAndTare();
  sim.bench().apply(sim::act::Pour{toWeigh(), 0.3});
  ASSERT_TRUE(until([&] { return phase() == RunPhase::Tip; }));
  press(Qt::Key_F9);
  ASSERT_EQ(phase(), RunPhase::Weigh);
  QTest::qWait(1200);
  EXPECT_EQ(phase(), RunPhase::Weigh) << "the hand wanted it so";
  click("runNext");
  EXPECT_EQ(phase(), RunPhase::Tip) << "and may take it all the same";
}

TEST_F(LiveScaleTest, TheNextSaltIsWeighedWhileTheFirstDissolves) {
  cupOnAndTare();
  sim.bench().apply(sim::act::Pour{toWeigh(), 0.3});
  ASSERT_TRUE(until([&] { return phase() == RunPhase::Tip; }));
  sim.bench().apply(sim::act::Lift{});
  click("runNext");
  ASSERT_EQ(phase(), RunPhase::Dissolve);
  sim.bench().apply(sim::act::Tip{});
  click("runMeanwhile");
  ASSERT_EQ(phase(), RunPhase::Weigh);
  EXPECT_THAT(label("runDetail"), HasSubstr("dissolves"));
  ASSERT_TRUE(shows("At zero")) << label("scaleWords");
  sim.bench().apply(sim::act::Pour{toWeigh(), 0.3});
  ASSERT_TRUE(until([&] { return phase() == RunPhase::Dissolve; })) << label("scaleWords");
  click("runNext"); // the first is clear
  EXPECT_EQ(phase(), RunPhase::Tip) << "the second waits in its cup";
}

TEST_F(LiveScaleTest, WhatWasPouredBeforeTheProgramWentIsNoContainer) {
  cupOnAndTare();
  const auto wanted = toWeigh();
  sim.bench().apply(sim::act::Pour{wanted * 0.6, 0});
  ASSERT_TRUE(shows("Pour"));
  reopenWindow();
  hurry();
  window->showStation(Station::Bench);
  click("weighHere");
  ASSERT_TRUE(shows("lies on it already")) << label("scaleWords");
  click("scaleSalt");
  sim.bench().apply(sim::act::Pour{wanted * 0.4, 0});
  ASSERT_TRUE(until([&] { return phase() == RunPhase::Tip; })) << label("scaleWords");
  EXPECT_NEAR(std::get<core::did::Weighed>(run().events().back().deed).mass.grams(), wanted.grams(), 3)
      << "all of it counts";
}

TEST_F(LiveScaleTest, NothingIsTakenWhileAnotherPageIsSeen) {
  cupOnAndTare();
  const auto wanted = toWeigh();
  window->showStation(Station::Water);
  sim.bench().apply(sim::act::Pour{wanted, 0.3});
  QTest::qWait(1500);
  EXPECT_EQ(phase(), RunPhase::Weigh);
  window->showStation(Station::Bench);
  click("weighHere");
  EXPECT_TRUE(until([&] { return phase() == RunPhase::Tip; })) << label("scaleWords");
}

/// A helper who does one vessel after the other, each weight on the scale, each reading by the pens.
class WholeSetTest : public LiveScaleTest {
protected:
  WholeSetTest() { haste = 6; } // some forty steps
  void weighNow() {
    const auto events = run().events().size();
    // Fine weights are beyond this scale, and an acid goes by volume: typed from what is better.
    if (toWeigh() < Mass::fromGrams(100)) {
      type("runMass", QString::number(toWeigh().grams(), 'f', 3) + " g");
      click("runNext");
      return;
    }
    sim.bench().apply(sim::act::LayOn{Mass::fromGrams(38)});
    QTest::qWait(250);
    click("scaleTare");
    QTest::qWait(200);
    sim.bench().apply(sim::act::Pour{toWeigh(), 0});
    QTest::qWait(350);
    if (find<QPushButton>("scaleSalt")->isVisible()) click("scaleSalt"); // it came at once: the hand says so
    ASSERT_TRUE(until([&] { return run().events().size() > events; })) << label("scaleWords");
  }
  /// What the bench asks for now, done.
  void doNext() {
    if (phase() == RunPhase::Weigh) return weighNow();
    if (phase() == RunPhase::Measure) {
      sim.bench().apply(sim::act::Dip{core::Conductivity::fromMilliSiemensPerCm(1.7), 5.9,
                                      core::Temperature::fromCelsius(21)});
      ASSERT_TRUE(shows("it is still")) << label("scaleWords");
    }
    click("runNext");
  }
  void killAndComeBack() {
    const auto events = run().events();
    reopenWindow();
    hurry();
    window->showStation(Station::Bench);
    click("weighHere");
    ASSERT_EQ(run().events(), events);
  }
  void handOverTo(const char* who) {
    window->prompts().words = [=](const QString&, const QString&, const QString&) { return QString(who); };
    click("runHandOver");
  }
  void expectAsPlanned() {
    for (const auto& line : core::runResult(run().plan(), run().state()).deviations)
      EXPECT_LT(std::abs(line.percent.value_or(0)), 2.05) << line.product;
  }
};

// Every tank of the demo, killed at every event with BUTTE_LONG set (at every fourth without: a minute less),
// by two people: M.A. goes on where the second tank begins.
TEST_F(WholeSetTest, EveryTankByScaleAndPenThroughEveryKillAndAHandOver) {
  const auto tanks = run().plan().vessels.size();
  ASSERT_GE(tanks, 3u);
  const int killedEvery = qEnvironmentVariableIsSet("BUTTE_LONG") ? 1 : 4;
  int kills = 0;
  for (int steps = 0; phase() != RunPhase::Done && steps < 200; ++steps) {
    const auto events = run().events().size();
    if (steps % killedEvery == 0) {
      killAndComeBack();
      ++kills;
    }
    if (run().at().vessel == 1 && run().state().who != "M.A.") {
      handOverTo("M.A.");
      killAndComeBack();
      ASSERT_EQ(run().state().who, "M.A.");
    }
    doNext();
    ASSERT_FALSE(HasFatalFailure());
    ASSERT_GT(run().events().size(), events) << label("runHeading");
  }
  EXPECT_EQ(phase(), RunPhase::Done);
  EXPECT_GT(kills * killedEvery, 25);
  expectAsPlanned();
  const auto& events = run().events();
  const auto handed = std::find_if(events.begin(), events.end(), [](const core::RunEvent& event) {
    return std::holds_alternative<core::did::HandedOver>(event.deed);
  });
  ASSERT_NE(handed, events.end());
  EXPECT_TRUE(std::all_of(handed + 1, events.end(), [](const core::RunEvent& event) {
    return event.by == "M.A.";
  })) << "each line says whose hand it was";
}

} // namespace
} // namespace butte::app
