#pragma once
#include "text/atoms.h"

#include <array>
#include <optional>
#include <string_view>

namespace butte::reading {

/// What a word of a paper may be (data/reading_words.csv).
enum class WordKind {
  Analyte,  ///< "calcium", "hardness": what is measured
  Symbol,   ///< "ca", "no3": the same as a formula, or the form in which it is stated
  Modifier, ///< "dissolved", "as": changes nothing about what is stated
  Aside,    ///< "turbidity": known, and nothing that a feed asks for
  Role,     ///< what a column holds
  Unit,
  None,  ///< "n.d.": in a figure's place, not measured
  AllIn, ///< "all results in": what follows is the unit of the rest
  Label, ///< "soluble potash": as the bags of fertilizers name what they state
  LabelSymbol,
  Subset,  ///< "chelated", "of which": a part of what another line of a label says
  Chelate, ///< what holds a metal: EDTA
  Derived, ///< "derived from": no contents follow
  Most,    ///< "not more than": no content
  Density,
  ByVolume, ///< "w/v": the percent are grams in 100 mL
  Column,   ///< "bag size": what a column of a table of things holds
  Month     ///< "Mar": its number
};

/// Words that stand somewhere in a row of atoms.
struct WordFound {
  std::size_t length = 0; ///< atoms
  std::string_view means;
};

inline constexpr std::size_t wordKindCount = 18;

/// The longest run of atoms from `at` on, before `end`, that is a word of each kind; blanks, hyphens, dots
/// and apostrophes inside do not matter. Length 0: none.
using WordsFound = std::array<WordFound, wordKindCount>;
WordsFound wordsAt(Atoms atoms, std::size_t at, std::size_t end);

/// The same of one kind.
std::optional<WordFound> wordAt(WordKind kind, Atoms atoms, std::size_t at, std::size_t end);

/// A whole text (trimmed) that, folded, is a word of that kind, signs and all.
std::optional<std::string_view> wholeWord(WordKind kind, std::string_view text);

} // namespace butte::reading
