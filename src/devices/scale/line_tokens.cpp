#include "scale/line_tokens.h"

#include "base/decimal.h"

#include <algorithm>

namespace butte::devices {

namespace {

bool isDigit(char c) {
  return c >= '0' && c <= '9';
}
bool isLetter(char c) {
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z');
}

/// "1,234" or "1,234,567": every part behind a comma has three digits.
bool isGrouped(std::string_view whole) {
  const auto first = whole.find(',');
  if (first == 0 || first > 3) return false;
  for (auto at = first; at != std::string_view::npos;) {
    const auto next = whole.find(',', at + 1);
    const auto part = whole.substr(at + 1, next == std::string_view::npos ? next : next - at - 1);
    if (part.size() != 3) return false;
    at = next;
  }
  return true;
}

class Cutter {
public:
  explicit Cutter(std::string_view line) : m_line(line) {}

  std::optional<std::vector<LineToken>> cut() {
    while (m_at < m_line.size())
      if (!piece()) return std::nullopt;
    return std::move(m_tokens);
  }

private:
  char here() const { return m_at < m_line.size() ? m_line[m_at] : '\0'; }

  bool piece() {
    const char c = here();
    if (isBlank(c) || c == ',' || c == ';' || c == '=') return ++m_at, true;
    if (isLetter(c)) return word();
    if (isDigit(c) || c == '.') return number("");
    if (c == '+' || c == '-') return sign();
    if (c != '?' && c != ':') return false;
    m_tokens.push_back({c == '?' ? LineToken::Kind::Question : LineToken::Kind::Colon, std::string(1, c)});
    return ++m_at, true;
  }

  bool word() {
    const auto start = m_at;
    while (isLetter(here()))
      ++m_at;
    m_tokens.push_back({LineToken::Kind::Word, std::string(m_line.substr(start, m_at - start))});
    return true;
  }

  /// A sign belongs to the number behind it, also across blanks.
  bool sign() {
    const std::string text(1, here());
    auto at = m_at + 1;
    while (at < m_line.size() && isBlank(m_line[at]))
      ++at;
    if (at < m_line.size() && (isDigit(m_line[at]) || m_line[at] == '.')) {
      m_at = at;
      return number(text);
    }
    m_tokens.push_back({LineToken::Kind::Sign, text});
    return ++m_at, true;
  }

  bool number(const std::string& sign) {
    const auto start = m_at;
    while (isDigit(here()) || here() == '.' || here() == ',')
      ++m_at;
    while (m_line[m_at - 1] == ',') // it parts fields
      --m_at;
    const auto digits = m_line.substr(start, m_at - start);
    const auto value = clearNumber(digits);
    if (!value) return false;
    LineToken token{LineToken::Kind::Number, sign + std::string(digits), sign == "-" ? -*value : *value};
    token.whole = digits.find_first_of(".,") == std::string_view::npos;
    token.signedOne = !sign.empty();
    token.exponent = exponent();
    m_tokens.push_back(token);
    return true;
  }

  bool exponent() {
    auto at = m_at + 1;
    if (here() != 'E' && here() != 'e') return false;
    if (at < m_line.size() && (m_line[at] == '+' || m_line[at] == '-')) ++at;
    if (at >= m_line.size() || !isDigit(m_line[at])) return false;
    while (at < m_line.size() && isDigit(m_line[at]))
      ++at;
    m_at = at;
    return true;
  }

  std::string_view m_line;
  std::size_t m_at = 0;
  std::vector<LineToken> m_tokens;
};

} // namespace

std::optional<double> clearNumber(std::string_view digits) {
  const auto point = digits.find('.'), comma = digits.find(',');
  std::string plain(digits);
  if (comma != std::string_view::npos && point == std::string_view::npos) {
    const bool several = digits.find(',', comma + 1) != std::string_view::npos;
    const bool thousands = digits.size() - comma - 1 == 3 && digits.substr(0, comma) != "0";
    if (several ? !isGrouped(digits) : thousands) return std::nullopt;
    if (several)
      std::erase(plain, ',');
    else
      plain[comma] = '.';
  } else if (comma != std::string_view::npos) {
    if (comma > point || !isGrouped(digits.substr(0, point))) return std::nullopt;
    std::erase(plain, ',');
  }
  if (std::count(plain.begin(), plain.end(), '.') > 1 || plain == ".") return std::nullopt;
  if (plain.back() == '.') plain.pop_back();
  if (plain.front() == '.') plain.insert(0, "0");
  return core::parseDecimal(plain);
}

std::string_view trimmedLine(std::string_view line) {
  const auto outside = [](char c) { return static_cast<unsigned char>(c) <= ' '; };
  while (!line.empty() && outside(line.front()))
    line.remove_prefix(1);
  while (!line.empty() && outside(line.back()))
    line.remove_suffix(1);
  return line;
}

std::optional<std::vector<LineToken>> lineTokens(std::string_view line) {
  return Cutter(trimmedLine(line)).cut();
}

int decimalsOf(std::string_view number) {
  const auto point = number.find_last_of(".,");
  if (point == std::string_view::npos) return 0;
  const auto digits = number.substr(point + 1);
  return static_cast<int>(
      std::count_if(digits.begin(), digits.end(), [](char c) { return c >= '0' && c <= '9'; }));
}

} // namespace butte::devices
