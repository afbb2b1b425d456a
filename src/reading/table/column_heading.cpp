#include "table/column_heading.h"

#include "label/label_line.h"
#include "quantity/unit_names.h"
#include "report/unit_text.h"
#include "text/figure_text.h"
#include "words/particles.h"
#include "words/vocabulary.h"

#include <algorithm>

namespace butte::reading {
namespace {

bool isBracket(const Atom& atom) {
  return atom.is("(") || atom.is(")") || atom.is("[") || atom.is("]");
}

bool isFiller(const Atom& atom) {
  return atom.kind != Atom::Kind::Word || isParticle(Particle::Filler, atom.text);
}

class HeadingReader {
public:
  explicit HeadingReader(std::string_view text)
      : m_text(text), m_atoms(atomsOf(text)), m_end(m_atoms.size()) {}

  ColumnHeading read() {
    while (m_at < m_end)
      m_at += step();
    m_out.labelKey = labelKeyOf();
    if (!m_out.analyte && m_named > 0) m_out.analyte = analyteOf(named());
    if (!m_out.labelKey.empty() || m_out.analyte)
      m_out.whole = !m_part && (m_unknown == 0 || analyteOf(named()).has_value());
    return std::move(m_out);
  }

private:
  /// How many atoms were read.
  std::size_t step() {
    const auto& atom = m_atoms[m_at];
    if (const auto unit = unitHere(); unit > 0) return unit;
    if (atom.kind == Atom::Kind::Number) {
      if (const auto number = numberIn(atom.text, DecimalMark::Unknown)) m_number = number->value;
      return 1;
    }
    std::size_t taken = 0;
    if (const auto word = wordAt(WordKind::Column, m_atoms, m_at, m_end)) {
      m_out.words.emplace_back(word->means);
      taken = word->length;
    }
    const auto analyte = analyteAt(m_atoms, m_at, m_end);
    if (analyte && analyte->length >= taken && !m_out.analyte) {
      m_out.analyte = analyte->analyte;
      taken = std::max(taken, analyte->length);
    }
    if (const auto modifier = wordAt(WordKind::Modifier, m_atoms, m_at, m_end))
      taken = std::max(taken, modifier->length);
    for (const auto kind : {WordKind::Label, WordKind::LabelSymbol, WordKind::Symbol}) {
      const auto found = wordAt(kind, m_atoms, m_at, m_end);
      taken = std::max(taken, found ? found->length : 0);
    }
    if (taken == 0 && !isFiller(atom)) m_out.whole = false, ++m_unknown;
    taken = std::max<std::size_t>(taken, 1);
    if (m_out.unit.empty()) m_named = m_at + taken;
    return taken;
  }

  /// A unit behind the name, in brackets or behind a sign; behind a number anywhere.
  std::size_t unitHere() {
    if (m_at == 0 && m_atoms[0].mark != '%') return 0; // "Mg", "EC" are names, not units
    if (!m_out.unit.empty() && !(m_number && !m_out.per)) return 0;
    const bool led = m_at == 0 || isBracket(m_atoms[m_at - 1]) || m_atoms[m_at - 1].mark != 0 ||
                     m_number.has_value() || m_atoms[m_at].gap > 0;
    if (!led) return 0;
    const auto report = unitAt(m_atoms, m_at, m_end);
    const auto typed = unitNameAt(m_atoms, m_at);
    const auto longest = std::max(report ? report->length : 0, typed.length);
    if (longest == 0) return 0;
    // "Temp C", "Calcium S": one letter is a unit in brackets, behind a number or at the end.
    const bool atEnd = m_at + longest == m_end || isBracket(m_atoms[m_at + longest]);
    if (m_atoms[m_at].text.size() == 1 && !atEnd && m_atoms[m_at].mark == 0) return 0;
    m_out.unit = report && report->length >= typed.length ? report->unit : typed.meaning.unit;
    if (m_out.unit == "percent") m_out.unit = "%";
    const double factor = report && report->length >= typed.length ? 1 : typed.meaning.factor;
    if (m_number || factor != 1) m_out.per = m_number.value_or(1) * factor;
    return longest;
  }

  /// A part of what a label states ("chelated iron") is taken for the whole only when it was looked at.
  std::string labelKeyOf() {
    if (m_named == 0) return {};
    const auto from = named().front().from, to = named().back().to;
    const auto atoms = atomsOf(std::string(m_text.substr(from, to - from)) + " 1 %");
    const auto terms = labelTermsOf(atoms, DecimalMark::Point);
    if (terms.size() != 1) return {};
    m_part = terms.front().part;
    return terms.front().key;
  }

  /// Without a sign in front: "% N".
  std::span<const Atom> named() const {
    const std::size_t first = m_named > 1 && m_atoms.front().mark == '%';
    return {m_atoms.data() + first, m_named - first};
  }

  std::string_view m_text;
  std::vector<Atom> m_atoms;
  std::size_t m_at = 0, m_end = 0, m_named = 0, m_unknown = 0;
  bool m_part = false;
  std::optional<double> m_number;
  ColumnHeading m_out;
};

} // namespace

ColumnHeading columnHeadingOf(std::string_view text) {
  constexpr std::size_t mostLetters = 200;
  auto money = moneyIn(text.substr(0, mostLetters));
  auto out = HeadingReader(money.rest).read();
  out.currency = std::move(money.currency);
  return out;
}

std::string unitAlone(std::string_view text) {
  auto atoms = atomsOf(text);
  std::erase_if(atoms, isBracket);
  if (atoms.empty()) return {};
  if (const auto unit = unitAt(atoms, 0, atoms.size()); unit && unit->length == atoms.size())
    return unit->unit == "percent" ? "%" : unit->unit;
  const auto typed = unitNameAt(atoms, 0);
  if (typed.length != atoms.size() || typed.meaning.factor != 1) return {};
  return typed.meaning.unit == "percent" ? "%" : typed.meaning.unit;
}

MoneyText moneyIn(std::string_view text) {
  for (const auto& [written, code] : particlesOf(Particle::Currency)) {
    const auto at = text.find(written);
    if (at == std::string_view::npos) continue;
    const auto end = at + written.size();
    const auto isLetter = [&](std::size_t i) {
      return i < text.size() && std::isalpha(static_cast<unsigned char>(text[i]));
    };
    const bool aWord = std::isalpha(static_cast<unsigned char>(written.front()));
    if (aWord && ((at > 0 && isLetter(at - 1)) || isLetter(end))) continue;
    return {code, std::string(text.substr(0, at)) + " " + std::string(text.substr(end))};
  }
  return {{}, std::string(text)};
}

} // namespace butte::reading
