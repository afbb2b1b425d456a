#pragma once
#include <cstddef>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// The smallest piece of a line: a word with its digits ("so4"), a number as it stands ("1.250,5"), a sign,
/// or a leader, the row of dots that takes the eye across a gap.
struct Atom {
  enum class Kind { Word, Number, Sign, Leader };
  Kind kind = Kind::Sign;
  std::string text;             ///< folded (folded())
  std::size_t from = 0, to = 0; ///< bytes of the line
  int column = 0;               ///< of its first character, as a typewriter counts
  int gap = 0;                  ///< blanks before it; a tab is a sign of its own
  char mark = 0;                ///< a sign of one ASCII character; 0 for anything else
  bool quoted = false;          ///< inside of quotes, where nothing parts cells

  bool is(std::string_view sign) const {
    return sign.size() == 1 ? mark == sign.front() : kind == Kind::Sign && text == sign;
  }
};
using Atoms = std::span<const Atom>;

/// Where a comma in a figure stands for.
enum class Commas {
  MayBeDecimal, ///< "14,2" is one number
  PartCells     ///< a comma always ends a cell
};

/// The atoms of one line of UTF-8 text. Never fails: any byte is at least a sign.
std::vector<Atom> atomsOf(std::string_view line, Commas commas = Commas::MayBeDecimal);

/// Small letters without accents, raised and lowered digits as plain ones, every dash a "-", every micro sign
/// a "u", every odd blank a " ".
std::string folded(std::string_view utf8);

} // namespace butte::reading
