#include "scale/scale_line.h"

#include "scale/line_tokens.h"
#include "scale/scale_words.h"

#include <cmath>

namespace butte::devices {

namespace {

using Kind = LineToken::Kind;
using Tokens = std::vector<LineToken>;

constexpr std::size_t longestLine = 200;
constexpr double ouncesPerPound = 16;

bool isWord(const Tokens& tokens, std::size_t at, std::string_view word) {
  return at < tokens.size() && tokens[at].kind == Kind::Word && tokens[at].text == word;
}
bool isUnit(const Tokens& tokens, std::size_t at, std::string_view unit) {
  return at < tokens.size() && tokens[at].kind == Kind::Word && massUnitOfDisplay(tokens[at].text) == unit;
}
bool isNumber(const Tokens& tokens, std::size_t at) {
  return at < tokens.size() && tokens[at].kind == Kind::Number;
}
bool isColon(const Tokens& tokens, std::size_t at) {
  return at < tokens.size() && tokens[at].kind == Kind::Colon;
}

/// Replies of two letters to a command: "S +", "S I" (common practice of print on request, from memory).
std::optional<ScaleReading> reply(const Tokens& tokens) {
  if (tokens.size() != 2 || tokens[0].kind != Kind::Word) return std::nullopt;
  ScaleReading out;
  const bool command = tokens[0].text == "S" || tokens[0].text == "Z" || tokens[0].text == "T";
  if (command && isWord(tokens, 1, "I")) {
    out.status = ScaleStatus::Busy;
    out.stable = false;
    return out;
  }
  if (tokens[0].text != "S") return std::nullopt;
  if (isWord(tokens, 1, "L"))
    out.status = ScaleStatus::Fault;
  else if (tokens[1].kind == Kind::Sign)
    out.status = tokens[1].text == "+" ? ScaleStatus::Overload : ScaleStatus::Underload;
  else
    return std::nullopt;
  return out;
}

/// "E02", "EC,E01": a letter and a number, no unit.
bool isErrorCode(const Tokens& tokens) {
  if (tokens.empty() || tokens.back().kind != Kind::Number) return false;
  for (std::size_t i = 0; i + 1 < tokens.size(); ++i)
    if (!isWord(tokens, i, "E") && !isWord(tokens, i, "EC")) return false;
  return tokens.size() > 1;
}

/// Goes through a line once; says false at the first thing that it does not understand.
class LineSense {
public:
  explicit LineSense(const Tokens& tokens) : m_tokens(tokens) {}

  ScaleReading read() {
    std::size_t at = 0;
    // A prefix of two letters: S for the answer, then whether it is stable.
    if (isWord(m_tokens, 0, "S") && (isWord(m_tokens, 1, "S") || isWord(m_tokens, 1, "D"))) {
      m_stable = isWord(m_tokens, 1, "S");
      m_moving = !m_stable;
      at = 2;
    }
    while (at < m_tokens.size()) {
      const auto taken = take(at);
      if (taken == 0) return {};
      at += taken;
    }
    return sum();
  }

private:
  /// How many pieces were understood; 0: none.
  std::size_t take(std::size_t at) {
    const auto& token = m_tokens[at];
    switch (token.kind) {
    case Kind::Number:
      return number(at);
    case Kind::Word:
      return word(token.text) ? 1 : 0;
    case Kind::Question:
      return m_moving = true, 1;
    case Kind::Colon: // "Wt: 12.3 g"
      return at > 0 && m_tokens[at - 1].kind == Kind::Word && !m_value ? 1 : 0;
    case Kind::Sign:
      break;
    }
    return 0;
  }

  std::size_t number(std::size_t at) {
    const auto& token = m_tokens[at];
    if (m_value) return 0;
    m_minus = token.text.front() == '-';
    m_exponent = token.exponent;
    m_value = token.value;
    m_decimals = decimalsOf(token.text);
    if (!token.whole || !m_unit.empty()) return 1;
    // Pounds with ounces: "1 lb 3.5 oz" or "1:03.5 lb:oz".
    std::size_t ounces = 0, taken = 0;
    if (isUnit(m_tokens, at + 1, "lb") && isNumber(m_tokens, at + 2) && isUnit(m_tokens, at + 3, "oz"))
      ounces = at + 2, taken = 4;
    else if (isColon(m_tokens, at + 1) && isNumber(m_tokens, at + 2) && isUnit(m_tokens, at + 3, "lb"))
      ounces = at + 2, taken = isColon(m_tokens, at + 4) ? 6 : 5;
    if (taken == 0) return 1;
    const auto& rest = m_tokens[ounces];
    if (!isUnit(m_tokens, at + taken - 1, "oz") || rest.signedOne || rest.value >= ouncesPerPound) return 0;
    const double pounds = std::abs(token.value) + rest.value / ouncesPerPound;
    m_value = m_minus ? -pounds : pounds;
    m_unit = "lb:oz";
    m_decimals = decimalsOf(rest.text);
    return taken;
  }

  bool word(const std::string& text) {
    if (const auto unit = massUnitOfDisplay(text)) {
      if (!m_unit.empty()) return false;
      m_unit = *unit;
      return true;
    }
    const auto place = m_tokens.size() == 1 ? WordPlace::Alone
                       : m_value            ? WordPlace::BehindValue
                                            : WordPlace::BeforeValue;
    const auto means = scaleWord(text, place);
    if (!means) return false;
    switch (*means) {
    case ScaleWord::Stable:
      m_stable = true;
      break;
    case ScaleWord::Moving:
      m_moving = true;
      break;
    case ScaleWord::Filler:
      break;
    case ScaleWord::NotLoad:
      m_notLoad = true;
      break;
    case ScaleWord::Overload:
    case ScaleWord::Underload:
    case ScaleWord::Fault:
    case ScaleWord::Busy:
      m_state = *means;
      break;
    }
    return true;
  }

  ScaleReading sum() const {
    ScaleReading out;
    if (m_state) {
      // Some say overload for both and tell them apart by the sign of their nines.
      out.status = *m_state == ScaleWord::Fault                  ? ScaleStatus::Fault
                   : *m_state == ScaleWord::Busy                 ? ScaleStatus::Busy
                   : *m_state == ScaleWord::Underload || m_minus ? ScaleStatus::Underload
                                                                 : ScaleStatus::Overload;
      return out;
    }
    if (!m_value || m_unit.empty() || m_exponent || m_notLoad || (m_stable && m_moving)) return out;
    out.status = ScaleStatus::Weight;
    out.unit = m_unit;
    out.decimals = m_decimals;
    out.mass = core::Mass::fromGrams((*m_value + 0.0) * gramsIn(m_unit == "lb:oz" ? "lb" : m_unit));
    if (m_stable || m_moving) out.stable = m_stable;
    return out;
  }

  const Tokens& m_tokens;
  std::optional<double> m_value;
  std::string m_unit;
  int m_decimals = 0;
  std::optional<ScaleWord> m_state;
  bool m_stable = false, m_moving = false, m_notLoad = false, m_minus = false, m_exponent = false;
};

} // namespace

ScaleReading readScaleLine(std::string_view line) {
  if (line.size() > longestLine) return {};
  const auto tokens = lineTokens(line);
  if (!tokens || tokens->empty()) return {};
  if (const auto known = reply(*tokens)) return *known;
  if (isErrorCode(*tokens)) return {ScaleStatus::Fault, {}, {}, {}};
  return LineSense(*tokens).read();
}

} // namespace butte::devices
