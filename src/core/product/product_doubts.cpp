#include "product/product_doubts.h"

#include "base/decimal.h"
#include "chem/formula.h"
#include "chem/ions.h"
#include "product/catalogue.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

/// A label's figures are rounded to a tenth of a percent or so: what is less may be rounding.
constexpr double leastGapMeqPerGram = 0.4, leastGapShare = 0.08;

/// Least mass that can carry one unit of the element in a fertilizer: nitrate as NO3, ammonium as NH4,
/// phosphorus as PO3 (condensed phosphate), sulfur as S2O3 (thiosulfate), the rest as themselves. From the
/// atomic weights (IUPAC, abridged).
double leastMass(const NutrientAmounts& fraction) {
  double sum = 0;
  for (const auto n : allNutrients) {
    const double share = fraction.of(n);
    switch (n) {
    case Nutrient::N:
      break;
    case Nutrient::NNitrate:
      sum += share * 62.004 / 14.007;
      break;
    case Nutrient::NAmmonium:
      sum += share * 18.039 / 14.007;
      break;
    case Nutrient::NUrea:
      sum += share * 60.056 / 28.014;
      break;
    case Nutrient::P:
      sum += share * 78.971 / 30.974;
      break;
    case Nutrient::S:
      sum += share * 56.06 / 32.06;
      break;
    default:
      sum += share;
    }
  }
  return sum;
}

bool sameComposition(const ShelfProduct& a, const ShelfProduct& b) {
  for (const auto n : allNutrients) {
    const double x = a.composition.massFraction.of(n), y = b.composition.massFraction.of(n);
    if (std::abs(x - y) > 0.002 + 0.01 * std::max(x, y)) return false;
  }
  return a.liquid == b.liquid;
}

double labelled(const std::vector<LabelRow>& label, std::string_view key) {
  for (const auto& [name, percent] : label) {
    if (name == key) return percent;
  }
  return 0;
}

/// Of a gram, in meq.
IonBalance ionsOfGram(const ShelfProduct& product) {
  NutrientAmounts perGram;
  perGram.addScaled(product.composition.massFraction, 1000);
  return ionBalance(perGram, 0);
}

} // namespace

double unstatedMeqPerGram(const ShelfProduct& product) {
  if (product.composition.formula || product.composition.role != ProductRole::Salt) return 0;
  const auto ions = ionsOfGram(product);
  const double cations = ions.cationsMeqPerL(), anions = ions.anionsMeqPerL(),
               gap = std::abs(cations - anions);
  return gap > std::max(leastGapMeqPerGram, leastGapShare * std::max(cations, anions)) ? gap : 0;
}

std::vector<ProductDoubtFound> productDoubts(const ShelfProduct& product, const std::vector<LabelRow>& label,
                                             const std::vector<ShelfProduct>& others) {
  std::vector<ProductDoubtFound> found;
  const auto& fraction = product.composition.massFraction;
  const double least = 100 * leastMass(fraction);
  if (least > 101) found.push_back({ProductDoubt::IonsOverHundred, least, {}});
  const auto* same = product.composition.formula ? findSameSubstance(*product.composition.formula) : nullptr;
  if (same && same->id == "can4") found.push_back({ProductDoubt::TetrahydrateTyped, 0, {}});
  // Calcium nitrate of the trade: 14.4 % as nitrate, 1.1 % as ammonium, 19 % Ca (common practice).
  const bool likeDoubleSalt = !label.empty() && fraction.of(Nutrient::N) > 0.148 &&
                              fraction.of(Nutrient::N) < 0.162 && fraction.of(Nutrient::Ca) > 0.17 &&
                              fraction.of(Nutrient::Ca) < 0.21;
  if (likeDoubleSalt && fraction.of(Nutrient::NAmmonium) <= 0)
    found.push_back({ProductDoubt::DoubleSaltWithoutAmmonium, 0, {}});
  if (labelled(label, "P") > 6 && labelled(label, "K") > 15 &&
      labelled(label, "P2O5") + labelled(label, "K2O") <= 0)
    found.push_back({ProductDoubt::GradeAsElements, 0, {}});
  if (unstatedMeqPerGram(product) > 0) {
    const auto ions = ionsOfGram(product);
    found.push_back({ProductDoubt::LabelUnbalanced, ions.cationsMeqPerL(),
                     decimalText(std::round(10 * ions.anionsMeqPerL()) / 10)});
  }
  if (!product.composition.acidityKnown) found.push_back({ProductDoubt::AcidityUnknown, 0, {}});
  for (const auto& other : others) {
    if (other.id != product.id && sameComposition(product, other)) {
      found.push_back({ProductDoubt::SameAsOther, 0, other.name});
      break;
    }
  }
  return found;
}

} // namespace butte::core
