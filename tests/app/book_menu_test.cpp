// The Book menu walked through its questions: every answer, and every way of stepping back.
#include "window_fixture.h"

#include "book/open_book.h"

#include <QComboBox>
#include <QDir>
#include <QMenu>
#include <QMenuBar>

using ::testing::Contains;
using ::testing::HasSubstr;

namespace butte::app {

class BookMenuTest : public WindowTest {
protected:
  /// The entry of any menu with this text, its mnemonic aside.
  QAction* entry(const QString& text) {
    for (auto* action : window->findChildren<QAction*>()) {
      if (action->text().remove('&') == text) return action;
    }
    ADD_FAILURE() << "no entry " << text.toStdString();
    return nullptr;
  }
  void choose(const QString& text) {
    if (auto* action = entry(text)) action->trigger();
    QApplication::processEvents();
  }
  void answerWords(const QString& words) {
    window->prompts().words = [words](const QString&, const QString&, const QString&) { return words; };
  }
  void answerOpen(const QString& path) {
    window->prompts().fileToOpen = [path](const QString&, const QString&, const QString&) { return path; };
  }
  void answerMake(const QString& path) {
    window->prompts().fileToMake = [path](const QString&, const QString&, const QString&) { return path; };
  }
  void answerGoOn(bool answer) {
    window->prompts().goOn = [this, answer](const QString&, const QString& text, const QString&) {
      asked << text;
      return answer;
    };
  }
  QString file(const QString& name, const QByteArray& content) {
    QFile out(folder.filePath(name));
    EXPECT_TRUE(out.open(QIODevice::WriteOnly));
    out.write(content);
    return out.fileName();
  }
  std::string lastTrouble() const { return troubles.isEmpty() ? "" : troubles.last().toStdString(); }

  QStringList asked;
};

TEST_F(BookMenuTest, ANewBookIsNamedPlacedAndBegunWithTheFirstStart) {
  answerWords("Hill / Vale");
  answerMake(folder.filePath("hill")); // the ending comes by itself
  choose("New book…");
  EXPECT_EQ(window->desk().path(), folder.filePath("hill.butte"));
  EXPECT_EQ(book().farm(), "Hill / Vale");
  EXPECT_TRUE(QFile::exists(folder.filePath("hill.butte")));
}

TEST_F(BookMenuTest, SteppingBackFromAnyQuestionLeavesTheBookAsItIs) {
  const auto path = window->desk().path();
  const auto before = editor().json();
  answerWords("");
  answerOpen("");
  answerMake("");
  answerGoOn(false);
  for (const auto* text : {"New book…", "Open a book…", "Sample book afresh", "Bring in a table…",
                           "Whole book into one JSON file…", "New book from a JSON file…", "Your initials…"})
    choose(text);
  answerWords("Another"); // named, but no place for it
  choose("New book…");
  EXPECT_EQ(window->desk().path(), path);
  EXPECT_EQ(editor().json(), before);
  EXPECT_TRUE(troubles.isEmpty()) << troubles.join('\n').toStdString();
  EXPECT_EQ(QDir(folder.path()).entryList({"*.butte"}).size(), 1);
}

TEST_F(BookMenuTest, InitialsStandBesideWhatIsMixed) {
  answerWords("RT");
  choose("Your initials…");
  EXPECT_EQ(window->desk().initials(), "RT");
  answerWords("");
  choose("Your initials…");
  EXPECT_EQ(window->desk().initials(), "RT") << "stepping back keeps them";
}

TEST_F(BookMenuTest, TheSampleIsTriedAndBegunAfreshAfterAQuestion) {
  choose("Sample book (Ormsey Glass)");
  ASSERT_TRUE(window->desk().isSample());
  type("stockFactor", "321");
  press(Qt::Key_Tab);
  answerGoOn(false);
  choose("Sample book afresh");
  EXPECT_EQ(editor().json()["stock"]["factor"], "321");
  answerGoOn(true);
  choose("Sample book afresh");
  EXPECT_THAT(asked.last().toStdString(), HasSubstr("your own books stay"));
  EXPECT_TRUE(window->desk().isSample());
  EXPECT_NE(editor().json()["stock"]["factor"], "321");
}

TEST_F(BookMenuTest, TheWholeBookGoesOutAndComesBackThroughTheMenu) {
  const auto out = folder.filePath("whole.json");
  answerMake(out);
  choose("Whole book into one JSON file…");
  ASSERT_TRUE(QFile::exists(out));
  const auto before = editor().json();
  answerOpen(out);
  answerMake(folder.filePath("again"));
  choose("New book from a JSON file…");
  EXPECT_EQ(window->desk().path(), folder.filePath("again.butte"));
  EXPECT_EQ(editor().json(), before);
  answerMake(folder.filePath("again.butte"));
  choose("New book from a JSON file…");
  EXPECT_THAT(lastTrouble(), HasSubstr("is there already"));
  answerOpen(folder.filePath("nowhere.json"));
  answerMake(folder.filePath("third"));
  choose("New book from a JSON file…");
  EXPECT_THAT(lastTrouble(), HasSubstr("can't be read"));
  answerMake("/nowhere/at/all.json");
  choose("Whole book into one JSON file…");
  EXPECT_THAT(lastTrouble(), HasSubstr("Not written"));
}

TEST_F(BookMenuTest, TablesGoOutAndComeInThroughTheMenu) {
  answerMake(folder.filePath("readings"));
  choose("Readings…");
  EXPECT_TRUE(QFile::exists(folder.filePath("readings.csv"))) << "the ending comes by itself";
  answerOpen(file("empty.csv", ""));
  choose("Bring in a table…");
  EXPECT_THAT(lastTrouble(), HasSubstr("it is empty"));
  troubles.clear();
  answerOpen(folder.filePath("gone.csv"));
  choose("Bring in a table…");
  EXPECT_THAT(lastTrouble(), HasSubstr("can't be read"));
  QByteArray rows = "vessel,time,quantity,value\n";
  for (int i = 0; i < 20; ++i)
    rows += "Raft pond,2026-11-02T08:00:00Z,ph,oops\n";
  rows += "Raft pond,2026-11-02T08:00:00Z,ph,5.9\n";
  answerOpen(file("mixed.csv", rows));
  answerGoOn(false);
  choose("Bring in a table…");
  ASSERT_FALSE(asked.isEmpty()) << lastTrouble();
  EXPECT_THAT(asked.last().toStdString(), HasSubstr("and 6 more not taken"));
  answerGoOn(true);
  choose("Bring in a table…");
  EXPECT_FALSE(book().store().readings({}, 10)->empty());
}

TEST_F(BookMenuTest, RecentBooksStandInTheirMenuAndOpen) {
  answerWords("Second");
  answerMake(folder.filePath("second.butte"));
  choose("New book…");
  auto* recent = entry("Open recent")->menu();
  ASSERT_TRUE(recent);
  emit recent->aboutToShow();
  QAction* first = nullptr;
  for (auto* action : recent->actions()) {
    if (action->text().endsWith("farm.butte")) first = action;
  }
  ASSERT_TRUE(first);
  first->trigger();
  EXPECT_EQ(window->desk().path(), bookPath());
}

TEST_F(BookMenuTest, LookingAgainIsForWhoOnlyLooks) {
  choose("Refresh");
  QSettings other(folder.filePath("other.ini"), QSettings::IniFormat);
  MainWindow second(other, folder.filePath("other"));
  ASSERT_FALSE(second.desk().openBook(bookPath()));
  type("stockFactor", "175");
  press(Qt::Key_Tab);
  ASSERT_FALSE(book().flush());
  EXPECT_EQ(second.editor().json()["stock"]["factor"], "100");
  second.books().lookAgain();
  EXPECT_EQ(second.editor().json()["stock"]["factor"], "175");
}

TEST_F(BookMenuTest, WhatIsNamedAtTheStartIsOpenedWhateverItIs) {
  const auto formula = folder.filePath("mine.butte.json");
  ASSERT_TRUE(window->files().saveTo(formula));
  const auto before = book().store().list(book::Kind::Formula, false)->size();
  bareWindow();
  window->books().start(false, {bookPath(), formula});
  EXPECT_EQ(window->desk().path(), bookPath());
  EXPECT_EQ(book().store().list(book::Kind::Formula, false)->size(), before + 1) << "brought into that book";
  bareWindow();
  window->books().start(true, {});
  EXPECT_TRUE(window->desk().isSample());
  bareWindow();
  window->books().start(false, {});
  EXPECT_EQ(window->desk().path(), bookPath()) << "the last one of one's own";
}

TEST_F(BookMenuTest, AFirstStartMakesABookInTheDataFolder) {
  window.reset();
  QFile::remove(folder.filePath("settings.ini"));
  bareWindow();
  window->books().start(false, {});
  EXPECT_TRUE(window->desk().isOpen());
  EXPECT_TRUE(window->desk().path().startsWith(folder.filePath("data")));
}

} // namespace butte::app
