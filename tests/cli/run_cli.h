#pragma once
#include <algorithm>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <nlohmann/json.hpp>
#include <string>
#include <sys/wait.h>
#include <unistd.h>

/// Runs the real butte-cli program, as a script would.
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

inline Run cli(const std::string& arguments, const std::string& input = "") {
  const std::string base = "/tmp/butte-cli-test-" + std::to_string(getpid());
  std::ofstream(base + ".in", std::ios::binary) << input;
  const std::string command =
      std::string(BUTTE_CLI) + " " + arguments + " <" + base + ".in >" + base + ".out 2>" + base + ".err";
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
