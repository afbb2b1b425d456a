#include "target/ratio.h"

#include "chem/atomic_weights.h"

namespace butte::core {
namespace {

/// Charges as in chem/ions.h; metals of the traces as two-valued.
int chargeCount(Nutrient n) {
  switch (n) {
  case Nutrient::Ca:
  case Nutrient::Mg:
  case Nutrient::S:
  case Nutrient::Fe:
  case Nutrient::Mn:
  case Nutrient::Zn:
  case Nutrient::Cu:
    return 2;
  default:
    return 1;
  }
}

} // namespace

double amountPerMilligram(Nutrient nutrient, RatioBasis basis) {
  if (basis == RatioBasis::Mass) return 1;
  const double millimoles = 1 / atomicWeight(elementSymbol(nutrient)).value_or(1);
  return basis == RatioBasis::Moles ? millimoles : chargeCount(nutrient) * millimoles;
}

double ratioSide(const std::vector<Nutrient>& side, RatioBasis basis,
                 const NutrientAmounts& milligramsPerLitre) {
  double sum = 0;
  for (const auto n : side)
    sum += amountPerMilligram(n, basis) * milligramsPerLitre.of(n);
  return sum;
}

std::optional<double> ratioOf(const RatioWish& wish, const NutrientAmounts& milligramsPerLitre) {
  const double below = ratioSide(wish.below, wish.basis, milligramsPerLitre);
  if (below <= 0) return std::nullopt;
  return ratioSide(wish.above, wish.basis, milligramsPerLitre) / below;
}

std::optional<double> ratioDivisor(const std::vector<TargetRow>& rows, const RatioWish& wish) {
  const auto wanted = [&](const std::vector<Nutrient>& side) {
    double sum = 0;
    for (const auto n : side) {
      for (const auto& row : rows) {
        if (row.nutrient == n) sum += amountPerMilligram(n, wish.basis) * row.milligramsPerLitre;
      }
    }
    return sum;
  };
  const double above = wanted(wish.above);
  if (above > 0) return above;
  const double below = wanted(wish.below) * wish.value;
  return below > 0 ? std::optional(below) : std::nullopt;
}

} // namespace butte::core
