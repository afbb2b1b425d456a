#include "chem/substance.h"

#include "chem/atomic_weights.h"
#include "chem/formula.h"

#include <algorithm>
#include <array>
#include <string>

namespace butte::core {
namespace {

struct ChargeEntry {
  std::string_view name;
  double charge;
};
// Charge numbers of the ions that a feed holds between pH 5 and 7 (definition; P as H2PO4 by the house rule).
constexpr std::array<ChargeEntry, 30> charges{
    {{"N", 1},   {"NO3", 1}, {"NH4", 1}, {"P", 1},   {"H2PO4", 1}, {"HPO4", 2}, {"PO4", 3},   {"K", 1},
     {"Ca", 2},  {"Mg", 2},  {"S", 2},   {"SO4", 2}, {"Na", 1},    {"Cl", 1},   {"HCO3", 1},  {"CO3", 2},
     {"Fe", 2},  {"Mn", 2},  {"Zn", 2},  {"Cu", 2},  {"Mo", 2},    {"MoO4", 2}, {"CaCO3", 2}, {"CaO", 2},
     {"MgO", 2}, {"K2O", 2}, {"OH", 1},  {"H", 1},   {"F", 1},     {"NO2", 1}}};

std::string_view withoutPrefix(std::string_view name) {
  if (name == "N_NO3" || name == "N_NH4" || name == "N_urea") return "N";
  return name;
}

double chargeOf(std::string_view name) {
  const auto it =
      std::find_if(charges.begin(), charges.end(), [&](const ChargeEntry& e) { return e.name == name; });
  return it == charges.end() ? 0 : it->charge;
}

/// The element that two formulas are compared by: the only one they share besides oxygen and hydrogen,
/// carbon only where nothing else is shared.
Result<std::string> sharedElement(const ChemicalFormula& a, const ChemicalFormula& b) {
  std::vector<std::string> shared;
  for (const auto& [symbol, count] : a.atoms) {
    if (symbol != "O" && symbol != "H" && b.count(symbol) > 0) shared.push_back(symbol);
  }
  if (shared.size() > 1) std::erase(shared, "C");
  if (shared.size() != 1) return problemAt(ProblemCode::IncompatibleUnits, "TO", {a.text, b.text});
  return shared.front();
}

} // namespace

Result<Substance> substanceNamed(std::string_view name) {
  const auto plain = withoutPrefix(name);
  const auto formula = parseFormula(plain);
  if (!formula) return problemAt(ProblemCode::UnknownSubstance, "SUBSTANCE", {std::string(name)});
  return Substance{formula->molarMassGPerMol, name == "N_urea" ? 0 : chargeOf(plain)};
}

Result<double> massOfOneInOther(std::string_view from, std::string_view to) {
  const auto a = parseFormula(withoutPrefix(from));
  if (!a) return problemAt(ProblemCode::UnknownUnit, "FROM", {std::string(from)});
  const auto b = parseFormula(withoutPrefix(to));
  if (!b) return problemAt(ProblemCode::UnknownUnit, "TO", {std::string(to)});
  const auto element = sharedElement(*a, *b);
  if (!element) return element.problem();
  const double perCarbonA = chargeOf(from) / a->count(*element),
               perCarbonB = chargeOf(to) / b->count(*element);
  if (*element == "C" && perCarbonA > 0 && perCarbonB > 0 && perCarbonA != perCarbonB)
    return problemAt(ProblemCode::CarbonOrCharge, "TO", {std::string(from), std::string(to)});
  const double molesOfElement = a->count(*element) / a->molarMassGPerMol;
  return molesOfElement / b->count(*element) * b->molarMassGPerMol;
}

} // namespace butte::core
