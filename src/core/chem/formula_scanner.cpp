#include "chem/formula_scanner.h"

#include "base/decimal.h"
#include "chem/atomic_weights.h"

#include <array>
#include <optional>
#include <utility>

namespace butte::core {
namespace {

constexpr std::size_t longestFormula = 400;
constexpr int deepestNesting = 24;
constexpr double largestCount = 10000;

bool isUpper(char c) {
  return c >= 'A' && c <= 'Z';
}
bool isLower(char c) {
  return c >= 'a' && c <= 'z';
}
bool isDigit(char c) {
  return c >= '0' && c <= '9';
}

/// Characters that are written in several ways, brought to one ('.' separates parts, digits for subscripts).
/// `positions` keeps, for each character left, its position in what the person typed.
struct Normalised {
  std::string text;
  std::vector<std::size_t> positions;
};

struct Spelling {
  std::string_view written;
  char meant;
};
constexpr std::array<Spelling, 15> spellings{{{"·", '.'},
                                              {"•", '.'},
                                              {"∙", '.'},
                                              {"⋅", '.'},
                                              {"*", '.'},
                                              {"₀", '0'},
                                              {"₁", '1'},
                                              {"₂", '2'},
                                              {"₃", '3'},
                                              {"₄", '4'},
                                              {"₅", '5'},
                                              {"₆", '6'},
                                              {"₇", '7'},
                                              {"₈", '8'},
                                              {"₉", '9'}}};

Normalised normalise(std::string_view text) {
  Normalised out;
  std::size_t position = 0; // counted in characters, not bytes
  for (std::size_t i = 0; i < text.size(); ++position) {
    const auto rest = text.substr(i);
    const Spelling* match = nullptr;
    for (const auto& spelling : spellings) {
      if (rest.starts_with(spelling.written)) match = &spelling;
    }
    std::size_t length = 1;
    while (i + length < text.size() && (static_cast<unsigned char>(text[i + length]) & 0xC0) == 0x80)
      ++length;
    if (match) {
      out.text += match->meant;
      out.positions.push_back(position);
    } else {
      for (std::size_t k = 0; k < length; ++k) {
        out.text += text[i + k];
        out.positions.push_back(position);
      }
    }
    i += match ? match->written.size() : length;
  }
  out.positions.push_back(position);
  return out;
}

class Scanner {
public:
  explicit Scanner(std::string_view typed) : m_typed(typed), m_source(normalise(typed)) {}

  Result<std::vector<FormulaPart>> scan() {
    skipBlanks();
    std::vector<FormulaPart> parts;
    do {
      auto part = scanPart(parts.empty());
      if (m_problem) return *m_problem;
      parts.push_back(std::move(part));
    } while (takeSeparator());
    if (!atEnd()) fail("an element, a number, a bracket or a dot before a hydrate");
    if (m_problem) return *m_problem;
    return parts;
  }

private:
  bool atEnd() const { return m_at >= m_source.text.size(); }
  char peek() const { return atEnd() ? '\0' : m_source.text[m_at]; }
  void skipBlanks() {
    while (peek() == ' ')
      ++m_at;
  }

  bool takeSeparator() {
    const auto before = m_at;
    skipBlanks();
    if (m_problem || peek() != '.') {
      if (!atEnd()) m_at = before;
      return false;
    }
    ++m_at;
    skipBlanks();
    return true;
  }

  FormulaPart scanPart(bool first) {
    FormulaPart part;
    if (isDigit(peek())) part.coefficient = scanNumber(true);
    part.items = scanItems(0);
    if (!m_problem && part.items.empty())
      fail(first ? "an element symbol or an opening bracket" : "a formula such as H2O after the dot");
    return part;
  }

  std::vector<FormulaItem> scanItems(int depth) {
    std::vector<FormulaItem> items;
    while (!m_problem) {
      if (isUpper(peek())) {
        items.push_back(scanElement());
      } else if (closing(peek())) {
        items.push_back(scanGroup(depth));
      } else {
        break;
      }
    }
    return items;
  }

  FormulaItem scanElement() {
    FormulaItem item;
    const auto start = m_at++;
    if (isLower(peek()) && atomicWeight(m_source.text.substr(start, 2))) ++m_at;
    item.symbol = m_source.text.substr(start, m_at - start);
    if (!atomicWeight(item.symbol) || isLower(peek())) {
      while (isLower(peek()))
        ++m_at;
      m_problem = problemAt(ProblemCode::UnknownElement, "formula",
                            {std::string(m_typed), std::to_string(m_source.positions[start] + 1),
                             m_source.text.substr(start, m_at - start)});
      return item;
    }
    item.count = scanSubscript();
    return item;
  }

  FormulaItem scanGroup(int depth) {
    FormulaItem item;
    const char close = *closing(peek());
    if (depth >= deepestNesting) {
      failSize("brackets nested deeper than " + std::to_string(deepestNesting));
      return item;
    }
    ++m_at;
    item.group = scanItems(depth + 1);
    if (m_problem) return item;
    if (item.group.empty()) {
      fail("an element symbol inside the brackets");
    } else if (peek() != close) {
      fail(std::string("an element symbol or the closing '") + close + "'");
    } else {
      ++m_at;
      item.count = scanSubscript();
    }
    return item;
  }

  double scanSubscript() { return isDigit(peek()) ? scanNumber(false) : 1; }

  /// A part's coefficient may be decimal; a subscript may not, since "MgSO4.7H2O" writes its dot there.
  double scanNumber(bool decimalAllowed) {
    const auto start = m_at;
    while (isDigit(peek()))
      ++m_at;
    if (decimalAllowed && peek() == '.' && m_at + 1 < m_source.text.size() &&
        isDigit(m_source.text[m_at + 1])) {
      ++m_at;
      while (isDigit(peek()))
        ++m_at;
    }
    const auto digits = m_source.text.substr(start, m_at - start);
    const auto value = parseDecimal(digits);
    if (!value || *value > largestCount) {
      failSize("a count above " + std::to_string(static_cast<int>(largestCount)));
      return 1;
    }
    if (*value <= 0) {
      m_at = start;
      fail("a count of 1 or more");
      return 1;
    }
    return *value;
  }

  static std::optional<char> closing(char open) {
    switch (open) {
    case '(':
      return ')';
    case '[':
      return ']';
    case '{':
      return '}';
    default:
      return std::nullopt;
    }
  }

  void fail(std::string expected) {
    if (m_problem) return;
    std::string found = "the end";
    if (!atEnd()) {
      auto length = std::size_t{1};
      while (m_at + length < m_source.text.size() &&
             m_source.positions[m_at + length] == m_source.positions[m_at])
        ++length;
      found = "'" + m_source.text.substr(m_at, length) + "'";
    }
    m_problem = problemAt(ProblemCode::FormulaSyntax, "formula",
                          {std::string(m_typed), std::to_string(m_source.positions[m_at] + 1),
                           std::move(expected), std::move(found)});
  }
  void failSize(std::string limit) {
    if (!m_problem)
      m_problem =
          problemAt(ProblemCode::FormulaTooLarge, "formula", {std::string(m_typed), std::move(limit)});
  }

  std::string_view m_typed;
  Normalised m_source;
  std::size_t m_at = 0;
  std::optional<Problem> m_problem;
};

} // namespace

Result<std::vector<FormulaPart>> scanFormula(std::string_view text) {
  if (text.find_first_not_of(' ') == std::string_view::npos)
    return problemAt(ProblemCode::FormulaEmpty, "formula");
  if (text.size() > longestFormula)
    return problemAt(ProblemCode::FormulaTooLarge, "formula",
                     {std::string(text.substr(0, 40)) + "...", std::to_string(longestFormula) + " bytes"});
  while (text.ends_with(' '))
    text.remove_suffix(1);
  return Scanner(text).scan();
}

} // namespace butte::core
