#include "label/label_line.h"

#include "product/oxides.h"
#include "quantity/unit_names.h"
#include "units/convert.h"
#include "words/particles.h"
#include "words/vocabulary.h"

#include <algorithm>
#include <array>

namespace butte::reading {
namespace {

/// Whether labels state the element by this oxide too.
bool isOxideOf(std::string_view oxide, std::string_view element) {
  const auto form = core::statedFormFor(oxide);
  return form && form->onLabels && core::nutrientKey(form->nutrient) == element;
}

/// The names and symbols of one statement, as one key; "" where they do not go together.
class KeyFinder {
public:
  void word(std::string_view means) { m_words.emplace_back(means); }
  void symbol(std::string_view means) { m_symbols.emplace_back(means); }
  bool empty() const { return m_words.empty() && m_symbols.empty(); }
  void clear() { m_words.clear(), m_symbols.clear(); }

  std::string key() const {
    if (m_words.empty()) return m_symbols.empty() ? std::string() : together(m_symbols);
    const auto word = together(m_words);
    if (word.empty() || m_symbols.empty()) return word;
    const auto symbol = together(m_symbols);
    if (symbol == word) return word;
    if (word == "N" && symbol.starts_with("N_")) return symbol;
    if (word.starts_with("N_") && symbol == "N") return word; // "nitric nitrogen (N)"
    // The symbol says whether the element or its oxide is meant: "Potassium (K2O)", "Phosphate (P)".
    if (isOxideOf(symbol, word) || isOxideOf(word, symbol)) return symbol;
    return {};
  }

private:
  /// "Total nitrogen ... nitrate": the form of the element; two different things are none.
  static std::string together(const std::vector<std::string>& keys) {
    std::string out;
    for (const auto& key : keys) {
      if (out.empty() || (out == "N" && key.starts_with("N_")))
        out = key;
      else if (key != out && !(key == "N" && out.starts_with("N_")) && !isOxideOf(out, key) &&
               !isOxideOf(key, out))
        return {};
      else if (isOxideOf(key, out))
        out = key;
    }
    return out;
  }
  std::vector<std::string> m_words, m_symbols;
};

class LineReader {
public:
  LineReader(Atoms atoms, DecimalMark mark) : m_atoms(atoms), m_mark(mark) {}

  std::vector<LabelTerm> read() {
    while (m_at < m_atoms.size())
      step();
    flush();
    return std::move(m_out);
  }

private:
  void step() {
    const auto& atom = m_atoms[m_at];
    const auto end = m_atoms.size();
    if (atom.kind == Atom::Kind::Number && !m_bracket) return number();
    if (atom.kind == Atom::Kind::Number && startsStatement()) {
      flush();
      m_bracket = false;
      return number();
    }
    if (endsStatement(atom) && m_number && !m_finder.empty()) flush();
    if (atom.is("(") || atom.is("[")) m_bracket = true;
    if (atom.is(")") || atom.is("]")) m_bracket = false;
    if (atom.kind != Atom::Kind::Word) return static_cast<void>(++m_at);
    if (const auto most = wordAt(WordKind::Most, m_atoms, m_at, end)) {
      m_term.most = true;
      m_at += most->length;
      return;
    }
    const auto name = wordAt(WordKind::Label, m_atoms, m_at, end);
    const auto symbol = wordAt(WordKind::LabelSymbol, m_atoms, m_at, end);
    const auto subset = wordAt(WordKind::Subset, m_atoms, m_at, end);
    const auto chelate = wordAt(WordKind::Chelate, m_atoms, m_at, end);
    const auto length = [](const auto& found) { return found ? found->length : 0; };
    const auto longest = std::max({length(name), length(symbol), length(subset), length(chelate)});
    if (longest == 0) return static_cast<void>(++m_at);
    if (length(name) == longest)
      m_finder.word(name->means);
    else if (length(symbol) == longest)
      m_finder.symbol(symbol->means);
    else if (length(subset) == longest)
      m_term.part = true;
    else
      takeChelate(longest);
    m_at += longest;
  }

  void takeChelate(std::size_t length) {
    m_term.part = true;
    for (std::size_t i = 0; i < length; ++i)
      m_term.chelate += m_atoms[m_at + i].text;
    std::transform(m_term.chelate.begin(), m_term.chelate.end(), m_term.chelate.begin(),
                   [](char c) { return static_cast<char>(std::toupper(c)); });
  }

  /// "(8.7 % P)" behind a statement that is whole is one of its own.
  bool startsStatement() const { return m_number && !m_finder.empty(); }

  static bool endsStatement(const Atom& atom) {
    return atom.is(",") || atom.is(";") || atom.is("|") || atom.is("\t") || atom.is("+") || atom.is("&");
  }

  void number() {
    const auto read = numberIn(m_atoms[m_at].text, m_mark);
    if (m_number && !m_finder.empty()) flush();
    const bool second = m_number;
    ++m_at;
    if (!read || read->otherwise) return static_cast<void>(m_broken = true);
    if (second) return static_cast<void>(m_broken = true); // two figures and no name between them
    m_number = true;
    m_term.value = read->value;
    unit();
  }

  void unit() {
    if (m_at < m_atoms.size() && m_atoms[m_at].is("%")) {
      m_term.unit = "%";
      ++m_at;
      return;
    }
    std::string joined;
    for (auto i = m_at; i < m_atoms.size() && i < m_at + 4; ++i) {
      joined += m_atoms[i].text;
      const auto means = particleMeans(Particle::LabelUnit, joined);
      if (!means) continue;
      m_term.unit = *means;
      m_at = i + 1;
      return;
    }
  }

  void flush() {
    if (m_number && !m_broken) {
      m_term.key = m_finder.key();
      if (!m_term.key.empty()) m_out.push_back(m_term);
    }
    m_term = {};
    m_number = m_broken = false;
    m_finder.clear();
  }

  Atoms m_atoms;
  DecimalMark m_mark;
  std::size_t m_at = 0;
  bool m_number = false, m_broken = false, m_bracket = false;
  LabelTerm m_term;
  KeyFinder m_finder;
  std::vector<LabelTerm> m_out;
};

} // namespace

std::vector<LabelTerm> labelTermsOf(Atoms atoms, DecimalMark mark) {
  return LineReader(atoms, mark).read();
}

std::optional<std::vector<LabelTerm>> shorthandOf(Atoms atoms, DecimalMark mark) {
  std::size_t at = 0;
  const auto isNumber = [&](std::size_t i) {
    return i < atoms.size() && atoms[i].kind == Atom::Kind::Number;
  };
  const auto isDash = [&](std::size_t i) {
    return i < atoms.size() && (atoms[i].is("-") || atoms[i].is("+") || atoms[i].is("/") || atoms[i].is(":"));
  };
  while (at < atoms.size() && !isNumber(at))
    ++at; // "NPK 12-12-17", a product's name
  if (!isNumber(at) || !isDash(at + 1) || !isNumber(at + 2) || !isDash(at + 3) || !isNumber(at + 4))
    return std::nullopt;
  if (!atoms[at + 1].is(atoms[at + 3].text)) return std::nullopt;
  std::vector<LabelTerm> out;
  static constexpr std::array<std::string_view, 3> keys{"N", "P2O5", "K2O"};
  for (std::size_t i = 0; i < 3; ++i) {
    const auto read = numberIn(atoms[at + 2 * i].text, mark);
    if (!read || read->value > 100) return std::nullopt;
    LabelTerm term;
    term.key = keys[i];
    term.value = read->value;
    term.unit = "%";
    out.push_back(term);
  }
  auto rest = labelTermsOf(atoms.subspan(at + 5), mark);
  out.insert(out.end(), rest.begin(), rest.end());
  return out;
}

std::optional<double> densityOf(Atoms atoms, DecimalMark mark) {
  bool named = false;
  for (std::size_t i = 0; i < atoms.size() && !named; ++i)
    named = wordAt(WordKind::Density, atoms, i, atoms.size()).has_value();
  for (std::size_t i = 0; i < atoms.size(); ++i) {
    if (atoms[i].kind != Atom::Kind::Number) continue;
    const auto read = numberIn(atoms[i].text, mark);
    if (!read || read->otherwise) continue;
    const auto mass = unitNameAt(atoms, i + 1);
    auto next = i + 1 + mass.length;
    const bool per =
        next < atoms.size() && (atoms[next].is("/") || isParticle(Particle::Per, atoms[next].text));
    const auto volume = per ? unitNameAt(atoms, next + 1) : UnitName{};
    if (mass.length > 0 && volume.length > 0) {
      const auto kg = core::convert(read->value * mass.meaning.factor, mass.meaning.unit, "kg");
      const auto litres = core::convert(volume.meaning.factor, volume.meaning.unit, "L");
      const bool plain = kg && litres && *kg / *litres > 0.7 && *kg / *litres < 2.5;
      if (plain) return *kg / *litres;
      continue;
    }
    // A bare figure behind "specific gravity"; "g/L" and "g/mL" are units of one word.
    if (named && mass.length == 0 && read->value > 0.7 && read->value < 2.5) return read->value;
    if (named && mass.meaning.unit == "g/L" && read->value > 700) return read->value / 1000;
  }
  return std::nullopt;
}

} // namespace butte::reading
