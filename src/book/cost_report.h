#pragma once
#include "shelf/element_prices.h"
#include "shelf/shelf_costs.h"
#include "shelf_book.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::book {

struct ComputedFormula;

/// What something cost: a batch, a crop, a month, a product.
struct CostLine {
  std::string key; ///< the batch's uid, the crop, "2026-05", the product's id
  std::string name;
  Moment at; ///< of a batch
  std::size_t batches = 0;
  double litres = 0; ///< of feed that the batches made
  core::Mass mass;   ///< of products
  core::BatchCost cost;
};

struct CostReport {
  CostLine total;
  std::vector<CostLine> batches;  ///< in the order of time
  std::vector<CostLine> crops;    ///< by name
  std::vector<CostLine> months;   ///< in the order of time (UTC)
  std::vector<CostLine> products; ///< by name
};

struct CostAsked {
  Moment now; ///< whose prices are today's
  std::optional<Moment> from, before;
  std::string crop; ///< empty: all
};

/// What batches cost, by the lots that they really took (first in, first out) and at today's prices. What
/// went into a vessel by its log alone is no batch and is not in it.
CostReport costReport(const ShelfBook& shelf, const core::ShelfAccount& account, const CostAsked& asked);

/// So much money for each `per` litres of the line's feed; nothing where there is none.
std::vector<core::Money> moneyPer(const std::vector<core::Money>& money, double litres, double per);

/// What each element of a formula's target costs from each of its products at these prices, in one currency.
/// Nothing where a wanted element has no priced source.
std::optional<core::ElementPrices> elementPricesOf(const ComputedFormula& formula,
                                                   const std::map<std::string, core::PricePoint>& prices,
                                                   const std::string& currency);
/// What it was asked for, in the order of the answer's marginal prices.
std::vector<core::WantedElement> wantedElements(const ComputedFormula& formula);

} // namespace butte::book
