#include "report/figure_item.h"

#include "report/unit_text.h"
#include "words/particles.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>

namespace butte::reading {
namespace {

class FigureReader {
public:
  FigureReader(Atoms atoms, std::size_t at, std::size_t end, DecimalMark mark, bool wholeCell)
      : m_atoms(atoms), m_at(at), m_end(end), m_mark(mark), m_wholeCell(wholeCell) {}

  std::optional<FigureFound> read() {
    if (isDate()) return found(Item::Kind::Date);
    sign();
    if (!isNumber(m_next) || !number()) return std::nullopt;
    if (isRange()) return found(Item::Kind::Range);
    powerOfTen();
    spread();
    if (glued()) return std::nullopt;
    flags();
    return found(Item::Kind::Figure);
  }

private:
  std::optional<FigureFound> found(Item::Kind kind) {
    m_out.length = m_next - m_at;
    m_out.kind = kind;
    return m_out;
  }

  bool isNumber(std::size_t i) const { return i < m_end && m_atoms[i].kind == Atom::Kind::Number; }
  bool isSign(std::size_t i, std::string_view sign) const { return i < m_end && m_atoms[i].is(sign); }
  bool isWord(std::size_t i, std::string_view word) const {
    return i < m_end && m_atoms[i].kind == Atom::Kind::Word && m_atoms[i].text == word;
  }

  /// "2026-03-14", "14.03.2026", "3/14/2026": three numbers, one of them a year.
  bool isDate() {
    const auto year = [](std::string_view text) {
      return text.size() == 4 && (text.starts_with("19") || text.starts_with("20"));
    };
    m_next = m_at;
    if (!isNumber(m_at)) return false;
    const auto& first = m_atoms[m_at].text;
    if (std::count(first.begin(), first.end(), '.') == 2 &&
        (year(first.substr(first.rfind('.') + 1)) || first.size() == 8)) {
      m_next = m_at + 1;
      return true;
    }
    const bool parted = isSign(m_at + 1, "-") || isSign(m_at + 1, "/");
    if (!parted || !isNumber(m_at + 2) || !isSign(m_at + 3, m_atoms[m_at + 1].text) || !isNumber(m_at + 4))
      return false;
    if (m_atoms[m_at + 1].gap || m_atoms[m_at + 2].gap || m_atoms[m_at + 4].gap) return false;
    if (m_atoms[m_at + 1].is("-") && !year(first) && !year(m_atoms[m_at + 4].text)) return false;
    m_next = m_at + 5;
    return true;
  }

  void sign() {
    m_next = m_at;
    if (isSign(m_next, "<") || isSign(m_next, ">")) {
      (isSign(m_next, "<") ? m_out.figure.below : m_out.figure.above) = true;
      ++m_next;
      if (isSign(m_next, "=")) ++m_next;
    } else if (isSign(m_next, "~") || isSign(m_next, "+")) {
      ++m_next;
    }
  }

  /// With its thousands, where blanks part them: "1 250".
  bool number() {
    std::string digits = m_atoms[m_next].text;
    const auto threes = [&](std::size_t i) {
      const auto& text = m_atoms[i].text;
      return text.size() >= 3 &&
             std::all_of(text.begin(), text.begin() + 3, [](char c) { return c >= '0' && c <= '9'; }) &&
             (text.size() == 3 || text[3] == '.' || text[3] == ',');
    };
    const bool whole = digits.size() <= 3 &&
                       std::all_of(digits.begin(), digits.end(), [](char c) { return c >= '0' && c <= '9'; });
    // Only where the line ends or something else than a number follows: "12 100 5" are three columns.
    if (whole && digits.front() != '0' && isNumber(m_next + 1) && m_atoms[m_next + 1].gap == 1 &&
        threes(m_next + 1) && !isNumber(m_next + 2) && m_next == m_at && m_wholeCell) {
      digits += " " + m_atoms[m_next + 1].text;
      ++m_next;
    }
    const auto read = numberIn(digits, m_mark);
    if (!read) return false;
    m_out.figure.value = read->value;
    m_out.figure.otherwise = read->otherwise;
    ++m_next;
    return true;
  }

  /// "5.4 - 8.2", "12 to 18", "6,5–9,5".
  bool isRange() {
    const bool dash = isSign(m_next, "-") && (m_atoms[m_next].gap > 0 || isNumber(m_next + 1));
    const bool word = m_next < m_end && m_atoms[m_next].kind == Atom::Kind::Word &&
                      isParticle(Particle::UpTo, m_atoms[m_next].text);
    if ((!dash && !word) || !isNumber(m_next + 1)) return false;
    const auto high = numberIn(m_atoms[m_next + 1].text, m_mark);
    if (!high || high->value < m_out.figure.value) return false;
    m_next += 2;
    return true;
  }

  void powerOfTen() {
    const bool times = isWord(m_next, "x") || isSign(m_next, "·") || isSign(m_next, "*");
    if (!times || !isNumber(m_next + 1)) return;
    const auto& ten = m_atoms[m_next + 1].text;
    auto i = m_next + 2;
    if (ten != "10") return;
    if (isSign(i, "^")) ++i;
    const bool negative = isSign(i, "-");
    if (negative) ++i;
    if (!isNumber(i) || m_atoms[i].text.size() > 2) return;
    const double power = std::atof(m_atoms[i].text.c_str());
    m_out.figure.value *= std::pow(10, negative ? -power : power);
    m_next = i + 1;
  }

  void spread() {
    if (isSign(m_next, "±") && isNumber(m_next + 1)) {
      m_next += 2;
      if (isSign(m_next, "%")) ++m_next;
    }
  }

  /// "2320B", "200.7-1": a number that goes on with letters which are no unit is a method or a code.
  bool glued() const {
    if (m_next >= m_end || m_atoms[m_next].gap > 0 || m_atoms[m_next].quoted != m_atoms[m_next - 1].quoted)
      return false;
    if (m_atoms[m_next].kind == Atom::Kind::Number) return true;
    if (m_atoms[m_next].is("/") || m_atoms[m_next].is("-"))
      return m_next + 1 < m_end && m_atoms[m_next + 1].gap == 0 &&
             m_atoms[m_next + 1].kind != Atom::Kind::Sign;
    if (m_atoms[m_next].kind != Atom::Kind::Word) return false;
    return !unitAt(m_atoms, m_next, m_end) && !isFlag(m_next);
  }

  bool isFlag(std::size_t i) const {
    if (i >= m_end || m_atoms[i].kind != Atom::Kind::Word || m_atoms[i].text.size() > 2 || m_atoms[i].gap > 1)
      return false;
    return std::all_of(m_atoms[i].text.begin(), m_atoms[i].text.end(), [](const char& c) {
      return isParticle(Particle::Flag, {&c, 1});
    });
  }

  void flags() {
    while (m_next < m_end) {
      const auto& atom = m_atoms[m_next];
      const bool mark =
          atom.is("*") || atom.is("†") || atom.is("^") || atom.is("#") || atom.is("!") || atom.is("‡");
      const bool footnote = (atom.is("(") || atom.is("[")) && atom.gap <= 1 && m_next + 2 < m_end &&
                            m_atoms[m_next + 1].text.size() == 1 &&
                            m_atoms[m_next + 1].kind != Atom::Kind::Sign &&
                            (m_atoms[m_next + 2].is(")") || m_atoms[m_next + 2].is("]"));
      const bool letter = isFlag(m_next) && !unitAt(m_atoms, m_next, m_end) && !figureBehind(m_next + 1);
      if (mark) {
        ++m_next;
      } else if (footnote) {
        m_next += 3;
      } else if (letter && m_out.flag.empty()) {
        m_out.flag = atom.text;
        if (particleMeans(Particle::Flag, atom.text) == "below") m_out.figure.below = true;
        ++m_next;
      } else {
        return;
      }
    }
  }

  /// "Ca 52 B 0.1": the letter is the next name, not a flag.
  bool figureBehind(std::size_t i) const { return isNumber(i) || isSign(i, "<"); }

  Atoms m_atoms;
  std::size_t m_at, m_end, m_next = 0;
  DecimalMark m_mark;
  bool m_wholeCell;
  FigureFound m_out;
};

} // namespace

std::optional<FigureFound> figureAt(Atoms atoms, std::size_t at, std::size_t end, DecimalMark mark,
                                    bool wholeCell) {
  return FigureReader(atoms, at, end, mark, wholeCell).read();
}

} // namespace butte::reading
