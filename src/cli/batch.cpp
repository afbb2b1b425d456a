#include "batch.h"

#include "base/csv.h"
#include "verb_json.h"

#include <array>
#include <charconv>
#include <cstdio>
#include <fcntl.h>
#include <fstream>
#include <ostream>
#include <sys/stat.h>
#include <unistd.h>

namespace butte::cli {

using namespace core;
using exchange::ScriptInput;

namespace {

/// A name of somebody's as a cell that no spreadsheet takes for a formula.
std::string field(const std::string& text) {
  return core::csvCell(core::harmlessText(text));
}

/// A file of our own beside the wanted one: never one that is there already, never through a link.
bool makeAnew(const std::string& path) {
  const int made = ::open(path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0666);
  if (made < 0) return false;
  ::close(made);
  return true;
}

/// Only a file gives way to the new one; a device, a pipe or a link stays what it is.
bool mayBeReplaced(const std::string& path) {
  struct stat about {};
  return ::lstat(path.c_str(), &about) != 0 || S_ISREG(about.st_mode);
}

std::string header(const SolveRequest& request) {
  std::string line = "target,water,status,ec_ms_per_cm_25c,ph,cost,violation";
  for (const auto& p : request.shelf)
    line += "," + field(p.id + " g");
  for (const auto n : allNutrients)
    line += "," + std::string(nutrientKey(n)) + " mg/L";
  return line + "\r\n";
}

/// Six figures: more than any salt is known by, and no dust of rounding in a spreadsheet.
std::string figure(double value) {
  std::array<char, 32> text{};
  const auto [end, error] =
      std::to_chars(text.data(), text.data() + text.size(), value, std::chars_format::general, 6);
  return error == std::errc{} ? std::string(text.data(), end) : std::string("?");
}

std::string figure(const std::optional<double>& value) {
  return value ? figure(*value) : std::string();
}

std::string lineOf(const std::string& target, const std::string& water, const SolveRequest& request,
                   const SolveAnswer& answer) {
  std::string line = field(target) + "," + field(water) + "," + statusName(answer.status);
  const bool none = answer.status == SolveStatus::Impossible;
  if (none) return line + std::string(4 + request.shelf.size() + nutrientCount, ',') + "\r\n";
  const auto feed = mix(request.water, request.shelf, answer.grams, request.volume);
  line += "," + figure(feed.conductivity.milliSiemensPerCm()) + "," + figure(feed.ph) + "," +
          figure(feed.cost) + "," + figure(answer.violation);
  for (const auto& g : answer.grams)
    line += "," + figure(g.grams());
  for (const auto n : allNutrients)
    line += "," + figure(feed.milligramsPerLitre.of(n));
  return line + "\r\n";
}

void draw(std::ostream& progress, std::size_t done, std::size_t all) {
  constexpr std::size_t width = 40;
  const std::size_t full = all > 0 ? width * done / all : width;
  progress << '\r' << '[' << std::string(full, '#') << std::string(width - full, '.') << "] " << done
           << " of " << all << (done == all ? "\n" : "") << std::flush;
}

} // namespace

Result<std::size_t> solveBatch(const ScriptInput& input, const std::string& csvFile, std::ostream* progress) {
  const auto& targets = input.modes.batchTargets;
  const auto& waters = input.modes.batchWaters;
  if (targets.empty()) return problemAt(ProblemCode::MissingKey, "targets", {"a batch needs its targets"});
  if (waters.empty()) return problemAt(ProblemCode::MissingKey, "waters", {"a batch needs its waters"});
  const auto unfinished = csvFile + "." + std::to_string(::getpid()) + ".part";
  const auto unwritable = problemAt(ProblemCode::BadFile, "--out", {"'" + csvFile + "' can't be written"});
  if (!mayBeReplaced(csvFile) || !makeAnew(unfinished)) return unwritable;
  std::ofstream out(unfinished, std::ios::binary);
  SolveRequest request = input.given.request;
  out << header(request);
  const std::size_t all = targets.size() * waters.size();
  std::size_t done = 0;
  for (const auto& target : targets) {
    request.rows = target.rows;
    for (const auto& [name, water] : waters) {
      request.water = water;
      const auto answer = core::solve(request);
      if (!answer) {
        out.close();
        std::remove(unfinished.c_str());
        return answer.problem();
      }
      out << lineOf(target.name, name, request, *answer);
      ++done;
      if (progress && (done == all || done * 100 / all != (done - 1) * 100 / all)) draw(*progress, done, all);
    }
  }
  out.close();
  if (!out || std::rename(unfinished.c_str(), csvFile.c_str()) != 0) {
    std::remove(unfinished.c_str());
    return unwritable;
  }
  return done;
}

} // namespace butte::cli
