// Any bytes as a table to bring in: no crash, no hang, and what is taken can be kept.
#include "book/book.h"
#include "book/tables.h"

#include <QCoreApplication>
#include <QTemporaryDir>
#include <cstdint>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static int argc = 0;
  static QCoreApplication application(argc, nullptr);
  static QTemporaryDir folder("/dev/shm/butte-XXXXXX");
  static auto book = *butte::book::Book::create(folder.filePath("f.butte").toStdString(), "fuzz");
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
