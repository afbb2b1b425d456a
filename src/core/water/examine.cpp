#include "water/examine.h"

#include "chem/ions.h"
#include "units/constants.h"
#include "water/estimate.h"
#include "water/rereading.h"
#include "water/water_solutes.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double meqPerMgCaCO3 = 1 / constant::milligramsCaCO3PerMeq;
// Two statements of one thing in a report, rounding apart.
constexpr double rounding = 0.05;
constexpr double conductivityTolerance = 0.1; // Standard Methods 1030 E, from memory
/// Below this a meter's doubt is as large as the water (common practice).
constexpr double readableMsPerCm = 0.08;

const ReportRow* rowOf(const TypedReport& report, std::string_view key) {
  const auto it = std::find_if(report.rows.begin(), report.rows.end(),
                               [&](const ReportRow& row) { return row.key == key; });
  return it == report.rows.end() ? nullptr : &*it;
}

std::optional<double> statedMilligrams(const TypedReport& report, std::string_view key) {
  const auto* row = rowOf(report, key);
  if (!row || row->below) return std::nullopt;
  const auto mg = milligramsPerLitre(*row);
  return mg ? std::optional(*mg) : std::nullopt;
}

bool farApart(double a, double b) {
  return std::abs(a - b) > rounding * std::max(std::abs(a), std::abs(b));
}

/// Enough of the main ions that a balance means something: one of either side may be the one that is missing.
bool bothSides(const Water& water) {
  const auto has = [&](Nutrient n) { return static_cast<int>(water.measured[static_cast<std::size_t>(n)]); };
  const int cations = has(Nutrient::Ca) + has(Nutrient::Mg) + has(Nutrient::Na);
  const int anions = has(Nutrient::Cl) + has(Nutrient::S) + water.alkalinityMeqPerL.has_value();
  return cations >= 2 && anions >= 2;
}

void checkHardness(const TypedReport& report, const IonBalance& ions, const Water& water, Examination& out) {
  const auto hardness = statedMilligrams(report, "hardness_as_CaCO3");
  const bool both = water.measured[static_cast<std::size_t>(Nutrient::Ca)] &&
                    water.measured[static_cast<std::size_t>(Nutrient::Mg)];
  if (!hardness || !both) return;
  const double found = (ions.of(Ion::Ca) + ions.of(Ion::Mg)) / meqPerMgCaCO3;
  if (farApart(*hardness, found) && std::abs(*hardness - found) > 5)
    out.doubts.push_back({WaterDoubt::HardnessDisagrees, {*hardness, found}});
}

void checkAlkalinity(const TypedReport& report, const Water& water, Examination& out) {
  const auto asCaCO3 = statedMilligrams(report, "alkalinity_as_CaCO3");
  const auto bicarbonate = statedMilligrams(report, "HCO3");
  if (asCaCO3 && bicarbonate) {
    const double fromIons = *water.alkalinityMeqPerL / meqPerMgCaCO3;
    if (farApart(*asCaCO3, fromIons) && std::abs(*asCaCO3 - fromIons) > 3)
      out.doubts.push_back({WaterDoubt::AlkalinityDisagrees, {*asCaCO3, fromIons}});
  }
  if (water.ph && water.alkalinityMeqPerL) {
    // Alkalinity is titrated down to about pH 4.5: below it there is none. Above 10 no source water stands.
    const double alkalinity = *water.alkalinityMeqPerL;
    const bool sourButAlkaline = *water.ph < 4.5 && alkalinity > 0.2;
    const bool softButSharp = *water.ph > 9.5 && alkalinity < 0.2;
    if (sourButAlkaline || softButSharp || waterSolutes(water).phContradicts)
      out.doubts.push_back({WaterDoubt::AlkalinityAgainstPh, {alkalinity, *water.ph}});
  }
}

/// Calculated dissolved solids, mg/L: 0.6 of the alkalinity as CaCO3 (the rest leaves as gas when the sample
/// is dried) and all other ions; Standard Methods 1030 E, from memory.
double dissolvedSolids(const Water& water) {
  double sum = 0.6 * water.alkalinityMeqPerL.value_or(0) / meqPerMgCaCO3;
  for (const auto n : {Nutrient::Ca, Nutrient::Mg, Nutrient::Na, Nutrient::K, Nutrient::Cl})
    sum += water.milligramsPerLitre.of(n);
  sum += water.milligramsPerLitre.of(Nutrient::S) * *milligramsPerMillimole("SO4") /
         *milligramsPerMillimole("S");
  sum += water.milligramsPerLitre.of(Nutrient::NNitrate) * *milligramsPerMillimole("NO3") /
         *milligramsPerMillimole("N_NO3");
  return sum + water.milligramsPerLitre.of(Nutrient::Si) * *milligramsPerMillimole("SiO2") /
                   *milligramsPerMillimole("Si");
}

void checkSums(const Water& water, Examination& out) {
  const auto solids = water.extras[static_cast<std::size_t>(WaterExtra::DissolvedSolids)];
  const double sum = dissolvedSolids(water);
  if (solids && sum > 20 && (*solids < 0.9 * sum || *solids > 1.25 * sum))
    out.doubts.push_back({WaterDoubt::SolidsDisagree, {*solids, sum}});
  const auto computed = out.conductivityComputedMsPerCm;
  if (!water.conductivityMsPerCm || !computed) return;
  const double read = *water.conductivityMsPerCm;
  if (std::max(read, *computed) > readableMsPerCm &&
      std::abs(read - *computed) > conductivityTolerance * read)
    out.doubts.push_back({WaterDoubt::ConductivityDisagrees, {read, *computed}});
}

void checkKind(const TypedReport& report, const IonBalance& ions, const Water& water, Examination& out) {
  const auto has = [&](Nutrient n) { return water.measured[static_cast<std::size_t>(n)]; };
  const double hardness = ions.of(Ion::Ca) + ions.of(Ion::Mg), sodium = ions.of(Ion::Na);
  const bool hard = has(Nutrient::Ca) && has(Nutrient::Mg);
  // Ion exchange leaves sodium bicarbonate: natural waters that rich in it carry their hardness too.
  if (hard && has(Nutrient::Na) && sodium > 1.5 && hardness < 0.2 * sodium &&
      water.alkalinityMeqPerL.value_or(0) > 2 * hardness)
    out.doubts.push_back({WaterDoubt::Softened, {hardness, sodium}});
  // From kits: alkalinity without its hardness has sodium beside it.
  const auto kit = statedMilligrams(report, "hardness_as_CaCO3");
  const double alkalinity = water.alkalinityMeqPerL.value_or(0);
  if (kit && !hard && alkalinity > 1.5 && *kit * meqPerMgCaCO3 < 0.2 * alkalinity)
    out.doubts.push_back({WaterDoubt::Softened, {*kit * meqPerMgCaCO3, alkalinity - *kit * meqPerMgCaCO3}});
  if (hard && ions.of(Ion::Mg) > ions.of(Ion::Ca) && hardness > 1)
    out.doubts.push_back({WaterDoubt::MagnesiumAboveCalcium, {ions.of(Ion::Mg), ions.of(Ion::Ca)}});
  const bool nearlyPure = water.conductivityMsPerCm
                              ? *water.conductivityMsPerCm < 0.03
                              : water.compositionKnown && hardness + sodium < 0.2 && alkalinity < 0.2;
  if (water.ph && nearlyPure) out.doubts.push_back({WaterDoubt::PhOfPureWater, {*water.ph}});
}

} // namespace

Result<Water> waterOf(const TypedReport& report) {
  WaterReport plain;
  plain.conductivityMsPerCm = report.conductivityMsPerCm;
  plain.ph = report.ph;
  plain.temperatureCelsius = report.temperatureCelsius;
  for (const auto& row : report.rows) {
    const auto mg = milligramsPerLitre(row);
    if (!mg) return mg.problem();
    plain.milligramsPerLitre.emplace_back(row.key, *mg);
    if (row.below) plain.below.insert(row.key);
  }
  auto normal = normaliseWater(plain);
  if (!normal || !report.estimateTheRest) return normal;
  auto water = std::move(normal).value();
  estimateRest(water);
  return water;
}

Result<Examination> examineReport(const TypedReport& report) {
  auto asMeasured = report;
  asMeasured.estimateTheRest = false; // a guess proves nothing
  const auto water = waterOf(asMeasured);
  if (!water) return water.problem();
  Examination out;
  const auto ions = ionBalance(water->milligramsPerLitre, water->alkalinityMeqPerL.value_or(0));
  out.cationsMeqPerL = ions.cationsMeqPerL();
  out.anionsMeqPerL = ions.anionsMeqPerL();
  out.allowedMeqPerL = allowedImbalanceMeqPerL(out.cationsMeqPerL, out.anionsMeqPerL);
  const bool whole = bothSides(*water);
  if (whole) out.conductivityComputedMsPerCm = computedConductivityMsPerCm(*water);
  const bool balances = std::abs(out.cationsMeqPerL - out.anionsMeqPerL) <= out.allowedMeqPerL;
  if (whole && !balances)
    out.doubts.push_back(
        {WaterDoubt::ChargeUnbalanced, {out.cationsMeqPerL, out.anionsMeqPerL, out.allowedMeqPerL}});
  checkSums(*water, out);
  checkHardness(report, ions, *water, out);
  checkAlkalinity(report, *water, out);
  checkKind(report, ions, *water, out);
  const bool metersDoubt = std::any_of(out.doubts.begin(), out.doubts.end(), [](const DoubtFound& d) {
    return d.doubt == WaterDoubt::ConductivityDisagrees;
  });
  if (whole && (!balances || metersDoubt)) out.rereadings = rereadingsOf(asMeasured);
  return out;
}

} // namespace butte::core
