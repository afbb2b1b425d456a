#include "scale/scale_pattern.h"

#include "scale/line_tokens.h"
#include "scale/scale_words.h"

#include <algorithm>

namespace butte::devices {

using core::problemAt;
using core::ProblemCode;

namespace {

constexpr std::size_t longestPattern = 200, longestPatternLine = 1000;
constexpr const char* where = "pattern";
constexpr const char* bracesOfPattern = "{weight}, {weight:kg}, {unit}, {stable:A|B}, {any}";
constexpr const char* unitsOfPattern = "mg, g, kg, oz, lb";

bool isUnit(std::string_view text) {
  return text == "mg" || text == "g" || text == "kg" || text == "oz" || text == "lb";
}

/// Goes along a line, piece by piece.
class Match {
public:
  Match(const std::vector<ScalePattern::Piece>& pieces, std::string_view line)
      : m_pieces(pieces), m_line(line) {}

  ScaleReading read() {
    for (std::size_t i = 0; i < m_pieces.size(); ++i)
      if (!take(i)) return {};
    blanks();
    if (m_at != m_line.size()) return {};
    ScaleReading out{ScaleStatus::Weight, core::Mass::fromGrams((m_value + 0.0) * gramsIn(m_unit)), m_unit,
                     m_stable, m_decimals};
    return out;
  }

private:
  void blanks() {
    while (m_at < m_line.size() && isBlank(m_line[m_at]))
      ++m_at;
  }
  bool text(const std::string& wanted) {
    if (m_line.substr(m_at, wanted.size()) != wanted) return false;
    m_at += wanted.size();
    return true;
  }
  bool take(std::size_t index) {
    const auto& piece = m_pieces[index];
    switch (piece.part) {
    case ScalePattern::Part::Text:
      return text(piece.text);
    case ScalePattern::Part::Blank:
      return blanks(), true;
    case ScalePattern::Part::Weight:
      return weight(piece.text);
    case ScalePattern::Part::Unit:
      return unit();
    case ScalePattern::Part::Stable:
      return stable(piece);
    case ScalePattern::Part::Any:
      return any(index), true;
    }
    return false;
  }
  bool weight(const std::string& fixedUnit) {
    blanks();
    const bool minus = m_line.substr(m_at, 1) == "-";
    if (minus || m_line.substr(m_at, 1) == "+") ++m_at, blanks();
    const auto start = m_at;
    while (m_at < m_line.size() && (std::string_view("0123456789.,").find(m_line[m_at]) != std::string::npos))
      ++m_at;
    std::string digits(m_line.substr(start, m_at - start));
    // Whose pattern it is has seen what it makes of the line: one comma is a point here.
    std::replace(digits.begin(), digits.end(), ',', '.');
    const auto value = digits.empty() ? std::nullopt : clearNumber(digits);
    if (!value) return false;
    m_value = minus ? -*value : *value;
    m_decimals = decimalsOf(digits);
    if (!fixedUnit.empty()) m_unit = fixedUnit;
    return true;
  }
  bool unit() {
    blanks();
    const auto start = m_at;
    while (m_at < m_line.size() && std::isalpha(static_cast<unsigned char>(m_line[m_at])))
      ++m_at;
    const auto known = massUnitOfDisplay(m_line.substr(start, m_at - start));
    if (known) m_unit = *known;
    return known.has_value();
  }
  bool stable(const ScalePattern::Piece& piece) {
    const bool longerFirst = piece.text.size() >= piece.moving.size();
    for (const bool asStable : {longerFirst, !longerFirst})
      if (text(asStable ? piece.text : piece.moving)) return m_stable = asStable, true;
    return false;
  }
  void any(std::size_t index) {
    const auto* next = index + 1 < m_pieces.size() ? &m_pieces[index + 1] : nullptr;
    while (m_at < m_line.size() && !isBlank(m_line[m_at]) &&
           !(next && next->part == ScalePattern::Part::Text &&
             m_line.substr(m_at, next->text.size()) == next->text))
      ++m_at;
  }

  const std::vector<ScalePattern::Piece>& m_pieces;
  std::string_view m_line;
  std::size_t m_at = 0;
  double m_value = 0;
  int m_decimals = 0;
  std::string m_unit;
  std::optional<bool> m_stable;
};

} // namespace

core::Result<ScalePattern::Piece> ScalePattern::brace(std::string_view inside) {
  if (inside == "weight") return Piece{Part::Weight, {}, {}};
  if (inside == "unit") return Piece{Part::Unit, {}, {}};
  if (inside == "any") return Piece{Part::Any, {}, {}};
  const auto colon = inside.find(':');
  const auto name = inside.substr(0, colon);
  const auto rest = colon == std::string_view::npos ? std::string_view() : inside.substr(colon + 1);
  if (name == "weight") {
    if (!isUnit(rest)) return problemAt(ProblemCode::NotOneOf, where, {std::string(rest), unitsOfPattern});
    return Piece{Part::Weight, std::string(rest), {}};
  }
  const auto bar = rest.find('|');
  if (name == "stable" && bar != std::string_view::npos && rest.size() > 1 &&
      rest.substr(0, bar) != rest.substr(bar + 1))
    return Piece{Part::Stable, std::string(rest.substr(0, bar)), std::string(rest.substr(bar + 1))};
  return problemAt(ProblemCode::NotOneOf, where, {"{" + std::string(inside) + "}", bracesOfPattern});
}

core::Result<ScalePattern> ScalePattern::parse(std::string_view text) {
  if (text.size() > longestPattern)
    return problemAt(ProblemCode::BadFile, where, {"it is longer than 200 characters"});
  ScalePattern out;
  for (std::size_t at = 0; at < text.size();) {
    if (text[at] == '{') {
      const auto end = text.find('}', at);
      if (end == std::string_view::npos)
        return problemAt(ProblemCode::BadFile, where, {"a brace is not closed"});
      auto piece = brace(text.substr(at + 1, end - at - 1));
      if (!piece) return piece.problem();
      out.m_pieces.push_back(std::move(piece).value());
      at = end + 1;
    } else if (isBlank(text[at])) {
      out.m_pieces.push_back({Part::Blank, {}, {}});
      while (at < text.size() && isBlank(text[at]))
        ++at;
    } else {
      const auto start = at;
      while (at < text.size() && text[at] != '{' && !isBlank(text[at]))
        ++at;
      out.m_pieces.push_back({Part::Text, std::string(text.substr(start, at - start)), {}});
    }
  }
  const auto count = [&](auto what) { return std::count_if(out.m_pieces.begin(), out.m_pieces.end(), what); };
  const auto weights = count([](const Piece& p) { return p.part == Part::Weight; });
  const auto units = count(
      [](const Piece& p) { return p.part == Part::Unit || (p.part == Part::Weight && !p.text.empty()); });
  if (weights != 1) return problemAt(ProblemCode::MissingKey, where, {"{weight} once"});
  if (units != 1)
    return problemAt(ProblemCode::MissingKey, where,
                     {"the unit once: {unit}, or in the weight, {weight:kg}"});
  if (count([](const Piece& p) { return p.part == Part::Stable; }) > 1)
    return problemAt(ProblemCode::MissingKey, where, {"{stable:A|B} at most once"});
  return out;
}

ScaleReading ScalePattern::read(std::string_view line) const {
  if (line.size() > longestPatternLine) return {};
  return Match(m_pieces, trimmedLine(line)).read();
}

} // namespace butte::devices
