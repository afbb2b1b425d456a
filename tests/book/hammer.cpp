// Edits a book at random until it is killed. After each edit that is confirmed it says so on its output:
//   done NUMBER VALUE
// so that whoever killed it knows what must be there. Usage: hammer BOOK SEED [run]
#include "book/bench_run.h"
#include "book/open_book.h"
#include "book_fixture.h"
#include "support/told.h"

#include <QCoreApplication>
#include <random>
#include <unistd.h>

using namespace butte::book;

namespace {

void confirm(int number, const std::string& value) {
  const auto line = "done " + std::to_string(number) + " " + value + "\n";
  if (::write(STDOUT_FILENO, line.data(), line.size()) < 0) _exit(3);
}

/// A run at the bench is told event by event, as the window does it: a record, a change to its body for each
/// event, flushed before it counts. Begins it, or goes on with the one that is there.
int tellRun(Book& book) {
  auto runs = book.store().list(Kind::BenchRun, false);
  if (!runs) return 20;
  if (runs->empty()) {
    BenchRun run;
    run.name = "run", run.formulaUid = "formula", run.formulaVersion = 1;
    run.products = {"cn", "kn"};
    run.vessels = {
        {"A", butte::core::Volume::fromLitres(10), 100, {{0, butte::core::Mass::fromGrams(800), {}}}}};
    if (!book.create(Kind::BenchRun, toJson(run), told("run")) || book.flush()) return 21;
    runs = book.store().list(Kind::BenchRun, false);
  }
  const auto ref = runs->front().ref;
  for (;;) {
    const auto record = book.record(ref);
    if (!record || !*record) return 22;
    auto read = benchRunFromJson((*record)->body);
    if (!read) return 23;
    auto run = std::move(read).value();
    const auto count = run.events.size();
    butte::core::RunDeed deed = butte::core::did::Weighed{0, butte::core::Mass::fromGrams(1), {}, true};
    if (count % 2 == 1) deed = butte::core::did::Tipped{0, 0};
    run.events.push_back({static_cast<std::int64_t>(count), "K.T.", deed});
    const auto path = "/body/events/" + std::to_string(count);
    if (book.apply({0, {}, {}, told("told"), {}, {{ref, path, Json(), toJson(run, run.events.back())}}}) ||
        book.flush())
      return 24;
    confirm(static_cast<int>(count) + 1, "event");
  }
}

} // namespace

int main(int argc, char** argv) {
  QCoreApplication application(argc, argv);
  if (argc < 3) return 2;
  auto opened = openBook(argv[1], std::string(argv[1]) + "-snapshots");
  if (!opened || (*opened)->isReadOnly()) return 4;
  auto& book = **opened;
  if (argc > 3 && std::string(argv[3]) == "run") return tellRun(book);
  std::mt19937 random(static_cast<unsigned>(std::stoul(argv[2])));
  auto waters = *book.store().list(Kind::Water, false);
  if (waters.empty()) return 5;
  const auto counter = waters.front().ref;
  for (int number = 1;; ++number) {
    const auto record = book.record(counter);
    if (!record || !*record) return 6;
    const auto before = (*record)->body["name"];
    const auto value = std::to_string(number) + "-" + std::to_string(random());
    if (book.apply({0, {}, {}, told("step " + value), {}, {{counter, "/body/name", before, value}}}))
      return 7;
    confirm(number, value);
    switch (random() % 6) { // and all kinds of work between
    case 0:
      if (!book.create(Kind::Formula, demoFormula(), told("new"))) return 8;
      break;
    case 1:
      if (!book.create(Kind::Batch, smallBatch(), told("batch"))) return 9;
      break;
    case 2: // back and forth over a step of its own, so that the counter never falls behind what was
            // confirmed
      if (!book.create(Kind::Target, Json{{"name", "t"}, {"target", demoFormula()["target"]}},
                       told("target")) ||
          !book.undo() || !book.redo())
        return 10;
      break;
    case 3:
      if (!book.makeVersion(counter, "named", "v")) return 11;
      break;
    case 4:
      if (book.moveToBin(counter, "c") || book.takeFromBin(counter, "c")) return 12;
      break;
    default:
      break;
    }
  }
}
