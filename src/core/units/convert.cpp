#include "units/convert.h"

#include "chem/substance.h"
#include "units/constants.h"
#include "units/quantity.h"

#include <algorithm>
#include <array>
#include <optional>

namespace butte::core {
namespace {

enum class Dimension {
  Mass,
  Volume,
  Area,
  MassPerVolume,
  AmountPerVolume,
  EquivalentsPerVolume,
  Conductivity
};

struct Unit {
  std::string_view name;
  Dimension dimension;
  double toBase; ///< base units: g, L, m2, mg/L, mmol/L, meq/L, mS/cm
};

constexpr double meqPerMilligramCaCO3 = 1 / constant::milligramsCaCO3PerMeq;
// One German degree is 10 mg/L of CaO (56.077 g/mol, two equivalents); DIN 38409-6 as remembered.
constexpr double meqPerGermanDegree = 10 * 2 / 56.077;
// One French degree is 0.1 mmol/L of calcium and magnesium, in older words 10 mg/L as CaCO3; NF T 90-003 as
// remembered.
constexpr double meqPerFrenchDegree = 0.2;
constexpr double grainMilligrams = factor::gramsPerGrain * 1000;

constexpr std::array<Unit, 39> units{{
    {"kg", Dimension::Mass, 1000},
    {"g", Dimension::Mass, 1},
    {"mg", Dimension::Mass, 0.001},
    {"lb", Dimension::Mass, factor::gramsPerPound},
    {"oz", Dimension::Mass, factor::gramsPerOunce},
    {"m3", Dimension::Volume, 1000},
    {"L", Dimension::Volume, 1},
    {"mL", Dimension::Volume, 0.001},
    {"gal_us", Dimension::Volume, factor::litresPerUsGallon},
    {"gal_imp", Dimension::Volume, factor::litresPerImperialGallon},
    {"floz_us", Dimension::Volume, factor::litresPerUsFluidOunce},
    // The imperial fluid ounce is one 160th of the imperial gallon (exact by definition).
    {"floz_imp", Dimension::Volume, factor::litresPerImperialGallon / 160},
    {"tsp", Dimension::Volume, factor::litresPerUsTeaspoon},
    {"tbsp", Dimension::Volume, factor::litresPerUsTablespoon},
    {"cup", Dimension::Volume, factor::litresPerUsCup},
    {"m2", Dimension::Area, 1},
    {"ft2", Dimension::Area, factor::squareMetresPerSquareFoot},
    {"kg/L", Dimension::MassPerVolume, 1e6},
    {"g/L", Dimension::MassPerVolume, 1000},
    {"mg/L", Dimension::MassPerVolume, 1},
    {"ug/L", Dimension::MassPerVolume, 0.001},
    {"g/gal_us", Dimension::MassPerVolume, 1000 / factor::litresPerUsGallon},
    {"oz/gal_us", Dimension::MassPerVolume, 1000 * factor::gramsPerOunce / factor::litresPerUsGallon},
    {"lb/gal_us", Dimension::MassPerVolume, 1000 * factor::gramsPerPound / factor::litresPerUsGallon},
    {"lb/gal_imp", Dimension::MassPerVolume, 1000 * factor::gramsPerPound / factor::litresPerImperialGallon},
    {"mmol/L", Dimension::AmountPerVolume, 1},
    {"umol/L", Dimension::AmountPerVolume, 0.001},
    {"meq/L", Dimension::EquivalentsPerVolume, 1},
    {"mg/L_CaCO3", Dimension::EquivalentsPerVolume, meqPerMilligramCaCO3},
    {"dH", Dimension::EquivalentsPerVolume, meqPerGermanDegree},
    {"fH", Dimension::EquivalentsPerVolume, meqPerFrenchDegree},
    {"clark", Dimension::EquivalentsPerVolume,
     grainMilligrams / factor::litresPerImperialGallon* meqPerMilligramCaCO3},
    {"gpg_CaCO3", Dimension::EquivalentsPerVolume,
     grainMilligrams / factor::litresPerUsGallon* meqPerMilligramCaCO3},
    {"mS/cm", Dimension::Conductivity, 1},
    {"uS/cm", Dimension::Conductivity, 0.001},
    {"ppm500", Dimension::Conductivity, 1 / factor::ppm500},
    {"ppm640", Dimension::Conductivity, 1 / factor::ppm640},
    {"ppm700", Dimension::Conductivity, 1 / factor::ppm700},
    {"g/m3", Dimension::MassPerVolume, 1},
}};

const Unit* findUnit(std::string_view name) {
  const auto it = std::find_if(units.begin(), units.end(), [&](const Unit& u) { return u.name == name; });
  return it == units.end() ? nullptr : &*it;
}

bool isConcentration(Dimension d) {
  return d == Dimension::MassPerVolume || d == Dimension::AmountPerVolume ||
         d == Dimension::EquivalentsPerVolume;
}

std::optional<double> convertTemperature(double value, std::string_view from, std::string_view to) {
  if (from == to && (from == "C" || from == "F")) return value;
  if (from == "C" && to == "F") return Temperature::fromCelsius(value).fahrenheit();
  if (from == "F" && to == "C") return Temperature::fromFahrenheit(value).celsius();
  return std::nullopt;
}

/// mg per mmol and per meq of the substance; the charge is absent for substances without one.
Result<Substance> substanceFor(std::string_view name, const Unit& from, const Unit& to) {
  if (name.empty()) {
    return problemAt(ProblemCode::NeedsSubstance, "SUBSTANCE",
                     {std::string(from.name), std::string(to.name)});
  }
  return substanceNamed(name);
}

Result<double> convertConcentration(double value, const Unit& from, const Unit& to, std::string_view name) {
  double charge = 2; // hardness and alkalinity as CaCO3 against mmol/L of a divalent ion
  double molarMass = 0;
  const bool viaMass = from.dimension == Dimension::MassPerVolume || to.dimension == Dimension::MassPerVolume;
  const bool viaEquivalents =
      from.dimension == Dimension::EquivalentsPerVolume || to.dimension == Dimension::EquivalentsPerVolume;
  const bool hardnessOnly = !viaMass && name.empty() && from.name != "meq/L" && to.name != "meq/L";
  if (!hardnessOnly) {
    const auto substance = substanceFor(name, from, to);
    if (!substance) return substance.problem();
    if (viaEquivalents && substance->chargeNumber == 0) {
      return problemAt(ProblemCode::NoCharge, "SUBSTANCE", {std::string(name)});
    }
    charge = substance->chargeNumber;
    molarMass = substance->molarMassGPerMol;
  }
  double mmol = value * from.toBase;
  if (from.dimension == Dimension::MassPerVolume) mmol /= molarMass;
  if (from.dimension == Dimension::EquivalentsPerVolume) mmol /= charge;
  double out = mmol;
  if (to.dimension == Dimension::MassPerVolume) out *= molarMass;
  if (to.dimension == Dimension::EquivalentsPerVolume) out *= charge;
  return out / to.toBase;
}

Result<double> convertSubstances(double value, std::string_view from, std::string_view to) {
  const auto fraction = massOfOneInOther(from, to);
  if (!fraction) return fraction.problem();
  return value * *fraction;
}

} // namespace

Result<double> convert(double value, std::string_view from, std::string_view to, std::string_view substance) {
  if (const auto temperature = convertTemperature(value, from, to)) return *temperature;
  const Unit* a = findUnit(from);
  const Unit* b = findUnit(to);
  const bool temperatureUnit = from == "C" || from == "F" || to == "C" || to == "F";
  // "C" and "F" are also elements; beside a unit they are degrees.
  if (!a && !b && substance.empty() && !temperatureUnit) return convertSubstances(value, from, to);
  if (temperatureUnit && (a || b)) {
    return problemAt(ProblemCode::IncompatibleUnits, "TO", {std::string(from), std::string(to)});
  }
  if (!a) return problemAt(ProblemCode::UnknownUnit, "FROM", {std::string(from)});
  if (!b) return problemAt(ProblemCode::UnknownUnit, "TO", {std::string(to)});
  if (a->dimension == b->dimension) return a == b ? value : value * a->toBase / b->toBase;
  if (isConcentration(a->dimension) && isConcentration(b->dimension)) {
    return convertConcentration(value, *a, *b, substance);
  }
  return problemAt(ProblemCode::IncompatibleUnits, "TO", {std::string(from), std::string(to)});
}

std::vector<std::string> unitNames() {
  std::vector<std::string> names;
  for (const auto& unit : units)
    names.emplace_back(unit.name);
  names.emplace_back("C");
  names.emplace_back("F");
  return names;
}

} // namespace butte::core
