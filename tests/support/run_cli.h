#pragma once
#include "command_line.h"

#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <iostream>
#include <iterator>
#include <nlohmann/json.hpp>
#include <sstream>
#include <string>
#include <sys/wait.h>
#include <unistd.h>
#include <vector>

/// Runs the scripting interface as a script would: words and an input in, an exit code and two texts out.
namespace butte::test {

struct Run {
  int code = -1;
  std::string out, err;
  nlohmann::json parsed() const { return nlohmann::json::parse(out); }
};

inline std::string slurp(const std::string& path) {
  std::ifstream file(path, std::ios::binary);
  return {std::istreambuf_iterator<char>(file), {}};
}

/// The words of a command line as a shell parts them: by blanks, but not within single quotes.
inline std::vector<std::string> shellWords(const std::string& line) {
  std::vector<std::string> words;
  bool quoted = false, open = false;
  for (const char letter : line) {
    if (letter == '\'') {
      quoted = !quoted;
    } else if (letter == ' ' && !quoted) {
      open = false;
      continue;
    }
    if (!open) words.emplace_back();
    open = true;
    if (letter != '\'') words.back() += letter;
  }
  return words;
}

/// A stream's text goes to and comes from here while this lives.
class Redirected {
public:
  Redirected(std::ios& stream, std::streambuf* other) : stream_(stream), usual_(stream.rdbuf(other)) {
    stream_.clear();
  }
  Redirected(const Redirected&) = delete;
  Redirected& operator=(const Redirected&) = delete;
  ~Redirected() { stream_.rdbuf(usual_); }

private:
  std::ios& stream_;
  std::streambuf* usual_;
};

/// Runs the command line within this process: starting a program takes longer than most answers.
inline Run cli(const std::string& arguments, const std::string& input = "") {
  auto words = shellWords(std::string(BUTTE_CLI) + " " + arguments);
  std::vector<char*> argv;
  for (auto& word : words)
    argv.push_back(word.data());
  std::istringstream in(input);
  std::ostringstream out, err;
  Run run;
  {
    const Redirected typed(std::cin, in.rdbuf()), output(std::cout, out.rdbuf()),
        errors(std::cerr, err.rdbuf());
    run.code = butte::cli::runCommandLine(static_cast<int>(argv.size()), argv.data());
  }
  run.out = out.str();
  run.err = err.str();
  return run;
}

/// The same through the real program, for what only a process has: its streams, its exit code.
inline Run cliProcess(const std::string& arguments, const std::string& input = "") {
  const std::string base = "/tmp/butte-cli-test-" + std::to_string(getpid());
  std::ofstream(base + ".in", std::ios::binary) << input;
  const std::string command =
      std::string(BUTTE_CLI) + " <" + base + ".in >" + base + ".out 2>" + base + ".err " + arguments;
  Run run;
  const int status = std::system(command.c_str());
  run.code = WIFEXITED(status) ? WEXITSTATUS(status) : -1;
  run.out = slurp(base + ".out");
  run.err = slurp(base + ".err");
  for (const char* end : {".in", ".out", ".err"})
    std::remove((base + end).c_str());
  return run;
}

} // namespace butte::test
