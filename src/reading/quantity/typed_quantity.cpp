#include "quantity/typed_quantity.h"

#include "base/decimal.h"
#include "quantity/typed_number.h"
#include "quantity/unit_names.h"
#include "units/convert.h"
#include "words/particles.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace butte::reading {
namespace {

using core::problemAt;
using core::ProblemCode;
using core::Result;

constexpr int figuresOfAConversion = 9;
constexpr double perThousand = 1000, perHundred = 100;

/// Things that quantities come in: "25 lb bag".
bool isContainer(const Atom& atom) {
  return atom.kind == Atom::Kind::Word && isParticle(Particle::Container, atom.text);
}

bool isPerWord(const Atom& atom) {
  return atom.kind == Atom::Kind::Word && isParticle(Particle::Per, atom.text);
}

bool isPer(const Atom& atom) {
  return atom.is("/") || isPerWord(atom);
}

/// An amount with its unit.
struct Term {
  TypedNumber number;
  TypedUnit unit; ///< empty: none was typed
};

class QuantityReader {
public:
  QuantityReader(std::string_view text, std::string_view unit, std::string_view substance)
      : m_typed(text), m_plain(withPlainFractions(text)), m_all(atomsOf(m_plain)), m_unit(unit),
        m_substance(substance) {}

  Result<TypedQuantity> read() {
    std::erase_if(m_all, [](const Atom& atom) { return isContainer(atom); });
    // "1 part in 100 parts"; "parts per million" are a unit.
    const bool perMillion =
        std::any_of(m_all.begin(), m_all.end(), [](const Atom& a) { return a.text == "per"; });
    if (!perMillion) std::erase_if(m_all, [](const Atom& a) { return isParticle(Particle::Part, a.text); });
    m_atoms = m_all;
    if (m_atoms.empty() || m_atoms.size() > 40) return notANumber();
    if (m_atoms[0].is("-") || m_atoms[0].is("+")) {
      if (m_atoms[0].is("-")) m_sign = -1;
      ++m_at;
    }
    prefix();
    if (auto out = ratio()) return *out;
    const auto terms = readTerms();
    if (!terms) return terms.problem();
    if (m_at < m_atoms.size() && isPer(m_atoms[m_at])) return rate(*terms);
    if (m_at < m_atoms.size()) return unknownRest();
    if (terms->size() == 1) return single(terms->front());
    return compound(*terms);
  }

private:
  std::string shown() const { return std::string(m_typed); }
  core::Problem notANumber() const { return problemAt(ProblemCode::NotANumber, "", {shown()}); }
  core::Problem unclear(const std::string& couldBe) const {
    return problemAt(ProblemCode::Unclear, "", {shown(), couldBe});
  }
  core::Problem otherQuantity() const {
    return problemAt(ProblemCode::IncompatibleUnits, "", {shown(), std::string(m_unit)});
  }

  /// "CF 18", "EC 1.8": the scale before its figure.
  void prefix() {
    if (m_at >= m_atoms.size() || m_atoms[m_at].kind != Atom::Kind::Word) return;
    const auto& word = m_atoms[m_at].text;
    if (!isParticle(Particle::Scale, word)) return;
    m_prefix = unitNameAt(m_atoms, m_at).meaning;
    ++m_at;
  }

  /// "1:100", "1 in 100": so much in so much finished, as mL in a litre.
  std::optional<Result<TypedQuantity>> ratio() {
    if (m_at + 2 >= m_atoms.size() || m_at + 3 != m_atoms.size()) return std::nullopt;
    const auto &first = m_atoms[m_at], &between = m_atoms[m_at + 1], &last = m_atoms[m_at + 2];
    const bool word = isPerWord(between);
    if (first.kind != Atom::Kind::Number || last.kind != Atom::Kind::Number || !(between.is(":") || word))
      return std::nullopt;
    if (m_unit != "mL/L" && m_unit != "percent" && m_unit != "%")
      return Result<TypedQuantity>(otherQuantity());
    const auto parts = typedNumberAt(m_atoms, m_at), whole = typedNumberAt(m_atoms, m_at + 2);
    if (!parts || !whole || m_sign < 0 || whole->value <= 0) return Result<TypedQuantity>(notANumber());
    if (parts->value > whole->value) return Result<TypedQuantity>(unclear("1:" + parts->digits));
    return Result<TypedQuantity>(
        found(parts->value / whole->value * (m_unit == "mL/L" ? perThousand : perHundred)));
  }

  Result<std::vector<Term>> readTerms() {
    std::vector<Term> out;
    while (m_at < m_atoms.size() && !isPer(m_atoms[m_at])) {
      const auto number = typedNumberAt(m_atoms, m_at);
      if (!number) {
        if (out.empty() || m_atoms[m_at].kind == Atom::Kind::Number) return notANumber();
        return problemAt(ProblemCode::UnknownUnit, "", {restFrom(m_at)});
      }
      if (number->otherwise)
        return unclear(core::decimalText(number->value) + ", " + core::decimalText(*number->otherwise));
      m_at += number->length;
      Term term{*number, {}};
      if (m_at < m_atoms.size()) {
        const auto name = unitNameAt(m_atoms, m_at);
        m_at += name.length;
        term.unit = name.meaning;
        if (name.length == 0 && !isPer(m_atoms[m_at]) && m_atoms[m_at].kind != Atom::Kind::Number)
          return unknownRest();
      }
      out.push_back(term);
      if (term.unit.unit.empty()) break;
      if (m_at < m_atoms.size() && m_atoms[m_at].is(",")) ++m_at; // "1 lb, 3 oz"
    }
    if (out.empty()) return notANumber();
    return out;
  }

  std::string restFrom(std::size_t at) const {
    return at < m_atoms.size() ? m_plain.substr(m_atoms[at].from) : std::string();
  }

  core::Problem unknownRest() const {
    const bool number = m_atoms[m_at].kind == Atom::Kind::Number;
    return number ? notANumber() : problemAt(ProblemCode::UnknownUnit, "", {restFrom(m_at)});
  }

  static TypedQuantity found(double value) {
    const double scale =
        value == 0 ? 1 : std::pow(10, figuresOfAConversion - 1 - std::floor(std::log10(std::abs(value))));
    const double nine = std::round(value * scale) / scale;
    return {value, core::decimalText(std::isfinite(nine) ? nine : value)};
  }

  Result<TypedQuantity> single(const Term& term) const {
    auto unit = term.unit;
    if (!m_prefix.unit.empty()) {
      if (!unit.unit.empty() && unit.unit != "mS/cm" && unit.unit != "uS/cm") return otherQuantity();
      if (unit.unit.empty()) unit = m_prefix;
    }
    const double value = m_sign * term.number.value;
    const bool asked = unit.unit.empty() || (unit.unit == m_unit && unit.factor == 1);
    if (asked && !term.number.digits.empty())
      return TypedQuantity{value, (m_sign < 0 ? "-" : "") + term.number.digits};
    return unit.unit.empty() ? Result<TypedQuantity>(found(value)) : inAsked(value, unit);
  }

  Result<TypedQuantity> inAsked(double value, const TypedUnit& unit) const {
    const auto converted = inUnit(value, unit, m_unit);
    return converted ? Result<TypedQuantity>(found(*converted)) : converted.problem();
  }

  Result<double> inUnit(double value, TypedUnit unit, std::string_view to) const {
    if (unit.unit.starts_with('?')) return unclear("t (1000 kg), short tons (907.2 kg)");
    value *= unit.factor;
    // A bare gallon, quart or pint in a field of imperial ones is one of those.
    if (unit.unit == "gal_us" && to == "gal_imp" && folded(m_typed).find("us") == std::string::npos)
      return value;
    if (unit.unit == "ug") return inUnit(value * 1e-3, {"mg", 1}, to);
    if (unit.unit == "percent") return percent(value, to);
    if (unit.unit == "ppm") {
      if (to == "mg/L" || to == "g/L" || to == "ug/L")
        unit.unit = "mg/L";
      else if (to.starts_with("ppm"))
        return value;
      else if (to == "mg/L_CaCO3")
        return value;
      else if (to == "mS/cm" || to == "uS/cm")
        return unclear("ppm500, ppm640, ppm700");
    }
    if (unit.unit == to) return value;
    if (to == "percent" || to == "mL/L" || to.empty()) return otherQuantity();
    // "10 °f" of a temperature is Fahrenheit, of a hardness French.
    if (unit.unit == "fH" && (to == "C" || to == "F")) unit.unit = "F";
    if (unit.unit == "F" && isHardness(to)) unit.unit = "fH";
    if (unit.unit == "meq/L" && to == "mg/L_CaCO3") return core::convert(value, unit.unit, to);
    const auto out = core::convert(value, unit.unit, to, m_substance);
    if (out) return out;
    return out.problem().code == ProblemCode::NeedsSubstance || out.problem().code == ProblemCode::NoCharge
               ? out.problem()
               : otherQuantity();
  }

  static bool isHardness(std::string_view unit) {
    return unit == "mg/L_CaCO3" || unit == "dH" || unit == "fH" || unit == "clark" || unit == "gpg_CaCO3";
  }

  Result<double> percent(double value, std::string_view to) const {
    if (to == "percent" || to == "%") return value;
    if (to == "mL/L") return value / perHundred * perThousand;
    return otherQuantity();
  }

  /// "1 lb 3 oz": each smaller than the one before, all of one quantity.
  Result<TypedQuantity> compound(const std::vector<Term>& terms) const {
    double sum = 0;
    std::optional<double> before;
    for (const auto& term : terms) {
      if (term.unit.unit.empty()) return unclear(restWithUnits(terms));
      const auto one = inUnit(1, term.unit, m_unit);
      if (!one) return one.problem();
      if (before && *one >= *before) return notANumber();
      before = *one;
      sum += *one * term.number.value;
    }
    return found(m_sign * sum);
  }

  static std::string restWithUnits(const std::vector<Term>& terms) {
    const auto& last = terms.back().number.digits;
    return terms.front().unit.unit == "lb" ? terms.front().number.digits + " lb " + last + " oz"
                                           : last + " " + terms.front().unit.unit;
  }

  /// "10 ml per gallon", "115 g/100 L", "1 lb per 100 gal".
  Result<TypedQuantity> rate(const std::vector<Term>& above) {
    ++m_at;
    TypedNumber count{0, 1, "1", {}};
    if (const auto number = typedNumberAt(m_atoms, m_at)) {
      count = *number;
      m_at += number->length;
    }
    const auto name = m_at < m_atoms.size() ? unitNameAt(m_atoms, m_at) : UnitName{};
    m_at += name.length;
    if (name.length == 0 || m_at < m_atoms.size())
      return m_at < m_atoms.size() ? unknownRest() : notANumber();
    const auto litres = inUnit(count.value, name.meaning, "L");
    if (!litres || count.value <= 0 || count.otherwise) return otherQuantity();
    const bool dose = m_unit == "mL/L";
    double sum = 0;
    for (const auto& term : above) {
      if (term.unit.unit.empty()) return notANumber();
      const auto part = inUnit(term.number.value, term.unit, dose ? "mL" : "g");
      if (!part) return part.problem().code == ProblemCode::Unclear ? part.problem() : otherQuantity();
      sum += *part;
    }
    if (dose) return found(m_sign * sum / *litres);
    if (m_unit.empty()) return otherQuantity();
    return inAsked(m_sign * sum / *litres, {"g/L", 1});
  }

  std::string_view m_typed;
  std::string m_plain;
  std::vector<Atom> m_all;
  Atoms m_atoms;
  std::string_view m_unit, m_substance;
  std::size_t m_at = 0;
  double m_sign = 1;
  TypedUnit m_prefix;
};

} // namespace

Result<TypedQuantity> typedQuantity(std::string_view text, std::string_view unit,
                                    std::string_view substance) {
  constexpr std::size_t mostLetters = 200;
  if (text.size() > mostLetters) return problemAt(ProblemCode::NotANumber, "", {std::string(text)});
  return QuantityReader(text, unit, substance).read();
}

} // namespace butte::reading
