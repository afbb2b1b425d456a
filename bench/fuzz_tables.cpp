// Any bytes as a table to bring in: no crash, no hang, and what is taken can be kept.
#include "book/book.h"
#include "book/tables.h"

#include <QCoreApplication>
#include <QFile>
#include <QTemporaryDir>
#include <cstdint>
#include <cstdlib>
#include <memory>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static int argc = 0;
  static QCoreApplication application(argc, nullptr);
  static QTemporaryDir folder("/dev/shm/butte-XXXXXX");
  // A fresh book now and then: what is taken back stays in the bin, and a full bin makes each input slow.
  static std::unique_ptr<butte::book::Book> book;
  static int inputs = 0;
  if (inputs++ % 300 == 0) {
    book.reset();
    const auto path = folder.filePath("f.butte");
    for (const auto* ending : {"", "-wal", "-shm"})
      QFile::remove(path + ending);
    book = *butte::book::Book::create(path.toStdString(), "fuzz");
  }
  const auto plan =
      butte::book::planImport(book->store(), std::string(reinterpret_cast<const char*>(data), size));
  if (!plan) return 0;
  // What the plan says it takes must be taken, and taken back.
  if (butte::book::import(*book, *plan, "fuzz")) std::abort();
  if (!plan->changes.empty() || !plan->readings.empty()) {
    if (!book->undo()) std::abort();
  }
  return 0;
}
