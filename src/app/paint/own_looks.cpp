#include "paint/own_looks.h"

#include "paint/hatch.h"

#include <algorithm>

namespace butte::app {

void adoptLooks(const exchange::FormulaDocument& formula) {
  setOwnLooks({}); // so that lookOf() gives the program's own below
  std::map<std::string, ProductLook> looks;
  const auto& names = exchange::hatchNames();
  for (const auto& product : formula.products) {
    if (product.colour.empty() && product.hatch.empty()) continue;
    auto look = lookOf(product.id);
    if (!product.colour.empty()) look.fill = QColor(QString::fromStdString(product.colour));
    if (!product.hatch.empty())
      look.hatch = static_cast<int>(std::find(names.begin(), names.end(), product.hatch) - names.begin());
    looks.emplace(product.id, look);
  }
  setOwnLooks(std::move(looks));
}

} // namespace butte::app
