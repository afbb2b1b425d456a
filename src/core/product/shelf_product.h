#pragma once
#include "product/product.h"
#include "units/quantity.h"

#include <optional>
#include <string>

namespace butte::core {

/// A product as it takes part in one formula: what it is, what it costs, how far it may go.
struct ShelfProduct {
  std::string id;
  std::string name;
  Composition composition;
  bool liquid = false;
  std::optional<double> densityKgPerL;
  std::optional<double> pricePerKg;  ///< in whatever currency the grower uses
  std::optional<Mass> levelTeaspoon; ///< of a dry product, the mean of ten that the grower weighed
  Mass least;                        ///< in the batch volume
  std::optional<Mass> most;
  std::optional<Mass> locked; ///< a weight the grower holds; the rest is solved around it
};

inline bool isAcidOrBase(const ShelfProduct& p) {
  return p.composition.role == ProductRole::Acid || p.composition.role == ProductRole::Base;
}

} // namespace butte::core
