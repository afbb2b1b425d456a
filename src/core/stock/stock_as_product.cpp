#include "stock/stock_as_product.h"

namespace butte::core {

StockLabel stockAsProduct(const std::vector<ShelfProduct>& shelf, const TankContent& content) {
  constexpr double leastPercent = 1e-4;
  NutrientAmounts gramsPerLitre;
  for (const auto& item : content.items)
    gramsPerLitre.addScaled(shelf[item.product].composition.massFraction, item.strength.gramsPerLitre());
  gramsPerLitre.addScaled(content.lostMgPerLitreOfFeed, -content.factor / 1000);
  StockLabel out;
  out.densityKgPerLitre = content.densityKgPerLitre;
  for (const auto n : allNutrients) {
    if (n == Nutrient::N) continue; // the sum; its forms stand for themselves
    const double percent = gramsPerLitre.of(n) / (content.densityKgPerLitre * 10);
    if (percent > leastPercent) out.percentByMass.emplace_back(std::string(nutrientKey(n)), percent);
  }
  return out;
}

} // namespace butte::core
