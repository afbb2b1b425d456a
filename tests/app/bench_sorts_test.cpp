// What a run can be beside a batch on a scale: bags for later, level spoons, another order, another salt, a
// vessel that rests while the next is begun; and what it came to.
#include "edits/bench_edits.h"
#include "run/bag_fills.h"
#include "run/run_result.h"
#include "run/substitute.h"
#include "services/bench_sounds.h"
#include "stations/bench/run_page.h"
#include "window_fixture.h"

#include <QCheckBox>
#include <QComboBox>
#include <QProcess>
#include <QPushButton>
#include <QStatusBar>

namespace butte::app {
namespace {

using core::RunPhase;
using ::testing::HasSubstr;

class BenchSortsTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window->showStation(Station::Bench);
    QApplication::processEvents();
  }
  const BenchEdits& run() { return window->findChild<RunPage*>()->run(); }
  RunPhase phase() { return run().at().phase; }
  std::string label(const char* name) {
    QApplication::processEvents();
    return find<QLabel>(name)->text().toStdString();
  }
  double missing() {
    const auto at = run().at();
    return core::stillToWeigh(run().state(), run().plan(), at.vessel, at.step).grams();
  }
  void weigh(double grams) {
    type("runMass", QString::number(grams, 'f', 4) + " g");
    click("runNext");
  }
  void choose(const char* name, int index) {
    auto* box = find<QComboBox>(name);
    box->setCurrentIndex(index);
    emit box->activated(index);
    QApplication::processEvents();
  }
  std::string statusText() { return window->statusBar()->currentMessage().toStdString(); }
  static std::string paperText(const QString& path) {
    QProcess reader;
    reader.start("pdftotext", {"-layout", path, "-"});
    reader.waitForFinished();
    return reader.readAllStandardOutput().toStdString();
  }
  void askForBags(const QString& answer) {
    window->prompts().words = [answer](const QString&, const QString&, const QString&) { return answer; };
    click("weighBags");
  }
  void fill(double times) {
    if (phase() == RunPhase::Prepare) click("runNext");
    const auto bag = run().at().vessel;
    for (int loads = 0; phase() != RunPhase::Done && run().at().vessel == bag && loads < 20; ++loads) {
      if (phase() == RunPhase::Weigh) weigh(missing() * times);
      if (phase() == RunPhase::Decide) click("runAccept");
      if (phase() == RunPhase::Tip) click("runNext");
    }
  }
};

TEST_F(BenchSortsTest, BagsAreFilledOneByOneAndTheOneThatIsOffIsNamed) {
  askForBags("3");
  ASSERT_EQ(run().sort(), RunSort::Bags);
  const auto salts = run().plan().vessels.size() / 3;
  for (std::size_t bag = 0; bag < run().plan().vessels.size(); ++bag)
    fill(bag == 1 ? 1.06 : 1);
  ASSERT_EQ(phase(), RunPhase::Done);
  EXPECT_THAT(label("runHeading"), HasSubstr("All bags"));
  EXPECT_THAT(label("runVerdict"), HasSubstr("1 bag is out of its tolerance"));
  EXPECT_THAT(label("runResult"), HasSubstr("bag 2 holds"));
  EXPECT_EQ(core::bagFills(run().plan(), run().state()).size(), salts);
  const auto path = folder.filePath("bags.pdf");
  window->prompts().fileToMake = [path](const QString&, const QString&, const QString&) { return path; };
  click("runBagLabels");
  const auto text = paperText(path);
  EXPECT_THAT(text, HasSubstr("of feed"));
  EXPECT_THAT(text, HasSubstr("Filled:"));
  const auto batches = window->desk().book().store().list(book::Kind::Batch, false)->size();
  click("runNext"); // done with it
  EXPECT_EQ(window->desk().book().store().list(book::Kind::Batch, false)->size(), batches)
      << "bags are no batch";
  EXPECT_FALSE(BenchEdits::unfinished(window->desk(), RunSort::Bags));
}

TEST_F(BenchSortsTest, BagsThatCanNotBeAreSaid) {
  for (const char* wrong : {"0", "-3", "2.5", "many", "41", "99999999999"}) {
    askForBags(wrong);
    EXPECT_FALSE(run().isOpen()) << wrong;
    EXPECT_THAT(statusText(), HasSubstr("a whole number")) << wrong;
  }
  askForBags("");
  EXPECT_FALSE(run().isOpen()) << "stepped back";
}

TEST_F(BenchSortsTest, BagsAndBatchesGoOnEachByItself) {
  askForBags("2");
  fill(1);
  click("runLeave");
  click("weighHere");
  EXPECT_EQ(run().sort(), RunSort::Batch);
  click("runLeave");
  click("weighBags"); // asks nothing: it goes on
  EXPECT_EQ(run().sort(), RunSort::Bags);
  EXPECT_EQ(run().at().vessel, 1u);
}

TEST_F(BenchSortsTest, AnotherOrderIsTakenAndItsCostSaid) {
  click("weighHere");
  const auto before = run().plan().vessels[0].steps;
  for (int school = 1; school < static_cast<int>(core::allOrderSchools.size()); ++school) {
    choose("runOrder", school);
    const auto told = label("runOrderCost");
    const bool refused = told.find("would do harm") != std::string::npos;
    const auto order = run().order();
    EXPECT_EQ(order == core::allOrderSchools[static_cast<std::size_t>(school)], !refused) << told;
    EXPECT_FALSE(told.empty());
  }
  choose("runOrder", 0);
  EXPECT_EQ(run().plan().vessels[0].steps.size(), before.size());
  for (std::size_t s = 0; s < before.size(); ++s)
    EXPECT_EQ(run().plan().vessels[0].steps[s].product, before[s].product);
  click("runNext");
  EXPECT_FALSE(find<QComboBox>("runOrder")->isVisible()) << "begun: it stays";
}

TEST_F(BenchSortsTest, AnOrderOutlivesTheProgram) {
  click("weighHere");
  choose("runOrder", static_cast<int>(core::OrderSchool::HeaviestFirst));
  ASSERT_EQ(run().order(), core::OrderSchool::HeaviestFirst) << label("runOrderCost");
  const auto first = run().plan().vessels[0].steps[0].product;
  reopenWindow();
  window->showStation(Station::Bench);
  click("weighHere");
  EXPECT_EQ(run().order(), core::OrderSchool::HeaviestFirst);
  EXPECT_EQ(run().plan().vessels[0].steps[0].product, first);
}

TEST_F(BenchSortsTest, AnEmptyBagIsMadeGoodByAnotherSalt) {
  click("weighHere");
  click("runNext");
  click("runNext");
  const auto canBeReplaced = [&] {
    const auto at = run().at();
    return !core::substitutesFor(run().plan(), run().state(), at.vessel, at.step).empty();
  };
  for (int steps = 0; !(phase() == RunPhase::Weigh && canBeReplaced()) && steps < 100; ++steps) {
    if (phase() == RunPhase::Measure) type("runPh", "5.9");
    phase() == RunPhase::Weigh ? weigh(missing()) : click("runNext");
  }
  const auto vessel = run().at().vessel;
  weigh(missing() / 10);
  QTest::keyClick(window->findChild<RunPage*>(), Qt::Key_F4);
  QApplication::processEvents();
  click("troubleBag");
  auto* offer = window->findChild<QPushButton*>("troubleSubstitute");
  if (!offer) GTEST_FAIL() << "the sample shelf has another salt of these elements";
  EXPECT_THAT(offer->text().toStdString(), HasSubstr("Instead "));
  const auto product = run().plan().vessels[run().at().vessel].steps[run().at().step].product;
  QTest::mouseClick(offer, Qt::LeftButton);
  QApplication::processEvents();
  EXPECT_TRUE(run().state().vessels[vessel].of[product].skipped);
  for (int i = 0; phase() != RunPhase::Weigh && i < 4; ++i)
    click("runNext");
  const auto now = run().plan().vessels[run().at().vessel].steps[run().at().step].product;
  EXPECT_NE(now, product);
  EXPECT_GE(run().plan().vessels[vessel].steps.size(), run().firstPlan().vessels[vessel].steps.size());
}

TEST_F(BenchSortsTest, ASecondBagsLotIsTypedNext) {
  click("weighHere");
  click("runNext");
  click("runNext");
  type("runLot", "OLD-1");
  weigh(missing() / 2);
  QTest::keyClick(window->findChild<RunPage*>(), Qt::Key_F4);
  click("troubleBag");
  click("troubleSecondBag");
  EXPECT_TRUE(find<QLineEdit>("runLot")->hasFocus());
  type("runLot", "NEW-2");
  weigh(missing());
  ASSERT_EQ(run().state().lots.size(), 2u);
  EXPECT_EQ(run().state().lots[1].lot, "NEW-2");
}

TEST_F(BenchSortsTest, TheNextVesselIsBegunWhileTheFirstRests) {
  click("weighHere");
  for (int steps = 0; phase() != RunPhase::Measure && steps < 100; ++steps) {
    if (phase() == RunPhase::Weigh)
      weigh(missing());
    else
      click("runNext");
  }
  ASSERT_EQ(phase(), RunPhase::Measure);
  EXPECT_THAT(label("runDetail"), HasSubstr("it rests for 0 min"));
  click("runMeanwhile");
  EXPECT_EQ(run().at().vessel, 1u);
  EXPECT_EQ(phase(), RunPhase::Pour);
  click("runNext");
  ASSERT_EQ(phase(), RunPhase::Weigh);
  EXPECT_THAT(label("runDetail"), HasSubstr("rests for"));
  click("runMeanwhile");
  EXPECT_EQ(phase(), RunPhase::Measure);
  EXPECT_EQ(run().at().vessel, 0u);
}

TEST_F(BenchSortsTest, AResultSaysWhatToLookAtFirst) {
  click("weighHere");
  bool first = true;
  for (int steps = 0; phase() != RunPhase::Done && steps < 200; ++steps) {
    if (phase() == RunPhase::Weigh) {
      weigh(missing() * (first ? 1.15 : 1));
      first = false;
      if (phase() == RunPhase::Decide) click("runAccept");
      continue;
    }
    if (phase() == RunPhase::Measure) type("runPh", "5.9");
    click("runNext");
  }
  ASSERT_EQ(phase(), RunPhase::Done);
  EXPECT_THAT(label("runVerdict"), HasSubstr("▲"));
  EXPECT_THAT(label("runCheckFirst"), HasSubstr("too much"));
  EXPECT_THAT(label("runCheckFirst"), HasSubstr("±"));
  const auto* picture = window->findChild<QWidget*>("runElements");
  EXPECT_TRUE(picture->isVisible());
  EXPECT_THAT(picture->accessibleDescription().toStdString(), HasSubstr("planned"));
}

TEST_F(BenchSortsTest, AVesselIsToppedUpWithWhatItLacks) {
  window->showStation(Station::Stocks);
  click("wayDirect");
  type("directVessel", "100");
  type("directPresent", "40"); // of full strength
  window->showStation(Station::Bench);
  QApplication::processEvents();
  click("weighHere");
  EXPECT_THAT(label("runPreparation"), HasSubstr("of feed stays in it"));
  click("runNext");
  EXPECT_THAT(label("runFigure"), HasSubstr("50")) << "to the ninety litres at which salts go in";
  const auto& direct = **editor().answer().direct;
  for (const auto& step : run().plan().vessels[0].steps) {
    const auto had = run().plan().vessels[0].had.of(step.product);
    const auto& shelf = editor().document().given.request.shelf;
    const auto same = std::find_if(shelf.begin(), shelf.end(), [&](const auto& p) {
      return p.id == run().plan().shelf[step.product].id;
    });
    const auto asked = direct.grams[static_cast<std::size_t>(same - shelf.begin())];
    EXPECT_NEAR((step.planned - had).grams(), asked.grams(), 1e-6);
    EXPECT_NEAR(had / step.planned, 0.4, 1e-9);
  }
  click("runLeave");
  reopenWindow();
  window->showStation(Station::Bench);
  click("weighHere");
  EXPECT_NEAR(run().plan().vessels[0].had.volume.litres(), 40, 1e-9) << "it is in the book";
}

// A scale that plays a keyboard types what it would send over a cable.
TEST_F(BenchSortsTest, AcidFirstStaysAcidFirst) {
  window->showStation(Station::Stocks);
  click("wayDirect");
  type("directVessel", "100");
  click("directAcidFirst");
  window->showStation(Station::Bench);
  QApplication::processEvents();
  click("weighHere");
  EXPECT_EQ(run().order(), core::OrderSchool::AcidFirst);
  window->prompts().goOn = [](const QString&, const QString&, const QString&) { return true; };
  click("runEnd");
  EXPECT_FALSE(BenchEdits::unfinished(window->desk(), RunSort::Batch))
      << "nothing was in: it went into the bin";
}

TEST_F(BenchSortsTest, AScaleThatTypesItsLineIsUnderstood) {
  click("weighHere");
  click("runNext");
  click("runNext");
  for (const char* line : {"ST,NT,+   812.4 g", "+ 812.4 g", "0.8124 kg", "G     812.4  g S"}) {
    type("runMass", line);
    click("runNext");
    ASSERT_TRUE(std::holds_alternative<core::did::Weighed>(run().events().back().deed)) << line;
    EXPECT_NEAR(std::get<core::did::Weighed>(run().events().back().deed).mass.grams(), 812.4, 1e-9) << line;
    click("runStrike");
  }
  const auto events = run().events().size();
  for (const char* line : {"OL", "ST,NT", "+ 812.4", "US,NT,+ 8l2.4 g", "US,NT,+ 812.4 g"}) {
    type("runMass", line);
    if (std::string(line) != "+ 812.4") click("runNext");
    EXPECT_EQ(run().events().size(), events) << line;
  }
}

TEST_F(BenchSortsTest, SoundsAreHeardOnlyWhenWanted) {
  auto* sounds = window->findChild<BenchSounds*>();
  std::vector<BenchSound> heard;
  QObject::connect(sounds, &BenchSounds::played, sounds, [&](BenchSound sound) { heard.push_back(sound); });
  click("weighHere");
  sounds->play(BenchSound::Warning);
  EXPECT_TRUE(heard.empty()) << "off until somebody wants them";
  click("runSounds");
  EXPECT_EQ(heard, std::vector<BenchSound>{BenchSound::Taken}) << "so that one hears how it sounds";
  click("runSounds");
  sounds->play(BenchSound::TimeUp);
  EXPECT_EQ(heard.size(), 1u);
}

TEST_F(BenchSortsTest, LevelSpoonsAreToldAsSpoons) {
  auto* spoons = find<QCheckBox>("levelSpoons");
  if (!spoons->isChecked()) spoons->click();
  type("scale0_readability", "5");
  type("scale1_readability", "5"); // neither shows less
  window->showStation(Station::Stocks);
  click("wayDirect");
  type("directVessel", "4");
  window->showStation(Station::Bench);
  QApplication::processEvents();
  click("weighHere");
  click("runNext");
  click("runNext");
  bool seen = false;
  for (int steps = 0; !seen && steps < 60; ++steps) {
    if (phase() != RunPhase::Weigh) {
      click("runNext");
      continue;
    }
    const auto at = run().at();
    const auto tolerance = run().plan().vessels[at.vessel].steps[at.step].tolerance.grams();
    seen = label("runFigure").find("tsp") != std::string::npos && missing() > 4 * tolerance;
    if (!seen) weigh(missing());
  }
  ASSERT_TRUE(seen) << "traces for a gallon go by spoons";
  EXPECT_THAT(label("runDetail"), HasSubstr("level"));
  const auto events = run().events().size();
  const auto wanted = missing();
  weigh(wanted / 2); // half of it came otherwise
  ASSERT_EQ(phase(), RunPhase::Weigh);
  click("runNext"); // so many spoons are in the cup
  ASSERT_EQ(run().events().size(), events + 2);
  const auto spooned = std::get<core::did::Weighed>(run().events().back().deed).mass.grams();
  EXPECT_GT(spooned, 0);
  EXPECT_LT(spooned, wanted) << "only what was missing";
}

} // namespace
} // namespace butte::app
