#include "solution/equilibrium_data.h"

#include "base/csv.h"
#include "base/decimal.h"
#include "base/embedded.h"
#include "chem/formula.h"
#include "units/constants.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <map>
#include <sstream>

namespace butte::core {
namespace {

constexpr double kelvinAt25C = 298.15;
constexpr double gasConstant = 8.314462618e-3; // kJ/(mol K), exact (SI 2019)

/// What falls out, as a formula: for its mass.
const std::map<std::string, std::string, std::less<>> solidFormulas{
    {"gypsum", "CaSO4·2H2O"},
    {"calcite", "CaCO3"},
    {"aragonite", "CaCO3"},
    {"brushite", "CaHPO4·2H2O"},
    {"monetite", "CaHPO4"},
    {"octacalcium_phosphate", "Ca4H(PO4)3·2.5H2O"},
    {"hydroxyapatite", "Ca5(PO4)3OH"},
    {"struvite", "MgNH4PO4·6H2O"},
    {"k_struvite", "MgKPO4·6H2O"},
    {"newberyite", "MgHPO4·3H2O"},
    {"amorphous_silica", "SiO2"},
    {"brucite", "Mg(OH)2"},
    {"portlandite", "Ca(OH)2"}};

FormsWithin formsWithin(std::string_view word) {
  if (word == "hours") return FormsWithin::Hours;
  if (word == "days") return FormsWithin::Days;
  if (word == "months") return FormsWithin::Months;
  if (word == "never first") return FormsWithin::NeverFirst;
  return FormsWithin::Minutes;
}

std::optional<std::size_t> componentNamed(std::string_view species) {
  for (std::size_t i = 0; i < componentCount; ++i) {
    if (componentSpecies(allComponents[i]) == species) return i;
  }
  return std::nullopt;
}

void add(Stoichiometry& sum, const Stoichiometry& other, double factor) {
  sum.hydrogen += factor * other.hydrogen;
  sum.water += factor * other.water;
  for (const auto& [component, n] : other.components) {
    const auto it = std::find_if(sum.components.begin(), sum.components.end(),
                                 [c = component](const auto& entry) { return entry.first == c; });
    if (it == sum.components.end())
      sum.components.emplace_back(component, factor * n);
    else
      it->second += factor * n;
  }
}

} // namespace

ReactionConstant reactionConstant(const CsvTable& csv, std::size_t row) {
  ReactionConstant out;
  out.log10At25C = csv.number(row, "log_k_25c").value_or(0);
  out.enthalpyKJPerMol = csv.number(row, "delta_h_kj_per_mol");
  std::istringstream words(csv.cell(row, "analytic_a1_to_a5"));
  std::array<double, 5> a{};
  std::size_t n = 0;
  for (std::string word; n < a.size() && words >> word; ++n)
    a[n] = parseDecimal(word).value_or(0);
  if (n == a.size()) out.analytic = a;
  return out;
}

double ReactionConstant::log10At(double kelvin) const {
  if (analytic) {
    const auto& a = *analytic;
    const auto at = [&](double t) {
      return a[0] + a[1] * t + a[2] / t + a[3] * std::log10(t) + a[4] / (t * t);
    };
    // The stated value at 25 degC holds; the expression gives the change with temperature.
    return log10At25C + at(kelvin) - at(kelvinAt25C);
  }
  if (!enthalpyKJPerMol) return log10At25C;
  return log10At25C + *enthalpyKJPerMol / (gasConstant * constant::ln10) * (1 / kelvinAt25C - 1 / kelvin);
}

const EquilibriumData& EquilibriumData::instance() {
  static const EquilibriumData data;
  return data;
}

EquilibriumData::EquilibriumData() {
  readSpecies();
  readConductivities();
  findParts();
  for (const auto c : allComponents)
    m_componentSpecies[static_cast<std::size_t>(c)] = speciesIndex(componentSpecies(c)).value_or(0);
}

ComponentSet componentsOf(const Stoichiometry& made) {
  ComponentSet out;
  for (const auto& [component, power] : made.components) {
    if (power != 0) out.set(component);
  }
  return out;
}

Stoichiometry EquilibriumData::resolve(const std::string& text, Reaction& reaction) const {
  Stoichiometry out;
  std::istringstream words(text);
  for (std::string word; words >> word;) {
    double factor = 1;
    if (const auto star = word.find('*'); star != std::string::npos) {
      factor = parseDecimal(word.substr(0, star)).value_or(1);
      word = word.substr(star + 1);
    }
    if (word == "H2O") {
      out.water += factor;
      continue;
    }
    const auto index = speciesIndex(word);
    assert(index && "data/equilibria.csv names a species before its row");
    add(out, m_species[*index].made, factor);
    reaction.others.emplace_back(*index, factor);
  }
  return out;
}

void EquilibriumData::readSpecies() {
  const CsvTable csv(embedded::equilibria());
  for (std::size_t row = 0; row < csv.rowCount(); ++row) {
    const auto& kind = csv.cell(row, "kind");
    const auto& name = csv.cell(row, "name");
    Reaction reaction{reactionConstant(csv, row), {}};
    auto made = resolve(csv.cell(row, "reaction"), reaction);
    if (kind == "solid") {
      if (name == "CO2(g)") {
        m_gas = reaction;
        continue;
      }
      const auto formula = parseFormula(solidFormulas.find(name)->second);
      m_solids.push_back({name,
                          std::move(made),
                          formula ? formula->molarMassGPerMol : 0,
                          formsWithin(csv.cell(row, "forms_within")),
                          {}});
      m_dissolutions.push_back(std::move(reaction));
      continue;
    }
    if (kind == "component") {
      if (const auto component = componentNamed(name))
        made.components.emplace_back(*component, 1);
      else
        made.hydrogen = 1;
    }
    SpeciesRecord record;
    record.name = name;
    record.charge = static_cast<int>(csv.number(row, "charge").value_or(0));
    record.made = std::move(made);
    record.sizeAngstrom = csv.number(row, "size_angstrom").value_or(0);
    record.linearTerm = csv.number(row, "linear_term").value_or(0);
    m_species.push_back(std::move(record));
    m_reactions.push_back(std::move(reaction));
  }
}

void EquilibriumData::readConductivities() {
  const CsvTable csv(embedded::ions());
  constexpr std::array<std::string_view, 3> chelates{"chelate-", "chelate-2", "chelate-3"};
  for (std::size_t row = 0; row < csv.rowCount(); ++row) {
    const auto& name = csv.cell(row, "ion");
    const auto chelate = std::find(chelates.begin(), chelates.end(), name);
    SpeciesRecord* record = nullptr;
    if (chelate != chelates.end()) {
      record = &m_chelates[static_cast<std::size_t>(chelate - chelates.begin())];
      record->name = name;
      record->charge = static_cast<int>(csv.number(row, "charge").value_or(-1));
    } else if (const auto index = speciesIndex(name)) {
      record = &m_species[*index];
    }
    if (!record) continue;
    record->conductivityAt25C = csv.number(row, "limiting_molar_conductivity_25c_S_cm2_per_mol").value_or(0);
    record->conductivityPercentPerK = csv.number(row, "temperature_coefficient_percent_per_k").value_or(2);
  }
}

void EquilibriumData::findParts() {
  for (auto& solid : m_solids)
    solid.parts = componentsOf(solid.dissolved);
  for (auto& record : m_species) {
    record.parts = componentsOf(record.made);
    const ActivityKind kind{record.charge, record.sizeAngstrom, record.linearTerm};
    const auto known = std::find(m_activityKinds.begin(), m_activityKinds.end(), kind);
    record.activityKind = static_cast<std::size_t>(known - m_activityKinds.begin());
    if (known == m_activityKinds.end()) m_activityKinds.push_back(kind);
  }
}

std::optional<std::size_t> EquilibriumData::speciesIndex(std::string_view name) const {
  for (std::size_t i = 0; i < m_species.size(); ++i) {
    if (m_species[i].name == name) return i;
  }
  return std::nullopt;
}

std::optional<std::size_t> EquilibriumData::solidIndex(std::string_view name) const {
  for (std::size_t i = 0; i < m_solids.size(); ++i) {
    if (m_solids[i].name == name) return i;
  }
  return std::nullopt;
}

ConstantsAt EquilibriumData::workOut(double celsius) const {
  const double kelvin = celsius + 273.15;
  ConstantsAt out;
  out.celsius = celsius;
  for (const auto& reaction : m_reactions) { // rows refer backwards only
    double sum = reaction.constant.log10At(kelvin) * constant::ln10;
    for (const auto& [index, factor] : reaction.others)
      sum += factor * out.lnFormation[index];
    out.lnFormation.push_back(sum);
  }
  // A solid's row gives the ion product over the species it names; their formation comes off to reach the
  // components.
  const auto overComponents = [&](const Reaction& reaction) {
    double sum = reaction.constant.log10At(kelvin) * constant::ln10;
    for (const auto& [index, factor] : reaction.others)
      sum -= factor * out.lnFormation[index];
    return sum;
  };
  for (const auto& reaction : m_dissolutions)
    out.lnSolubility.push_back(overComponents(reaction));
  out.lnCarbonDioxideGas = overComponents(m_gas);
  return out;
}

const ConstantsAt& EquilibriumData::at(Temperature temperature) const {
  constexpr std::size_t kept = 8;
  thread_local std::array<ConstantsAt, kept> recent;
  thread_local std::size_t oldest = 0;
  for (const auto& constants : recent) {
    if (!constants.lnFormation.empty() && constants.celsius == temperature.celsius()) return constants;
  }
  auto& place = recent[oldest];
  oldest = (oldest + 1) % kept;
  place = workOut(temperature.celsius());
  return place;
}

} // namespace butte::core
