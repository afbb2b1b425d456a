#include "page/laid_out.h"

#include "page/mended_word.h"

#include <algorithm>
#include <cmath>

namespace butte::reading {
namespace {

/// UTF-8 letters, not bytes.
std::size_t lettersOf(const std::string& text) {
  return static_cast<std::size_t>(std::count_if(
      text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }));
}

double medianOf(std::vector<double> values, double otherwise) {
  if (values.empty()) return otherwise;
  const auto middle = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
  std::nth_element(values.begin(), middle, values.end());
  return *middle;
}

/// How wide a letter is, in the middle.
double letterWidth(const std::vector<PageWord>& words) {
  std::vector<double> widths;
  for (const auto& word : words) {
    const auto letters = lettersOf(word.text);
    if (letters >= 3) widths.push_back((word.right - word.left) / static_cast<double>(letters));
  }
  return std::max(0.5, medianOf(std::move(widths), 8));
}

double middleOf(const PageWord& word) {
  return (word.top + word.bottom) / 2;
}

double heightOfWords(const std::vector<PageWord>& words) {
  std::vector<double> heights;
  for (const auto& word : words)
    heights.push_back(word.bottom - word.top);
  return std::max(1.0, medianOf(std::move(heights), 10));
}

using WordLine = std::vector<const PageWord*>;

/// Words whose middles stand at one height are a line, on a page that falls by `lean` dots a dot.
std::vector<WordLine> linesOf(const std::vector<PageWord>& words, double lean) {
  std::vector<const PageWord*> all;
  for (const auto& word : words) {
    if (!word.text.empty()) all.push_back(&word);
  }
  const auto middle = [lean](const PageWord& word) { return middleOf(word) - lean * word.left; };
  std::stable_sort(all.begin(), all.end(),
                   [&](const auto* a, const auto* b) { return middle(*a) < middle(*b); });
  const double apart = 0.6 * heightOfWords(words);
  std::vector<WordLine> out;
  double last = -1e9;
  for (const auto* word : all) {
    if (middle(*word) - last > apart) out.emplace_back();
    // The height of the line is that of its first word: a page that leans does not run together.
    if (out.back().empty()) last = middle(*word);
    out.back().push_back(word);
  }
  for (auto& line : out)
    std::stable_sort(line.begin(), line.end(),
                     [](const auto* a, const auto* b) { return a->left < b->left; });
  return out;
}

/// How far words that follow one another fall, dots a dot: in the middle of all.
double roughLean(const std::vector<PageWord>& words) {
  std::vector<double> falls;
  for (const auto& word : words) {
    const PageWord* next = nullptr;
    for (const auto& other : words) {
      const double shared = std::min(word.bottom, other.bottom) - std::max(word.top, other.top);
      const double lower = std::min(word.bottom - word.top, other.bottom - other.top);
      if (other.left < word.right || shared < 0.5 * lower) continue;
      if (!next || other.left < next->left) next = &other;
    }
    if (next) falls.push_back((middleOf(*next) - middleOf(word)) / (next->left - word.left));
  }
  constexpr std::size_t fewest = 6;
  return falls.size() < fewest ? 0 : medianOf(std::move(falls), 0);
}

/// A page of few long lines shows too little for its picture to be turned upright; its words still say how it
/// leans. 0 where that would not part a line from the next.
double leanOf(const std::vector<PageWord>& words) {
  constexpr std::size_t mostWords = 2000; // more lines than that were turned upright by their picture
  if (words.size() > mostWords) return 0;
  double width = 0;
  for (const auto& word : words)
    width = std::max(width, word.right);
  double lean = roughLean(words);
  // Along whole lines, as far as they are known by now.
  for (int round = 0; round < 2 && lean != 0; ++round) {
    double across = 0, down = 0;
    for (const auto& line : linesOf(words, lean)) {
      double x = 0, y = 0;
      for (const auto* word : line)
        x += word->left / static_cast<double>(line.size()),
            y += middleOf(*word) / static_cast<double>(line.size());
      for (const auto* word : line) {
        across += (word->left - x) * (word->left - x);
        down += (word->left - x) * (middleOf(*word) - y);
      }
    }
    if (across > 0) lean = down / across;
  }
  return std::abs(lean) * width > 0.5 * heightOfWords(words) ? lean : 0;
}

class Setter {
public:
  LaidOut out;

  void page(const std::vector<PageWord>& words, std::size_t number) {
    if (words.empty()) return;
    m_letter = letterWidth(words);
    // Narrow letters need more room in a typewriter's line than on the page: columns are drawn apart for
    // them, so that none runs into the next.
    m_column = 0.7 * m_letter;
    m_left = 1e18;
    for (const auto& word : words)
      m_left = std::min(m_left, word.left);
    double below = 0;
    for (const auto& line : linesOf(words, leanOf(words))) {
      const double top = line.front()->top, height = line.front()->bottom - top;
      if (below > 0 && top - below > 1.4 * height) emptyLine(number);
      setLine(line, number);
      below = line.front()->bottom;
    }
  }

private:
  void emptyLine(std::size_t number) {
    out.strips.push_back({number, 0, 0, 0, 0});
    out.text += '\n';
  }

  void setLine(const WordLine& line, std::size_t number) {
    LineStrip strip{number, line.front()->left, line.front()->top, line.front()->right, line.front()->bottom};
    std::size_t column = 0;
    double right = -1e9;
    for (const auto* word : line) {
      const double gap = word->left - right;
      const auto wanted =
          static_cast<std::size_t>(std::max(0.0, std::round((word->left - m_left) / m_column)));
      std::size_t blanks = 0;
      if (column == 0 && right < 0)
        blanks = wanted;
      else if (gap < oneBlank * m_letter)
        blanks = gap < 0.12 * m_letter || (gap < oneMark * m_letter && isCutNumber(word->text)) ? 0 : 1;
      else
        blanks = std::max<std::size_t>(3, wanted > column ? wanted - column : 0);
      out.text.append(blanks, ' ');
      const auto text = mendedWord(word->text);
      out.words.push_back({out.text.size(), out.text.size() + text.size(), number, word->left, word->top,
                           word->right, word->bottom});
      out.text += text;
      column += blanks + lettersOf(text);
      right = word->right;
      strip.right = std::max(strip.right, word->right);
      strip.top = std::min(strip.top, word->top);
      strip.bottom = std::max(strip.bottom, word->bottom);
    }
    out.text += '\n';
    out.strips.push_back(strip);
  }

  /// "0." and "35", or "0" and ",35", of one number, set in letters that are all equally wide.
  bool isCutNumber(const std::string& next) const {
    const auto& before = out.text;
    const auto isDigit = [](char c) { return c >= '0' && c <= '9'; };
    const auto isMark = [](char c) { return c == '.' || c == ','; };
    if (before.empty() || next.empty()) return false;
    if (isMark(next.front())) return next.size() > 1 && isDigit(next[1]) && isDigit(before.back());
    return before.size() >= 2 && isMark(before.back()) && isDigit(before[before.size() - 2]) &&
           isDigit(next.front());
  }

  /// Up to so many letters' widths behind a point are within a number.
  static constexpr double oneMark = 1.5;
  /// Up to so many letters' widths are one blank: in a typewriter's letters a comma and a blank are nearly
  /// two.
  static constexpr double oneBlank = 2;
  double m_letter = 8, m_column = 6, m_left = 0;
};

} // namespace

LaidOut laidOut(const std::vector<std::vector<PageWord>>& pages) {
  Setter setter;
  for (std::size_t i = 0; i < pages.size(); ++i)
    setter.page(pages[i], i);
  return std::move(setter.out);
}

} // namespace butte::reading
