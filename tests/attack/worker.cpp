// A day at the book on a disk that may fail (faulty_disk.cpp): opens it, edits, makes a version, a copy and
// an export, opens it again. Says after each edit that is kept:
//   done NUMBER
// A fault may refuse an edit; it is tried again, as the window does. Usage: worker BOOK
#include "book/book_json.h"
#include "book/copies.h"
#include "book/open_book.h"
#include "book_fixture.h"
#include "support/told.h"

#include <QCoreApplication>
#include <filesystem>
#include <string>
#include <unistd.h>

using namespace butte::book;

namespace {

constexpr int tries = 4;

void confirm(int number) {
  const auto line = "done " + std::to_string(number) + "\n";
  if (::write(STDOUT_FILENO, line.data(), line.size()) < 0) _exit(3);
}

/// Written for good, sooner or later: the fault happens once.
bool kept(Book& book) {
  for (int i = 0; i < tries; ++i)
    if (!book.flush()) return true;
  return false;
}

std::unique_ptr<Book> open(const std::string& path) {
  for (int i = 0; i < tries; ++i) {
    auto opened = openBook(path, path + "-snapshots");
    if (opened && !(*opened)->isReadOnly()) return std::move(opened).value();
  }
  return nullptr;
}

bool edit(Book& book, const Ref& counter, int number) {
  for (int i = 0; i < tries; ++i) {
    const auto record = book.record(counter);
    if (!record || !*record) continue;
    const auto before = (*record)->body["name"];
    const std::string value = std::to_string(number);
    if (before == value) return kept(book); // the try before went through after all
    if (!book.apply({0, {}, {}, told("edit"), {}, {{counter, "/body/name", before, value}}}) && kept(book))
      return true;
  }
  return false;
}

/// What else a day brings; a fault may refuse it, and nothing is lost by that.
void otherWork(Book& book, const Ref& counter, const std::string& path, int number) {
  switch (number % 4) {
  case 0:
    std::ignore = static_cast<bool>(book.create(Kind::Batch, smallBatch(), told("batch")));
    break;
  case 1:
    std::ignore = static_cast<bool>(book.makeVersion(counter, "named", "v"));
    break;
  case 2:
    std::ignore = static_cast<bool>(makeCopy(book, "by hand"));
    break;
  default:
    std::ignore = writeBookJson(book.store(), path + ".json");
    break;
  }
}

} // namespace

int main(int argc, char** argv) {
  QCoreApplication application(argc, argv);
  if (argc < 2) return 2;
  const std::string path = argv[1];
  int number = 0;
  for (int opening = 0; opening < 2; ++opening) {
    const auto book = open(path);
    if (!book) return 4;
    const auto waters = book->store().list(Kind::Water, false);
    if (!waters || waters->empty()) return 5;
    const auto counter = waters->front().ref;
    for (int i = 0; i < 4; ++i) {
      if (!edit(*book, counter, ++number)) return 6;
      confirm(number);
      otherWork(*book, counter, path, number);
    }
  }
  return 0;
}
