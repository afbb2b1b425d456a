// Every text of every view can be read whole, from a small laptop to a wall of a screen, also where the text
// is made larger: then there is as much less room.
#include "panel/sim_panel.h"
#include "serve/sim_server.h"
#include "services/device_desk.h"
#include "stations/bench/device_dialog.h"
#include "stations/formula/product_list.h"
#include "stations/formula/stage_strip.h"
#include "stations/stocks/stocks_page.h"
#include "stations/tank/stream_dialog.h"
#include "stations/tank/tank_page.h"
#include "support/text_places.h"
#include "window/book_actions.h"
#include "window/finder.h"
#include "window/text_size.h"
#include "window_fixture.h"

#include <QAbstractButton>
#include <QListView>
#include <QMenu>
#include <QScrollArea>
#include <QScrollBar>

namespace butte::app {
namespace {

struct View {
  QString name;
  std::function<void(MainWindow&)> show;
};

std::vector<View> views() {
  std::vector<View> out;
  const auto station = [&](const char* name, Station which) {
    out.push_back({name, [which](MainWindow& window) { window.showStation(which); }});
  };
  station("water", Station::Water);
  station("target", Station::Target);
  station("formula", Station::Formula);
  station("bench", Station::Bench);
  for (const auto* part : {"tankNow", "tankLogTab", "tankRoot", "tankWarmth", "tankFacts"})
    out.push_back({QString("tank ") + part, [part](MainWindow& window) {
                     window.showStation(Station::Tank);
                     EXPECT_TRUE(QTest::qWaitFor([&] { return window.tankPage().isSettled(); }, 20000));
                     window.findChild<QAbstractButton*>(part)->click();
                   }});
  for (int part = 0; part < StocksPage::partCount; ++part)
    out.push_back({QString("stocks %1").arg(part), [part](MainWindow& window) {
                     window.showStation(Station::Stocks);
                     window.stocksPage().showPart(static_cast<StocksPage::Part>(part));
                   }});
  for (int section = 0; section < BookPage::sectionCount; ++section)
    out.push_back({QString("book %1").arg(section), [section](MainWindow& window) {
                     window.showStation(Station::Book);
                     window.bookPage().showSection(static_cast<BookPage::Section>(section));
                   }});
  out.push_back({"product", [](MainWindow& window) {
                   emit window.findChild<ProductList*>()->detailsAsked("calcium_nitrate_tetrahydrate");
                 }});
  out.push_back(
      {"own product", [](MainWindow& window) { emit window.findChild<ProductList*>()->newProductAsked(); }});
  out.push_back({"crops", [](MainWindow& window) {
                   window.showStation(Station::Target);
                   window.findChild<QAbstractButton*>("severalCrops")->click();
                 }});
  out.push_back({"first start", [](MainWindow& window) { window.showFirstStart(); }});
  out.push_back({"a reading to correct", [](MainWindow& window) {
                   window.showStation(Station::Book);
                   window.bookPage().showSection(BookPage::Readings);
                   auto* list = window.findChild<QListView*>("readingList");
                   list->setCurrentIndex(list->model()->index(0, 0));
                 }});
  out.push_back({"stages", [](MainWindow& window) {
                   QStringList names{"normal", "from the second truss on"};
                   window.prompts().words = [&](const QString&, const QString&, const QString&) {
                     return names.takeFirst();
                   };
                   window.showStation(Station::Formula);
                   window.stages().addStage();
                 }});
  out.push_back({"weighing", [](MainWindow& window) {
                   window.showStation(Station::Bench);
                   window.findChild<QAbstractButton*>("weighHere")->click();
                   window.findChild<QAbstractButton*>("runNext")->click();
                   window.findChild<QAbstractButton*>("runNext")->click();
                 }});
  out.push_back({"too much weighed", [](MainWindow& window) {
                   window.showStation(Station::Bench);
                   window.findChild<QAbstractButton*>("weighHere")->click();
                   window.findChild<QLineEdit*>("runMass")->setFocus();
                   QTest::keyClicks(window.findChild<QLineEdit*>("runMass"), "12000 g");
                   window.findChild<QAbstractButton*>("runNext")->click();
                 }});
  const auto press = [](MainWindow& window, std::initializer_list<const char*> names) {
    for (const char* name : names) {
      window.findChild<QAbstractButton*>(name)->click();
      QApplication::processEvents();
    }
  };
  const auto overfill = [press](MainWindow& window, std::initializer_list<const char*> then) {
    window.prompts().goOn = [](const QString&, const QString&, const QString&) { return true; };
    window.findChild<QLineEdit*>("runMass")->setFocus();
    QTest::keyClicks(window.findChild<QLineEdit*>("runMass"), "12000 g");
    press(window, {"runNext", "runAccept", "runNext"});
    press(window, then);
  };
  out.push_back({"practice", [press](MainWindow& window) {
                   window.showStation(Station::Bench);
                   press(window, {"practiceRun", "runNext", "runNext"});
                 }});
  out.push_back({"a practice run looked at again", [press, overfill](MainWindow& window) {
                   window.showStation(Station::Bench);
                   press(window, {"practiceRun"});
                   overfill(window, {"runEnd"});
                 }});
  out.push_back({"bags", [press, overfill](MainWindow& window) {
                   window.prompts().words = [](const QString&, const QString&, const QString&) {
                     return QString("2");
                   };
                   window.showStation(Station::Bench);
                   press(window, {"weighBags", "runNext"});
                   overfill(window, {"runEnd"});
                 }});
  out.push_back({"straight into a vessel, acid first", [](MainWindow& window) {
                   window.showStation(Station::Stocks);
                   window.findChild<QAbstractButton*>("wayDirect")->click();
                   window.findChild<QAbstractButton*>("directAcidFirst")->click();
                 }});
  return out;
}

constexpr int narrowestWithoutSideways = 853; // 150 % on a 1280 screen

struct Room {
  int width, height;
  UnitsOf units;
};

class ReadableTest : public WindowTest, public ::testing::WithParamInterface<Room> {
protected:
  void SetUp() override {
    bareWindow();
    window->books().start(true, {});
    showWindow();
  }

  /// What is shown for the first time asks for its room, and so on inwards; words that are worked out behind
  /// the window's thread come later. Until nothing moves any more.
  void settle() {
    constexpr int mostRounds = 60, quietRounds = 6;
    std::vector<QRect> before;
    for (int round = 0, quiet = 0; round < mostRounds && quiet < quietRounds; ++round) {
      QTest::qWait(10);
      std::vector<QRect> now;
      for (const auto* widget : window->findChildren<QWidget*>())
        if (widget->isVisible()) now.push_back(widget->geometry());
      quiet = now == before ? quiet + 1 : 0;
      before = std::move(now);
    }
  }
};

TEST_P(ReadableTest, EveryTextIsWhole) {
  const auto room = GetParam();
  window->units().setAll(room.units);
  for (const auto& view : views()) {
    view.show(*window);
    window->resize(room.width, room.height);
    settle();
    EXPECT_LE(window->width(), room.width) << view.name.toStdString();
    EXPECT_LE(window->height(), room.height) << view.name.toStdString();
    QStringList told;
    test::Unreadable::in(*window, [&](const QString& widget, const QString& trouble) {
      told << view.name + ": " + widget + " " + trouble;
    });
    if (room.width >= narrowestWithoutSideways)
      for (const auto* area : window->findChildren<QScrollArea*>())
        if (area->isVisible() && area->horizontalScrollBar()->maximum() > 0)
          told << QString("%1: %2 must be moved sideways by %3")
                      .arg(view.name, area->widget()->metaObject()->className())
                      .arg(area->horizontalScrollBar()->maximum());
    told.removeDuplicates();
    EXPECT_TRUE(told.isEmpty()) << told.join('\n').toStdString();
  }
}

using MenuTest = WindowTest;

/// Each menu and what opens from it, on the smallest screen that needs no moving sideways: on the screen
/// whole, no entry cut, and no two keys for one entry's letter in one menu.
TEST_F(MenuTest, EveryMenuFitsItsScreenAndItsLettersAreItsOwn) {
  constexpr int leastHeight = 600;
  int entries = 0;
  for (auto* menu : window->findChildren<QMenu*>()) {
    emit menu->aboutToShow();
    EXPECT_LE(menu->sizeHint().height(), leastHeight) << menu->title().toStdString();
    QStringList letters;
    for (const auto* action : menu->actions()) {
      if (action->isSeparator() || !action->isVisible()) continue;
      ++entries;
      EXPECT_FALSE(action->text().isEmpty()) << menu->title().toStdString();
      const auto at = action->text().indexOf('&');
      if (at < 0 || at + 1 >= action->text().size()) continue;
      const auto letter = action->text().mid(at + 1, 1).toLower();
      EXPECT_FALSE(letters.contains(letter))
          << menu->title().toStdString() << ": " << action->text().toStdString();
      letters << letter;
    }
  }
  EXPECT_GT(entries, 60);
}

using DialogTest = WindowTest;

TEST_F(DialogTest, EveryDialogOfOursIsReadable) {
  sim::SimServer sim;
  window->devices().keep(
      {{DeviceSetting::Kind::Scale, "bench", "serial:" + sim.scaleCable(), {}, {}, {}, "T"}});
  DeviceDialog scales(window->devices(), editor());
  sim::SimPanel panel(sim);
  window->findText("teaspoon");
  const auto look = [](QWidget& seen, const char* name) {
    seen.show();
    QTest::qWait(400);
    QStringList told;
    test::Unreadable::in(
        seen, [&](const QString& widget, const QString& trouble) { told << widget + " " + trouble; });
    EXPECT_TRUE(told.isEmpty()) << name << ": " << told.join('\n').toStdString();
  };
  book::Stream stream;
  stream.name = "the logger behind the second pump house, by the north door";
  stream.address = "mqtt:anna@127.0.0.1:1/glass/pump/house/second/#";
  stream.channels = {{"glass/pump/house/second/pond three tank.ec", {}, "ec", "uS/cm", "0.001"},
                     {"level", {}, "level", "%", ""}};
  ASSERT_TRUE(static_cast<bool>(StreamEdits(window->desk()).make(stream)));
  StreamDialog loggers(window->desk(), window->streams());
  look(loggers, "loggers");
  look(scales, "scales and pens");
  look(panel, "stand-in scale");
  look(*window->findChild<Finder*>(), "finder");
  window->devices().keep({});
}

using ListTest = WindowTest;

TEST_F(ListTest, EveryListIsAsWideAsItsWidestEntryAndReachesItsLast) {
  window->resize(853, 507);
  int lists = 0;
  for (const auto& view : views()) {
    view.show(*window);
    QTest::qWait(20);
    for (auto* box : window->findChildren<QComboBox*>()) {
      if (!box->isVisible() || !box->isEnabled()) continue;
      box->showPopup();
      QTest::qWait(5);
      auto* list = box->view();
      const int last = box->count() - 1;
      EXPECT_GE(list->viewport()->width(), list->sizeHintForColumn(0))
          << view.name.toStdString() << ", " << box->objectName().toStdString();
      list->scrollToBottom();
      const auto place = list->visualRect(box->model()->index(last, 0));
      EXPECT_LE(place.bottom(), list->viewport()->height())
          << view.name.toStdString() << ", " << box->objectName().toStdString();
      box->hidePopup();
      ++lists;
    }
  }
  EXPECT_GT(lists, 50);
}

using TextSizeTest = WindowTest;

TEST_F(TextSizeTest, IsChosenKeptAndTheWindowOpensAnew) {
  int opened = 0;
  window->openAnew = [&] { ++opened; };
  trigger("text_150");
  EXPECT_EQ(textPercent(*settings), 150);
  trigger("text_150");
  EXPECT_EQ(opened, 1) << "what is chosen already changes nothing";
  trigger("text_larger");
  trigger("text_larger");
  trigger("text_larger");
  EXPECT_EQ(textPercent(*settings), 200) << "no larger than the largest";
  EXPECT_EQ(opened, 3);
  trigger("text_smaller");
  EXPECT_EQ(textPercent(*settings), 175);
  reopenWindow();
  EXPECT_TRUE(find<QAction>("text_175")->isChecked());
  settings->setValue("view/text_percent", "huge");
  EXPECT_EQ(textPercent(*settings), 100) << "nonsense in the file is the usual size";
}

TEST(TextScaleTest, LeavesAScaleFromOutsideAlone) {
  qputenv("QT_SCALE_FACTOR", "1.25");
  scaleText(200);
  EXPECT_EQ(qgetenv("QT_SCALE_FACTOR"), "1.25");
  qunsetenv("QT_SCALE_FACTOR");
  scaleText(150);
  EXPECT_EQ(qgetenv("QT_SCALE_FACTOR"), "1.5");
  scaleText(100); // as after the program opened anew
  EXPECT_FALSE(qEnvironmentVariableIsSet("QT_SCALE_FACTOR"));
  qunsetenv("BUTTE_TEXT_SCALE");
}

INSTANTIATE_TEST_SUITE_P(
    Rooms, ReadableTest,
    ::testing::Values(Room{1024, 570, UnitsOf::Metric}, Room{1280, 760, UnitsOf::UnitedStates},
                      Room{1920, 1040, UnitsOf::Metric}, Room{853, 507, UnitsOf::UnitedStates},
                      Room{640, 380, UnitsOf::UnitedStates}, Room{3840, 2100, UnitsOf::UnitedStates}));

} // namespace
} // namespace butte::app
