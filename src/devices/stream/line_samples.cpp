#include "stream/line_samples.h"

#include "base/decimal.h"
#include "pen/pen_line.h"

#include <algorithm>

namespace butte::devices {

namespace {

constexpr std::size_t mostSamples = 64, longestKey = 80;

std::vector<std::string_view> split(std::string_view line, std::string_view separators) {
  std::vector<std::string_view> out;
  while (true) {
    const auto end = line.find_first_of(separators);
    out.push_back(trimmed(line.substr(0, end)));
    if (end == std::string_view::npos) return out;
    line.remove_prefix(end + 1);
  }
}

/// "EC=1.62 mS/cm", "T:21.4"; nothing where it is not such a pair.
std::optional<StreamSample> pairOf(std::string_view part) {
  const auto mark = part.find_first_of("=:");
  if (mark == std::string_view::npos || mark == 0) return std::nullopt;
  const auto key = trimmed(part.substr(0, mark));
  const auto figure = saidFigure(part.substr(mark + 1));
  if (key.empty() || key.size() > longestKey || !figure) return std::nullopt;
  return StreamSample{std::string(key), core::decimalText(figure->value), figure->unit};
}

/// All of its parts are pairs, or none is taken: half a line is a damaged one. A first part without a mark is
/// the logger's own name.
std::vector<StreamSample> pairs(std::string_view line) {
  for (const auto* separators : {";|\t", ",", " "}) {
    auto parts = split(line, separators);
    std::erase_if(parts, [](std::string_view part) { return part.empty(); });
    if (parts.size() > mostSamples) return {};
    std::vector<StreamSample> out;
    for (const auto part : parts) {
      const auto found = pairOf(part);
      if (found)
        out.push_back(*found);
      else if (part != parts.front())
        break;
      const bool isLast = part.data() == parts.back().data();
      if (isLast && found) return out;
    }
  }
  return {};
}

std::vector<StreamSample> asPen(std::string_view line) {
  std::vector<StreamSample> out;
  const auto read = readPenLine(line);
  if (read.isEmpty()) return out;
  if (read.conductivity)
    out.push_back({"EC", core::decimalText(read.conductivity->milliSiemensPerCm()), "mS/cm"});
  if (read.ph) out.push_back({"pH", core::decimalText(*read.ph), {}});
  if (read.temperature) out.push_back({"temperature", core::decimalText(read.temperature->celsius()), "C"});
  return out;
}

std::vector<StreamSample> byPlace(std::string_view line) {
  for (const auto* separators : {";\t", ",", " "}) {
    const auto parts = split(line, separators);
    if (parts.size() > mostSamples) continue;
    std::vector<StreamSample> out;
    for (std::size_t i = 0; i < parts.size(); ++i) {
      const auto figure = saidFigure(parts[i]);
      if (!figure) break;
      out.push_back({"#" + std::to_string(i + 1), core::decimalText(figure->value), figure->unit});
    }
    if (out.size() == parts.size()) return out;
  }
  return {};
}

} // namespace

std::vector<StreamSample> lineSamples(std::string_view line) {
  line = trimmed(line);
  if (line.empty()) return {};
  if (auto found = asPen(line); !found.empty()) return found;
  if (auto found = pairs(line); !found.empty()) return found;
  return byPlace(line);
}

} // namespace butte::devices
