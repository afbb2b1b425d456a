// What stands beside a book on the disk, on purpose or by chance: other people's marks, links, pipes, files
// that were cut off, a clock that runs wild. None of it loses a record, hangs the start or locks out the
// owner.
#include "book_fixture.h"

#include "book/book_json.h"
#include "book/copies.h"
#include "book/owner.h"
#include "sqlite/database.h"
#include "support/told.h"

#include <QDir>
#include <QFileInfo>
#include <fcntl.h>
#include <filesystem>
#include <sys/stat.h>
#include <unistd.h>

namespace butte::book {

namespace fs = std::filesystem;
using ::testing::Contains;
using ::testing::Field;
using ::testing::Not;

class DoorsTest : public BookTest {
protected:
  std::string mark() const { return pathOf("farm.butte") + ".owner"; }
  void write(const std::string& path, const std::string& text) {
    QFile file(QString::fromStdString(path));
    ASSERT_TRUE(file.open(QIODevice::WriteOnly));
    file.write(text.data(), static_cast<qint64>(text.size()));
  }
  std::string read(const std::string& path) {
    QFile file(QString::fromStdString(path));
    return file.open(QIODevice::ReadOnly) ? file.readAll().toStdString() : std::string();
  }
  static unsigned modeOf(const std::string& path) {
    struct stat about {};
    EXPECT_EQ(::stat(path.c_str(), &about), 0) << path;
    return about.st_mode & 0777u;
  }
  std::unique_ptr<Book> open() {
    auto opened = openBook(pathOf("farm.butte"), pathOf("snapshots"));
    EXPECT_TRUE(static_cast<bool>(opened)) << (opened ? "" : words::problemLine(opened.problem()));
    return opened ? std::move(opened).value() : nullptr;
  }
};

TEST_F(DoorsTest, ALinkInTheMarksPlaceIsNotFollowed) {
  make().reset();
  write(pathOf("diary.txt"), "dear diary");
  fs::create_symlink(pathOf("diary.txt"), mark());
  const auto book = open();
  ASSERT_TRUE(book);
  EXPECT_FALSE(book->isReadOnly()) << "nobody else writes in it";
  EXPECT_EQ(read(pathOf("diary.txt")), "dear diary") << "what it led to is as it was";
  EXPECT_TRUE(fs::is_symlink(mark() + "-aside1"));
}

TEST_F(DoorsTest, APipeInTheMarksPlaceHoldsNobody) {
  make().reset();
  ASSERT_EQ(::mkfifo(mark().c_str(), 0600), 0);
  const auto book = open();
  ASSERT_TRUE(book);
  EXPECT_FALSE(book->isReadOnly());
}

TEST_F(DoorsTest, SomebodysNoteUnderThatNameIsKept) {
  make().reset();
  write(mark(), "ring the owner of the barn");
  const auto book = open();
  ASSERT_TRUE(book);
  EXPECT_FALSE(book->isReadOnly());
  EXPECT_EQ(read(mark() + "-aside1"), "ring the owner of the barn");
}

TEST_F(DoorsTest, AFolderInTheMarksPlaceGoesAsideToo) {
  make().reset();
  fs::create_directory(mark());
  const auto book = open();
  ASSERT_TRUE(book);
  EXPECT_FALSE(book->isReadOnly());
}

/// A mark of a person whose program is gone and whose file this one may not write.
TEST_F(DoorsTest, AnothersLeftoverLocksNobodyOut) {
  make().reset();
  write(mark(), R"({"host":")" + QSysInfo::machineHostName().toStdString() +
                    R"(","user":"anna","since":"2026-03-02T07:00:00Z","heard":"2026-03-02T07:00:00Z"})");
  ASSERT_EQ(::chmod(mark().c_str(), 0400), 0);
  const auto book = open();
  ASSERT_TRUE(book);
  EXPECT_FALSE(book->isReadOnly());
}

TEST_F(DoorsTest, AMarkIsShownWithoutControlCharactersOrNovels) {
  make().reset();
  write(mark(), R"({"host":"elsewhere\u001b[2J\u0007","user":")" + std::string(2000, 'x') +
                    R"(","since":"2026-03-02T07:00:00Z","heard":"2999-03-02T07:00:00Z"})");
  const auto book = open();
  ASSERT_TRUE(book);
  ASSERT_TRUE(book->isReadOnly()) << "another computer holds it";
  const auto words = book->readOnlyWords();
  EXPECT_LT(words.size(), 400u);
  for (const unsigned char c : words)
    EXPECT_GE(c, 0x20u);
}

TEST_F(DoorsTest, ABookReachedThroughALinkHasOneOwner) {
  auto book = make();
  fs::create_symlink(pathOf("farm.butte"), pathOf("same.butte"));
  auto second = openBook(pathOf("same.butte"), pathOf("snapshots"));
  ASSERT_TRUE(static_cast<bool>(second));
  EXPECT_TRUE((*second)->isReadOnly());
  EXPECT_FALSE(fs::exists(pathOf("same.butte") + ".owner"));
}

TEST_F(DoorsTest, WhatIsNoFileIsNoBookAndGetsNoMark) {
  fs::create_directory(pathOf("folder.butte"));
  ASSERT_EQ(::mkfifo(pathOf("pipe.butte").c_str(), 0600), 0);
  for (const auto& path : {pathOf("folder.butte"), pathOf("pipe.butte"), std::string("/dev/zero")}) {
    const auto opened = openBook(path, pathOf("snapshots"));
    ASSERT_FALSE(static_cast<bool>(opened)) << path;
    EXPECT_EQ(opened.problem().code, core::ProblemCode::NotABook);
    EXPECT_FALSE(fs::exists(path + ".owner"));
  }
}

TEST_F(DoorsTest, ABookItsCopiesAndFoldersAreTheOwnersAlone) {
  const auto old = ::umask(0);
  auto made = createBook(pathOf("deep/er/farm.butte"), "Farm");
  ASSERT_TRUE(static_cast<bool>(made));
  auto book = std::move(made).value();
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater(), told("water"))));
  const auto copy = makeCopy(*book, "by hand");
  ASSERT_TRUE(static_cast<bool>(copy));
  auto snapshot = openBook(pathOf("deep/er/farm.butte"), pathOf("snapshots"));
  ASSERT_TRUE(static_cast<bool>(snapshot));
  ::umask(old);
  EXPECT_EQ(modeOf(pathOf("deep/er/farm.butte")), 0600u);
  EXPECT_EQ(modeOf(pathOf("deep/er")), 0700u);
  EXPECT_EQ(modeOf(*copy), 0600u);
  EXPECT_EQ(modeOf(copiesFolder(pathOf("deep/er/farm.butte"))), 0700u);
  EXPECT_EQ(modeOf(pathOf("snapshots")), 0700u);
  for (const auto& file : fs::recursive_directory_iterator(folder.path().toStdString())) {
    if (!file.is_regular_file()) continue;
    EXPECT_EQ(modeOf(file.path().string()) & 0077u, 0u) << file.path();
  }
}

/// As a program does that syncs a folder: the new file is renamed over the old one.
TEST_F(DoorsTest, AFileThatIsReplacedWhileOpenTakesNoMoreEdits) {
  std::string trouble; // outlives the book, which tells to its end
  int kept = 0;
  auto book = make();
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("First"), told("water"))));
  make("other.butte").reset();
  const auto other = read(pathOf("other.butte"));
  fs::rename(pathOf("other.butte"), pathOf("farm.butte"));
  QObject::connect(book.get(), &Book::troubled,
                   [&](const core::Problem& p) { trouble = words::problemLine(p); });
  QObject::connect(book.get(), &Book::kept, [&] { ++kept; });
  std::ignore = book->create(Kind::Water, smallWater("Into nowhere"), told("water")); // waits, and is said
  EXPECT_THAT(trouble, ::testing::HasSubstr("another file is in its place"));
  EXPECT_EQ(kept, 0) << "it would be told as kept and be gone";
  EXPECT_FALSE(static_cast<bool>(book->undo())) << "nor any other change";
  EXPECT_EQ(read(pathOf("farm.butte")), other) << "the new file is as it came";
}

TEST_F(DoorsTest, AFileThatIsTakenAwayWhileOpenTakesNoMoreEdits) {
  int troubles = 0;
  auto book = make();
  fs::remove(pathOf("farm.butte"));
  QObject::connect(book.get(), &Book::troubled, [&] { ++troubles; });
  std::ignore = book->create(Kind::Water, smallWater(), told("water"));
  EXPECT_GT(troubles, 0);
  EXPECT_FALSE(fs::exists(pathOf("farm.butte")));
}

TEST_F(DoorsTest, OnceTakenOverEveryTransactionIsRefused) {
  auto book = make();
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("Mine"), told("water"))));
  // As another computer writes it, which the lock does not keep out.
  write(
      mark(),
      R"({"host":"elsewhere","user":"anna","since":"2026-03-02T07:00:00Z","heard":"2026-03-02T07:00:00Z"})");
  for (int time = 0; time < 3; ++time) {
    const auto refused = book->create(Kind::Water, smallWater("Not mine"), told("water"));
    ASSERT_FALSE(static_cast<bool>(refused)) << time;
    EXPECT_EQ(refused.problem().code, core::ProblemCode::BookReadOnly);
  }
  EXPECT_FALSE(static_cast<bool>(book->undo()));
  EXPECT_EQ(book->store().list(Kind::Water, false)->size(), 1u);
}

TEST_F(DoorsTest, AMarkThatIsTidiedAwayIsSetUpAnew) {
  auto book = make();
  fs::remove(mark());
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater(), told("water"))));
  EXPECT_TRUE(fs::exists(mark()));
  auto second = openBook(pathOf("farm.butte"), pathOf("snapshots"));
  ASSERT_TRUE(static_cast<bool>(second));
  EXPECT_TRUE((*second)->isReadOnly()) << "it is held again";
}

/// Killed while writing without a write-ahead log: the file holds half a change, its journal the rest.
TEST_F(DoorsTest, AHotJournalIsPlayedBackByWhoeverMayWrite) {
  qputenv("BUTTE_TREAT_AS_NETWORK", "1");
  make().reset();
  const auto path = pathOf("farm.butte");
  {
    auto db = Database::open(QString::fromStdString(path), Database::Mode::Write);
    ASSERT_TRUE(static_cast<bool>(db));
    ASSERT_FALSE((*db)->run("PRAGMA journal_mode = DELETE"));
    ASSERT_FALSE((*db)->run("PRAGMA cache_size = 1"));
    ASSERT_FALSE((*db)->run("BEGIN IMMEDIATE"));
    ASSERT_FALSE((*db)->run("UPDATE meta SET value = 'half done'"));
    ASSERT_FALSE((*db)->run("INSERT INTO meta (key, value) VALUES ('x', hex(zeroblob(4000000)))"));
    ASSERT_GT(fs::file_size(path + "-journal"), 512u) << "the change has begun to reach the file";
    fs::create_directory(pathOf("killed"));
    fs::copy(path, pathOf("killed/farm.butte"));
    fs::copy(path + "-journal", pathOf("killed/farm.butte-journal"));
    std::ignore = (*db)->run("ROLLBACK");
  }
  const auto killed = pathOf("killed/farm.butte");
  fs::copy(pathOf("killed"), pathOf("watched"));
  {
    auto watched = openStore(pathOf("watched/farm.butte"), OpenFor::Writing);
    ASSERT_TRUE(static_cast<bool>(watched)) << words::problemLine(watched.problem());
    EXPECT_EQ(**(*watched)->meta("farm"), "Test farm") << "not what was half done";
    EXPECT_FALSE(*(*watched)->meta("x"));
  }
  const auto mark = OwnerMark::take(killed); // somebody else writes: only a look is left
  auto look = openBook(killed, pathOf("snapshots"));
  ASSERT_TRUE(static_cast<bool>(look)) << words::problemLine(look.problem());
  EXPECT_TRUE((*look)->isReadOnly());
  EXPECT_EQ(**(*look)->store().meta("farm"), "Test farm");
  qunsetenv("BUTTE_TREAT_AS_NETWORK");
}

/// Another user looked: his log and its index lie beside the book, and only he may write them.
TEST_F(DoorsTest, AnothersLogBesideTheBookIsTakenOverWithWhatIsInIt) {
  if (::geteuid() != 0) GTEST_SKIP() << "only the administrator can give files away";
  const auto path = pathOf("farm.butte");
  {
    auto book = make();
    ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("in the log"), told("water"))));
    std::ignore = book->flush();
    ASSERT_GT(fs::file_size(path + "-wal"), 0u);
    fs::create_directory(pathOf("left"));
    for (const auto* ending : {"", "-wal", "-shm"})
      fs::copy(path + ending, pathOf("left/farm.butte") + ending);
  }
  const auto left = pathOf("left/farm.butte");
  constexpr unsigned another = 4321;
  for (const auto* ending : {"-wal", "-shm"})
    ASSERT_EQ(::chown((left + ending).c_str(), another, another), 0);
  auto opened = openBook(left, pathOf("snapshots"));
  ASSERT_TRUE(static_cast<bool>(opened)) << words::problemLine(opened.problem());
  EXPECT_FALSE((*opened)->isReadOnly());
  const auto waters = (*opened)->store().list(Kind::Water, false);
  ASSERT_EQ(waters->size(), 1u) << "what stood in the log alone is there";
  ASSERT_TRUE(static_cast<bool>((*opened)->create(Kind::Water, smallWater("after"), told("water"))));
  struct stat log {};
  ASSERT_EQ(::stat((left + "-wal").c_str(), &log), 0);
  EXPECT_EQ(log.st_uid, ::geteuid());
}

TEST_F(DoorsTest, ALookLeavesNothingBesideTheBook) {
  make().reset();
  const auto path = pathOf("farm.butte");
  {
    const auto mark = OwnerMark::take(path); // somebody else writes
    auto look = openBook(path, pathOf("snapshots"));
    ASSERT_TRUE(static_cast<bool>(look));
    EXPECT_TRUE((*look)->isReadOnly());
  }
  EXPECT_FALSE(fs::exists(path + "-wal"));
  EXPECT_FALSE(fs::exists(path + "-shm"));
  { // a book that is refused: its log stays empty and goes
    auto db = Database::open(QString::fromStdString(path), Database::Mode::Write);
    ASSERT_FALSE((*db)->run("PRAGMA user_version = 99"));
  }
  EXPECT_FALSE(static_cast<bool>(openBook(path, pathOf("snapshots"))));
  EXPECT_FALSE(fs::exists(path + "-wal"));
  EXPECT_FALSE(fs::exists(path + "-shm"));
}

/// A step as a file may hold it that somebody made.
Step crafted(const Ref& ref, const std::string& pointer, const Json& before, const Json& after) {
  return {1, Moment::now(), "oa", told("crafted"), {}, {{ref, pointer, before, after}}};
}

TEST_F(DoorsTest, AStepThatCantBeTakenBackIsRefusedInAFileAndAtUndo) {
  const std::vector<std::tuple<std::string, Json, Json>> steps{{"/binned_at", "yesterday", nullptr},
                                                               {"/binned_at", nullptr, Json::array()},
                                                               {"/body", nullptr, Json::object()},
                                                               {"/body", Json::object(), 5},
                                                               {"", nullptr, nullptr},
                                                               {"", nullptr, Json{{"body", nullptr}}},
                                                               {"body/name", "a", "b"},
                                                               {"/body/na~9me", "a", "b"},
                                                               {"/uid", "a", "b"}};
  for (const auto& [pointer, before, after] : steps) {
    const auto name = QString("book%1.butte").arg(&pointer - &std::get<0>(steps[0]));
    const auto path = pathOf(name);
    {
      auto made = createBook(path, "Farm");
      ASSERT_TRUE(static_cast<bool>(made));
      (*made)->setWho("oa");
      const auto ref = (*made)->create(Kind::Water, smallWater(), told("water"));
      ASSERT_TRUE(static_cast<bool>(ref));
      const auto step = crafted(*ref, pointer, before, after);
      EXPECT_TRUE((*made)->apply(step)) << "not even by ourselves: " << pointer;
      ASSERT_TRUE(static_cast<bool>((*made)->store().addStep(step)));
      const auto back = (*made)->undo();
      EXPECT_FALSE(static_cast<bool>(back)) << pointer;
      EXPECT_EQ(bodyOf(**made, *ref), smallWater()) << "nothing moved";
    }
    Json file{{"format", "butte-book"},
              {"version", 2},
              {"meta", Json::object()},
              {"steps", Json::array({Json{{"number", 1},
                                          {"at", "2026-03-02T07:15:00Z"},
                                          {"who", "oa"},
                                          {"did", "x"},
                                          {"merge_key", ""},
                                          {"undone", false},
                                          {"changes", Json::array({Json{{"kind", "water"},
                                                                        {"uid", "w"},
                                                                        {"pointer", pointer},
                                                                        {"before", before},
                                                                        {"after", after}}})}}})}};
    const auto trouble = readBookJson(file.dump(), pathOf("in.butte"), {});
    ASSERT_TRUE(trouble) << pointer;
    EXPECT_THAT(trouble->where, ::testing::StartsWith("steps[0].changes[0]")) << said(trouble);
  }
}

TEST_F(DoorsTest, APlaceFarBeyondTheEndOfAListIsNoPlace) {
  auto book = make();
  const auto ref = book->create(Kind::Water, smallWater(), told("water"));
  for (const auto* pointer :
       {"/body/reports/4000000000", "/body/reports/2", "/body/x/99999999", "/body/reports/name"}) {
    EXPECT_TRUE(book->apply(crafted(*ref, pointer, nullptr, 1))) << pointer;
    EXPECT_EQ(bodyOf(*book, *ref), smallWater());
  }
}

TEST_F(DoorsTest, WhatIsNestedWithoutEndIsRefused) {
  std::string deep;
  for (int i = 0; i < 100000; ++i)
    deep += "[";
  for (const auto* where :
       {"meta", "sheets", "records", "versions", "steps", "readings", "x_note", "format"}) {
    const auto trouble =
        readBookJson("{\"format\": \"butte-book\", \"version\": 2, \"" + std::string(where) + "\": " + deep,
                     pathOf("in.butte"), {});
    ASSERT_TRUE(trouble) << where;
    EXPECT_FALSE(fs::exists(pathOf("in.butte"))) << where;
  }
  for (const auto* key : {"x_note", "water", "target", "shelf", "stock"}) {
    const auto formula = exchange::parseFormulaText("{\"" + std::string(key) + "\": " + deep);
    EXPECT_FALSE(static_cast<bool>(formula)) << key;
  }
}

TEST_F(DoorsTest, AClockThatRunsWildCostsOneCopyADay) {
  auto book = make();
  const auto place = book->place();
  constexpr std::int64_t day = 86400;
  const auto today = Moment::now();
  for (int age = 20; age >= 1; --age)
    ASSERT_FALSE(copyDaily(place, {today.seconds - age * day}));
  const auto before = copiesOf(place).size();
  ASSERT_GE(before, 9u);
  const Moment wild = *Moment::fromIso("2099-01-01T12:00:00Z");
  ASSERT_FALSE(copyDaily(place, wild));
  EXPECT_GE(copiesOf(place).size(), before) << "one came, at most one went";
  ASSERT_FALSE(copyDaily(place, wild)) << "the same day again";
  EXPECT_GE(copiesOf(place).size(), before);
  ASSERT_FALSE(copyDaily(place, today));
  EXPECT_THAT(copiesOf(place), Contains(Field(&CopyOfBook::at, wild))) << "its date says nothing";
}

TEST_F(DoorsTest, NoCopyGoesForADateAheadAndTheNewestStays) {
  const Moment now = *Moment::fromIso("2026-11-23T12:00:00Z");
  constexpr std::int64_t day = 86400;
  std::vector<CopyOfBook> copies;
  for (int ahead = 1; ahead < 40; ++ahead)
    copies.push_back({"ahead" + std::to_string(ahead), {now.seconds + ahead * day}, 1, "daily"});
  copies.push_back({"newest", now, 1, "daily"});
  EXPECT_TRUE(tooMany(copies, now).empty());
}

} // namespace butte::book
