// Every call to the disk fails in turn: nothing that was kept is lost, the book opens and is sound. A short
// run takes some of the calls; BUTTE_FAULT_STEP=1 takes all (tools/attack.sh).
#include "book/book_json.h"
#include "book_fixture.h"
#include "support/told.h"

#include <QDir>
#include <QFileInfo>
#include <QProcess>
#include <filesystem>

namespace butte::book {

namespace fs = std::filesystem;

struct Fault {
  std::string kind;
  bool network; ///< a rollback journal instead of the log
  int step;     ///< every so manyth call in the short run
};

void PrintTo(const Fault& fault, std::ostream* out) {
  *out << fault.kind << (fault.network ? " with a rollback journal" : " with a log");
}

class FaultTest : public BookTest, public ::testing::WithParamInterface<Fault> {
protected:
  struct Run {
    int lastKept = 0, exitCode = 0;
    bool killed = false;
    long calls = 0;
  };

  void SetUp() override {
    if (GetParam().network) qputenv("BUTTE_TREAT_AS_NETWORK", "1");
    auto book = make("clean.butte");
    ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("0"), told("counter"))));
    ASSERT_FALSE(book->flush());
  }
  void TearDown() override { qunsetenv("BUTTE_TREAT_AS_NETWORK"); }

  std::string day() const { return pathOf("day"); }
  std::string book() const { return day() + "/farm.butte"; }

  /// A fresh copy of the clean book, worked at with this fault.
  Run work(const std::string& kind, long at, long cut = 0) {
    fs::remove_all(day());
    fs::create_directory(day());
    fs::copy_file(pathOf("clean.butte"), book());
    QFile(QString::fromStdString(book() + ".json")).open(QIODevice::WriteOnly);
    QProcess worker;
    auto environment = QProcessEnvironment::systemEnvironment();
    environment.insert("LD_PRELOAD", BUTTE_FAULTY_DISK);
    environment.insert("ASAN_OPTIONS", "verify_asan_link_order=0:detect_leaks=0");
    environment.insert("BUTTE_FAULT_FOLDER", QString::fromStdString(day()));
    environment.insert("BUTTE_FAULT_KIND", QString::fromStdString(kind));
    environment.insert("BUTTE_FAULT_AT", QString::number(at));
    environment.insert("BUTTE_FAULT_CUT", QString::number(cut));
    environment.insert("BUTTE_FAULT_COUNT", QString::fromStdString(pathOf("calls")));
    worker.setProcessEnvironment(environment);
    worker.start(BUTTE_WORKER, {QString::fromStdString(book())});
    EXPECT_TRUE(worker.waitForFinished(60000)) << "it hangs";
    Run out;
    out.killed = worker.exitStatus() == QProcess::CrashExit;
    out.exitCode = worker.exitCode();
    for (const auto& line : worker.readAllStandardOutput().split('\n'))
      if (line.startsWith("done ")) out.lastKept = line.mid(5).toInt();
    QFile calls(QString::fromStdString(pathOf("calls")));
    if (calls.open(QIODevice::ReadOnly)) out.calls = calls.readAll().trimmed().toLong();
    return out;
  }

  /// The disk is well again: the book opens for writing, is sound, and holds what was kept.
  void expectWhole(int lastKept, const std::string& where, bool mayLag = false) {
    auto opened = openBook(book(), pathOf("snapshots"));
    ASSERT_TRUE(static_cast<bool>(opened)) << where << ": " << words::problemLine(opened.problem());
    auto& now = **opened;
    ASSERT_FALSE(now.isReadOnly()) << where << ": " << now.readOnlyWords();
    const auto sound = now.store().checkWhole();
    ASSERT_FALSE(sound) << where << ": " << said(sound);
    const auto waters = now.store().list(Kind::Water, false);
    ASSERT_EQ(waters->size(), 1u) << where;
    if (!mayLag) {
      EXPECT_GE(std::stoi(waters->front().name), lastKept) << where;
    }
    now.setWho("oa");
    ASSERT_TRUE(static_cast<bool>(now.create(Kind::Water, smallWater("after"), told("after")))) << where;
    ASSERT_FALSE(now.flush()) << where;
    // An export is there whole, or the file is as it was.
    const QFileInfo file(QString::fromStdString(book() + ".json"));
    EXPECT_TRUE(file.exists()) << where;
    if (file.size() > 0) {
      QFile text(file.filePath());
      ASSERT_TRUE(text.open(QIODevice::ReadOnly));
      fs::remove(pathOf("again.butte"));
      const auto trouble = readBookJson(text.readAll().toStdString(), pathOf("again.butte"));
      EXPECT_FALSE(trouble) << where << ": " << said(trouble);
    }
  }
};

TEST_P(FaultTest, NothingKeptIsLostAtAnyCall) {
  const auto [kind, network, shortStep] = GetParam();
  const auto whole = work("", 0);
  ASSERT_EQ(whole.exitCode, 0);
  ASSERT_EQ(whole.lastKept, 8);
  ASSERT_GT(whole.calls, 40) << "the faulty disk is not between";
  const int asked = qEnvironmentVariableIntValue("BUTTE_FAULT_STEP");
  const int step = asked > 0 ? asked : shortStep;
  for (long at = 1 + qEnvironmentVariableIntValue("BUTTE_FAULT_FROM") % step; at <= whole.calls; at += step) {
    const auto where = kind + " at call " + std::to_string(at);
    const bool lies = kind == "lie";
    const auto run = work(kind, at, lies ? 7 : 0);
    if (kind == "cut" || lies) {
      EXPECT_TRUE(run.killed || at + 7 > whole.calls) << where;
    } else {
      EXPECT_FALSE(run.killed) << where << ": it crashed";
      EXPECT_EQ(run.exitCode, 0) << where << ": one fault ended the day";
    }
    // A disk that lies may lose what it was given last; never the book.
    expectWhole(run.lastKept, where, lies);
    if (HasFatalFailure()) return;
  }
}

INSTANTIATE_TEST_SUITE_P(Disk, FaultTest,
                         ::testing::Values(Fault{"short", false, 61}, Fault{"enospc", false, 61},
                                           Fault{"eio", false, 61}, Fault{"cut", false, 31},
                                           Fault{"lie", false, 97}, Fault{"short", true, 151},
                                           Fault{"enospc", true, 151}, Fault{"eio", true, 151},
                                           Fault{"cut", true, 73}, Fault{"lie", true, 211}));

} // namespace butte::book
