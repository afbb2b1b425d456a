#pragma once
#include "shelf/need.h"
#include "shelf/order_list.h"
#include "shelf_book.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace butte::book {

/// A formula that has a feed per day.
struct PlannedFormula {
  std::string name;
  std::string mixedOn;            ///< the day that was typed, ISO; empty: none
  std::optional<double> fillDays; ///< until the first of its tanks is empty
};

/// What the formulas that have a feed per day take of each product.
struct PlannedFeed {
  std::map<std::string, PlannedFormula>
      formulas; ///< by uid: what was mixed of them is no use beside the plan
  std::map<std::string, core::Mass> perDay;
};
/// Works each of them out: some milliseconds a formula.
core::Result<PlannedFeed> plannedFeed(Store& store);

/// Bags of one size that one supplier has, at the newest price.
struct Offer {
  std::size_t lot = 0; ///< index into the lots: where the price is from
  core::BagOffer bag;
  std::optional<int> leadDays;
};

/// How a product stands, what is needed of it and what to buy.
struct ProductOutlook {
  std::string id, name;
  std::vector<std::size_t> lots; ///< indices into the lots, the oldest first; offers are none
  core::Mass left;
  core::UseRate rate; ///< of the last weeks
  core::Need need;    ///< of the weeks asked for
  /// Till it runs out at the use ahead; nothing where none is used, or it does longer than two years.
  std::optional<double> weeksLeft;
  core::Mass missing; ///< of the upper end of the need; zero where the shelf does
  std::vector<Offer> offers;
  std::optional<core::BagOrder> order; ///< parallel to the offers; nothing where none is known
  /// Days until it must be ordered, by the longest lead time of what is ordered; 0: now or already too late.
  std::optional<double> orderWithinDays;

  /// The shelf won't do for the weeks asked for.
  bool isWanted() const { return need.from != core::NeedFrom::Nothing && missing > core::Mass(); }
};

struct OutlookAsked {
  Moment now;
  int weeks = 8;        ///< that the shelf is to do
  std::string currency; ///< orders are compared in it; empty: that of the newest price
};

/// Every product that was bought or used, the first to run out in front; those never used at the end, by
/// name.
std::vector<ProductOutlook> shelfOutlook(const ShelfBook& shelf, const core::ShelfAccount& account,
                                         const PlannedFeed& plan, const OutlookAsked& asked);

/// The currency that prices are compared in where nobody chose: that of the newest price; empty without any.
std::string currencyOf(const ShelfBook& shelf);

} // namespace butte::book
