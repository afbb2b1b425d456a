#include "changes/computed_formula.h"

#include "formula_json.h"

namespace butte::book {

std::string ComputedFormula::nameOf(const std::string& productId) const {
  for (const auto& product : document.products) {
    if (product.id == productId) return product.name;
  }
  return productId;
}

std::map<std::string, double> ComputedFormula::gramsPer1000() const {
  std::map<std::string, double> out;
  const auto& shelf = document.given.request.shelf;
  for (std::size_t i = 0; i < shelf.size() && i < answer.solution.grams.size(); ++i) {
    if (answer.solution.grams[i].grams() > 0)
      out[shelf[i].id] = answer.solution.grams[i].grams() * 1000 / litres();
  }
  return out;
}

const core::ShelfProduct* ComputedFormula::product(const std::string& id) const {
  for (const auto& entry : document.given.request.shelf) {
    if (entry.id == id) return &entry;
  }
  return nullptr;
}

std::optional<ComputedFormula> computed(const Json& formula) {
  auto document = exchange::readFormulaDocument(formula);
  if (!document) return std::nullopt;
  auto answer = core::compute(document->given);
  if (!answer) return std::nullopt;
  return ComputedFormula{std::move(document).value(), std::move(answer).value()};
}

} // namespace butte::book
