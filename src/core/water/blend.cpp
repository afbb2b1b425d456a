#include "water/blend.h"

#include "base/decimal.h"
#include "solution/equilibrium.h"
#include "units/constants.h"
#include "water/water_solutes.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

constexpr double littleAlkalinity = 0.02; // meq/L; below it a part has no say in the blend's pH

double sumOfShares(const std::vector<BlendPart>& parts) {
  double sum = 0;
  for (const auto& part : parts)
    sum += part.share;
  return sum;
}

/// pH of the mixture, where it follows.
std::optional<double> phOf(const std::vector<BlendPart>& parts, const Water& out) {
  Solutes sum;
  const double whole = sumOfShares(parts);
  for (const auto& part : parts) {
    if (part.share <= 0) continue;
    const bool counts = part.water.alkalinityMeqPerL.value_or(0) > littleAlkalinity;
    if (counts && !part.water.ph) return std::nullopt;
    sum.addScaled(waterSolutes(part.water).perLitre, part.share / whole);
  }
  EquilibriumConditions conditions;
  conditions.temperature = temperatureOf(out);
  const auto settled = equilibrate(sum.scaled(1 / constant::freshWaterKgPerLitre), conditions);
  return settled ? std::optional(settled->ph) : std::nullopt;
}

std::optional<double> weighted(const std::vector<BlendPart>& parts, std::optional<double> Water::*figure) {
  double sum = 0;
  for (const auto& part : parts) {
    if (part.share <= 0) continue;
    if (!(part.water.*figure)) return std::nullopt;
    sum += *(part.water.*figure) * part.share;
  }
  return sum / sumOfShares(parts);
}

void addExtras(const std::vector<BlendPart>& parts, Water& out) {
  const double whole = sumOfShares(parts);
  for (std::size_t i = 0; i < waterExtraCount; ++i) {
    double sum = 0;
    bool known = true;
    for (const auto& part : parts) {
      if (part.share <= 0 || holdsNothing(part.water)) continue;
      known = known && part.water.extras[i].has_value();
      sum += part.water.extras[i].value_or(0) * part.share / whole;
    }
    if (known) out.extras[i] = sum;
  }
}

} // namespace

Water blended(const std::vector<BlendPart>& parts) {
  Water out;
  const double whole = sumOfShares(parts);
  out.measured.fill(true);
  for (const auto& [water, share] : parts) {
    if (share <= 0) continue;
    out.milligramsPerLitre.addScaled(water.milligramsPerLitre, share / whole);
    out.plusMinusMgPerL.addScaled(water.plusMinusMgPerL, share / whole);
    out.alkalinityPlusMinusMeqPerL += water.alkalinityPlusMinusMeqPerL * share / whole;
    out.compositionKnown = out.compositionKnown && water.compositionKnown;
    for (std::size_t i = 0; i < nutrientCount; ++i)
      out.measured[i] = out.measured[i] && (water.measured[i] || holdsNothing(water));
    for (const auto remark : water.remarks) {
      if (remark != WaterRemark::Pure &&
          std::find(out.remarks.begin(), out.remarks.end(), remark) == out.remarks.end())
        out.remarks.push_back(remark);
    }
  }
  out.alkalinityMeqPerL = weighted(parts, &Water::alkalinityMeqPerL);
  out.temperatureCelsius = weighted(parts, &Water::temperatureCelsius);
  auto metered = parts;
  for (auto& part : metered) {
    if (holdsNothing(part.water)) part.water.conductivityMsPerCm = part.water.conductivityMsPerCm.value_or(0);
  }
  out.conductivityMsPerCm = weighted(metered, &Water::conductivityMsPerCm);
  addExtras(parts, out);
  if (out.compositionKnown && out.alkalinityMeqPerL) out.ph = phOf(parts, out);
  return out;
}

std::optional<double> amountOf(BlendGoal goal, const Water& water) {
  const auto nutrient = [&](Nutrient n) {
    const bool known =
        water.compositionKnown && (water.measured[static_cast<std::size_t>(n)] || holdsNothing(water));
    return known ? std::optional(water.milligramsPerLitre.of(n)) : std::nullopt;
  };
  switch (goal) {
  case BlendGoal::Alkalinity:
    return water.alkalinityMeqPerL;
  case BlendGoal::Conductivity:
    return holdsNothing(water) ? std::optional(water.conductivityMsPerCm.value_or(0))
                               : water.conductivityMsPerCm;
  case BlendGoal::Sodium:
    return nutrient(Nutrient::Na);
  case BlendGoal::Chloride:
    return nutrient(Nutrient::Cl);
  case BlendGoal::Calcium:
    return nutrient(Nutrient::Ca);
  }
  return std::nullopt;
}

Result<double> largestShare(const std::vector<BlendPart>& parts, std::size_t index, const BlendLimit& limit) {
  double others = 0, sumOfOthers = 0, shares = 0;
  for (std::size_t i = 0; i < parts.size(); ++i)
    shares += i == index ? 0 : parts[i].share;
  for (std::size_t i = 0; i < parts.size(); ++i) {
    const auto amount = amountOf(limit.goal, parts[i].water);
    const double share = shares > 0 ? parts[i].share : 1; // with none among the others, they count evenly
    if (!amount && (i == index || share > 0))
      return problemAt(ProblemCode::NotDeterminable, "parts[" + std::to_string(i) + "]");
    if (i == index) continue;
    others += share * amount.value_or(0);
    sumOfOthers += share;
  }
  if (sumOfOthers <= 0) return problemAt(ProblemCode::NotDeterminable, "parts");
  const double mine = *amountOf(limit.goal, parts[index].water), rest = others / sumOfOthers;
  if (mine <= limit.atMost && rest <= limit.atMost) return 1.0;
  if (rest > limit.atMost) {
    // This part thins the others: no more of it than it takes, so that the most of them is used.
    if (mine >= limit.atMost)
      return problemAt(ProblemCode::CannotReach, "limit", {decimalText(limit.atMost)});
    return (rest - limit.atMost) / (rest - mine);
  }
  return std::clamp((limit.atMost - rest) / (mine - rest), 0.0, 1.0);
}

Water worstOf(const std::vector<Water>& reports) {
  Water out;
  if (reports.empty()) return out;
  out = reports.front();
  const auto higher = [](std::optional<double>& a, const std::optional<double>& b) {
    if (b && (!a || *b > *a)) a = b;
  };
  for (const auto& report : reports) {
    NutrientAmounts worst, range;
    for (const auto n : allNutrients) {
      if (n == Nutrient::N) continue;
      const bool mine = out.milligramsPerLitre.of(n) >= report.milligramsPerLitre.of(n);
      worst.add(n, (mine ? out : report).milligramsPerLitre.of(n));
      range.add(n, (mine ? out : report).plusMinusMgPerL.of(n));
      out.measured[static_cast<std::size_t>(n)] |= report.measured[static_cast<std::size_t>(n)];
    }
    out.milligramsPerLitre = worst;
    out.plusMinusMgPerL = range;
    higher(out.alkalinityMeqPerL, report.alkalinityMeqPerL);
    higher(out.conductivityMsPerCm, report.conductivityMsPerCm);
    higher(out.ph, report.ph);
    for (std::size_t i = 0; i < waterExtraCount; ++i)
      higher(out.extras[i], report.extras[i]);
  }
  // The worst of each stems from different days: that it does not balance says nothing.
  std::erase(out.remarks, WaterRemark::ChargeUnbalanced);
  return out;
}

} // namespace butte::core
