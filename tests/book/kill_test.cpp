// The power goes at any moment: what was confirmed is there, the book is sound. Rounds and seed come from the
// environment for longer runs (tools/attack.sh); the usual run has 30 rounds with a write-ahead log and 20
// with a rollback journal, as on a network folder.
#include "book/bench_run.h"
#include "book_fixture.h"
#include "support/told.h"

#include <QElapsedTimer>
#include <QProcess>
#include <random>
#include <signal.h>
#include <thread>

namespace butte::book {

struct Journal {
  bool network;
  int rounds;
};

void PrintTo(const Journal& journal, std::ostream* out) {
  *out << (journal.network ? "rollback journal" : "write-ahead log");
}

class KillTest : public BookTest, public ::testing::WithParamInterface<Journal> {
protected:
  void SetUp() override {
    if (GetParam().network) qputenv("BUTTE_TREAT_AS_NETWORK", "1");
  }
  void TearDown() override { qunsetenv("BUTTE_TREAT_AS_NETWORK"); }

  /// Runs the hammer for a while, kills it, gives the last line that it confirmed.
  std::string killAfter(int microseconds, unsigned seed, const QStringList& more = {}) {
    QProcess hammer;
    hammer.start(BUTTE_HAMMER,
                 QStringList{QString::fromStdString(pathOf("farm.butte")), QString::number(seed)} + more);
    EXPECT_TRUE(hammer.waitForStarted());
    EXPECT_TRUE(hammer.waitForReadyRead(20000)) << "it did nothing";
    std::this_thread::sleep_for(std::chrono::microseconds(microseconds));
    ::kill(static_cast<pid_t>(hammer.processId()), SIGKILL);
    hammer.waitForFinished();
    EXPECT_EQ(hammer.exitStatus(), QProcess::CrashExit) << "it ended by itself: " << hammer.exitCode();
    auto lines = hammer.readAllStandardOutput().split('\n');
    lines.removeLast(); // what follows the last line break was never confirmed
    return lines.isEmpty() ? std::string() : lines.last().toStdString();
  }
};

TEST_P(KillTest, NothingConfirmedIsLostAndTheBookIsSound) {
  const int rounds = qEnvironmentVariableIntValue("BUTTE_KILL_ROUNDS") > 0
                         ? qEnvironmentVariableIntValue("BUTTE_KILL_ROUNDS")
                         : GetParam().rounds;
  const auto seed = static_cast<unsigned>(qEnvironmentVariableIntValue("BUTTE_KILL_SEED"));
  {
    auto book = make();
    ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("0"), told("counter"))));
  }
  std::mt19937 random(seed);
  for (int round = 0; round < rounds; ++round) {
    const auto last = killAfter(static_cast<int>(random() % 40000), random());
    ASSERT_EQ(last.substr(0, 5), "done ") << "round " << round;
    const auto confirmedNumber = std::stoi(last.substr(5));
    auto book = reopen();
    ASSERT_NE(book, nullptr) << "round " << round;
    ASSERT_FALSE(book->isReadOnly()) << "the killed program still counts as the owner";
    const auto sound = book->store().checkWhole();
    ASSERT_FALSE(sound) << "round " << round << ": " << said(sound);
    const auto waters = book->store().list(Kind::Water, false);
    const auto binned = book->store().list(Kind::Water, true);
    ASSERT_EQ(waters->size() + binned->size(), 1u);
    const auto name = (waters->empty() ? binned : waters)->front().name;
    EXPECT_GE(std::stoi(name), confirmedNumber)
        << "round " << round << ": " << last << " was confirmed, the book has " << name;
    if (!binned->empty()) {
      ASSERT_FALSE(book->takeFromBin(binned->front().ref, name));
    }
    ASSERT_TRUE(static_cast<bool>(book->undo())) << "and undo goes on from there";
    ASSERT_TRUE(static_cast<bool>(book->redo()));
  }
}

// A run at the bench: whatever the screen had said to be kept stands there, in order, and the next event
// follows.
TEST_P(KillTest, ARunAtTheBenchGoesOnAfterItsLastToldEvent) {
  make();
  std::mt19937 random(7);
  std::size_t before = 0;
  for (int round = 0; round < 12; ++round) {
    const auto last = killAfter(static_cast<int>(random() % 30000), 1, {"run"});
    ASSERT_EQ(last.substr(0, 5), "done ") << "round " << round;
    const auto confirmed = static_cast<std::size_t>(std::stoi(last.substr(5)));
    auto book = reopen();
    ASSERT_NE(book, nullptr);
    const auto runs = book->store().list(Kind::BenchRun, false);
    ASSERT_EQ(runs->size(), 1u);
    const auto record = book->record(runs->front().ref);
    const auto run = benchRunFromJson((*record)->body);
    ASSERT_TRUE(static_cast<bool>(run)) << (run ? "" : run.problem().where);
    EXPECT_GE(run->events.size(), confirmed) << "round " << round;
    EXPECT_LE(run->events.size(), confirmed + 1) << "no more than the one that was being written";
    EXPECT_GT(run->events.size(), before) << "it went on";
    for (std::size_t i = 0; i < run->events.size(); ++i)
      ASSERT_EQ(run->events[i].atMilliseconds, static_cast<std::int64_t>(i)) << "in order, none twice";
    before = run->events.size();
  }
}

INSTANTIATE_TEST_SUITE_P(Modes, KillTest, ::testing::Values(Journal{false, 30}, Journal{true, 20}));

} // namespace butte::book
