#include "water/water.h"

#include "base/decimal.h"
#include "chem/formula.h"
#include "chem/ions.h"
#include "chem/substance.h"
#include "product/oxides.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <string>

namespace butte::core {
namespace {

// Disagreement of two statements of the same thing that is worth a word: beyond rounding of a report's
// digits.
constexpr double disagreement = 0.03;
// Calcium's share of an otherwise unknown hardness, in equivalents: about three quarters (common practice).
constexpr double assumedCalciumShare = 0.75;
constexpr double largestMgPerL = 100000;
constexpr double mostAcidityAsCaCO3 = 5000; // mg/L: a mine's drainage has less (common practice)

constexpr std::array<std::string_view, waterExtraCount> extraKeys{"F",
                                                                  "Al",
                                                                  "As",
                                                                  "Cd",
                                                                  "Cr",
                                                                  "Be",
                                                                  "Co",
                                                                  "Li",
                                                                  "Ni",
                                                                  "Pb",
                                                                  "Se",
                                                                  "V",
                                                                  "TDS",
                                                                  "free_chlorine",
                                                                  "chloramine",
                                                                  "H2S",
                                                                  "suspended_solids"};

struct Reading {
  NutrientAmounts amounts, plusMinus;
  std::array<std::optional<double>, waterExtraCount> extras{};
  std::map<Nutrient, std::string> keyOf;
  std::optional<double> bicarbonate, carbonate, alkalinityAsCaCO3, hardnessAsCaCO3;
  std::set<std::string> below; ///< keys whose figure is a limit of detection: half of it was taken

  bool isBelow(const char* key) const { return below.contains(key); }
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

std::optional<Problem> readFigure(Reading& reading, const WaterRow& row, bool below) {
  const auto& key = row.first;
  const std::string where = "water.analysis_mg_per_l." + key;
  // Below none, alkalinity is what strong acid a water holds.
  const double least = key == "alkalinity_as_CaCO3" ? -mostAcidityAsCaCO3 : 0;
  if (!(row.second >= least && row.second <= largestMgPerL))
    return problemAt(ProblemCode::OutOfRange, where,
                     {decimalText(row.second), least < 0 ? "-5000 to 100000 mg/L" : "0 to 100000 mg/L"});
  // Anything between nothing and the limit of detection: its middle, give or take as much.
  const double value = below ? row.second / 2 : row.second;
  if (below) reading.below.insert(key);
  if (const auto extra = waterExtraFromKey(key)) {
    auto& place = reading.extras[static_cast<std::size_t>(*extra)];
    if (place) return problemAt(ProblemCode::DuplicateKey, where, {key, key});
    place = value;
    return std::nullopt;
  }
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
  const double element = nutrient ? value : value * elementShare(*stated);
  if (target != Nutrient::N) reading.amounts.add(target, element);
  if (target != Nutrient::N && below) reading.plusMinus.add(target, element);
  return std::nullopt;
}

void settleNitrogen(Reading& reading, const std::vector<WaterRow>& rows, Water& water) {
  const auto it = std::find_if(rows.begin(), rows.end(), [](const WaterRow& r) { return r.first == "N"; });
  if (it == rows.end()) return;
  const bool below = reading.isBelow("N");
  const double rest = (below ? it->second / 2 : it->second) - reading.amounts.of(Nutrient::N);
  if (rest <= 0) return;
  reading.amounts.add(Nutrient::NNitrate, rest);
  if (below) reading.plusMinus.add(Nutrient::NNitrate, rest);
  water.remarks.push_back(WaterRemark::NitrogenTakenAsNitrate);
}

/// A limit of detection leaves the alkalinity open as far as it was halved.
void settleRangeOfAlkalinity(const Reading& reading, Water& water) {
  const auto add = [&](const char* key, const std::optional<double>& figure, double meqPerMilligram) {
    if (figure && reading.isBelow(key)) water.alkalinityPlusMinusMeqPerL += *figure * meqPerMilligram;
  };
  add("HCO3", reading.bicarbonate, 1 / molarMass("HCO3"));
  add("CO3", reading.carbonate, 2 / molarMass("CO3"));
  if (!reading.bicarbonate) add("alkalinity_as_CaCO3", reading.alkalinityAsCaCO3, 2 / molarMass("CaCO3"));
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
  settleRangeOfAlkalinity(reading, water);
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
  // With one of the two, hardness states the other.
  if (calcium != magnesium && rest >= -disagreement * total)
    water.measured[static_cast<std::size_t>(calcium ? Nutrient::Mg : Nutrient::Ca)] = true;
  if (rest <= 0 || (calcium && magnesium)) return;
  // A split is a guess: calcium is between six and nine tenths of nearly all hardness (common practice).
  constexpr double splitDoubt = 0.15;
  const bool below = reading.isBelow("hardness_as_CaCO3"); // then each is open as far as it was taken
  if (!calcium && !magnesium) {
    water.remarks.push_back(WaterRemark::HardnessSplitAssumed);
    reading.plusMinus.add(Nutrient::Ca, rest * (below ? assumedCalciumShare : splitDoubt) * perCalcium);
    reading.plusMinus.add(Nutrient::Mg, rest * (below ? 1 - assumedCalciumShare : splitDoubt) * perMagnesium);
    reading.amounts.add(Nutrient::Ca, rest * assumedCalciumShare * perCalcium);
    reading.amounts.add(Nutrient::Mg, rest * (1 - assumedCalciumShare) * perMagnesium);
  } else if (!calcium) {
    reading.amounts.add(Nutrient::Ca, rest * perCalcium);
    if (below) reading.plusMinus.add(Nutrient::Ca, rest * perCalcium);
  } else {
    reading.amounts.add(Nutrient::Mg, rest * perMagnesium);
    if (below) reading.plusMinus.add(Nutrient::Mg, rest * perMagnesium);
  }
}

/// A report with both sides in it should balance; one that states only cations, or only alkalinity, says
/// nothing of it.
void checkBalance(Water& water) {
  const auto ions = ionBalance(water.milligramsPerLitre, water.alkalinityMeqPerL.value_or(0));
  const double anions = ions.anionsMeqPerL();
  const double cations = ions.cationsMeqPerL();
  if (cations <= 0 || anions <= 0) return;
  if (std::abs(cations - anions) > allowedImbalanceMeqPerL(cations, anions))
    water.remarks.push_back(WaterRemark::ChargeUnbalanced);
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

bool holdsNothing(const Water& water) {
  return std::find(water.remarks.begin(), water.remarks.end(), WaterRemark::Pure) != water.remarks.end();
}

std::string_view waterExtraKey(WaterExtra extra) {
  return extraKeys[static_cast<std::size_t>(extra)];
}

std::optional<WaterExtra> waterExtraFromKey(std::string_view key) {
  for (std::size_t i = 0; i < waterExtraCount; ++i) {
    if (extraKeys[i] == key) return static_cast<WaterExtra>(i);
  }
  return std::nullopt;
}

double allowedImbalanceMeqPerL(double cations, double anions) {
  if (anions <= 3) return 0.2;
  return (anions <= 10 ? 0.02 : 0.05) * (cations + anions);
}

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
    const bool below = report.below.contains(row.first);
    if (const auto problem = readFigure(reading, row, below)) return *problem;
  }
  water.extras = reading.extras;
  const bool ions = std::any_of(report.milligramsPerLitre.begin(), report.milligramsPerLitre.end(),
                                [](const WaterRow& row) { return !waterExtraFromKey(row.first); });
  if (!ions) {
    water.compositionKnown = false;
    water.remarks.push_back(report.conductivityMsPerCm ? WaterRemark::OnlyConductivity
                                                       : WaterRemark::CompositionUnknown);
    return water;
  }
  settleNitrogen(reading, report.milligramsPerLitre, water);
  settleAlkalinity(reading, water);
  settleHardness(reading, water);
  water.milligramsPerLitre = reading.amounts;
  water.plusMinusMgPerL = reading.plusMinus;
  for (const auto& [nutrient, key] : reading.keyOf) {
    if (nutrient != Nutrient::N) water.measured[static_cast<std::size_t>(nutrient)] = true;
  }
  if (reading.keyOf.contains(Nutrient::N))
    water.measured[static_cast<std::size_t>(Nutrient::NNitrate)] = true;
  if (!report.below.empty()) water.remarks.push_back(WaterRemark::BelowDetection);
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
  for (const auto key : extraKeys)
    keys.emplace_back(key);
  return keys;
}

} // namespace butte::core
