#include "product/product.h"

#include "base/decimal.h"
#include "product/oxides.h"
#include "product/product_solutes.h"
#include "product/role.h"

#include <map>

namespace butte::core {

Result<Composition> compositionFromFormula(std::string_view text, double purityPercent) {
  auto formula = parseFormula(text);
  if (!formula) return formula.problem();
  if (!(purityPercent > 0 && purityPercent <= 100))
    return problemAt(ProblemCode::OutOfRange, "purity_percent",
                     {decimalText(purityPercent), "above 0, up to 100"});
  if (holdsPhosphite(*formula))
    return problemAt(ProblemCode::PhosphiteNotPhosphate, "formula", {formula->text});
  const double purity = purityPercent / 100;
  Composition out;
  out.massFraction.addScaled(massFractions(*formula), purity);
  out.alkalinityMeqPerGram =
      purity * 1000 * alkalinityEquivalentsPerMole(*formula) / formula->molarMassGPerMol;
  out.hydrateWaterFraction = purity * core::hydrateWaterFraction(*formula);
  out.anhydrousFraction = purity - out.hydrateWaterFraction;
  out.solutesPerGram = solutesOfProduct(out.massFraction, out.alkalinityMeqPerGram, *formula,
                                        purity / formula->molarMassGPerMol);
  out.role = roleOf(*formula);
  out.acidityKnown = isAcidityKnown(*formula);
  // What is not the substance is water in an acid, a base solution or a silicate; in a salt it is dead
  // weight.
  if (out.role != ProductRole::Salt && out.role != ProductRole::Chelate)
    out.hydrateWaterFraction += 1 - purity;
  out.formula = std::move(formula).value();
  out.side = stockSideOf(out);
  return out;
}

namespace {

struct LabelTotals {
  NutrientAmounts forms;
  std::optional<double> totalNitrogen;
  double sumPercent = 0;
};

Result<LabelTotals> readLabel(const std::vector<LabelRow>& label) {
  LabelTotals totals;
  std::map<Nutrient, std::string> seen;
  for (const auto& [key, percent] : label) {
    const auto stated = statedFormFor(key);
    const auto nutrient = nutrientFromKey(key);
    if (!nutrient && !(stated && stated->onLabels)) {
      std::string known;
      for (const auto& k : labelKeys())
        known += (known.empty() ? "" : " ") + k;
      return problemAt(ProblemCode::UnknownKey, "label_percent." + key, {known});
    }
    if (!(percent >= 0 && percent <= 100))
      return problemAt(ProblemCode::OutOfRange, "label_percent." + key, {decimalText(percent), "0 to 100"});
    const auto target = nutrient ? *nutrient : stated->nutrient;
    if (const auto [it, isNew] = seen.emplace(target, key); !isNew)
      return problemAt(ProblemCode::LabelDoubled, "label_percent." + key, {key, it->second});
    totals.sumPercent += percent;
    if (target == Nutrient::N) {
      totals.totalNitrogen = percent / 100;
      totals.sumPercent -= percent; // N holds its forms; counted once below
    } else {
      totals.forms.add(target, percent / 100 * (stated && !nutrient ? elementShare(*stated) : 1));
    }
  }
  return totals;
}

} // namespace

Result<LabelComposition> compositionFromLabel(const std::vector<LabelRow>& label) {
  auto totals = readLabel(label);
  if (!totals) return totals.problem();
  LabelComposition out;
  auto& composition = out.composition;
  composition.massFraction = totals->forms;
  double sumPercent = totals->sumPercent;
  if (totals->totalNitrogen) {
    const double given = totals->forms.of(Nutrient::N);
    const double rest = *totals->totalNitrogen - given;
    if (rest < -0.0005) // half a unit of the usual label digit
      return problemAt(ProblemCode::OutOfRange, "label_percent.N",
                       {decimalText(*totals->totalNitrogen * 100),
                        "at least the sum of its forms, " + decimalText(given * 100)});
    if (rest > 1e-12) {
      composition.massFraction.add(Nutrient::NNitrate, rest);
      sumPercent += rest * 100;
      out.remarks.push_back(given > 0 ? LabelRemark::NitrogenRemainderAsNitrate
                                      : LabelRemark::NitrogenTakenAsNitrate);
    }
  }
  if (sumPercent > 100 + 1e-9)
    return problemAt(ProblemCode::LabelOverHundred, "label_percent", {decimalText(sumPercent)});
  composition.solutesPerGram = solutesOfLabel(composition.massFraction);
  composition.side = stockSideOf(composition);
  return out;
}

std::vector<std::string> labelKeys() {
  std::vector<std::string> keys;
  for (const auto nutrient : allNutrients)
    keys.emplace_back(nutrientKey(nutrient));
  for (const auto& form : statedForms) {
    if (form.onLabels) keys.emplace_back(form.key);
  }
  return keys;
}

} // namespace butte::core
