// How the program starts: what it is asked on the command line, what it paints or prints without touching a
// book, and what it does after a start that was never finished.
#include "window_fixture.h"

#include "book/copies.h"
#include "window/start_mark.h"

#include <QDir>
#include <QDirIterator>
#include <QMenu>
#include <QMenuBar>
#include <QProcess>

namespace butte::app {

using ::testing::HasSubstr;
using ::testing::IsEmpty;

namespace {

QByteArray contentOf(const QString& path) {
  QFile file(path);
  return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
}

/// The program by itself, at home in a folder of its own.
struct Run {
  int code = -1;
  std::string out, error;
};

Run butte(const QString& home, const QStringList& words, const QString& platform = "offscreen") {
  QProcess process;
  auto environment = QProcessEnvironment::systemEnvironment();
  for (const auto* variable : {"HOME", "XDG_CONFIG_HOME", "XDG_DATA_HOME", "XDG_CACHE_HOME"})
    environment.insert(variable, home);
  environment.insert("QT_QPA_PLATFORM", platform);
  process.setProcessEnvironment(environment);
  process.start(BUTTE_APP_PROGRAM, words);
  EXPECT_TRUE(process.waitForFinished(60000)) << words.join(' ').toStdString();
  return {process.exitStatus() == QProcess::NormalExit ? process.exitCode() : -1,
          process.readAllStandardOutput().toStdString(), process.readAllStandardError().toStdString()};
}

} // namespace

TEST(StartMark, CountsStartsThatNeverGotToAWindow) {
  const QTemporaryDir folder;
  const auto path = folder.filePath("starting");
  {
    StartMark first(folder.path());
    EXPECT_EQ(first.unfinished(), 0);
    EXPECT_TRUE(QFile::exists(path));
    first.done();
    EXPECT_FALSE(QFile::exists(path)) << "worked in: no start that failed";
  }
  for (int crashed = 1; crashed <= 3; ++crashed) {
    const auto killed = contentOf(path); // what stands when the program is killed
    QFile::remove(path);
    {
      QFile again(path);
      ASSERT_TRUE(again.open(QIODevice::WriteOnly));
      again.write(crashed == 1 ? QByteArray("1") : killed);
    }
    const StartMark next(folder.path());
    EXPECT_EQ(next.unfinished(), crashed);
    const auto standing = contentOf(path);
    EXPECT_EQ(standing.toInt(), crashed + 1);
    // The next one is killed as well: its mark stays.
    const_cast<StartMark&>(next).done();
    QFile keep(path);
    ASSERT_TRUE(keep.open(QIODevice::WriteOnly));
    keep.write(standing);
  }
}

TEST(StartMark, NonsenseInItsPlaceStopsNoStart) {
  const QTemporaryDir folder;
  ASSERT_TRUE(QDir(folder.path()).mkdir("starting"));
  EXPECT_EQ(StartMark(folder.path()).unfinished(), 0) << "a folder";
  ASSERT_TRUE(QDir(folder.path()).rmdir("starting"));
  {
    QFile file(folder.filePath("starting"));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write("\xff\xfe nonsense");
  }
  EXPECT_EQ(StartMark(folder.path()).unfinished(), 1) << "something stood there";
  EXPECT_EQ(StartMark("/no/such/folder").unfinished(), 0);
}

class StartTest : public WindowTest {
protected:
  void SetUp() override { openWindow(true); }
};

TEST_F(StartTest, AfterAnUnfinishedStartNoFormulaIsTakenInHand) {
  const auto last = window->desk().inHand();
  ASSERT_EQ(editor().document().name, "Ormsey Glass, strawberry fruiting");
  bareWindow();
  settings->setValue("book/recent", QStringList{bookPath()});
  window->books().start(false, {}, 1);
  EXPECT_EQ(window->desk().path(), bookPath());
  EXPECT_NE(window->desk().inHand().uid, last.uid) << "it may be what broke the start";
  EXPECT_TRUE(editor().document().products.empty());
  const auto kept = book().record(last);
  ASSERT_TRUE(kept && *kept) << "but it is in the book";
  EXPECT_FALSE((*kept)->binnedAt);
  ASSERT_FALSE(window->desk().openFormula(last));
  EXPECT_EQ(editor().document().name, "Ormsey Glass, strawberry fruiting");
}

TEST_F(StartTest, AfterTwoTheBookStaysClosedAndThatIsSaid) {
  window.reset();
  const auto before = contentOf(bookPath());
  bareWindow();
  settings->setValue("book/recent", QStringList{bookPath()});
  window->books().start(false, {}, 2);
  EXPECT_NE(window->desk().path(), bookPath());
  ASSERT_EQ(troubles.size(), 1);
  EXPECT_THAT(troubles[0].toStdString(), HasSubstr("did not get through its last starts"));
  EXPECT_EQ(contentOf(bookPath()), before);
  EXPECT_EQ(window->desk().recentBooks(), QStringList{bookPath()}) << "the next start finds it again";
  troubles.clear();
  bareWindow();
  window->books().start(false, {}, 0);
  EXPECT_EQ(window->desk().path(), bookPath());
}

/// The middle of the file overwritten, as a bad disk does.
void damage(const QString& path) {
  QFile file(path);
  ASSERT_TRUE(file.open(QIODevice::ReadWrite));
  ASSERT_TRUE(file.seek(4096));
  file.write(QByteArray(static_cast<qsizetype>(file.size() - 4096), 'x'));
}

class NoBookTest : public StartTest {
protected:
  void closeAndDamage(bool withCopy) {
    if (withCopy) {
      ASSERT_FALSE(book::copyDaily(bookPath().toStdString(), book::Moment::now()));
    }
    window.reset();
    damage(bookPath());
    bareWindow();
    settings->setValue("book/recent", QStringList{bookPath()});
    questions.clear();
    window->prompts().goOn = [this](const QString& title, const QString& text, const QString&) {
      questions << title + ": " + text;
      return agrees;
    };
  }
  QStringList questions;
  bool agrees = true;
};

TEST_F(NoBookTest, ADamagedBookIsHealedFromItsNewestWholeCopy) {
  closeAndDamage(true);
  window->books().start(false, {}, 0);
  ASSERT_EQ(questions.size(), 1);
  EXPECT_THAT(questions[0].toStdString(), HasSubstr("A copy of it was made on"));
  EXPECT_EQ(window->desk().path(), bookPath());
  EXPECT_EQ(editor().document().name, "Ormsey Glass, strawberry fruiting");
  EXPECT_THAT(troubles, IsEmpty());
}

TEST_F(NoBookTest, ACopyThatIsDamagedTooGivesWayToTheOlderOne) {
  ASSERT_FALSE(book::copyDaily(bookPath().toStdString(), {book::Moment::now().seconds - 86400 * 3}));
  closeAndDamage(true);
  const auto copies = book::copiesOf(bookPath().toStdString());
  ASSERT_EQ(copies.size(), 2u);
  damage(QString::fromStdString(copies[0].path));
  window->books().start(false, {}, 0);
  EXPECT_EQ(questions.size(), 2);
  EXPECT_EQ(window->desk().path(), bookPath());
  EXPECT_EQ(editor().document().name, "Ormsey Glass, strawberry fruiting");
}

TEST_F(NoBookTest, WithoutAnyBookOneWorksInAnEmptyOneAndNothingCrashes) {
  agrees = false; // the copy is not wanted
  closeAndDamage(true);
  const auto before = contentOf(bookPath());
  window->books().start(false, {}, 0);
  EXPECT_TRUE(window->desk().isOpen());
  EXPECT_NE(window->desk().path(), bookPath());
  EXPECT_EQ(contentOf(bookPath()), before) << "what is damaged stays as it lies";
  ASSERT_FALSE(troubles.isEmpty());
  EXPECT_THAT(troubles.last().toStdString(), HasSubstr("You work in an empty one"));
  showWindow();
  window->prompts().fileToOpen = window->prompts().fileToMake =
      window->prompts().words = [](const QString&, const QString&, const QString&) { return QString(); };
  int pressed = 0;
  for (auto* action : window->menuBar()->actions().first()->menu()->actions()) {
    if (!action->isEnabled() || action->menu() || action->isSeparator() || action->text().contains("Quit"))
      continue;
    action->trigger();
    QApplication::processEvents();
    ++pressed;
  }
  EXPECT_GE(pressed, 8);
  window->showStation(Station::Book);
  for (int section = 0; section < BookPage::sectionCount; ++section) {
    window->bookPage().showSection(static_cast<BookPage::Section>(section));
    QApplication::processEvents();
  }
  EXPECT_TRUE(window->desk().isOpen());
}

TEST_F(NoBookTest, WhereNoFolderTakesABookThatIsSaid) {
  window.reset();
  ASSERT_TRUE(QDir(folder.path()).mkpath("data/farm.butte")) << "a folder of the first book's name";
  bareWindow();
  settings->setValue("book/recent", QStringList{});
  window->books().start(false, {}, 0);
  EXPECT_TRUE(window->desk().isOpen()) << "there is always a book to work in";
  EXPECT_FALSE(troubles.isEmpty());
}

TEST(Program, WordsOfTheCommandLineThatMakeNoSenseAreAnswered) {
  const QTemporaryDir home;
  for (const auto& [words, said] : std::initializer_list<std::pair<QStringList, const char*>>{
           {{"--screenshot", "x.png", "--station", "99"}, "from 0 to 8"},
           {{"--screenshot", "x.png", "--station", "-1"}, "from 0 to 8"},
           {{"--screenshot", "x.png", "--station", "two"}, "from 0 to 8"},
           {{"--screenshot", "x.png", "--station", "7", "--section", "99"}, "from 0 to 10"},
           {{"--screenshot", "x.png", "--station", "3", "--section", "7"}, "from 0 to 6"},
           {{"--nonsense"}, "nonsense"}}) {
    const auto run = butte(home.path(), words);
    EXPECT_GT(run.code, 0) << words.join(' ').toStdString() << run.error;
    EXPECT_THAT(run.error, HasSubstr(said));
  }
}

TEST(Program, HelpAndVersionNeedNoDisplay) {
  const QTemporaryDir home;
  const auto help = butte(home.path(), {"--help"}, "nothing");
  EXPECT_EQ(help.code, 0) << help.error;
  EXPECT_THAT(help.out, HasSubstr("--demo"));
  EXPECT_EQ(butte(home.path(), {"--version"}, "nothing").code, 0);
}

/// A preview is not an import: nothing at home changes, and the book that is printed stays as it was.
TEST_F(StartTest, WhatIsPrintedOrPaintedTouchesNoBook) {
  const auto formula = folder.filePath("one.butte.json");
  ASSERT_TRUE(window->files().saveTo(formula));
  window.reset();
  const auto book = contentOf(bookPath());
  const QTemporaryDir home;
  for (const auto& [words, made] : std::initializer_list<std::pair<QStringList, QString>>{
           {{"--sheet", "made.pdf", formula}, "made.pdf"},
           {{"--labels", "labels.pdf", bookPath()}, "labels.pdf"},
           {{"--screenshot", "made.png", bookPath(), "--station", "3"}, "made.png"}}) {
    QStringList absolute = words;
    absolute[1] = folder.filePath(made);
    const auto run = butte(home.path(), absolute);
    EXPECT_EQ(run.code, 0) << run.error;
    EXPECT_GT(QFileInfo(folder.filePath(made)).size(), 1000);
    EXPECT_EQ(contentOf(bookPath()), book) << words[0].toStdString();
  }
  QStringList left;
  QDirIterator all(home.path(), QDir::Files, QDirIterator::Subdirectories);
  while (all.hasNext())
    if (const auto path = all.next(); !path.contains("fontconfig") && !path.contains("cache")) left << path;
  EXPECT_TRUE(left.isEmpty()) << left.join('\n').toStdString();
}

} // namespace butte::app
