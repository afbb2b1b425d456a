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

constexpr std::size_t mostAtomsOfAName = 24;

/// Keys in order, each once: of the vocabulary or of this file, so they outlive any reading. As a name has
/// few atoms, they need no heap, and each word of a paper begins with none.
class Keys {
public:
  Keys() = default;
  Keys(const Keys& other) : m_count(other.m_count) { std::copy(other.begin(), other.end(), m_keys.begin()); }
  Keys& operator=(const Keys&) = delete;

  const std::string_view* begin() const { return m_keys.data(); }
  const std::string_view* end() const { return m_keys.data() + m_count; }
  bool empty() const { return m_count == 0; }
  std::size_t size() const { return m_count; }
  std::string_view front() const { return m_keys[0]; }
  std::string_view back() const { return m_keys[m_count - 1]; }
  bool has(std::string_view key) const { return std::find(begin(), end(), key) != end(); }
  void add(std::string_view key) {
    if (!has(key) && m_count < m_keys.size()) m_keys[m_count++] = key;
  }
  void drop(std::string_view key) {
    auto* const first = m_keys.data();
    m_count = static_cast<std::size_t>(std::remove(first, first + m_count, key) - first);
  }

private:
  std::array<std::string_view, mostAtomsOfAName + 8> m_keys; ///< beyond its atoms the forms of a unit
  std::size_t m_count = 0;
};

/// What was found in a name.
struct Parts {
  Keys analytes, symbols;
  bool aside = false;

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

std::string_view keyOfPlain(std::string_view analyte) {
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
std::optional<std::string_view> oneOf(Keys& analytes, Keys& symbols, Analyte& out) {
  if (analytes.has("NO2")) {
    if (!analytes.has("NO3") && !symbols.has("NO3")) return std::nullopt;
    analytes.drop("NO2"); // nitrate and nitrite together: of a drinkable water all but nitrate
    symbols.drop("NO2");
    if (!analytes.has("NO3")) analytes.add("NO3");
    out.otherwise.emplace_back(symbols.has("N") ? "NO3" : "N_NO3");
  }
  for (const char* ion : {"NO3", "NH4", "NH3", "N_NO3", "N_NH4"}) {
    if (!analytes.has("N") || !analytes.has(ion)) continue;
    analytes.drop("N");
    if (!symbols.has("NO3") && !symbols.has("NH4") && !symbols.has("NH3")) symbols.add("N");
  }
  for (const auto& [ion, element] : {std::pair("SO4", "S"), std::pair("PO4", "P")}) {
    if (!analytes.has(ion) || !analytes.has(element)) continue;
    const std::string_view last = analytes.back() == element ? element : ion; // "sulfate as sulfur"
    analytes.drop(last == element ? ion : element);
    if (symbols.empty()) symbols.add(last);
  }
  if (analytes.has("HARD")) {
    const bool calcium = analytes.has("Ca") || symbols.has("Ca");
    const bool magnesium = analytes.has("Mg") || symbols.has("Mg");
    analytes.drop("Ca");
    analytes.drop("Mg");
    symbols.drop("Ca");
    symbols.drop("Mg");
    if (calcium != magnesium && analytes.size() == 1) {
      out.asCalciumCarbonate = true;
      symbols.drop("CaCO3");
      return calcium ? "Ca" : "Mg";
    }
  }
  if (analytes.has("ALK") && (analytes.has("HCO3") || analytes.has("CO3"))) {
    if (analytes.has("CO3")) return std::nullopt;
    analytes.drop("HCO3");
    out.oneOfAlkalinity = true;
  }
  if (analytes.has("ALK") && analytes.has("pH")) analytes.drop("pH");
  return analytes.size() == 1 ? analytes.front() : std::string_view();
}

/// From what was found to what is meant; nothing where the parts do not fit.
std::optional<Analyte> resolved(Parts parts, const std::vector<std::string>& form) {
  Analyte out;
  if (parts.aside) return asideOne();
  for (const auto& symbol : form)
    parts.symbols.add(symbol);
  auto& symbols = parts.symbols;
  std::string_view base;
  if (parts.analytes.empty()) {
    // "NO3-N", "N-NO3", "SO4-S", "Ca": the ion before its element.
    for (const char* ion : {"NO3", "NO2", "NH4", "NH3", "SO4", "PO4", "HCO3", "SiO2"}) {
      if (base.empty() && symbols.has(ion)) base = ion;
    }
    if (base.empty()) base = symbols.front();
    parts.analytes.add(base);
  }
  const auto one = oneOf(parts.analytes, symbols, out);
  if (!one) return asideOne();
  if (one->empty()) return std::nullopt;
  base = *one;
  out.key = keyOfPlain(base);
  symbols.drop(base); // its own symbol beside its name says nothing new
  if (base == "HARD" || base == "ALK") symbols.drop("CaCO3");
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
      if (symbols.has(symbol == "SO4" ? "S" : symbol == "PO4" ? "P" : "N")) continue;
    }
    out.key = it->key;
    out.factor = it->factor;
  }
  if (base == "NH3" && std::find(form.begin(), form.end(), "NH3") != form.end())
    out.factor = nitrogenInAmmonia;
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
      parts.analytes.add(analyte.means);
      return longest;
    }
    if (symbol.length == longest) {
      parts.symbols.add(symbol.means);
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
    parts.symbols.add(symbol->means);
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
    const bool titrated = parts.analytes.has("ALK");
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

std::optional<AnalyteFound> analyteAt(Atoms atoms, std::size_t at, std::size_t end,
                                      const std::vector<std::string>& form) {
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

std::optional<Analyte> analyteOf(Atoms atoms, const std::vector<std::string>& form) {
  auto found = analyteAt(atoms, 0, atoms.size(), form);
  if (!found) return std::nullopt;
  for (auto i = found->length; i < atoms.size(); ++i) {
    if (!isNameSign(atoms[i])) return std::nullopt;
  }
  return std::move(found->analyte);
}

} // namespace butte::reading
