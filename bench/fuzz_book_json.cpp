// Any bytes as a whole book: no crash, nothing half imported; a book that is made is sound.
#include "book/book_json.h"
#include "book/open_store.h"

#include <QCoreApplication>
#include <QFile>
#include <QTemporaryDir>
#include <cstdint>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static int argc = 0;
  static QCoreApplication application(argc, nullptr);
  static QTemporaryDir folder("/dev/shm/butte-XXXXXX");
  const auto path = folder.filePath("f.butte");
  for (const auto* ending : {"", "-wal", "-shm"})
    QFile::remove(path + ending);
  const auto trouble =
      butte::book::readBookJson(std::string(reinterpret_cast<const char*>(data), size), path.toStdString());
  if (trouble) {
    if (QFile::exists(path)) std::abort();
    return 0;
  }
  auto store = butte::book::openStore(path.toStdString(), butte::book::OpenFor::Reading);
  if (!store || (*store)->checkWhole()) std::abort();
  return 0;
}
