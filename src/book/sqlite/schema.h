#pragma once
#include "book/sqlite/database.h"

namespace butte::book {

/// Version of the tables in a book; an error when the file is no book or was made by a newer program.
core::Result<int> schemaOf(Database& database);

/// Takes the tables from one version to a later one, all or nothing. From 0 makes an empty book.
Trouble migrate(Database& database, int from, int to);

} // namespace butte::book
