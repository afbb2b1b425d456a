#include "paint/theme.h"

#include <QApplication>
#include <gtest/gtest.h>

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  ::testing::InitGoogleTest(&argc, argv);
  QApplication application(argc, argv);
  butte::app::dressApplication();
  butte::app::applyTheme(false);
  return RUN_ALL_TESTS();
}

/// The library's Modbus server forgets a buffer for each connection that stands when it is taken away.
extern "C" const char* __lsan_default_suppressions();
extern "C" const char* __lsan_default_suppressions() {
  return "leak:libQt6SerialBus";
}
