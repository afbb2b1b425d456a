#include <gtest/gtest.h>

#ifdef QT_VERSION
#error "the core's tests must not see Qt"
#endif

int main(int argc, char** argv) {
  ::testing::InitGoogleTest(&argc, argv);
  return RUN_ALL_TESTS();
}
