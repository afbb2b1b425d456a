#pragma once
#include "book/shelf_book.h"
#include "shelf/shelf_costs.h"
#include "verb_json.h"

#include <memory>
#include <string>

/// What the verbs over a book share.
namespace butte::cli {

/// A folder of this run alone; gone with it.
class PrivateFolder {
public:
  PrivateFolder();
  ~PrivateFolder();
  PrivateFolder(const PrivateFolder&) = delete;
  PrivateFolder& operator=(const PrivateFolder&) = delete;
  const std::string& path() const { return m_path; }

private:
  std::string m_path;
};

struct OpenShelf {
  std::unique_ptr<PrivateFolder> folder;
  std::unique_ptr<book::Store> store; ///< of a copy: a look leaves nothing beside the book
  book::ShelfBook shelf;
  core::ShelfAccount account;
};
/// Errors: those of book::openSnapshot().
core::Result<OpenShelf> openShelf(const std::string& path);

/// A date or a time; `otherwise` where it is empty. Error: OutOfRange at `where`.
core::Result<book::Moment> momentFrom(const std::string& text, const char* where, book::Moment otherwise);

Json moneyArray(const std::vector<core::Money>& money);
/// {paid, today, unpriced_kg}
Json costObject(const core::BatchCost& cost);

} // namespace butte::cli
