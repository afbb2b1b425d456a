#pragma once
#include "book/shelf_book.h"
#include "shelf/shelf_costs.h"
#include "verb_json.h"

/// What the verbs over a book share.
namespace butte::cli {

struct OpenShelf {
  std::unique_ptr<book::Store> store;
  book::ShelfBook shelf;
  core::ShelfAccount account;
};
/// Errors: those of book::openStore().
core::Result<OpenShelf> openShelf(const std::string& path);

/// A date or a time; `otherwise` where it is empty. Error: OutOfRange at `where`.
core::Result<book::Moment> momentFrom(const std::string& text, const char* where, book::Moment otherwise);

Json moneyArray(const std::vector<core::Money>& money);
/// {paid, today, unpriced_kg}
Json costObject(const core::BatchCost& cost);

} // namespace butte::cli
