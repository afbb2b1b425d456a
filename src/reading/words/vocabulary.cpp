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

/// What a word means as one kind.
struct Meaning {
  std::size_t kind = 0;
  std::string_view means;
};
/// A word with its meanings, the `count` from `from` on.
struct Word {
  std::string_view text;
  std::uint32_t from = 0, count = 0;
};

/// Looked up at every word of a paper, so what is looked up lies close together.
struct Vocabulary {
  core::CsvTable table;
  std::map<std::string, std::vector<Meaning>> all;
  std::vector<Word> words; ///< in order, so that a beginning finds all that may follow it
  std::vector<Meaning> meanings;
  std::vector<std::uint32_t> firsts; ///< where the words of each first two bytes begin
  std::array<std::map<std::string, std::string_view, std::less<>>, wordKindCount> whole;
  std::array<std::size_t, wordKindCount> longestWhole{}; ///< bytes

  Vocabulary() : table(core::embedded::reading_words()) {
    for (std::size_t row = 0; row < table.rowCount(); ++row)
      add(row);
    for (const auto& [word, means] : all) {
      words.push_back(
          {word, static_cast<std::uint32_t>(meanings.size()), static_cast<std::uint32_t>(means.size())});
      meanings.insert(meanings.end(), means.begin(), means.end());
    }
    firsts.assign(bytes * bytes + 1, static_cast<std::uint32_t>(words.size()));
    for (auto i = words.size(); i-- > 0;)
      firsts[firstOf(words[i].text)] = static_cast<std::uint32_t>(i);
    for (auto i = firsts.size() - 1; i-- > 0;)
      firsts[i] = std::min(firsts[i], firsts[i + 1]);
  }

  void add(std::size_t row) {
    const auto kind = static_cast<std::size_t>(
        std::find(kindNames.begin(), kindNames.end(), table.cell(row, "kind")) - kindNames.begin());
    const std::string_view text = table.cell(row, "word"), means = table.cell(row, "means");
    if (auto word = joined(text); !word.empty()) {
      auto& known = all[std::move(word)];
      // The first row of a word and kind is the one that counts.
      if (std::none_of(known.begin(), known.end(), [&](const Meaning& m) { return m.kind == kind; }))
        known.push_back({kind, means});
    }
    auto plain = folded(text);
    longestWhole[kind] = std::max(longestWhole[kind], plain.size());
    whole[kind].emplace(std::move(plain), means);
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

/// Calls `found` with the meanings of each word that stands from `at` on, the longest last, and how many
/// atoms it takes.
template <typename Found> void eachWordAt(Atoms atoms, std::size_t at, std::size_t end, const Found& found) {
  const auto& known = vocabulary();
  if (at >= end || atoms[at].text.empty()) return;
  const auto [begin, behind] = known.beginningAs(atoms[at].text);
  auto from = known.words.begin() + static_cast<std::ptrdiff_t>(begin);
  const auto last = known.words.begin() + static_cast<std::ptrdiff_t>(behind);
  std::array<char, mostLetters> letters{};
  std::size_t size = 0;
  for (std::size_t i = at; i < end && i < at + mostAtoms && from != last; ++i) {
    if (atoms[i].kind == Atom::Kind::Leader) return;
    if (isSilent(atoms[i])) {
      if (i == at) return;
      continue;
    }
    if (size + atoms[i].text.size() > mostLetters) return;
    std::copy(atoms[i].text.begin(), atoms[i].text.end(), letters.begin() + size);
    size += atoms[i].text.size();
    const std::string_view text(letters.data(), size);
    from = std::lower_bound(from, last, text,
                            [](const Word& word, std::string_view t) { return word.text < t; });
    if (from == last || !from->text.starts_with(text)) return;
    if (from->text.size() != size) continue;
    // "Nitrate-N" is no plural of another language.
    const bool letterBehind =
        i > at && atoms[i].kind == Atom::Kind::Word && atoms[i].text.size() == 1 && size > 4;
    for (auto m = from->from; m < from->from + from->count; ++m) {
      const auto& meaning = known.meanings[m];
      if (letterBehind && meaning.kind == indexOf(WordKind::Analyte)) continue;
      found(meaning.kind, WordFound{i - at + 1, meaning.means});
    }
  }
}

} // namespace

WordsFound wordsAt(Atoms atoms, std::size_t at, std::size_t end) {
  WordsFound out{};
  eachWordAt(atoms, at, end, [&](std::size_t kind, const WordFound& found) { out[kind] = found; });
  return out;
}

std::optional<WordFound> wordAt(WordKind kind, Atoms atoms, std::size_t at, std::size_t end) {
  std::optional<WordFound> out;
  eachWordAt(atoms, at, end, [&](std::size_t of, const WordFound& found) {
    if (of == indexOf(kind)) out = found;
  });
  return out;
}

std::optional<std::string_view> wholeWord(WordKind kind, std::string_view text) {
  const auto& known = vocabulary();
  // A dash of three bytes folds to one, so longer ones than that can't be it.
  if (text.size() > 3 * known.longestWhole[indexOf(kind)]) return std::nullopt;
  const auto& words = known.whole[indexOf(kind)];
  const auto it = words.find(folded(text));
  return it == words.end() ? std::nullopt : std::optional(it->second);
}

} // namespace butte::reading
