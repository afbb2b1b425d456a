#include "water/water_plan.h"

#include "base/decimal.h"

namespace butte::core {
namespace {

void treat(const Treatment& treatment, PartAnswer& part) {
  part.treated = part.raw;
  if (const auto* plant = std::get_if<ReverseOsmosis>(&treatment)) {
    auto permeate = throughMembrane(part.raw, *plant);
    part.wasteLitresPerLitre = permeate.wasteLitresPerLitre * part.share;
    part.treated = std::move(permeate.water);
    part.concentrate = std::move(permeate.concentrate);
  } else if (const auto* softener = std::get_if<Softener>(&treatment)) {
    part.treated = softened(part.raw, softener->hardnessLeftMeqPerL);
  }
}

bool saysNothing(const TypedReport& report) {
  return report.rows.empty() && !report.conductivityMsPerCm && !report.estimateTheRest;
}

/// A blend of one is that water, remarks and all.
Water together(const std::vector<PartAnswer>& parts) {
  if (parts.size() == 1) return parts.front().treated;
  std::vector<BlendPart> blend;
  for (const auto& part : parts)
    blend.push_back({part.treated, part.share});
  return blended(blend);
}

} // namespace

Result<WaterPlanAnswer> planWater(const WaterPlan& plan) {
  WaterPlanAnswer out;
  double whole = 0;
  for (const auto& part : plan.parts)
    whole += part.share;
  if (plan.parts.size() > 1 && !(whole > 0))
    return problemAt(ProblemCode::OutOfRange, "parts", {decimalText(whole), "shares above 0"});
  for (std::size_t i = 0; i < plan.parts.size(); ++i) {
    const auto& part = plan.parts[i];
    PartAnswer answer;
    answer.share = plan.parts.size() == 1 ? 1 : part.share / whole;
    if (saysNothing(part.report)) {
      answer.raw = pureWater();
    } else {
      auto water = waterOf(part.report);
      if (!water) {
        auto problem = water.problem();
        if (plan.parts.size() > 1) problem.where = "parts[" + std::to_string(i) + "]." + problem.where;
        return problem;
      }
      answer.raw = std::move(water).value();
    }
    treat(part.treatment, answer);
    out.parts.push_back(std::move(answer));
  }
  out.blend = out.parts.empty() ? pureWater() : together(out.parts);
  out.water = out.blend;
  if (!plan.acid) return out;
  const auto acid = acidified(out.blend, plan.acid->product, plan.acid->alkalinityLeftMeqPerL);
  if (!acid) {
    out.acidProblem = acid.problem();
    return out;
  }
  out.water = acid->water;
  out.acidGramsPerLitre = acid->gramsPerLitre;
  return out;
}

} // namespace butte::core
