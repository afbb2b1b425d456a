#include "water/report_row.h"

#include "chem/nutrient.h"
#include "chem/substance.h"
#include "units/convert.h"

#include <algorithm>
#include <array>

namespace butte::core {
namespace {

struct Charged {
  std::string_view key;
  int charge;
};
// Charges as water reports count them: phosphate as H2PO4-, metals as two-valued.
constexpr std::array<Charged, 25> keyCharges{
    {{"N_NO3", 1}, {"NO3", 1}, {"N_NH4", 1}, {"NH4", 1}, {"P", 1},  {"H2PO4", 1}, {"P2O5", 2},
     {"K", 1},     {"K2O", 2}, {"Ca", 2},    {"CaO", 2}, {"Mg", 2}, {"MgO", 2},   {"S", 2},
     {"SO4", 2},   {"SO3", 2}, {"Na", 1},    {"Cl", 1},  {"Fe", 2}, {"Mn", 2},    {"HCO3", 1},
     {"CO3", 2},   {"F", 1},   {"Zn", 2},    {"Cu", 2}}};

bool isCaCO3(std::string_view key) {
  return key == "alkalinity_as_CaCO3" || key == "hardness_as_CaCO3";
}

} // namespace

const std::vector<std::string>& reportUnits() {
  static const std::vector<std::string> units{"mg/L",       "ug/L", "mmol/L", "umol/L", "meq/L",
                                              "mg/L_CaCO3", "dH",   "fH",     "clark",  "gpg_CaCO3"};
  return units;
}

int reportCharge(std::string_view key) {
  if (isCaCO3(key)) return 2;
  const auto it =
      std::find_if(keyCharges.begin(), keyCharges.end(), [&](const Charged& c) { return c.key == key; });
  return it == keyCharges.end() ? 0 : it->charge;
}

std::optional<double> milligramsPerMillimole(std::string_view key) {
  if (isCaCO3(key)) return milligramsPerMillimole("CaCO3");
  const auto nutrient = nutrientFromKey(key);
  const auto name = nutrient ? elementSymbol(*nutrient) : key;
  const auto substance = substanceNamed(std::string(name));
  return substance ? std::optional(substance->molarMassGPerMol) : std::nullopt;
}

Result<double> milligramsPerLitre(const ReportRow& row) {
  const auto& units = reportUnits();
  if (std::find(units.begin(), units.end(), row.unit) == units.end()) {
    std::string known;
    for (const auto& unit : units)
      known += (known.empty() ? "" : " ") + unit;
    return problemAt(ProblemCode::UnknownUnit, row.key + ".unit", {row.unit, known});
  }
  if (const auto mass = convert(row.value, row.unit, "mg/L")) return *mass;
  const auto perMillimole = milligramsPerMillimole(row.key);
  if (!perMillimole) return problemAt(ProblemCode::NeedsSubstance, row.key + ".unit", {row.unit, "mg/L"});
  if (const auto equivalents = convert(row.value, row.unit, "meq/L")) {
    const int charge = reportCharge(row.key);
    if (charge == 0) return problemAt(ProblemCode::NoCharge, row.key + ".unit", {row.key});
    return *equivalents / charge * *perMillimole;
  }
  const auto millimoles = convert(row.value, row.unit, "mmol/L");
  if (!millimoles) return millimoles.problem();
  return *millimoles * *perMillimole;
}

} // namespace butte::core
