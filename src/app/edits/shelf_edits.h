#pragma once
#include "base/problem.h"
#include "edits/edits.h"
#include "units/quantity.h"

#include <utility>

namespace butte::app {

/// What a grower types of a product, as it was typed; empty where nothing was.
struct TypedProduct {
  std::string name, formula, purityPercent, densityKgPerL, pricePerKg, bagPrice, contentErrorPercent, code;
  exchange::Amount bag, step, tenTeaspoons;
  std::vector<std::pair<std::string, std::string>> label; ///< key, percent
  bool byFormula = false;                                 ///< own products: else by label
};

/// Edits of a formula's shelf.
class ShelfEdits : public Edits {
public:
  using Edits::Edits;

  void setOn(const std::string& id, bool on);
  /// A weight is held; no digits let the product free. Keys of one burst become one step with `merge`.
  void hold(const std::string& id, const exchange::Amount& weight, bool merge);
  /// A shipped product comes onto the shelf, or is switched on where it stands there already.
  void add(const std::string& catalogueId, const QString& name);
  void remove(const std::string& id);
  /// Weights held at once, by position in the shelf.
  void holdAll(const std::vector<std::pair<std::size_t, exchange::Amount>>& weights);

  TypedProduct typedProduct(const std::string& id) const;
  /// A product's details: price and handling, and for the grower's own its composition. An empty id makes a
  /// new one. What is wrong with it, or nothing.
  std::optional<core::Problem> put(const std::string& id, const TypedProduct& product, bool own);
};

} // namespace butte::app
