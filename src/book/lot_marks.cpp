#include "lot_marks.h"

#include "base/decimal.h"
#include "units/convert.h"

namespace butte::book {

using core::Mass;
using core::shelved::From;

namespace {

std::string_view trimmed(std::string_view text) {
  const auto from = text.find_first_not_of(" \t");
  if (from == std::string_view::npos) return {};
  return text.substr(from, text.find_last_not_of(" \t") - from + 1);
}

/// "400 g"; nothing where it is no weight above 0.
std::optional<Mass> massIn(std::string_view text) {
  text = trimmed(text);
  const auto space = text.find(' ');
  if (space == std::string_view::npos) return std::nullopt;
  const auto value = core::parseDecimal(text.substr(0, space));
  if (!value || !(*value > 0)) return std::nullopt;
  const auto grams = core::convert(*value, std::string(trimmed(text.substr(space))), "g");
  return grams ? std::optional(Mass::fromGrams(*grams)) : std::nullopt;
}

From lotIn(std::string_view text) {
  const auto open = text.rfind('(');
  if (open == std::string_view::npos || open == 0 || text.back() != ')') return {std::string(text), {}};
  const auto mass = massIn(text.substr(open + 1, text.size() - open - 2));
  if (!mass) return {std::string(text), {}};
  return {std::string(trimmed(text.substr(0, open))), mass};
}

} // namespace

std::vector<From> lotsIn(std::string_view text) {
  std::vector<From> out;
  while (!text.empty()) {
    const auto comma = text.find(',');
    if (const auto one = trimmed(text.substr(0, comma)); !one.empty()) out.push_back(lotIn(one));
    text = comma == std::string_view::npos ? std::string_view() : text.substr(comma + 1);
  }
  return out;
}

std::string lotsText(const std::vector<From>& lots) {
  std::string out;
  for (const auto& lot : lots) {
    if (!out.empty()) out += ", ";
    out += lot.mark;
    if (lot.mass && lots.size() > 1) out += " (" + core::decimalText(lot.mass->grams()) + " g)";
  }
  return out;
}

} // namespace butte::book
