#pragma once
#include "shelf/shelf_account.h"
#include "shelf_record.h"
#include "store.h"

#include <map>
#include <string>
#include <utility>
#include <vector>

namespace butte::book {

/// Everything of the book that has to do with the shelf, gathered: plain values that may go to another
/// thread.
struct ShelfBook {
  std::vector<std::pair<std::string, Lot>> lots;        ///< by uid, the oldest first
  std::vector<std::pair<std::string, ShelfLine>> lines; ///< by uid, in the order of time
  std::vector<BatchUse> uses;                           ///< in the order of time
  std::vector<core::ShelfLot> coreLots;                 ///< parallel to the lots
  std::vector<core::ShelfEvent> events;     ///< the uses, counts and waste as the account reads them
  std::map<std::string, std::string> names; ///< of each product that was bought or used, by its id

  core::ShelfAccount account() const { return core::shelfAccount(coreLots, events); }
};

/// What is bought, used, counted and thrown away. Uses: what was weighed for batches (as planned where the
/// scale was not asked), and what went into a vessel by a line of its log that no run weighed. A use of a
/// product that is bought under another id but the same name is a use of that.
core::Result<ShelfBook> shelfBook(Store& store);

/// How dry a sample was: the share of the opened bag that is the product as it was bought. 1 where no water
/// came.
double dryShare(const ShelfLine& dried);

} // namespace butte::book
