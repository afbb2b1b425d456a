#include "report/analyte.h"

#include "report/unit_text.h"
#include "water/report_row.h"
#include "words/vocabulary.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cstdlib>

namespace butte::reading {
namespace {

using Keys = std::vector<std::string>;

constexpr std::size_t mostAtomsOfAName = 24;

bool has(const Keys& keys, std::string_view key) {
  return std::find(keys.begin(), keys.end(), key) != keys.end();
}

/// What was found in a name, in order, each once.
struct Parts {
  Keys analytes, symbols;
  bool aside = false;
  std::size_t end = 0; ///< behind the last atom that says something or closes a bracket

  static void add(Keys& keys, std::string_view key) {
    if (!has(keys, key)) keys.emplace_back(key);
  }
  bool empty() const { return analytes.empty() && symbols.empty() && !aside; }
};

/// What a form stands for beside the analyte it may be the form of.
struct Form {
  std::string_view analyte, symbol, key;
  double factor = 1;
};
// g of nitrogen in 1 g of ammonia, from IUPAC abridged atomic weights (14.007, 1.008).
constexpr double nitrogenInAmmonia = 14.007 / (14.007 + 3 * 1.008);
constexpr std::array<Form, 47> forms{{{"NO3", "N", "N_NO3"},
                                      {"N_NO3", "NO3", "NO3"},
                                      {"N_NO3", "N", "N_NO3"},
                                      {"NH4", "N", "N_NH4"},
                                      {"NH4", "NH4", "NH4"},
                                      {"NH3", "N", "N_NH4"},
                                      {"NH3", "NH4", "NH4"},
                                      {"NH3", "NH3", "N_NH4", nitrogenInAmmonia},
                                      {"N_NH4", "NH4", "NH4"},
                                      {"N_NH4", "N", "N_NH4"},
                                      {"NO3", "NO3", "NO3"},
                                      {"SO4", "S", "S"},
                                      {"SO4", "SO4", "SO4"},
                                      {"SO4", "SO3", "SO3"},
                                      {"S", "SO4", "SO4"},
                                      {"S", "S", "S"},
                                      {"S", "SO3", "SO3"},
                                      {"PO4", "P", "P"},
                                      {"PO4", "PO4", "PO4"},
                                      {"PO4", "P2O5", "P2O5"},
                                      {"PO4", "H2PO4", "H2PO4"},
                                      {"P", "P", "P"},
                                      {"P", "PO4", "PO4"},
                                      {"P", "P2O5", "P2O5"},
                                      {"P", "H2PO4", "H2PO4"},
                                      {"SiO2", "SiO2", "SiO2"},
                                      {"SiO2", "Si", "Si"},
                                      {"Si", "SiO2", "SiO2"},
                                      {"SiO3", "SiO2", "SiO2"},
                                      {"SiO3", "Si", "Si"},
                                      {"K", "K2O", "K2O"},
                                      {"Ca", "CaO", "CaO"},
                                      {"Mg", "MgO", "MgO"},
                                      {"ALK", "HCO3", "HCO3"},
                                      {"ALK", "CaCO3", "alkalinity_as_CaCO3"},
                                      {"HARD", "CaCO3", "hardness_as_CaCO3"},
                                      {"HCO3", "HCO3", "HCO3"},
                                      {"HCO3", "CaCO3", "alkalinity_as_CaCO3"},
                                      {"CO3", "CO3", "CO3"},
                                      {"N", "N", "N"},
                                      {"N", "NO3", "N_NO3"},
                                      {"N", "NH4", "N_NH4"},
                                      {"N", "NH3", "N_NH4"},
                                      {"H2S", "S", "H2S"},
                                      {"free_chlorine", "free_chlorine", "free_chlorine"},
                                      {"Cl", "Cl", "Cl"},
                                      {"Al", "Al", "Al"}}};

/// What counts equivalents where it is stated as CaCO3: every ion but those that are stated so anyway.
bool countsEquivalents(std::string_view base) {
  return base != "ALK" && base != "HARD" && base != "HCO3" && core::reportCharge(base) != 0;
}

std::string keyOfPlain(const std::string& analyte) {
  if (analyte == "ALK") return "alkalinity_as_CaCO3";
  if (analyte == "HARD") return "hardness_as_CaCO3";
  return analyte;
}

Analyte asideOne() {
  Analyte out;
  out.aside = true;
  return out;
}

/// Names of two parts: "calcium hardness", "nitrogen, nitrate", "sulfate as sulfur". Leaves the one that is
/// measured and puts what it is stated as among the symbols.
std::optional<std::string> oneOf(Keys& analytes, Keys& symbols, Analyte& out) {
  const auto drop = [&](std::string_view key) { std::erase(analytes, key); };
  if (has(analytes, "NO2")) {
    if (!has(analytes, "NO3") && !has(symbols, "NO3")) return std::nullopt;
    drop("NO2"); // nitrate and nitrite together: of a drinkable water all but nitrate
    std::erase(symbols, "NO2");
    if (!has(analytes, "NO3")) analytes.emplace_back("NO3");
    out.otherwise.emplace_back(has(symbols, "N") ? "NO3" : "N_NO3");
  }
  for (const char* ion : {"NO3", "NH4", "NH3", "N_NO3", "N_NH4"}) {
    if (!has(analytes, "N") || !has(analytes, ion)) continue;
    drop("N");
    if (!has(symbols, "NO3") && !has(symbols, "NH4") && !has(symbols, "NH3")) Parts::add(symbols, "N");
  }
  for (const auto& [ion, element] : {std::pair("SO4", "S"), std::pair("PO4", "P")}) {
    if (!has(analytes, ion) || !has(analytes, element)) continue;
    const std::string last = analytes.back() == element ? element : ion; // "sulfate as sulfur"
    drop(last == element ? ion : element);
    if (symbols.empty()) symbols.push_back(last);
  }
  if (has(analytes, "HARD")) {
    const bool calcium = has(analytes, "Ca") || has(symbols, "Ca");
    const bool magnesium = has(analytes, "Mg") || has(symbols, "Mg");
    drop("Ca");
    drop("Mg");
    std::erase(symbols, "Ca");
    std::erase(symbols, "Mg");
    if (calcium != magnesium && analytes.size() == 1) {
      out.asCalciumCarbonate = true;
      std::erase(symbols, "CaCO3");
      return calcium ? "Ca" : "Mg";
    }
  }
  if (has(analytes, "ALK") && (has(analytes, "HCO3") || has(analytes, "CO3"))) {
    if (has(analytes, "CO3")) return std::nullopt;
    drop("HCO3");
    out.oneOfAlkalinity = true;
  }
  if (has(analytes, "ALK") && has(analytes, "pH")) drop("pH");
  return analytes.size() == 1 ? std::optional(analytes.front()) : std::optional<std::string>("");
}

/// From what was found to what is meant; nothing where the parts do not fit.
std::optional<Analyte> resolved(Parts parts, const Keys& form) {
  Analyte out;
  if (parts.aside) return asideOne();
  for (const auto& symbol : form)
    Parts::add(parts.symbols, symbol);
  auto& symbols = parts.symbols;
  std::string base;
  if (parts.analytes.empty()) {
    // "NO3-N", "N-NO3", "SO4-S", "Ca": the ion before its element.
    for (const char* ion : {"NO3", "NO2", "NH4", "NH3", "SO4", "PO4", "HCO3", "SiO2"}) {
      if (base.empty() && has(symbols, ion)) base = ion;
    }
    if (base.empty()) base = symbols.front();
    parts.analytes.push_back(base);
  }
  const auto one = oneOf(parts.analytes, symbols, out);
  if (!one) return asideOne();
  if (one->empty()) return std::nullopt;
  base = *one;
  out.key = keyOfPlain(base);
  std::erase(symbols, base); // its own symbol beside its name says nothing new
  if (base == "HARD" || base == "ALK") std::erase(symbols, "CaCO3");
  if (base == "NH3" && symbols.empty()) {
    out.key = "N_NH4"; // without a form mostly as nitrogen, and nothing says so
    out.otherwise.emplace_back("NH4");
  }
  if (base == "SiO3") return std::nullopt;
  for (const auto& symbol : symbols) {
    if (symbol == "CaCO3" && countsEquivalents(base)) {
      out.asCalciumCarbonate = true;
      continue;
    }
    const auto it = std::find_if(forms.begin(), forms.end(),
                                 [&](const Form& f) { return f.analyte == base && f.symbol == symbol; });
    if (it == forms.end()) return std::nullopt;
    if (symbol == "NO3" || symbol == "NH4" || symbol == "SO4" || symbol == "PO4") {
      if (has(symbols, symbol == "SO4" ? "S" : symbol == "PO4" ? "P" : "N")) continue;
    }
    out.key = it->key;
    out.factor = it->factor;
  }
  if (base == "NH3" && has(form, "NH3")) out.factor = nitrogenInAmmonia;
  return out;
}

bool isWordOf(const Atom& atom, std::string_view text) {
  return atom.kind == Atom::Kind::Word && atom.text == text;
}

/// Signs that stand about in names.
bool isNameSign(const Atom& atom) {
  static constexpr std::string_view signs = ",.:()[]-@/+*'\"=";
  return (atom.mark != 0 && signs.find(atom.mark) != std::string_view::npos) || atom.is("·");
}

class NameReader {
public:
  NameReader(Atoms atoms, std::size_t end) : m_atoms(atoms), m_end(end) {}

  /// Takes one more part from `at` on; how many atoms, or 0 where it is no part of a name.
  std::size_t take(Parts& parts, std::size_t at) const {
    const auto& atom = m_atoms[at];
    if (atom.kind == Atom::Kind::Leader) return 0;
    if (atom.kind == Atom::Kind::Number) return number(parts, at);
    if (atom.is("°")) return at + 1 < m_end && isWordOf(m_atoms[at + 1], "c") ? 2 : 0;
    if (isNameSign(atom)) return 1;
    if (atom.kind == Atom::Kind::Sign) return 0;
    return word(parts, at);
  }

private:
  std::size_t word(Parts& parts, std::size_t at) const {
    const auto found = wordsAt(m_atoms, at, m_end);
    const auto of = [&](WordKind kind) { return found[static_cast<std::size_t>(kind)]; };
    const auto aside = of(WordKind::Aside), analyte = of(WordKind::Analyte), symbol = of(WordKind::Symbol);
    if (aside.length > analyte.length) {
      parts.aside = true;
      return aside.length;
    }
    const auto longest = std::max({analyte.length, symbol.length, of(WordKind::Modifier).length});
    if (longest == 0) return charged(parts, at);
    if (analyte.length == longest) {
      Parts::add(parts.analytes, analyte.means);
      return longest;
    }
    if (symbol.length == longest) {
      Parts::add(parts.symbols, symbol.means);
      return longest + charge(at + longest);
    }
    return longest;
  }

  /// "Ca2+", "SO42-", "Fe3+": the charge's digit was read with the symbol.
  std::size_t charged(Parts& parts, std::size_t at) const {
    const auto& text = m_atoms[at].text;
    if (text.size() < 2 || !std::isdigit(static_cast<unsigned char>(text.back()))) return 0;
    if (at + 1 >= m_end || m_atoms[at + 1].gap > 0) return 0;
    if (!m_atoms[at + 1].is("+") && !m_atoms[at + 1].is("-")) return 0;
    Atom bare = m_atoms[at];
    bare.text.pop_back();
    const auto symbol = wordAt(WordKind::Symbol, Atoms(&bare, 1), 0, 1);
    if (!symbol) return 0;
    Parts::add(parts.symbols, symbol->means);
    return 2;
  }

  /// The signs of a charge behind a symbol: "Cl-", "Ca++", "SO4--"; a hyphen before a word is none.
  std::size_t charge(std::size_t at) const {
    std::size_t n = 0;
    while (at + n < m_end && m_atoms[at + n].gap == 0 && (m_atoms[at + n].is("+") || m_atoms[at + n].is("-")))
      ++n;
    const bool wordBehind =
        at + n < m_end && m_atoms[at + n].gap == 0 && m_atoms[at + n].kind != Atom::Kind::Sign;
    return wordBehind ? 0 : n;
  }

  /// Of numbers a name holds the temperature of a meter, the end point of an alkalinity, and charges.
  std::size_t number(const Parts& parts, std::size_t at) const {
    const auto& text = m_atoms[at].text;
    const auto next = at + 1;
    const bool temperature =
        text == "25" || text == "20" || text == "25.0" || text == "20.0" || text == "25,0";
    if (temperature && next < m_end) {
      if (isWordOf(m_atoms[next], "c")) return 2;
      if (m_atoms[next].is("°")) return next + 1 < m_end && isWordOf(m_atoms[next + 1], "c") ? 3 : 2;
    }
    const bool titrated = has(parts.analytes, "ALK");
    if (titrated &&
        (text == "4.5" || text == "4,5" || text == "4.3" || text == "4,3" || text == "4.4" || text == "4.2"))
      return 1;
    const bool one = text.size() == 1 && text[0] >= '1' && text[0] <= '3';
    if (one && next < m_end && m_atoms[next].gap == 0 && (m_atoms[next].is("+") || m_atoms[next].is("-")) &&
        (next + 1 == m_end || m_atoms[next + 1].kind == Atom::Kind::Sign || m_atoms[next + 1].gap > 0))
      return parts.empty() ? 0 : 2;
    return 0;
  }

  Atoms m_atoms;
  std::size_t m_end;
};

} // namespace

std::optional<AnalyteFound> analyteAt(Atoms atoms, std::size_t at, std::size_t end, const Keys& form) {
  const NameReader reader(atoms, end);
  Parts parts;
  std::optional<AnalyteFound> out;
  int depth = 0;
  for (auto i = at; i < end;) {
    if (i - at > mostAtomsOfAName) break;
    if (i > at && atoms[i].gap >= 2 && out && depth <= 0) break; // a wide gap ends a name
    if (!parts.empty()) {
      const auto unit = unitAt(atoms, i, end); // "mS/cm" is no word of a method
      if (unit && (unit->length > 1 || unit->unit == "mg/L" || unit->unit == "ug/L")) break;
    }
    const auto n = reader.take(parts, i);
    if (n == 0) break;
    if (atoms[i].is("(") || atoms[i].is("[")) ++depth;
    if (atoms[i].is(")") || atoms[i].is("]")) --depth;
    i += n;
    const bool sign = n == 1 && atoms[i - 1].kind == Atom::Kind::Sign;
    const bool hangs = sign && !atoms[i - 1].is(")") && !atoms[i - 1].is("]") && !atoms[i - 1].is(":") &&
                       !atoms[i - 1].is("=");
    if (parts.empty() || hangs) continue;
    if (auto analyte = resolved(parts, form)) out = AnalyteFound{i - at, std::move(*analyte)};
  }
  return out;
}

std::optional<Analyte> analyteOf(Atoms atoms, const Keys& form) {
  auto found = analyteAt(atoms, 0, atoms.size(), form);
  if (!found) return std::nullopt;
  for (auto i = found->length; i < atoms.size(); ++i) {
    if (!isNameSign(atoms[i])) return std::nullopt;
  }
  return std::move(found->analyte);
}

} // namespace butte::reading
