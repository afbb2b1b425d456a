#pragma once
#include "book.h"

#include <memory>
#include <string>

/// Where a book is and who may write in it, put together with the store it is kept in.
namespace butte::book {

/// Opens the book in a file for writing, or as a read-only snapshot when somebody else has it open (see
/// Book::heldBy()).
core::Result<std::unique_ptr<Book>> openBook(const std::string& path, const std::string& snapshotFolder,
                                             bool takeOver = false);
core::Result<std::unique_ptr<Book>> createBook(const std::string& path, const std::string& farm);

} // namespace butte::book
