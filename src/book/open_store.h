#pragma once
#include "store.h"

#include <memory>
#include <string>

namespace butte::book {

enum class OpenFor { Writing, Reading };

/// A book's file is on a folder that other computers share: other rules for its journal then.
bool isOnNetwork(const std::string& path);

/// Whether the file begins as a book does; it may still be another program's or damaged.
bool looksLikeBook(const std::string& path);

/// Opens the book in a file. Errors (the file stays as it is): BookMissing, NotABook, BookNewer, BookDamaged,
/// BookNotWritable. A book of an earlier version is brought forward when opened for writing; the file as it
/// was stays beside it as "NAME.before-vN".
core::Result<std::unique_ptr<Store>> openStore(const std::string& path, OpenFor purpose);

/// A second look at a book that this program has open, for another of its threads: what is kept is seen, and
/// nothing is checked again. To be used, and let go, by the thread that opens it.
core::Result<std::unique_ptr<Store>> openBeside(const std::string& path);

/// Makes an empty book. The file must not exist.
core::Result<std::unique_ptr<Store>> createStore(const std::string& path);

/// A private copy of a book that somebody else has open, to look at.
core::Result<std::unique_ptr<Store>> openSnapshot(const std::string& path, const std::string& privateFolder);

inline constexpr int newestSchema = 6;

} // namespace butte::book
