// The composed views that the README shows, each reached as a hand reaches it, in the sample book. With
// BUTTE_PICTURES=folder they are kept there as PNGs (docs/screenshots).
#include "scan/rendered_paper.h"
#include "window_fixture.h"

#include "edits/stock_edits.h"
#include "mends/mend_finder.h"
#include "paint/theme.h"
#include "panel/sim_panel.h"
#include "run/run_state.h"
#include "serve/sim_server.h"
#include "serve/tank_server.h"
#include "services/device_desk.h"
#include "services/units_shown.h"
#include "stations/bench/run_page.h"
#include "stations/book/compare_view.h"
#include "stations/tank/advice_matrix.h"
#include "stations/tank/stream_dialog.h"
#include "stations/tank/tank_page.h"
#include "stations/target/crops_page.h"
#include "stations/water/blend_bar.h"

#include <QComboBox>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>

namespace butte::app {

using ::testing::HasSubstr;

class PicturesTest : public WindowTest {
protected:
  void SetUp() override {
    bareWindow();
    window->books().start(true, {});
    window->resize(1280, 800);
    showWindow();
  }

  void keep(const QString& name) {
    QApplication::processEvents();
    QTest::qWait(500); // what is worked out behind the window
    const auto picture = window->grab();
    EXPECT_EQ(picture.width(), 1280) << "the window fits its screen";
    EXPECT_EQ(picture.height(), 800);
    const auto there = qEnvironmentVariable("BUTTE_PICTURES");
    if ((name.startsWith("weigh-") || name.startsWith("eye-")) && there.contains("docs"))
      return; // for the eye alone
    const bool kept = there.isEmpty() || picture.save(there + "/" + name + ".png");
    EXPECT_TRUE(kept) << there.toStdString();
  }

  void choose(const QString& name, const QString& entry) {
    auto* box = find<QComboBox>(name);
    box->showPopup();
    box->hidePopup();
    const int index = box->findText(entry, Qt::MatchContains);
    ASSERT_GE(index, 0) << entry.toStdString();
    box->setCurrentIndex(index);
    emit box->activated(index);
    QApplication::processEvents();
  }
};

TEST_F(PicturesTest, StagesOfACropOneLaidOverTheOther) {
  QStringList answers{"normal", "from the second truss"};
  window->prompts().words = [&](const QString&, const QString&, const QString&) {
    return answers.takeFirst();
  };
  window->showStation(Station::Formula);
  trigger("addStage");
  type("target_K", "260");
  type("target_Ca", "150");
  choose("compareWith", "stage normal");
  keep("eye-stages");
}

TEST_F(PicturesTest, SeveralCropsFromOneSetOfTanks) {
  window->showStation(Station::Target);
  click("severalCrops");
  auto* page = window->findChild<CropsPage*>();
  ASSERT_TRUE(QTest::qWaitFor([&] { return page->answer().has_value() && page->answer()->crops.size() == 3; },
                              10000));
  EXPECT_THAT(find<QLabel>("cropsWords")->text().toStdString(), HasSubstr("Gerbera"));
  keep("crops");
}

TEST_F(PicturesTest, AMendLaidOverTheLanes) {
  window->showStation(Station::Formula);
  ASSERT_TRUE(QTest::qWaitFor([&] { return window->findChild<QPushButton*>("mend1"); }, 10000));
  click("mend1");
  ASSERT_TRUE(editor().overlay()) << "seen before it is taken";
  EXPECT_TRUE(find<QPushButton>("takeMend1")->isVisible());
}

TEST_F(PicturesTest, TwoVersionsSideBySide) {
  window->bookPage().showRecord({book::Kind::Formula, "sample-formula-0"});
  window->showStation(Station::Book);
  auto* trail = find<QListWidget>("trail");
  ASSERT_EQ(trail->count(), 3);
  trail->clearSelection();
  trail->item(0)->setSelected(true);
  trail->item(2)->setSelected(true);
  click("compareVersions");
  EXPECT_TRUE(find<CompareView>("compareView")->isVisible());
  keep("book-compare");
}

TEST_F(PicturesTest, SulfateMovedBesideTheCalcium) {
  StockEdits(editor()).move("sop", 1, 0, false);
  window->showStation(Station::Stocks);
  EXPECT_THAT(editor().answer().stock.notices, ::testing::Not(::testing::IsEmpty()));
  keep("stocks-trouble");
}

TEST_F(PicturesTest, ASaltOnTheScale) {
  window->showStation(Station::Bench);
  QApplication::processEvents();
  click("weighHere");
  keep("weigh-ready");
  click("runNext");
  click("runNext");
  type("runLot", "CN-26-04");
  window->devices().startStandIn();
  auto& hand = window->devices().standIn()->bench();
  const auto says = [this](const char* words) {
    return QTest::qWaitFor([&] { return find<QLabel>("scaleWords")->text().contains(words); }, 15000);
  };
  ASSERT_TRUE(says("At zero"));
  hand.apply(sim::act::LayOn{core::Mass::fromGrams(940)});
  ASSERT_TRUE(says("Is that the container?")) << find<QLabel>("scaleWords")->text().toStdString();
  keep("weigh-trouble");
  click("scaleTare");
  ASSERT_TRUE(says("At zero"));
  const auto& run = window->findChild<RunPage*>()->run();
  const auto wanted = core::toWeighNow(run.state(), run.plan(), run.at().vessel, run.at().step);
  hand.apply(sim::act::Pour{wanted * 0.97, 0});
  ASSERT_TRUE(says("Slowly now")) << find<QLabel>("scaleWords")->text().toStdString();
  keep("weigh");
  hand.apply(sim::act::Pour{wanted * 0.08, 0});
  ASSERT_TRUE(says("too much")) << find<QLabel>("scaleWords")->text().toStdString();
  keep("weigh-over");
  window->devices().stopStandIn();
}

TEST_F(PicturesTest, APracticeRunAndWhatARunCameTo) {
  window->showStation(Station::Bench);
  click("practiceRun");
  keep("weigh-practice-ready");
  click("runNext");
  auto* page = window->findChild<RunPage*>();
  const auto press = [this](const QString& name) { click(name); };
  const auto at = [&](std::size_t vessel, const QString& name) {
    find<QComboBox>("practiceVessels")->setCurrentIndex(static_cast<int>(vessel));
    click(name);
  };
  const auto takeTub = [&](std::size_t product) { choose("practiceTubs", page->run().nameOf(product)); };
  press("practiceGoggles");
  at(0, "practiceWater");
  click("runNext");
  const auto product = page->run().plan().vessels[0].steps[0].product;
  takeTub(product);
  press("practiceCup");
  press("practiceTare");
  QTest::qWait(1500);
  press("practiceScoop");
  press("practiceScoop");
  QTest::qWait(700);
  keep("weigh-practice");
  window->prompts().goOn = [](const QString&, const QString&, const QString&) { return true; };
  for (int steps = 0; page->run().at().phase != core::RunPhase::Done && steps < 300; ++steps) {
    const auto now = page->run().at();
    if (now.phase == core::RunPhase::Weigh) {
      takeTub(page->run().plan().vessels[now.vessel].steps[now.step].product);
      press("practiceWindow");
      press("practiceCup");
      const auto wanted = core::toWeighNow(page->run().state(), page->run().plan(), now.vessel, now.step);
      type("runMass", QString::number(wanted.grams() * (now.step == 1 ? 1.01 : 1.0), 'f', 3) + " g");
      window->devices().standIn()->bench().apply(sim::act::Pour{wanted, 0});
    }
    if (now.phase == core::RunPhase::Decide) {
      click("runAccept");
      continue;
    }
    if (now.phase == core::RunPhase::Tip) at(now.vessel, "practiceTip");
    if (now.phase == core::RunPhase::Dissolve) at(now.vessel, "practiceStir");
    if (now.phase == core::RunPhase::Measure) type("runPh", "5.9");
    if (now.phase == core::RunPhase::Pour || now.phase == core::RunPhase::TopUp)
      at(now.vessel, "practiceWater");
    click("runNext");
  }
  find<QListWidget>("debriefMoments")->setCurrentRow(4);
  keep("debrief");
  click("runNext");
  click("runNext");
  click("weighHere");
  for (int steps = 0; page->run().at().phase != core::RunPhase::Done && steps < 300; ++steps) {
    const auto now = page->run().at();
    if (now.phase == core::RunPhase::Weigh) {
      const auto missing = core::stillToWeigh(page->run().state(), page->run().plan(), now.vessel, now.step);
      type("runMass", QString::number(missing.grams() * (now.step == 1 ? 1.08 : 1.001), 'f', 3) + " g");
    }
    if (now.phase == core::RunPhase::Decide) {
      click("runAccept");
      continue;
    }
    if (now.phase == core::RunPhase::Measure) type("runPh", "5.9");
    click("runNext");
  }
  keep("weigh-result");
}

TEST_F(PicturesTest, ATabletopAfterTwoMonthsAndWhatToPourIn) {
  window->showStation(Station::Tank);
  ASSERT_TRUE(QTest::qWaitFor([&] { return window->tankPage().isSettled(); }, 20000));
  QApplication::processEvents();
  window->findChild<AdviceMatrix*>()->choose(3);
  keep("tank");
  click("tankLogTab");
  keep("eye-tank-log");
  click("tankFacts");
  keep("eye-tank-vessel");
  click("tankRoot");
  window->findChild<QPlainTextEdit*>("analysisText")->insertPlainText("K 90 mg/L, Ca 320 mg/L, Mg 60 mg/L");
  keep("eye-tank-root");
  click("tankWarmth");
  keep("eye-tank-warmth");
}

TEST_F(PicturesTest, ADrumToppedUpInTheDark) {
  window->units().setVolume(VolumeShown::UsGallons);
  window->showStation(Station::Stocks);
  click("wayDirect");
  type("directVessel", "40");
  type("directPresent", "12");
  type("directReading", "0.9");
  applyTheme(true);
  emit editor().changed();
  QApplication::processEvents();
  EXPECT_THAT(find<QWidget>("ladder")->accessibleDescription().toStdString(),
              HasSubstr("12.0 US gal is in it"));
  keep("direct");
  applyTheme(false);
}

TEST_F(PicturesTest, AReportWithAMixUp) {
  window->showStation(Station::Water);
  auto* bar = window->findChild<BlendBar*>();
  QTest::mouseClick(bar, Qt::LeftButton, {}, QPoint(bar->width() * 8 / 10, bar->height() / 2));
  choose("waterReport", "2025-05-01");
  EXPECT_THAT(find<QLabel>("waterBalance")->text().toStdString(), HasSubstr("differ by 0.770"));
  EXPECT_TRUE(find<QPushButton>("rereading0")->isVisible());
  keep("water-report");
}

constexpr auto boreSheet = "Sample: bore, north field          Received 14.03.2026\n\n"
                           "Analyte               Result   Flag   RL      Units\n"
                           "Calcium, Total        35.2            0.002   mg/L\n"
                           "Magnesium, Total      8.91            0.001   mg/L\n"
                           "Sodium, Total         17.4     B      0.010   mg/L\n"
                           "Potassium, Total      2.06            0.020   mg/L\n"
                           "Iron, Total           0.012    J      0.005   mg/L\n"
                           "Boron, Total          0.004    U      0.004   mg/L\n"
                           "Chloride              21.5            0.050   mg/L\n"
                           "Sulfate (SO4-S)       8.3             0.060   mg/L\n"
                           "Nitrate as N          3.15     H      0.010   mg/L\n"
                           "Ammonia               0.4             0.010   mg/L\n"
                           "Alkalinity, Total     98.0            2.0     mg/L\n"
                           "Turbidity             0.3                     NTU\n"
                           "pH                    7.42            -       SU\n"
                           "Specific conductance  312             1       umhos/cm\n";

TEST_F(PicturesTest, AReportAsTextBesideWhatWasReadOfIt) {
  window->showStation(Station::Water);
  click("pasteReport");
  find<QPlainTextEdit>("reportText")->setPlainText(boreSheet);
  EXPECT_THAT(find<QLabel>("reportFound")->text().toStdString(),
              HasSubstr("12 figures read, 1 line needs your answer"));
  EXPECT_THAT(find<QLabel>("reportBalance")->text().toStdString(), HasSubstr("it balances"));
}

TEST_F(PicturesTest, AReportAsAPhotoBesideWhatWasReadOfIt) {
  const auto path = folder.filePath("bore-sheet.png");
  test::afterAll(test::printed(boreSheet, "B612 Mono", 150), {1.2, 0.7, true, 40, 4}).save(path);
  window->books().openAnything(path);
  ASSERT_TRUE(QTest::qWaitFor([&] { return find<QWidget>("paperView")->isVisible(); }, 60000));
  EXPECT_THAT(find<QLabel>("reportFound")->text().toStdString(), HasSubstr("figures read"));
  keep("reading");
}

TEST_F(PicturesTest, ALoggerInUse) {
  QTemporaryDir files;
  const auto csv = files.filePath("pond.csv");
  sim::TankKind kind;
  kind.full = core::Volume::fromLitres(1200);
  kind.wildShare = 0.01;
  kind.drunkLPerDay = 200;
  sim::TankServer server(kind, 4);
  ASSERT_TRUE(server.writeCsv(csv, 3));
  auto& streams = window->streams();
  streams.setPace({devices::DateOrder::DayFirst, {}, 100, 20, {}});
  const auto made = TankEdits(window->desk()).makeVessel("pond three");
  ASSERT_TRUE(static_cast<bool>(made));
  ASSERT_FALSE(TankEdits(window->desk()).setAmount(*made, "volume", {"1200", "L"}));
  ASSERT_FALSE(TankEdits(window->desk())
                   .setText(*made, "formula", QString::fromStdString(window->desk().inHand().uid)));
  book::Stream stream;
  stream.name = "pump house";
  stream.address = "file:" + csv.toStdString();
  stream.channels = {{"EC", *made, "ec", "mS/cm", ""},
                     {"pH", *made, "ph", "", ""},
                     {"level", *made, "level", "L", ""},
                     {"temperature", *made, "temperature", "C", ""}};
  const auto kept = StreamEdits(window->desk()).make(stream);
  ASSERT_TRUE(static_cast<bool>(kept));
  streams.setListening(kept->uid, true);
  ASSERT_TRUE(QTest::qWaitFor(
      [&] {
        streams.keepNow();
        return TankEdits(window->desk()).readings(*made)->readings.size() > 600;
      },
      30000));
  StreamDialog dialog(window->desk(), streams, nullptr);
  dialog.show();
  QApplication::processEvents();
  QTest::qWait(400);
  const auto there = qEnvironmentVariable("BUTTE_PICTURES");
  if (!there.isEmpty() && !there.contains("docs")) dialog.grab().save(there + "/eye-loggers.png");
  dialog.close();
  window->showStation(Station::Tank);
  window->tankPage().showVessel(*made);
  ASSERT_TRUE(QTest::qWaitFor([&] { return window->tankPage().isSettled(); }, 60000));
  keep("eye-tank-logger");
  click("tankLogTab");
  keep("eye-tank-log");
}

} // namespace butte::app
