#pragma once
#include "book/record.h"
#include "formula_document.h"

#include <map>
#include <optional>
#include <string>

namespace butte::book {

/// A kept formula, worked out again.
struct ComputedFormula {
  exchange::FormulaDocument document;
  core::Answer answer;

  double litres() const { return document.given.request.volume.litres(); }
  std::string nameOf(const std::string& productId) const;
  /// Grams in 1000 L of feed of each product that is used.
  std::map<std::string, double> gramsPer1000() const;
  const core::ShelfProduct* product(const std::string& id) const;
};

/// Nothing where it does not read or has no answer.
std::optional<ComputedFormula> computed(const Json& formula);

} // namespace butte::book
