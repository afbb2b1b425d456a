#include "page/mended_word.h"

#include "base/csv.h"
#include "base/embedded.h"

#include <array>
#include <map>

namespace butte::reading {
namespace {

/// What pictures' readers take words of papers for (data/misread_words.csv). Picosiemens, picograms and
/// picomoles are no units of the trade: it is the micro sign that was not known. Nothing that is all figures
/// is among the formulas.
class Misread {
public:
  using Meant = std::map<std::string, std::string, std::less<>>;
  Meant aboveStroke, litre, centimetre, formula;

  Misread() {
    const core::CsvTable table(core::embedded::misread_words());
    for (std::size_t row = 0; row < table.rowCount(); ++row) {
      const auto& kind = table.cell(row, "kind");
      auto& words = kind == "above the stroke" ? aboveStroke
                    : kind == "litre"          ? litre
                    : kind == "centimetre"     ? centimetre
                                               : formula;
      words.emplace(table.cell(row, "read"), table.cell(row, "meant"));
    }
  }
};

const Misread& misread() {
  static const Misread all;
  return all;
}

std::string meantBy(const Misread::Meant& words, std::string_view read) {
  const auto it = words.find(read);
  return it == words.end() ? std::string() : it->second;
}

/// "mg/1" as "mg/l"; nothing where it is no unit.
std::string mendedUnit(std::string_view word) {
  const auto stroke = word.find('/');
  if (stroke == std::string_view::npos || stroke == 0) return {};
  const auto unit = meantBy(misread().aboveStroke, word.substr(0, stroke));
  if (unit.empty()) return {};
  const auto right = word.substr(stroke + 1);
  const auto below = meantBy(unit.ends_with('S') ? misread().centimetre : misread().litre, right);
  return below.empty() ? std::string() : unit + "/" + below;
}

bool isEdge(char c) {
  return std::string_view("()[]{}<>.,;:'\"*").find(c) != std::string_view::npos;
}

/// “ ” „ as they are typed: what a quote opens as one kind it may close as another.
std::string withPlainQuotes(std::string_view word) {
  static constexpr std::array<std::string_view, 3> quotes{"\xE2\x80\x9C", "\xE2\x80\x9D", "\xE2\x80\x9E"};
  std::string out(word);
  for (const auto quote : quotes) {
    for (auto at = out.find(quote); at != std::string::npos; at = out.find(quote, at))
      out.replace(at, quote.size(), 1, '"');
  }
  return out;
}

/// Brackets are read as any of their kind, or twice.
std::string withPlainBrackets(std::string_view word) {
  std::string out;
  for (std::size_t i = 0; i < word.size(); ++i) {
    char c = word[i];
    const bool afterStroke = i > 0 && word[i - 1] == '/';
    if (afterStroke && (c == ']' || c == '}' || c == ')')) c = 'l'; // "mg/]"
    if (c == '[' || c == '{') c = '(';
    if (c == ']' || c == '}') c = ')';
    if ((c == '(' || c == ')') && !out.empty() && out.back() == c) continue;
    out += c;
  }
  return out;
}

} // namespace

std::string mendedWord(std::string_view raw) {
  const auto plain = withPlainBrackets(withPlainQuotes(raw));
  const std::string_view word = plain;
  // Cells parted by signs are mended each for itself; so is what stands in brackets.
  std::string out;
  std::size_t from = 0;
  while (from < word.size()) {
    auto to = from;
    while (to < word.size() && !isEdge(word[to]))
      ++to;
    const auto piece = word.substr(from, to - from);
    auto mended = mendedUnit(piece);
    if (mended.empty()) mended = meantBy(misread().formula, piece);
    out += mended.empty() ? std::string(piece) : mended;
    if (to < word.size()) out += word[to++];
    from = to;
  }
  return out;
}

} // namespace butte::reading
