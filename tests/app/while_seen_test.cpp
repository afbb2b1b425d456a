#include "refresh/while_seen.h"
#include "support/told.h"
#include "window_fixture.h"

#include <QPushButton>
#include <QStackedWidget>

namespace butte::app {

namespace {

/// Two pages, of which one is seen, and how often the second was refreshed.
class WhileSeenTest : public ::testing::Test {
protected:
  WhileSeenTest() {
    pages.addWidget(new QWidget);
    pages.addWidget(panel);
    pages.show();
    QApplication::processEvents();
  }

  QStackedWidget pages;
  QWidget* panel = new QWidget;
  int refreshed = 0;
  WhileSeen* fresh = new WhileSeen(panel, [this] { ++refreshed; });
};

} // namespace

TEST_F(WhileSeenTest, WhatIsSeenIsRefreshedAtOnce) {
  pages.setCurrentIndex(1);
  fresh->outdate();
  EXPECT_EQ(refreshed, 1);
  fresh->outdate();
  EXPECT_EQ(refreshed, 2);
}

TEST_F(WhileSeenTest, WhatIsHiddenWaitsAndIsRefreshedOnceWhenItComes) {
  fresh->outdate();
  fresh->outdate();
  EXPECT_EQ(refreshed, 0);
  pages.setCurrentIndex(1);
  EXPECT_EQ(refreshed, 1);
  pages.setCurrentIndex(0);
  pages.setCurrentIndex(1);
  EXPECT_EQ(refreshed, 1) << "nothing changed meanwhile";
}

TEST_F(WhileSeenTest, AStyleIsSetOnlyWhenItIsAnother) {
  int restyled = 0;
  class Count : public QObject {
  public:
    explicit Count(int& count) : m_count(count) {}
    bool eventFilter(QObject*, QEvent* event) override {
      m_count += event->type() == QEvent::StyleChange;
      return false;
    }

  private:
    int& m_count;
  } count(restyled);
  panel->installEventFilter(&count);
  restyle(*panel, "color: red");
  const int once = restyled;
  EXPECT_GT(once, 0);
  restyle(*panel, "color: red");
  EXPECT_EQ(restyled, once);
  restyle(*panel, "color: blue");
  EXPECT_GT(restyled, once);
}

TEST_F(WindowTest, AStationThatWasHiddenShowsWhatWasTypedElsewhere) {
  press(Qt::Key_2, Qt::ControlModifier);
  press(Qt::Key_3, Qt::ControlModifier);
  editor().set(told("potassium"), "/target/rows/3/mg_per_l", "187");
  press(Qt::Key_2, Qt::ControlModifier);
  EXPECT_EQ(find("target_K")->text(), "187");
  editor().undo();
  EXPECT_EQ(find("target_K")->text(), "205");
}

TEST_F(WindowTest, TheAcidsFollowTheAlkalinityThatIsLeftWhenTheWaterIsLookedAtAgain) {
  press(Qt::Key_1, Qt::ControlModifier);
  const auto dose = [&] {
    return find<QPushButton>("acid_hno3_60")->parentWidget()->findChild<QLabel*>()->text();
  };
  const auto before = dose();
  press(Qt::Key_3, Qt::ControlModifier);
  editor().set(told("alkalinity left"), "/alkalinity_left/amount", "0.9");
  press(Qt::Key_1, Qt::ControlModifier);
  EXPECT_NE(dose(), before);
}

} // namespace butte::app
