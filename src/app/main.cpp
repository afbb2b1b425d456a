#include "window/application.h"

int main(int argc, char** argv) {
  return butte::app::runApplication(argc, argv);
}
