#include "book_fixture.h"
#include "support/told.h"

#include "book/sqlite/schema.h"

#include <QDir>
#include <QFileInfo>

namespace butte::book {

using core::ProblemCode;

class OpenTest : public BookTest {
protected:
  QByteArray bytesOf(const QString& name) const {
    QFile file(folder.filePath(name));
    EXPECT_TRUE(file.open(QIODevice::ReadOnly));
    return file.readAll();
  }
  void write(const QString& name, const QByteArray& bytes) {
    QFile file(folder.filePath(name));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write(bytes);
  }
  /// Opening must fail with this code and leave the file as it is.
  void expectRefused(const QString& name, ProblemCode code) {
    const auto before = bytesOf(name);
    const auto opened = openBook(pathOf(name), pathOf("snapshots"));
    ASSERT_FALSE(static_cast<bool>(opened)) << name.toStdString();
    EXPECT_EQ(opened.problem().code, code) << words::problemLine(opened.problem());
    EXPECT_FALSE(words::problemText(opened.problem()).empty());
    EXPECT_EQ(bytesOf(name), before) << "the file was touched";
  }
};

TEST_F(OpenTest, WhatIsNoBookStaysAsItIs) {
  write("text.butte", "just some text, longer than a header of SQLite would be");
  expectRefused("text.butte", ProblemCode::NotABook);
  write("empty.butte", "");
  expectRefused("empty.butte", ProblemCode::NotABook);
  write("half.butte", "SQLite format 3\0and then nothing that makes sense");
  expectRefused("half.butte", ProblemCode::NotABook);
  {
    auto other = Database::open(QString::fromStdString(pathOf("other.butte")), Database::Mode::Create);
    ASSERT_FALSE((*other)->run("CREATE TABLE photos (id INTEGER)"));
  }
  expectRefused("other.butte", ProblemCode::NotABook);
  QDir(folder.path()).mkdir("dir.butte");
  EXPECT_EQ(openBook(pathOf("dir.butte"), pathOf("s")).problem().code, ProblemCode::NotABook);
  EXPECT_EQ(openBook(pathOf("nowhere.butte"), pathOf("s")).problem().code, ProblemCode::BookMissing);
}

TEST_F(OpenTest, ABookFromTheFutureStaysAsItIs) {
  make("new.butte").reset();
  {
    auto db = Database::open(QString::fromStdString(pathOf("new.butte")), Database::Mode::Write);
    ASSERT_FALSE((*db)->run("PRAGMA user_version = 999"));
    ASSERT_FALSE((*db)->run("PRAGMA wal_checkpoint(TRUNCATE)"));
  }
  expectRefused("new.butte", ProblemCode::NewerFormat);
}

TEST_F(OpenTest, ADamagedPageIsSaidAndTheFileStaysAsItIs) {
  auto book = make("hurt.butte");
  for (int i = 0; i < 60; ++i)
    ASSERT_TRUE(static_cast<bool>(book->create(Kind::Formula, demoFormula(), told("new formula"))));
  book.reset();
  auto bytes = bytesOf("hurt.butte");
  ASSERT_GT(bytes.size(), 40 * 4096);
  for (qsizetype i = 20 * 4096; i < 24 * 4096; ++i)
    bytes[i] = static_cast<char>(i * 37);
  write("hurt.butte", bytes);
  expectRefused("hurt.butte", ProblemCode::BookDamaged);
  write("short.butte", bytesOf("hurt.butte").left(30 * 4096));
  expectRefused("short.butte", ProblemCode::BookDamaged);
}

TEST_F(OpenTest, EveryEarlierVersionIsBroughtForward) {
  for (int from = 1; from < newestSchema; ++from) {
    const auto name = QString("v%1.butte").arg(from);
    {
      auto db = Database::open(QString::fromStdString(pathOf(name)), Database::Mode::Create);
      ASSERT_FALSE(migrate(**db, 0, from));
      const auto body = QString::fromStdString(smallWater("Old spring").dump());
      ASSERT_FALSE((*db)->run("INSERT INTO thing (uid, kind, name, crop, body, changed_at) VALUES ('w1', "
                              "'water', 'Old spring', '', ?, 7)",
                              {body}));
      if (from >= 2) {
        ASSERT_FALSE((*db)->run("INSERT INTO batch (uid, at, formula_uid, formula_version, formula_name, "
                                "litres, changed_at) VALUES ('b1', 1772435700, 'f', 1, 'Basil', 100, 7)"));
      }
      if (from >= 4) { // the program of then kept what Ctrl+K looks through
        ASSERT_FALSE((*db)->run("INSERT INTO find_thing (rowid, words) SELECT id, name FROM thing"));
        ASSERT_FALSE((*db)->run("INSERT INTO find_batch (rowid, words) SELECT id, formula_name FROM batch"));
      }
      if (from == 3 || from == 4) {
        ASSERT_FALSE(
            (*db)->run("INSERT INTO reading (id, tank, quantity, at, value, typed, binned_at) VALUES "
                       "(1, 'north', 'ec', 5, 1.5, '1.5', NULL), (2, 'North bay', 'ph', 6, 5.8, '5.8', 9)"));
        ASSERT_FALSE((*db)->run(
            "INSERT INTO step (at, who, words, undone, changes) VALUES (1, 'oa', 'pH of North bay', 1, ?)",
            {QString(
                R"([{"kind": "reading", "uid": "2", "pointer": "", "before": null, "after": {"body": {"tank":
              "North bay", "quantity": "ph", "at": "1970-01-01T00:00:06Z", "value": 5.8, "typed": "5.8", "import": ""}}}])")}));
      }
    }
    const auto before = bytesOf(name);
    auto book = reopen(name);
    ASSERT_NE(book, nullptr) << from;
    EXPECT_EQ(bodyOf(*book, {Kind::Water, "w1"})["name"], "Old spring");
    EXPECT_EQ(book->store().search("spring", 5)->size(), 1u)
        << "found after the migration, from version " << from;
    if (from >= 2) {
      EXPECT_EQ(book->store().search("basil", 5)->size(), 1u);
    }
    if (from == 3 || from == 4) {
      const auto readings = book->store().readings(std::nullopt, 5);
      ASSERT_EQ(readings->size(), 1u);
      EXPECT_EQ(readings->front().vesselName, "north") << "a tank's name became a vessel";
      EXPECT_EQ(book->store().list(Kind::Vessel, false)->size(), 2u);
      EXPECT_EQ(book->store().search("north", 5)->size(), 2u) << "which is found";
      const auto redone = book->redo();
      ASSERT_TRUE(static_cast<bool>(redone)) << words::problemLine(redone.problem());
      EXPECT_EQ(book->store().readings(std::nullopt, 5)->size(), 2u)
          << "and a step of then can be done again";
    }
    const auto sound = book->store().checkWhole();
    EXPECT_FALSE(sound) << said(sound);
    const auto kept = name + QString(".before-v%1").arg(newestSchema);
    ASSERT_TRUE(QFile::exists(folder.filePath(kept))) << "the book as it was is kept";
    auto old = Database::open(folder.filePath(kept), Database::Mode::Read);
    EXPECT_EQ(*schemaOf(**old), from);
  }
}

TEST_F(OpenTest, AMigrationThatFailsLeavesTheOldVersion) {
  {
    auto db = Database::open(QString::fromStdString(pathOf("v1.butte")), Database::Mode::Create);
    ASSERT_FALSE(migrate(**db, 0, 1));
    ASSERT_FALSE((*db)->run("CREATE TABLE batch_weight (id INTEGER)")); // stands in the way of migration 2,
                                                                        // after its first tables
    EXPECT_TRUE(migrate(**db, 1, newestSchema));
    EXPECT_EQ(*schemaOf(**db), 1);
    EXPECT_FALSE((*db)->single("SELECT count(*) FROM sqlite_schema WHERE name = 'batch'")->toInt())
        << "all or nothing";
  }
}

TEST_F(OpenTest, TheTablesRefuseNonsense) {
  make("strict.butte").reset();
  auto db = Database::open(QString::fromStdString(pathOf("strict.butte")), Database::Mode::Write);
  EXPECT_TRUE(
      (*db)->run("INSERT INTO thing (uid, kind, name, body, changed_at) VALUES ('x', '', 'n', '{}', 1)"));
  EXPECT_TRUE((*db)->run(
      "INSERT INTO thing (uid, kind, name, body, changed_at) VALUES ('x', 'water', 'n', 'not json', 1)"));
  EXPECT_TRUE((*db)->run(
      "INSERT INTO thing (uid, kind, name, body, changed_at) VALUES ('x', 'water', 'n', '{}', 'soon')"));
  EXPECT_TRUE((*db)->run("INSERT INTO batch_weight (batch_id, position, product_id, product_name, planned_g) "
                         "VALUES (99, 0, 'p', 'p', 1)"))
      << "foreign keys are on";
  EXPECT_EQ((*db)->single("PRAGMA synchronous")->toInt(), 2) << "FULL";
}

TEST_F(OpenTest, WhereNoMarkCanBeMadeTheBookIsOnlyLookedAt) {
  auto book = make("ro.butte");
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("One"), told("new water"))));
  book.reset();
  // A folder of the mark's name, and no name free to put it aside: nobody can make the mark, as in a
  // write-protected folder (which root would not notice).
  ASSERT_TRUE(QDir(folder.path()).mkdir("ro.butte.owner"));
  for (int number = 1; number < 100; ++number)
    ASSERT_TRUE(QDir(folder.path()).mkdir(QString("ro.butte.owner-aside%1").arg(number)));
  auto looked = reopen("ro.butte");
  ASSERT_NE(looked, nullptr);
  EXPECT_TRUE(looked->isReadOnly());
  EXPECT_EQ(looked->readOnlyWords(), "its file or folder is write-protected");
  EXPECT_EQ(looked->store().list(Kind::Water, false)->size(), 1u);
  EXPECT_FALSE(static_cast<bool>(looked->create(Kind::Water, smallWater("Two"), told("new water"))));
  EXPECT_FALSE(static_cast<bool>(looked->undo()));
  EXPECT_FALSE(static_cast<bool>(looked->makeVersion({Kind::Water, "x"}, "used")));
}

TEST_F(OpenTest, AFileThatMayNotGrowIsSaidToBeOnAFullDisk) {
  make("full.butte").reset();
  auto db = Database::open(QString::fromStdString(pathOf("full.butte")), Database::Mode::Write);
  const auto pages = (*db)->single("PRAGMA page_count")->toInt();
  EXPECT_GT(pages, 5);
  // The same code that a full disk gives: the file may not grow. (A pragma takes no bound value.)
  ASSERT_FALSE((*db)->run("PRAGMA max_page_count = 1"));
  Trouble trouble;
  for (int i = 0; i < 200 && !trouble; ++i)
    trouble =
        (*db)->run("INSERT INTO meta (key, value) VALUES (hex(randomblob(2000)), hex(randomblob(2000)))");
  ASSERT_TRUE(trouble);
  EXPECT_EQ(trouble->code, ProblemCode::BookFull);
}

} // namespace butte::book
