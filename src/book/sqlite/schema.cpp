#include "sqlite/schema.h"

#include "open_store.h"

#include <QDir>
#include <QtCore/qglobal.h>

// A static library's resources wait to be asked for; the macro works outside of namespaces only.
static void loadMigrations() {
  Q_INIT_RESOURCE(book_schema);
}

#include <tuple>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

namespace {
constexpr std::int64_t applicationId = 0x4274426b; // "BtBk", as in migrations/0001_things.sql
constexpr const char* steps[newestSchema] = {
    ":/book/migrations/0001_things.sql",   ":/book/migrations/0002_batches.sql",
    ":/book/migrations/0003_readings.sql", ":/book/migrations/0004_finding.sql",
    ":/book/migrations/0005_vessels.sql",  ":/book/migrations/0006_marks.sql"};
} // namespace

core::Result<int> schemaOf(Database& database) {
  const auto id = database.single("PRAGMA application_id");
  if (!id) return id.problem();
  const auto where = database.path().toStdString();
  if (id->toLongLong() != applicationId) return problemAt(ProblemCode::NotABook, where);
  const auto version = database.single("PRAGMA user_version");
  if (!version) return version.problem();
  const int found = version->toInt();
  if (found > newestSchema)
    return problemAt(ProblemCode::NewerFormat, where, {std::to_string(found), std::to_string(newestSchema)});
  if (found < 1) return problemAt(ProblemCode::NotABook, where);
  return found;
}

namespace {

/// What a table made anew leaves: nothing may point to nothing.
Trouble checkPointers(Database& database) {
  const auto loose = database.single("PRAGMA foreign_key_check");
  if (!loose) return loose.problem();
  if (!loose->isValid()) return std::nullopt;
  return problemAt(ProblemCode::BookDamaged, database.path().toStdString(),
                   {"a row of " + loose->toString().toStdString() + " points to nothing"});
}

} // namespace

Trouble migrate(Database& database, int from, int to) {
  loadMigrations();
  // A table that others point to is made anew under its old name: only possible while nobody looks.
  if (const auto trouble = database.run("PRAGMA foreign_keys = OFF")) return trouble;
  auto trouble = database.run("BEGIN IMMEDIATE");
  for (int step = from; step < to && !trouble; ++step)
    trouble = database.runResource(steps[step]);
  if (!trouble) trouble = checkPointers(database);
  if (!trouble) trouble = database.run("COMMIT");
  if (trouble) std::ignore = database.run("ROLLBACK"); // what led here is what is told
  const auto again = database.run("PRAGMA foreign_keys = ON");
  return trouble ? trouble : again;
}

} // namespace butte::book
