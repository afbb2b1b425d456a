// libFuzzer for one reader (readers.h), named by BUTTE_READER: tools/attack.sh fuzz.
#include "readers.h"

#include <QCoreApplication>
#include <cstdint>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  static int argc = 0;
  static QCoreApplication application(argc, nullptr);
  static const auto& reader = butte::attack::readerNamed(BUTTE_READER);
  reader.take({reinterpret_cast<const char*>(data), size});
  return 0;
}
