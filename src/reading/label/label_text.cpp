#include "label/label_text.h"

#include "base/decimal.h"
#include "base/encoding.h"
#include "label/label_line.h"
#include "product/oxides.h"
#include "text/trimmed.h"
#include "words/vocabulary.h"

#include <algorithm>
#include <cmath>

namespace butte::reading {
namespace {

/// Two figures of one element agree: labels round the main elements to a tenth, all to two or three digits.
bool agree(double a, double b) {
  const double larger = std::max(a, b);
  return std::abs(a - b) <= std::max(larger > 1 ? 0.06 : 0, 0.02 * larger);
}

/// Percent of the element that a key's percent are.
double elementPercent(const std::string& key, double percent) {
  const auto form = core::statedFormFor(key);
  return form ? percent * core::elementShare(*form) : percent;
}
std::string elementOf(const std::string& key) {
  const auto form = core::statedFormFor(key);
  return form ? std::string(core::nutrientKey(form->nutrient)) : key;
}

struct Statement {
  LabelTerm term;
  int line = 0;
  std::string text;
};

class LabelReader {
public:
  LabelText read(std::string_view text) {
    learnMark(text);
    int number = 0;
    for (std::size_t from = 0; from <= text.size();) {
      auto end = text.find_first_of("\r\n", from);
      if (end == std::string_view::npos) end = text.size();
      takeLine(text.substr(from, end - from), ++number);
      from = end + (end + 1 < text.size() && text[end] == '\r' && text[end + 1] == '\n' ? 2 : 1);
    }
    settle();
    return std::move(m_out);
  }

private:
  void learnMark(std::string_view text) {
    int points = 0, commas = 0;
    for (const auto& atom : atomsOf(text.substr(0, 20000))) {
      const auto shown = atom.kind == Atom::Kind::Number ? markShownBy(atom.text) : DecimalMark::Unknown;
      points += shown == DecimalMark::Point;
      commas += shown == DecimalMark::Comma;
    }
    m_mark = commas > points ? DecimalMark::Comma : DecimalMark::Point;
  }

  void takeLine(std::string_view line, int number) {
    const auto atoms = atomsOf(line);
    if (atoms.empty()) {
      m_derived = false;
      return;
    }
    const auto has = [&](WordKind kind) {
      for (std::size_t i = 0; i < atoms.size(); ++i) {
        if (wordAt(kind, atoms, i, atoms.size())) return true;
      }
      return false;
    };
    m_byVolume = m_byVolume || has(WordKind::ByVolume);
    if (wordAt(WordKind::Derived, atoms, 0, atoms.size())) m_derived = true;
    auto terms = labelTermsOf(atoms, m_mark);
    const bool percent =
        std::any_of(terms.begin(), terms.end(), [](const LabelTerm& t) { return t.unit == "%"; });
    // Sources go on over lines, but no figures stand among them.
    const bool hasFigure =
        std::any_of(atoms.begin(), atoms.end(), [](const Atom& a) { return a.kind == Atom::Kind::Number; });
    if (m_derived && hasFigure && !wordAt(WordKind::Derived, atoms, 0, atoms.size())) m_derived = false;
    if (m_derived) return takeSources(atoms);
    const auto trimmedLine = trimmed(line);
    if (!percent || has(WordKind::Density)) {
      if (const auto density = densityOf(atoms, m_mark)) {
        m_out.densityKgPerL = density;
        m_out.read.push_back({number, trimmedLine, {}, 0, false, {}});
        return;
      }
    }
    if (auto shorthand = shorthandOf(atoms, m_mark)) terms = std::move(*shorthand);
    for (auto& term : terms)
      m_statements.push_back({std::move(term), number, trimmedLine});
    const bool figure =
        std::any_of(atoms.begin(), atoms.end(), [](const Atom& a) { return a.kind == Atom::Kind::Number; });
    const bool says =
        figure && (has(WordKind::Label) ||
                   std::any_of(atoms.begin(), atoms.end(), [](const Atom& a) { return a.is("%"); }));
    if (terms.empty() && says && takeChelateOfTheLineBefore(atoms)) return;
    if (terms.empty() && says && !has(WordKind::ByVolume)) m_out.unplaced.push_back(trimmedLine);
  }

  /// "4.8% chelated by EDDHA": a part of what the line before says.
  bool takeChelateOfTheLineBefore(Atoms atoms) {
    if (m_statements.empty()) return false;
    for (std::size_t i = 0; i < atoms.size(); ++i) {
      if (!wordAt(WordKind::Chelate, atoms, i, atoms.size())) continue;
      auto name = atoms[i].text;
      std::transform(name.begin(), name.end(), name.begin(),
                     [](char c) { return static_cast<char>(std::toupper(c)); });
      m_sources[m_statements.back().term.key] = name;
      return true;
    }
    return false;
  }

  /// "Derived from: Iron EDTA": no content, but what holds the iron.
  void takeSources(Atoms atoms) {
    for (std::size_t i = 0; i + 1 < atoms.size(); ++i) {
      const auto metal = wordAt(WordKind::Label, atoms, i, atoms.size());
      const auto chelate =
          metal ? wordAt(WordKind::Chelate, atoms, i + metal->length, atoms.size()) : std::nullopt;
      if (!chelate) continue;
      auto name = atoms[i + metal->length].text;
      std::transform(name.begin(), name.end(), name.begin(),
                     [](char c) { return static_cast<char>(std::toupper(c)); });
      m_sources.emplace(std::string(metal->means), name);
    }
  }

  /// By weight, whatever unit the label uses.
  std::optional<double> percentOf(const LabelTerm& term) {
    if (term.unit == "mg/kg") return term.value / 1e4;
    if (term.unit == "g/kg") return term.value / 10;
    const bool volume = term.unit == "g/L" || term.unit == "mg/L" || m_byVolume;
    if (!volume) return term.value;
    if (!m_out.densityKgPerL) return std::nullopt;
    const double gramsPerLitre = term.unit == "g/L"    ? term.value
                                 : term.unit == "mg/L" ? term.value / 1000
                                                       : term.value * 10;
    return gramsPerLitre / *m_out.densityKgPerL / 10;
  }

  void settle() {
    for (auto& statement : m_statements) {
      const auto percent = percentOf(statement.term);
      if (!percent || statement.term.most || *percent > 100) {
        if (!percent) doubtOnce(LabelDoubt::NeedsDensity);
        if (!statement.term.most)
          m_out.unplaced.push_back(statement.text);
        else
          m_out.read.push_back({statement.line, statement.text, {}, 0, false, {}});
        continue;
      }
      take(statement, *percent);
    }
    chelates();
    nitrogen();
  }

  void doubtOnce(LabelDoubt doubt) {
    if (std::none_of(m_out.doubts.begin(), m_out.doubts.end(),
                     [&](const auto& d) { return d.doubt == doubt; }))
      m_out.doubts.push_back({doubt, {}});
  }

  void take(const Statement& from, double percent) {
    const auto& term = from.term;
    auto& rows = m_out.rows;
    LabelLine line{from.line, from.text, term.key, percent, false, term.chelate};
    const auto same = std::find_if(rows.begin(), rows.end(), [&](const auto& row) {
      return elementOf(row.first) == elementOf(term.key);
    });
    if (same == rows.end()) {
      rows.emplace_back(term.key, percent);
      m_isPart[elementOf(term.key)] = term.part;
    } else {
      again(from, percent, *same, line);
    }
    m_out.read.push_back(std::move(line));
  }

  /// An element stated once more: a part of the whole, its other form, its second chelate, or a
  /// contradiction.
  void again(const Statement& from, double percent, core::LabelRow& row, LabelLine& line) {
    const auto& term = from.term;
    const double now = elementPercent(term.key, percent), before = elementPercent(row.first, row.second);
    bool& wasPart = m_isPart[elementOf(term.key)];
    if (agree(now, before)) {
      line.part = true;
      wasPart = wasPart && term.part;
      return;
    }
    if (term.part && !wasPart && now < before) return static_cast<void>(line.part = true);
    if (wasPart && !term.part && now > before) {
      row = {term.key, percent}; // the whole, behind its part
      wasPart = false;
      return;
    }
    if (term.part && wasPart && term.key == row.first) {
      row.second += percent;
      m_out.doubts.push_back({LabelDoubt::PartWithoutTotal, {term.key}});
      return;
    }
    line.part = true;
    m_out.doubts.push_back(
        {LabelDoubt::TwoFigures, {row.first, core::decimalText(row.second), core::decimalText(percent)}});
  }

  void chelates() {
    for (const auto& line : m_out.read) {
      if (!line.key.empty() && !line.chelate.empty()) m_out.chelates[line.key] = line.chelate;
    }
    for (const auto& source : m_sources) {
      const auto& metal = source.first;
      const bool chelated = std::any_of(m_statements.begin(), m_statements.end(), [&](const Statement& s) {
        return s.term.key == metal && s.term.part;
      });
      const bool there = std::any_of(m_out.rows.begin(), m_out.rows.end(),
                                     [&](const auto& row) { return row.first == metal; });
      if (there && (chelated || !m_out.chelates.contains(metal))) m_out.chelates.insert(source);
    }
  }

  /// The total beside its forms adds nothing; more forms than total is a misprint.
  void nitrogen() {
    double total = 0, forms = 0, sum = 0;
    for (const auto& [key, percent] : m_out.rows) {
      if (key == "N") total = percent;
      if (key.starts_with("N_")) forms += percent;
      sum += key == "N" ? 0 : percent;
    }
    if (total > 0 && forms > total && !agree(total, forms))
      m_out.doubts.push_back(
          {LabelDoubt::SumsDoNotFit, {core::decimalText(total), core::decimalText(forms)}});
    if (sum > 100) m_out.doubts.push_back({LabelDoubt::OverHundred, {core::decimalText(sum)}});
    std::erase_if(m_out.rows, [](const auto& row) { return row.second == 0; });
  }

  DecimalMark m_mark = DecimalMark::Unknown;
  bool m_derived = false, m_byVolume = false;
  std::vector<Statement> m_statements;
  std::map<std::string, bool> m_isPart;
  std::map<std::string, std::string> m_sources;
  LabelText m_out;
};

} // namespace

LabelText readLabelText(std::string_view text) {
  return LabelReader().read(core::utf8From(text));
}

} // namespace butte::reading
