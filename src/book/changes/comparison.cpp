#include "changes/comparison.h"

#include "changes/computed_formula.h"
#include "words.h"

#include <map>

namespace butte::book {

FormulaComparison compareFormulas(const Json& left, const Json& right) {
  FormulaComparison out;
  const auto a = computed(left), b = computed(right);
  std::vector<std::string> order;
  std::map<std::string, ComparedRow> products;
  const auto collect = [&](const std::optional<ComputedFormula>& side,
                           std::optional<double> ComparedRow::*where) {
    if (!side) return;
    const auto grams = side->gramsPer1000();
    for (const auto& entry : side->document.given.request.shelf) {
      const auto used = grams.find(entry.id);
      if (used == grams.end()) continue;
      if (!products.contains(entry.id)) {
        order.push_back(entry.id);
        products[entry.id].name = entry.name;
      }
      products[entry.id].*where = used->second;
    }
  };
  collect(a, &ComparedRow::left);
  collect(b, &ComparedRow::right);
  for (const auto& id : order)
    out.products.push_back(products[id]);
  for (const auto nutrient : core::allNutrients) {
    ComparedRow row{words::nutrientSymbol(nutrient), {}, {}};
    if (a) row.left = a->answer.feed.milligramsPerLitre.of(nutrient);
    if (b) row.right = b->answer.feed.milligramsPerLitre.of(nutrient);
    if (row.left.value_or(0) > 1e-6 || row.right.value_or(0) > 1e-6) out.elements.push_back(row);
  }
  if (a) out.leftEc = a->answer.feed.conductivity.milliSiemensPerCm();
  if (b) out.rightEc = b->answer.feed.conductivity.milliSiemensPerCm();
  return out;
}

} // namespace butte::book
