#include "quantity/typed_number.h"

#include "base/decimal.h"
#include "text/figure_text.h"

#include <algorithm>
#include <array>
#include <utility>

namespace butte::reading {
namespace {

bool isNumber(Atoms atoms, std::size_t i) {
  return i < atoms.size() && atoms[i].kind == Atom::Kind::Number;
}

bool isWhole(const Atom& atom) {
  return std::all_of(atom.text.begin(), atom.text.end(), [](char c) { return c >= '0' && c <= '9'; });
}

/// "1/4": two whole numbers and a stroke between; of what no weight is, nothing.
std::optional<double> fractionAt(Atoms atoms, std::size_t at) {
  if (!isNumber(atoms, at) || !isNumber(atoms, at + 2) || !atoms[at + 1].is("/")) return std::nullopt;
  if (!isWhole(atoms[at]) || !isWhole(atoms[at + 2])) return std::nullopt;
  const auto above = core::parseDecimal(atoms[at].text), below = core::parseDecimal(atoms[at + 2].text);
  if (!above || !below || *below == 0) return std::nullopt;
  return *above / *below;
}

/// Whether a stroke behind two numbers makes the second pair a fraction: "115 g/100 L" has a word before it.
bool beginsFraction(Atoms atoms, std::size_t at) {
  return isNumber(atoms, at) && isNumber(atoms, at + 2) && atoms[at + 1].is("/");
}

} // namespace

std::string withPlainFractions(std::string_view text) {
  static constexpr std::array<std::pair<std::string_view, std::string_view>, 11> fractions{
      {{"\u00BD", "1/2"},
       {"\u00BC", "1/4"},
       {"\u00BE", "3/4"},
       {"\u2153", "1/3"},
       {"\u2154", "2/3"},
       {"\u215B", "1/8"},
       {"\u215C", "3/8"},
       {"\u215D", "5/8"},
       {"\u215E", "7/8"},
       {"\u2155", "1/5"},
       {"\u2159", "1/6"}}};
  std::string out(text);
  for (const auto& [sign, plain] : fractions) {
    for (auto at = out.find(sign); at != std::string::npos; at = out.find(sign))
      out.replace(at, sign.size(), " " + std::string(plain) + " ");
  }
  return out;
}

std::optional<TypedNumber> typedNumberAt(Atoms atoms, std::size_t at) {
  if (!isNumber(atoms, at)) return std::nullopt;
  if (beginsFraction(atoms, at)) {
    const auto part = fractionAt(atoms, at);
    return part ? std::optional(TypedNumber{3, *part, {}, {}}) : std::nullopt;
  }
  std::string digits = atoms[at].text;
  std::size_t length = 1;
  const bool dash = at + 1 < atoms.size() && atoms[at + 1].is("-");
  const auto second = at + 1 + dash;
  if (isWhole(atoms[at]) && beginsFraction(atoms, second)) {
    const auto whole = core::parseDecimal(digits);
    const auto part = fractionAt(atoms, second);
    if (!part || !whole || *part >= 1) return std::nullopt;
    return TypedNumber{second + 3 - at, *whole + *part, {}, {}};
  }
  while (isNumber(atoms, at + length) && atoms[at + length].gap == 1) {
    digits += " " + atoms[at + length].text;
    ++length;
  }
  const auto read = numberIn(digits, DecimalMark::Unknown);
  if (!read) return std::nullopt;
  const bool plain =
      core::parseDecimal(digits) == read->value; // no thousands in it: its digits stay as they are
  return TypedNumber{length, read->value,
                     plain ? core::normalisedDecimal(digits) : core::decimalText(read->value),
                     read->otherwise};
}

} // namespace butte::reading
