#pragma once

namespace butte::cli {

/// Runs butte-cli: parses the words, runs the verb, prints. Returns the exit code (0, 2 or 3).
int runCommandLine(int argc, char** argv);

} // namespace butte::cli
