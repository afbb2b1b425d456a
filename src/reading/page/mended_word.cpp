#include "page/mended_word.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <vector>

namespace butte::reading {
namespace {

struct Mend {
  std::string_view read, meant;
};

/// What stands before the stroke of a unit, as pictures give it. Picosiemens, picograms and picomoles are no
/// units of the trade: it is the micro sign that was not known.
constexpr std::array<Mend, 41> above{{{"mg", "mg"},
                                      {"mq", "mg"},
                                      {"rng", "mg"},
                                      {"ug", "ug"},
                                      {"pg", "ug"},
                                      {"ypg", "ug"},
                                      {"g", "xg"},
                                      {"wg", "ug"},
                                      {"yg", "ug"},
                                      {"jug", "ug"},
                                      {"jg", "ug"},
                                      {"pig", "ug"},
                                      {"jmol", "umol"},
                                      {"jimol", "umol"},
                                      {"\xC2\xB5g", "ug"},
                                      {"\xCE\xBCg", "ug"},
                                      {"mmol", "mmol"},
                                      {"mmoll", "mmol"},
                                      {"mmolj", "mmol"},
                                      {"rnmol", "mmol"},
                                      {"umol", "umol"},
                                      {"umolj", "umol"},
                                      {"umoll", "umol"},
                                      {"pmol", "umol"},
                                      {"pmoll", "umol"},
                                      {"pmolj", "umol"},
                                      {"wmol", "umol"},
                                      {"wmoll", "umol"},
                                      {"ymol", "umol"},
                                      {"jumol", "umol"},
                                      {"\xC2\xB5mol", "umol"},
                                      {"\xCE\xBCmol", "umol"},
                                      {"meq", "meq"},
                                      {"meg", "meq"},
                                      {"mS", "mS"},
                                      {"uS", "uS"},
                                      {"pS", "uS"},
                                      {"yS", "uS"},
                                      {"nS", "uS"},
                                      {"jS", "uS"},
                                      {"\xC2\xB5S", "uS"}}};
constexpr std::array<std::string_view, 16> litres{"Ll", "lL", "LI", "L1", "l",  "L",  "1",  "I",
                                                  "|",  "!",  "t",  "i",  "ll", "1l", "l1", "Il"};
constexpr std::array<Mend, 4> centimetres{{{"cm", "cm"}, {"em", "cm"}, {"crn", "cm"}, {"ern", "cm"}}};

/// Formulas whose O was read as a nought, whose l as a one. Nothing that is all figures is among them.
constexpr std::array<Mend, 24> formulas{
    {{"Cac03", "CaCO3"}, {"CaC0O3", "CaCO3"}, {"CaCc03", "CaCO3"}, {"CaCO03", "CaCO3"}, {"S04", "SO4"},
     {"N03", "NO3"},     {"N02", "NO2"},      {"P04", "PO4"},      {"HC03", "HCO3"},    {"C03", "CO3"},
     {"CaC03", "CaCO3"}, {"CaCOs", "CaCO3"},  {"CaCO;", "CaCO3"},  {"S04-S", "SO4-S"},  {"N03-N", "NO3-N"},
     {"P205", "P2O5"},   {"K20", "K2O"},      {"Ca0", "CaO"},      {"Mg0", "MgO"},      {"Si02", "SiO2"},
     {"C1", "Cl"},       {"H2P04", "H2PO4"},  {"lron", "Iron"},    {"CaC0;", "CaCO3"}}};

/// "mg/1" as "mg/l"; nothing where it is no unit.
std::string mendedUnit(std::string_view word) {
  const auto stroke = word.find('/');
  if (stroke == std::string_view::npos || stroke == 0) return {};
  const auto left = word.substr(0, stroke), right = word.substr(stroke + 1);
  const auto* unit = std::find_if(above.begin(), above.end(), [&](const auto& m) { return m.read == left; });
  if (unit == above.end()) return {};
  const bool meter = unit->meant.ends_with("S");
  const auto* centi =
      std::find_if(centimetres.begin(), centimetres.end(), [&](const auto& m) { return m.read == right; });
  if (meter && centi != centimetres.end()) return std::string(unit->meant) + "/" + std::string(centi->meant);
  const bool litre = std::find(litres.begin(), litres.end(), right) != litres.end();
  return !meter && litre ? std::string(unit->meant) + "/l" : std::string();
}

std::string mendedFormula(std::string_view word) {
  const auto* it =
      std::find_if(formulas.begin(), formulas.end(), [&](const auto& m) { return m.read == word; });
  return it == formulas.end() ? std::string() : std::string(it->meant);
}

bool isEdge(char c) {
  return std::string_view("()[]{}<>.,;:'\"*").find(c) != std::string_view::npos;
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
  const auto plain = withPlainBrackets(raw);
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
    if (mended.empty()) mended = mendedFormula(piece);
    out += mended.empty() ? std::string(piece) : mended;
    if (to < word.size()) out += word[to++];
    from = to;
  }
  return out;
}

} // namespace butte::reading
