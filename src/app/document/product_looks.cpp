#include "document/product_looks.h"

#include <algorithm>

namespace butte::app {

ProductLook lookIn(const exchange::FormulaDocument& formula, const std::string& productId) {
  auto look = usualLook(productId);
  const auto product = std::find_if(formula.products.begin(), formula.products.end(),
                                    [&](const auto& p) { return p.id == productId; });
  if (product == formula.products.end()) return look;
  if (!product->colour.empty()) look.fill = QColor(QString::fromStdString(product->colour));
  const auto& names = exchange::hatchNames();
  const auto hatch = std::find(names.begin(), names.end(), product->hatch);
  if (hatch != names.end()) look.hatch = static_cast<int>(hatch - names.begin());
  return look;
}

} // namespace butte::app
