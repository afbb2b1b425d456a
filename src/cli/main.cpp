#include "command_line.h"

int main(int argc, char** argv) {
  return butte::cli::runCommandLine(argc, argv);
}
