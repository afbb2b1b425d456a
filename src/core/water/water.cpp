#include "water/water.h"

#include "base/decimal.h"
#include "chem/formula.h"
#include "chem/ions.h"
#include "chem/substance.h"
#include "product/oxides.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace butte::core {
namespace {

// Disagreement of two statements of the same thing that is worth a word: beyond rounding of a report's
// digits.
constexpr double disagreement = 0.03;
// Calcium's share of an otherwise unknown hardness, in equivalents: about three quarters (common practice).
constexpr double assumedCalciumShare = 0.75;
constexpr double largestMgPerL = 100000;

struct Reading {
  NutrientAmounts amounts;
  std::map<Nutrient, std::string> keyOf;
  std::optional<double> bicarbonate, carbonate, alkalinityAsCaCO3, hardnessAsCaCO3;
};

double molarMass(std::string_view name) {
  const auto substance = substanceNamed(name);
  return substance ? substance->molarMassGPerMol : 1;
}

std::optional<double>* specialRow(Reading& reading, std::string_view key) {
  if (key == "HCO3") return &reading.bicarbonate;
  if (key == "CO3") return &reading.carbonate;
  if (key == "alkalinity_as_CaCO3") return &reading.alkalinityAsCaCO3;
  if (key == "hardness_as_CaCO3") return &reading.hardnessAsCaCO3;
  return nullptr;
}

std::optional<Problem> readRow(Reading& reading, const WaterRow& row) {
  const auto& [key, value] = row;
  const std::string where = "water.analysis_mg_per_l." + key;
  if (!(value >= 0 && value <= largestMgPerL))
    return problemAt(ProblemCode::OutOfRange, where, {decimalText(value), "0 to 100000 mg/L"});
  if (auto* special = specialRow(reading, key)) {
    if (*special) return problemAt(ProblemCode::DuplicateKey, where, {key, key});
    *special = value;
    return std::nullopt;
  }
  const auto nutrient = nutrientFromKey(key);
  const auto stated = statedFormFor(key);
  if (!nutrient && !stated) {
    std::string known;
    for (const auto& k : waterKeys())
      known += (known.empty() ? "" : " ") + k;
    return problemAt(ProblemCode::UnknownKey, where, {known});
  }
  const auto target = nutrient ? *nutrient : stated->nutrient;
  if (const auto [it, isNew] = reading.keyOf.emplace(target, key); !isNew)
    return problemAt(ProblemCode::DuplicateKey, where, {key, it->second});
  if (target != Nutrient::N) reading.amounts.add(target, nutrient ? value : value * elementShare(*stated));
  return std::nullopt;
}

void settleNitrogen(Reading& reading, const std::vector<WaterRow>& rows, Water& water) {
  const auto it = std::find_if(rows.begin(), rows.end(), [](const WaterRow& r) { return r.first == "N"; });
  if (it == rows.end()) return;
  const double rest = it->second - reading.amounts.of(Nutrient::N);
  if (rest <= 0) return;
  reading.amounts.add(Nutrient::NNitrate, rest);
  water.remarks.push_back(WaterRemark::NitrogenTakenAsNitrate);
}

void settleAlkalinity(const Reading& reading, Water& water) {
  const double meqPerMgCaCO3 = 2 / molarMass("CaCO3");
  if (reading.bicarbonate || reading.carbonate) {
    water.alkalinityMeqPerL = reading.bicarbonate.value_or(0) / molarMass("HCO3") +
                              2 * reading.carbonate.value_or(0) / molarMass("CO3");
    if (!reading.bicarbonate && reading.alkalinityAsCaCO3)
      water.alkalinityMeqPerL = *reading.alkalinityAsCaCO3 * meqPerMgCaCO3;
    if (reading.alkalinityAsCaCO3) {
      const double stated = *reading.alkalinityAsCaCO3 * meqPerMgCaCO3;
      const double larger = std::max(stated, *water.alkalinityMeqPerL);
      if (std::abs(stated - *water.alkalinityMeqPerL) > disagreement * larger)
        water.remarks.push_back(WaterRemark::AlkalinityDisagrees);
    }
  } else if (reading.alkalinityAsCaCO3) {
    water.alkalinityMeqPerL = *reading.alkalinityAsCaCO3 * meqPerMgCaCO3;
  }
}

void settleHardness(Reading& reading, Water& water) {
  if (!reading.hardnessAsCaCO3) return;
  const double total = *reading.hardnessAsCaCO3 * 2 / molarMass("CaCO3"); // meq/L
  const double perCalcium = molarMass("Ca") / 2, perMagnesium = molarMass("Mg") / 2;
  const bool calcium = reading.keyOf.contains(Nutrient::Ca), magnesium = reading.keyOf.contains(Nutrient::Mg);
  const double known =
      reading.amounts.of(Nutrient::Ca) / perCalcium + reading.amounts.of(Nutrient::Mg) / perMagnesium;
  const double rest = total - known;
  if ((calcium && magnesium && std::abs(rest) > disagreement * std::max(total, known)) ||
      rest < -disagreement * total)
    water.remarks.push_back(WaterRemark::HardnessDisagrees);
  if (rest <= 0 || (calcium && magnesium)) return;
  if (!calcium && !magnesium) {
    water.remarks.push_back(WaterRemark::HardnessSplitAssumed);
    reading.amounts.add(Nutrient::Ca, rest * assumedCalciumShare * perCalcium);
    reading.amounts.add(Nutrient::Mg, rest * (1 - assumedCalciumShare) * perMagnesium);
  } else if (!calcium) {
    reading.amounts.add(Nutrient::Ca, rest * perCalcium);
  } else {
    reading.amounts.add(Nutrient::Mg, rest * perMagnesium);
  }
}

/// A report with both sides in it should balance. Tolerances: Standard Methods 1030 E, from memory
/// (+-0.2 meq/L up to 3, +-2 % up to 10, 5 % above); widened to 5 % throughout, since growers' reports are
/// rounded.
void checkBalance(Water& water) {
  const auto ions = ionBalance(water.milligramsPerLitre, water.alkalinityMeqPerL.value_or(0));
  const double anions = ions.anionsMeqPerL();
  const double cations = ions.cationsMeqPerL();
  const double allowed = std::max(0.2, 0.05 * std::max(anions, cations));
  if (std::abs(cations - anions) > allowed) water.remarks.push_back(WaterRemark::ChargeUnbalanced);
}

std::optional<Problem> checkMeters(const WaterReport& report) {
  const auto outside = [](const std::optional<double>& v, double low, double high) {
    return v && !(*v >= low && *v <= high);
  };
  if (outside(report.conductivityMsPerCm, 0, 200))
    return problemAt(ProblemCode::OutOfRange, "water.ec_ms_per_cm",
                     {decimalText(*report.conductivityMsPerCm), "0 to 200 mS/cm"});
  if (outside(report.ph, 0, 14))
    return problemAt(ProblemCode::OutOfRange, "water.ph", {decimalText(*report.ph), "0 to 14"});
  if (outside(report.temperatureCelsius, -5, 100))
    return problemAt(ProblemCode::OutOfRange, "water.temperature_c",
                     {decimalText(*report.temperatureCelsius), "-5 to 100 degC"});
  return std::nullopt;
}

} // namespace

Water pureWater() {
  Water water;
  water.alkalinityMeqPerL = 0;
  water.remarks.push_back(WaterRemark::Pure);
  return water;
}

Result<Water> normaliseWater(const WaterReport& report) {
  if (const auto problem = checkMeters(report)) return *problem;
  Water water;
  water.conductivityMsPerCm = report.conductivityMsPerCm;
  water.ph = report.ph;
  water.temperatureCelsius = report.temperatureCelsius;
  Reading reading;
  for (const auto& row : report.milligramsPerLitre) {
    if (const auto problem = readRow(reading, row)) return *problem;
  }
  if (report.milligramsPerLitre.empty()) {
    water.compositionKnown = false;
    water.remarks.push_back(report.conductivityMsPerCm ? WaterRemark::OnlyConductivity
                                                       : WaterRemark::CompositionUnknown);
    return water;
  }
  settleNitrogen(reading, report.milligramsPerLitre, water);
  settleAlkalinity(reading, water);
  settleHardness(reading, water);
  water.milligramsPerLitre = reading.amounts;
  checkBalance(water);
  return water;
}

std::vector<std::string> waterKeys() {
  std::vector<std::string> keys;
  for (const auto nutrient : allNutrients)
    keys.emplace_back(nutrientKey(nutrient));
  for (const auto& form : statedForms)
    keys.emplace_back(form.key);
  for (const char* key : {"HCO3", "CO3", "alkalinity_as_CaCO3", "hardness_as_CaCO3"})
    keys.emplace_back(key);
  return keys;
}

} // namespace butte::core
