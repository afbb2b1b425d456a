#include "text/atoms.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <unordered_map>
#include <utility>

namespace butte::reading {
namespace {

/// Of ASCII alone, whatever the locale.
char lower(char c) {
  return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
}

using Folds = std::unordered_map<std::string_view, std::string_view>;

/// Characters beyond ASCII as papers use them. Unicode names are in the order of the code charts.
const Folds& folds() {
  static const Folds all{
      {"\u00A0", " "}, {"\u2009", " "}, {"\u202F", " "}, {"\u2007", " "},  {"\u2002", " "},  {"\u2003", " "},
      {"\u3000", " "}, {"\uFEFF", ""},  {"\u200B", ""},  {"\u00AD", ""},   {"\u00B5", "u"},  {"\u03BC", "u"},
      {"\u00B0", "°"}, {"\u00BA", "°"}, {"\u02DA", "°"}, {"\u2070", "0"},  {"\u00B9", "1"},  {"\u00B2", "2"},
      {"\u00B3", "3"}, {"\u2074", "4"}, {"\u2075", "5"}, {"\u2076", "6"},  {"\u2077", "7"},  {"\u2078", "8"},
      {"\u2079", "9"}, {"\u207A", "+"}, {"\u207B", "-"}, {"\u2080", "0"},  {"\u2081", "1"},  {"\u2082", "2"},
      {"\u2083", "3"}, {"\u2084", "4"}, {"\u2085", "5"}, {"\u2086", "6"},  {"\u2087", "7"},  {"\u2088", "8"},
      {"\u2089", "9"}, {"\u2010", "-"}, {"\u2011", "-"}, {"\u2012", "-"},  {"\u2013", "-"},  {"\u2014", "-"},
      {"\u2015", "-"}, {"\u2212", "-"}, {"\u2264", "<"}, {"\u2265", ">"},  {"\u00B7", "·"},  {"\u2022", "·"},
      {"\u22C5", "·"}, {"\u2026", "…"}, {"\u00B1", "±"}, {"\u00D7", "x"},  {"\u2215", "/"},  {"\u2044", "/"},
      {"\u2502", "|"}, {"\u2503", "|"}, {"\u00A6", "|"}, {"\u201C", "\""}, {"\u201D", "\""}, {"\u2018", "'"},
      {"\u2019", "'"}, {"\u00C4", "a"}, {"\u00E4", "a"}, {"\u00C0", "a"},  {"\u00E0", "a"},  {"\u00C1", "a"},
      {"\u00E1", "a"}, {"\u00C2", "a"}, {"\u00E2", "a"}, {"\u00C7", "c"},  {"\u00E7", "c"},  {"\u00C8", "e"},
      {"\u00E8", "e"}, {"\u00C9", "e"}, {"\u00E9", "e"}, {"\u00CA", "e"},  {"\u00EA", "e"},  {"\u00CB", "e"},
      {"\u00EB", "e"}, {"\u00CC", "i"}, {"\u00EC", "i"}, {"\u00CD", "i"},  {"\u00ED", "i"},  {"\u00CE", "i"},
      {"\u00EE", "i"}, {"\u00CF", "i"}, {"\u00EF", "i"}, {"\u00D1", "n"},  {"\u00F1", "n"},  {"\u00D2", "o"},
      {"\u00F2", "o"}, {"\u00D3", "o"}, {"\u00F3", "o"}, {"\u00D4", "o"},  {"\u00F4", "o"},  {"\u00D6", "o"},
      {"\u00F6", "o"}, {"\u00D9", "u"}, {"\u00F9", "u"}, {"\u00DA", "u"},  {"\u00FA", "u"},  {"\u00DB", "u"},
      {"\u00FB", "u"}, {"\u00DC", "u"}, {"\u00FC", "u"}, {"\u00DF", "ss"}};
  return all;
}

std::size_t lengthAt(std::string_view text, std::size_t i) {
  const auto first = static_cast<unsigned char>(text[i]);
  const std::size_t length = first >= 0xF0 ? 4 : first >= 0xE0 ? 3 : first >= 0xC0 ? 2 : 1;
  return std::min(length, text.size() - i);
}

constexpr std::string_view smallLetters = "abcdefghijklmnopqrstuvwxyz";

/// One character of the text, folded; `length` is how many bytes it takes there.
std::string_view foldedAt(std::string_view text, std::size_t i, std::size_t& length) {
  length = lengthAt(text, i);
  if (length == 1) {
    const char c = text[i], small = lower(c);
    return small == c ? text.substr(i, 1) : smallLetters.substr(static_cast<std::size_t>(c - 'A'), 1);
  }
  const auto it = folds().find(text.substr(i, length));
  return it == folds().end() ? text.substr(i, length) : it->second;
}

bool isDigit(char c) {
  return c >= '0' && c <= '9';
}
bool isLetter(std::string_view one) {
  if (one.empty()) return false;
  const auto c = static_cast<unsigned char>(one.front());
  if (c < 0x80) return std::isalpha(c) != 0;
  // Letters of other scripts; of the signs beyond ASCII these four are met.
  return one != "°" && one != "·" && one != "…" && one != "±";
}

class Lexer {
public:
  Lexer(std::string_view line, Commas commas) : m_line(line), m_commas(commas) {}

  std::vector<Atom> read() {
    m_out.reserve(m_line.size() / 4 + 4); // more than most lines have
    while (m_at < m_line.size())
      next();
    return std::move(m_out);
  }

private:
  void next() {
    const auto first = static_cast<unsigned char>(m_line[m_at]);
    if (first == ' ') return skip(1, 1);
    if (std::isdigit(first)) return number();
    if (first < 0x80 && std::isalpha(first)) return word();
    std::size_t length = 0;
    const auto one = foldedAt(m_line, m_at, length);
    if (one.empty() || one == " " || one == "\v" || one == "\f") return skip(length, one.empty() ? 0 : 1);
    if (one == "\"") m_quoted = !m_quoted;
    if (isDigit(one.front()) && one.size() == 1 && length == 1) return number();
    if (isLetter(one) || isDigit(one.front())) return word();
    if ((one == "." || one == "_" || one == "…" || one == "·" || one == "-") && leader(one)) return;
    put(Atom::Kind::Sign, one, m_at + length);
  }

  void skip(std::size_t length, int columns) {
    m_at += length;
    m_column += columns;
    m_gap += columns;
  }

  void put(Atom::Kind kind, std::string_view text, std::size_t to) {
    const int columns = static_cast<int>(std::count_if(m_line.begin() + static_cast<std::ptrdiff_t>(m_at),
                                                       m_line.begin() + static_cast<std::ptrdiff_t>(to),
                                                       [](char c) { return (c & 0xC0) != 0x80; }));
    const char mark = kind == Atom::Kind::Sign && text.size() == 1 ? text.front() : '\0';
    m_out.push_back({kind, std::string(text), m_at, to, m_column, m_gap, mark, m_quoted});
    m_column += columns;
    m_at = to;
    m_gap = 0;
  }

  void word() {
    auto& text = m_word;
    text.clear();
    auto to = m_at;
    while (to < m_line.size()) {
      const auto c = static_cast<unsigned char>(m_line[to]);
      if (c < 0x80) {
        if (!std::isalnum(c)) break;
        text += lower(static_cast<char>(c));
        ++to;
        continue;
      }
      std::size_t length = 0;
      const auto one = foldedAt(m_line, to, length);
      const bool part = one.empty() || isLetter(one) || isDigit(one.front());
      if (!part) break;
      text += one;
      to += length;
    }
    put(Atom::Kind::Word, text, to);
  }

  /// Digits with the marks between them, and an exponent ("1.2e-3").
  void number() {
    auto to = m_at;
    const auto digitAt = [&](std::size_t i) { return i < m_line.size() && isDigit(m_line[i]); };
    while (digitAt(to) || (to > m_at && joins(m_line[to]) && digitAt(to + 1))) {
      ++to;
      if (to >= m_line.size()) break;
    }
    const bool exponent = to < m_line.size() && (m_line[to] == 'e' || m_line[to] == 'E');
    if (exponent) {
      auto end = to + 1;
      if (end < m_line.size() && (m_line[end] == '-' || m_line[end] == '+')) ++end;
      const auto digits = end;
      while (digitAt(end))
        ++end;
      const bool letterBehind = end < m_line.size() && std::isalpha(static_cast<unsigned char>(m_line[end]));
      if (end > digits && end - digits <= 3 && !letterBehind) to = end;
    }
    put(Atom::Kind::Number, folded(m_line.substr(m_at, to - m_at)), to);
  }

  bool joins(char c) const {
    return c == '.' || c == '\'' || (c == ',' && (m_quoted || m_commas == Commas::MayBeDecimal));
  }

  /// "....", ". . . .", "____", "-----": three of a kind at least.
  bool leader(std::string_view sign) {
    auto to = m_at, end = m_at;
    int count = 0;
    while (to < m_line.size()) {
      std::size_t length = 0;
      const auto one = foldedAt(m_line, to, length);
      if (one != sign && one != " ") break;
      if (one == " " && (sign == "-" || (to + length < m_line.size() && m_line[to + length] == ' '))) break;
      to += length;
      if (one != sign) continue;
      ++count;
      end = to;
    }
    if (count < 3 && sign != "…") return false;
    put(Atom::Kind::Leader, sign, end);
    return true;
  }

  std::string_view m_line;
  Commas m_commas;
  std::size_t m_at = 0;
  int m_column = 0, m_gap = 0;
  bool m_quoted = false;
  std::string m_word; ///< the one in hand
  std::vector<Atom> m_out;
};

} // namespace

std::string folded(std::string_view utf8) {
  std::string out;
  out.reserve(utf8.size());
  for (std::size_t i = 0, length = 0; i < utf8.size(); i += length)
    out += foldedAt(utf8, i, length);
  return out;
}

std::vector<Atom> atomsOf(std::string_view line, Commas commas) {
  const bool whole = std::count(line.begin(), line.end(), '"') % 2 == 0;
  auto out = Lexer(line, commas).read();
  if (!whole) {
    for (auto& atom : out)
      atom.quoted = false;
  }
  return out;
}

} // namespace butte::reading
