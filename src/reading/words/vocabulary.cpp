#include "words/vocabulary.h"

#include "base/csv.h"
#include "base/embedded.h"

#include <algorithm>
#include <array>
#include <cstdint>
#include <map>
#include <string>
#include <vector>

namespace butte::reading {
namespace {

constexpr std::array<std::string_view, wordKindCount> kindNames{
    "analyte",      "symbol", "modifier", "aside",   "role", "unit",    "none",      "all in", "label",
    "label symbol", "subset", "chelate",  "derived", "most", "density", "by volume", "column", "month"};
constexpr std::size_t mostAtoms = 9, mostLetters = 40;

std::size_t indexOf(WordKind kind) {
  return static_cast<std::size_t>(kind);
}

/// What does not matter inside of a word.
bool isSilent(const Atom& atom) {
  return atom.mark == '-' || atom.mark == '.' || atom.mark == '\'' || atom.mark == ',' || atom.is("·");
}

std::string joined(std::string_view text) {
  std::string out;
  for (const auto& atom : atomsOf(text)) {
    if (!isSilent(atom)) out += atom.text;
  }
  return out;
}

/// What a word means as each kind; nothing where it is none of that kind.
using Meanings = std::array<std::optional<std::string>, wordKindCount>;

struct Vocabulary {
  std::map<std::string, Meanings> all;
  /// The words in order, so that a beginning finds all that may follow it, with their meanings; close
  /// together, since they are looked up at every word of a paper.
  std::vector<std::pair<std::string_view, const Meanings*>> words;
  std::vector<std::uint32_t> firsts; ///< where the words of each first two bytes begin
  std::array<std::map<std::string, std::string, std::less<>>, wordKindCount> whole;

  Vocabulary() {
    const core::CsvTable table(core::embedded::reading_words());
    for (std::size_t row = 0; row < table.rowCount(); ++row) {
      const auto kind = static_cast<std::size_t>(
          std::find(kindNames.begin(), kindNames.end(), table.cell(row, "kind")) - kindNames.begin());
      const auto& text = table.cell(row, "word");
      if (auto word = joined(text); !word.empty()) {
        auto& means = all[std::move(word)][kind];
        if (!means) means = table.cell(row, "means");
      }
      whole[kind].emplace(folded(text), table.cell(row, "means"));
    }
    for (const auto& [word, means] : all)
      words.emplace_back(word, &means);
    firsts.assign(bytes * bytes + 1, static_cast<std::uint32_t>(words.size()));
    for (auto i = words.size(); i-- > 0;)
      firsts[firstOf(words[i].first)] = static_cast<std::uint32_t>(i);
    for (auto i = firsts.size() - 1; i-- > 0;)
      firsts[i] = std::min(firsts[i], firsts[i + 1]);
  }

  static constexpr std::size_t bytes = 256;
  /// The words that begin as the text does: all of its first byte where it has no second.
  std::pair<std::size_t, std::size_t> beginningAs(std::string_view text) const {
    const auto first = firstOf(text);
    return {firsts[first], firsts[first + (text.size() > 1 ? 1 : bytes)]};
  }
  static std::size_t firstOf(std::string_view text) {
    const auto byte = [&](std::size_t i) {
      return i < text.size() ? static_cast<unsigned char>(text[i]) : 0U;
    };
    return byte(0) * bytes + byte(1);
  }
};

const Vocabulary& vocabulary() {
  static const Vocabulary all;
  return all;
}

} // namespace

WordsFound wordsAt(Atoms atoms, std::size_t at, std::size_t end) {
  WordsFound out{};
  const auto& known = vocabulary();
  if (at >= end || atoms[at].text.empty()) return out;
  const auto [begin, behind] = known.beginningAs(atoms[at].text);
  auto from = known.words.begin() + static_cast<std::ptrdiff_t>(begin);
  const auto last = known.words.begin() + static_cast<std::ptrdiff_t>(behind);
  std::string text;
  for (std::size_t i = at; i < end && i < at + mostAtoms && from != last; ++i) {
    if (atoms[i].kind == Atom::Kind::Leader) break;
    if (isSilent(atoms[i])) {
      if (i == at) break;
      continue;
    }
    text += atoms[i].text;
    if (text.size() > mostLetters) break;
    from = std::lower_bound(from, last, text,
                            [](const auto& word, const std::string& t) { return word.first < t; });
    if (from == last || !from->first.starts_with(text)) break;
    if (from->first != text) continue;
    // "Nitrate-N" is no plural of another language.
    const bool letterBehind =
        i > at && atoms[i].kind == Atom::Kind::Word && atoms[i].text.size() == 1 && text.size() > 4;
    for (std::size_t kind = 0; kind < wordKindCount; ++kind) {
      const auto& means = (*from->second)[kind];
      if (means && !(letterBehind && kind == indexOf(WordKind::Analyte))) out[kind] = {i - at + 1, *means};
    }
  }
  return out;
}

std::optional<WordFound> wordAt(WordKind kind, Atoms atoms, std::size_t at, std::size_t end) {
  const auto found = wordsAt(atoms, at, end)[indexOf(kind)];
  return found.length > 0 ? std::optional(found) : std::nullopt;
}

std::optional<std::string_view> wholeWord(WordKind kind, std::string_view text) {
  const auto& words = vocabulary().whole[indexOf(kind)];
  const auto it = words.find(text);
  return it == words.end() ? std::nullopt : std::optional<std::string_view>(it->second);
}

} // namespace butte::reading
