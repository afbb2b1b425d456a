// The calendar in the real window: what the book finds due, chores of one's own, done, dragged, out and in.
#include "shelf_walk.h"

#include "book/tank_line.h"
#include "document/local_day.h"
#include "stations/shelf/agenda_picture.h"
#include "wording/agenda_words.h"

namespace butte::app {
namespace {

using std::chrono::days;
using ::testing::HasSubstr;
using ::testing::Not;

class AgendaTest : public ShelfPageTest {
protected:
  void SetUp() override {
    ShelfPageTest::SetUp();
    click("shelfAgenda");
  }
  AgendaPicture* picture() { return window->findChild<AgendaPicture*>(); }
  void newChore(const char* name, const char* first, const char* every, const char* unit) {
    type("choreName", name);
    type("choreFirst", first);
    type("choreEvery", every);
    choose("choreUnit", unit);
    click("choreKeep");
    settle();
  }
  /// Index of a due by its words and day; -1: none.
  int dueOf(const QString& words, core::Day on) {
    const auto& agenda = page().story().agenda;
    for (std::size_t i = 0; i < agenda.due.size(); ++i)
      if (agenda.due[i].on == on && choreText(agenda.items[agenda.due[i].chore]) == words)
        return static_cast<int>(i);
    return -1;
  }
  core::Day today() { return localDay(book::Moment::now()); }
};

TEST_F(AgendaTest, AChoreOfOnesOwnComesAgainAndIsDoneWithOnePress) {
  newChore("Rinse the filters", "", "2", "days");
  ASSERT_GE(dueOf("Rinse the filters", today()), 0);
  EXPECT_GE(dueOf("Rinse the filters", today() + days(2)), 0);
  EXPECT_EQ(dueOf("Rinse the filters", today() + days(1)), -1);
  EXPECT_THAT(find<QAbstractButton>("station7")->accessibleName().toStdString(), HasSubstr("1 to do today"));
  picture()->choose(dueOf("Rinse the filters", today()));
  EXPECT_THAT(text("choreWhy"), HasSubstr("every 2 days"));
  click("choreDone");
  settle();
  EXPECT_EQ(dueOf("Rinse the filters", today()), -1);
  picture()->choose(dueOf("Rinse the filters", today() + days(2)));
  EXPECT_THAT(find<QListWidget>("choreHistory")->item(0)->text().toStdString(), HasSubstr("done"));
  trigger("undo");
  settle();
  EXPECT_GE(dueOf("Rinse the filters", today()), 0);
}

TEST_F(AgendaTest, ACardIsDraggedToAnotherDay) {
  newChore("Wash the drums", "", "", "once");
  const int due = dueOf("Wash the drums", today());
  ASSERT_GE(due, 0);
  const auto from = picture()->cardOf(due).center().toPoint();
  // A day of these two weeks that is still ahead.
  const auto target = today() + days(1);
  const auto to = picture()->roomOf(target).center().toPoint();
  QTest::mousePress(picture(), Qt::LeftButton, {}, from);
  QMouseEvent move(QEvent::MouseMove, to, picture()->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, {});
  QApplication::sendEvent(picture(), &move);
  QTest::mouseRelease(picture(), Qt::LeftButton, {}, to);
  settle();
  EXPECT_GE(dueOf("Wash the drums", target), 0);
  EXPECT_EQ(dueOf("Wash the drums", today()), -1);
  picture()->setFocus();
  picture()->choose(dueOf("Wash the drums", target));
  press(Qt::Key_Right, Qt::ControlModifier);
  settle();
  EXPECT_GE(dueOf("Wash the drums", target + days(1)), 0) << "and by keys";
  picture()->choose(dueOf("Wash the drums", target + days(1)));
  press(Qt::Key_Return);
  settle();
  EXPECT_EQ(dueOf("Wash the drums", target + days(1)), -1);
}

TEST_F(AgendaTest, TheBookFindsPensAndBagsByItself) {
  const auto vessel = book().create(book::Kind::Vessel, exchange::Json{{"name", "pond"}}, told("vessel"));
  ASSERT_TRUE(vessel);
  book::TankLine line;
  line.vesselUid = vessel->uid;
  line.at = {book::Moment::now().seconds - 9 * 86400};
  line.did = book::TankDid::Calibrated;
  line.about = "ph";
  ASSERT_TRUE(book().create(book::Kind::TankLine, toJson(line), told("line")));
  settle();
  EXPECT_GE(dueOf("Calibrate the pH pen, pond", today() - days(2)), 0) << "a week after it was done";
  line.at = book::Moment::now();
  ASSERT_TRUE(book().create(book::Kind::TankLine, toJson(line), told("line")));
  settle();
  EXPECT_EQ(dueOf("Calibrate the pH pen, pond", today() - days(2)), -1)
      << "done where it is done: in the log";
  EXPECT_GE(dueOf("Calibrate the pH pen, pond", today() + days(7)), 0);
}

TEST_F(AgendaTest, OutAsACalendarFileAndInAgain) {
  newChore("Clean screens", "2026-03-02", "", "weeks");
  const auto path = folder.filePath("to do.ics");
  window->prompts().fileToMake =
      window->prompts().fileToOpen = [&](const QString&, const QString&, const QString&) { return path; };
  click("icsOut");
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  EXPECT_THAT(file.readAll().toStdString(), HasSubstr("RRULE:FREQ=WEEKLY"));
  click("icsIn");
  settle();
  EXPECT_THAT(status().toStdString(), HasSubstr("Nothing new"))
      << "the book's own calendar brings nothing twice";
  QFile others(path);
  ASSERT_TRUE(others.open(QIODevice::WriteOnly));
  const auto on = book::isoText(today() + days(2)), instead = book::isoText(today() + days(1));
  const auto compact = [](std::string day) { return day.erase(7, 1).erase(4, 1); };
  others.write(("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:a\r\nSUMMARY:Feed the "
                "cat\r\nDTSTART;VALUE=DATE:" +
                compact(book::isoText(today())) +
                "\r\nRRULE:FREQ=DAILY;COUNT=2\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nUID:a\r\n" +
                "SUMMARY:Feed the cat\r\nRECURRENCE-ID;VALUE=DATE:" + compact(instead) +
                "\r\nDTSTART;VALUE=DATE:" + compact(on) + "\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n")
                   .c_str());
  others.close();
  click("icsIn");
  settle();
  EXPECT_THAT(status().toStdString(), HasSubstr("1 chore came in"));
  EXPECT_GE(dueOf("Feed the cat", today()), 0);
  EXPECT_EQ(dueOf("Feed the cat", today() + days(1)), -1) << "it was moved there too";
  EXPECT_GE(dueOf("Feed the cat", today() + days(2)), 0);
  click("icsIn");
  settle();
  EXPECT_THAT(status().toStdString(), HasSubstr("Nothing new")) << "twice is once";
  QFile rubbish(folder.filePath("rubbish.ics"));
  ASSERT_TRUE(rubbish.open(QIODevice::WriteOnly) && rubbish.write("no calendar") > 0 && rubbish.flush());
  window->prompts().fileToOpen = [&](const QString&, const QString&, const QString&) {
    return rubbish.fileName();
  };
  click("icsIn");
  EXPECT_THAT(status().toStdString(), HasSubstr("holds no calendar"));
}

TEST_F(AgendaTest, TheSheetForTheWallHoldsBothWeeks) {
  newChore("Clean screens", "", "1", "days");
  const auto path = folder.filePath("week.pdf");
  window->prompts().fileToMake = [&](const QString&, const QString&, const QString&) { return path; };
  click("weekSheet");
  const auto text = folder.filePath("week.txt");
  ASSERT_EQ(std::system(("pdftotext -layout '" + path + "' '" + text + "'").toStdString().c_str()), 0);
  QFile file(text);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  const auto words = file.readAll().toStdString();
  EXPECT_THAT(words, HasSubstr("Next week"));
  EXPECT_THAT(words, HasSubstr("Clean screens"));
}

TEST_F(AgendaTest, OnceADayTheDesktopIsTold) {
  QStringList said;
  window->notifier().send = [&](const QString&, const QString& text) { said << text; };
  newChore("Wash the drums", "", "", "once");
  newChore("Clean screens", "", "1", "days");
  ASSERT_EQ(said.size(), 1);
  EXPECT_THAT(said.first().toStdString(), HasSubstr("Wash the drums"));
}

TEST_F(AgendaTest, WhatCanNotBeIsSaid) {
  click("choreKeep");
  EXPECT_THAT(status().toStdString(), HasSubstr("What is to be done?"));
  newChore("x", "soon", "1", "days");
  EXPECT_THAT(status().toStdString(), HasSubstr("“soon” is no day"));
  type("choreFirst", "");
  type("choreEvery", "0");
  click("choreKeep");
  settle();
  EXPECT_TRUE(page().story().agenda.items.empty() ||
              page().story().agenda.items.front().cause != book::Cause::Own);
}

} // namespace
} // namespace butte::app
