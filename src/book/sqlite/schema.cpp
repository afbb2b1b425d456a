#include "sqlite/schema.h"

#include "open_store.h"

#include <QDir>
#include <QtCore/qglobal.h>

// A static library's resources wait to be asked for; the macro works outside of namespaces only.
static void loadMigrations() {
  Q_INIT_RESOURCE(book_schema);
}

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

namespace {
constexpr std::int64_t applicationId = 0x4274426b; // "BtBk", as in migrations/0001_things.sql
constexpr const char* steps[newestSchema] = {
    ":/book/migrations/0001_things.sql", ":/book/migrations/0002_batches.sql",
    ":/book/migrations/0003_readings.sql", ":/book/migrations/0004_finding.sql"};
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

Trouble migrate(Database& database, int from, int to) {
  loadMigrations();
  if (const auto trouble = database.run("BEGIN IMMEDIATE")) return trouble;
  for (int step = from; step < to; ++step) {
    if (const auto trouble = database.runResource(steps[step])) {
      database.run("ROLLBACK");
      return trouble;
    }
  }
  return database.run("COMMIT");
}

} // namespace butte::book
