#include "water/verdict.h"

#include "base/csv.h"
#include "base/embedded.h"
#include "chem/ions.h"
#include "chem/substance.h"
#include "product/oxides.h"
#include "units/constants.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

struct Figure {
  std::optional<double> value;
  double plusMinus = 0;
  std::optional<Nutrient> nutrient; ///< the element behind it
  double elementShare = 1;          ///< mg of the element per mg of the property
};

Figure ofNutrient(const Water& water, Nutrient n, double share) {
  Figure out;
  out.nutrient = n;
  out.elementShare = share;
  const bool estimated = water.plusMinusMgPerL.of(n) > 0;
  if (!water.measured[static_cast<std::size_t>(n)] && !estimated && !holdsNothing(water)) return out;
  out.value = water.milligramsPerLitre.of(n) / share;
  out.plusMinus = water.plusMinusMgPerL.of(n) / share;
  return out;
}

Figure hardness(const Water& water) {
  const auto ca = ofNutrient(water, Nutrient::Ca, 1), mg = ofNutrient(water, Nutrient::Mg, 1);
  Figure out;
  if (!ca.value || !mg.value) return out;
  const auto ions = ionBalance(water.milligramsPerLitre, 0);
  out.value = (ions.of(Ion::Ca) + ions.of(Ion::Mg)) * constant::milligramsCaCO3PerMeq;
  return out;
}

Figure figureOf(const Water& water, const std::string& property) {
  Figure out;
  if (property == "EC") {
    out.value = water.conductivityMsPerCm;
  } else if (property == "pH") {
    out.value = water.ph;
  } else if (property == "SAR") {
    out.value = sodiumAdsorptionRatio(water);
  } else if (property == "alkalinity_as_CaCO3") {
    if (water.alkalinityMeqPerL) out.value = *water.alkalinityMeqPerL * constant::milligramsCaCO3PerMeq;
    out.plusMinus = water.alkalinityPlusMinusMeqPerL * constant::milligramsCaCO3PerMeq;
  } else if (property == "HCO3") { // below pH 8.3 all alkalinity but a hundredth is bicarbonate
    const double milligramsPerMeq = substanceNamed("HCO3")->molarMassGPerMol;
    if (water.alkalinityMeqPerL) out.value = std::max(0.0, *water.alkalinityMeqPerL) * milligramsPerMeq;
    out.plusMinus = water.alkalinityPlusMinusMeqPerL * milligramsPerMeq;
  } else if (property == "hardness_as_CaCO3") {
    return hardness(water);
  } else if (const auto extra = waterExtraFromKey(property)) {
    out.value = water.extras[static_cast<std::size_t>(*extra)];
  } else if (const auto nutrient = nutrientFromKey(property)) {
    return ofNutrient(water, *nutrient, 1);
  } else if (const auto form = statedFormFor(property)) {
    return ofNutrient(water, form->nutrient, elementShare(*form));
  }
  return out;
}

VerdictLevel levelOf(double value, const WaterLimit& limit) {
  return value <= limit.fineBelow      ? VerdictLevel::Fine
         : value <= limit.tooHighAbove ? VerdictLevel::Watch
                                       : VerdictLevel::TooHigh;
}

/// The highest the target's band lets the element stand; nothing where the target does not ask for it.
std::optional<double> mostWanted(const std::vector<TargetRow>& target, Nutrient nutrient) {
  for (const auto& row : target) {
    if (row.nutrient == nutrient && row.milligramsPerLitre > 0)
      return row.milligramsPerLitre * (1 + row.tolerancePercent / 100);
  }
  return std::nullopt;
}

Verdict judge(const Water& water, const WaterLimit& limit, GrowingSystem system,
              const std::vector<TargetRow>& target) {
  const auto figure = figureOf(water, limit.property);
  Verdict out;
  out.property = limit.property;
  out.unit = limit.unit;
  out.value = figure.value;
  out.plusMinus = figure.plusMinus;
  out.limit = &limit;
  out.level = out.atWorst = VerdictLevel::NotMeasured;
  if (!figure.value) return out;
  const bool onRoots = limit.use == "root"; // a target says what roots shall have, not what leaves bear
  const auto wanted = figure.nutrient && onRoots ? mostWanted(target, *figure.nutrient) : std::nullopt;
  const auto judged = [&](double value) {
    auto level = levelOf(value, limit);
    if (!wanted) return level;
    if (value * figure.elementShare > *wanted) return VerdictLevel::TooHigh;
    // An open system drains what is left over: what the target can hold is no harm.
    return system == GrowingSystem::Open && level == VerdictLevel::TooHigh ? VerdictLevel::Watch : level;
  };
  out.level = judged(*figure.value);
  out.atWorst = judged(*figure.value + figure.plusMinus);
  if (wanted && *figure.value * figure.elementShare > *wanted) out.targetMgPerL = *wanted;
  return out;
}

bool sameCrop(const std::string& row, std::string crop) {
  std::transform(crop.begin(), crop.end(), crop.begin(), [](unsigned char c) { return std::tolower(c); });
  return crop.find(row) != std::string::npos;
}

int rank(const Verdict& verdict) {
  switch (verdict.level) {
  case VerdictLevel::TooHigh:
    return 0;
  case VerdictLevel::Watch:
    return 1;
  case VerdictLevel::Fine:
    return verdict.atWorst == VerdictLevel::Fine ? 3 : 2;
  case VerdictLevel::NotMeasured:
    return 4;
  }
  return 4;
}

} // namespace

const std::vector<WaterLimit>& waterLimits() {
  static const std::vector<WaterLimit> limits = [] {
    const CsvTable table(embedded::water_limits());
    std::vector<WaterLimit> out;
    for (std::size_t r = 0; r < table.rowCount(); ++r) {
      const auto text = [&](const char* column) { return table.cell(r, column); };
      out.push_back({text("property"), text("unit"), text("system"), text("use"), text("crop"),
                     table.number(r, "fine_below").value_or(0), table.number(r, "too_high_above").value_or(0),
                     text("why"), text("what_to_do"), text("note"), text("source"), text("confidence")});
    }
    return out;
  }();
  return limits;
}

std::optional<double> sodiumAdsorptionRatio(const Water& water) {
  const auto known = [&](Nutrient n) { return ofNutrient(water, n, 1).value.has_value(); };
  if (!known(Nutrient::Na) || !known(Nutrient::Ca) || !known(Nutrient::Mg)) return std::nullopt;
  const auto ions = ionBalance(water.milligramsPerLitre, 0);
  const double hard = (ions.of(Ion::Ca) + ions.of(Ion::Mg)) / 2;
  return hard > 0.01 ? std::optional(ions.of(Ion::Na) / std::sqrt(hard)) : std::nullopt;
}

std::vector<Verdict> verdictsOn(const Water& water, const WaterUse& use,
                                const std::vector<TargetRow>& target) {
  const std::string systemName = use.system == GrowingSystem::Open ? "open" : "recirculating";
  std::vector<const WaterLimit*> rows; // one a property: the crop's own row goes before the general one
  const auto find = [&](const std::string& property) {
    return std::find_if(rows.begin(), rows.end(),
                        [&](const WaterLimit* row) { return row->property == property; });
  };
  for (const auto& limit : waterLimits()) {
    if (limit.system != systemName || limit.use != "root") continue;
    if (!limit.crop.empty() && !sameCrop(limit.crop, use.crop)) continue;
    const auto it = find(limit.property);
    if (it == rows.end())
      rows.push_back(&limit);
    else if ((*it)->crop.empty() && !limit.crop.empty())
      *it = &limit;
  }
  for (const auto& limit : waterLimits()) { // poisons are listed once, for both systems
    if (limit.use == "root" && limit.crop.empty() && find(limit.property) == rows.end())
      rows.push_back(&limit);
  }
  for (const auto& limit : waterLimits()) { // leaves are the same in both systems
    if (use.onLeaves && limit.use == "overhead") rows.push_back(&limit);
  }
  std::vector<Verdict> out;
  for (const auto* limit : rows)
    out.push_back(judge(water, *limit, use.system, target));
  std::stable_sort(out.begin(), out.end(),
                   [](const Verdict& a, const Verdict& b) { return rank(a) < rank(b); });
  return out;
}

} // namespace butte::core
