#include "sqlite/database.h"

#include <QFile>
#include <QSqlError>
#include <QTextStream>
#include <atomic>
#include <sys/stat.h>
#include <tuple>
#include <utility>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

namespace {
std::atomic<int> connectionCount{0};

// SQLite's result codes (sqlite3.h), as Qt passes them on.
enum SqliteCode {
  Busy = 5,
  Locked = 6,
  ReadOnly = 8,
  InputOutput = 10,
  Corrupt = 11,
  Full = 13,
  CantOpen = 14,
  NotADatabase = 26
};

QStringList paragraphs(const QString& text) {
  QStringList out;
  for (const auto& paragraph : text.split("\n\n", Qt::SkipEmptyParts)) {
    QStringList lines;
    for (const auto& line : paragraph.split('\n'))
      if (!line.startsWith("--")) lines << line;
    const auto statement = lines.join('\n').trimmed();
    if (!statement.isEmpty()) out << statement;
  }
  return out;
}
} // namespace

namespace {

/// Device and inode; zeros where nothing of that name is.
std::pair<std::uint64_t, std::uint64_t> identityOf(const QString& path) {
  struct stat about {};
  if (::stat(QFile::encodeName(path).constData(), &about) != 0) return {0, 0};
  return {about.st_dev, about.st_ino};
}

} // namespace

core::Result<std::unique_ptr<Database>> Database::open(const QString& path, Mode mode) {
  const auto name = QString("book%1").arg(++connectionCount);
  std::unique_ptr<Database> out(new Database(path, name));
  out->m_db = QSqlDatabase::addDatabase("QSQLITE", name);
  out->m_db.setDatabaseName(path);
  out->m_db.setConnectOptions(mode == Mode::Read ? "QSQLITE_OPEN_READONLY;QSQLITE_BUSY_TIMEOUT=4000"
                                                 : "QSQLITE_BUSY_TIMEOUT=4000");
  if (mode != Mode::Create && !QFile::exists(path))
    return problemAt(ProblemCode::BookMissing, path.toStdString());
  if (!out->m_db.open()) return out->problemOf(out->m_db.lastError());
  if (const auto trouble = out->run("PRAGMA foreign_keys = ON")) return *trouble;
  std::tie(out->m_device, out->m_inode) = identityOf(path);
  return out;
}

Database::~Database() {
  m_prepared.clear();
  m_db.close();
  m_db = {};
  QSqlDatabase::removeDatabase(m_name);
}

core::Problem Database::problemOf(const QSqlError& error) const {
  const auto where = m_path.toStdString();
  const auto said = error.databaseText().isEmpty() ? error.driverText() : error.databaseText();
  switch (error.nativeErrorCode().toInt() & 0xFF) {
  case Busy:
  case Locked:
    return problemAt(ProblemCode::BookBusy, where);
  case ReadOnly:
    return problemAt(ProblemCode::BookNotWritable, where, {said.toStdString()});
  case CantOpen:
    return problemAt(ProblemCode::BookNotWritable, where, {said.toStdString()});
  case Full:
    return problemAt(ProblemCode::BookFull, where);
  case Corrupt:
    return problemAt(ProblemCode::BookDamaged, where, {said.toStdString()});
  case NotADatabase:
    return problemAt(ProblemCode::NotABook, where);
  default:
    return problemAt(ProblemCode::BadFile, where, {said.toStdString()});
  }
}

bool Database::isStillThere() const {
  return identityOf(m_path) == std::pair(m_device, m_inode);
}

core::Result<QSqlQuery*> Database::query(Sql sql, std::initializer_list<QVariant> values) {
  auto& prepared = m_prepared[sql.text()];
  if (!prepared) {
    prepared = std::make_shared<QSqlQuery>(m_db);
    prepared->setForwardOnly(true);
    if (!prepared->prepare(QString::fromUtf8(sql.text()))) {
      const auto problem = problemOf(prepared->lastError());
      prepared.reset();
      return problem;
    }
  }
  prepared->finish();
  int position = 0;
  for (const auto& value : values)
    prepared->bindValue(position++, value);
  if (!prepared->exec()) {
    const auto problem = problemOf(prepared->lastError());
    prepared->finish();
    return problem;
  }
  return prepared.get();
}

Trouble Database::run(Sql sql, std::initializer_list<QVariant> values) {
  const auto done = query(sql, values);
  if (!done) return done.problem();
  m_lastRow = (*done)->lastInsertId().toLongLong();
  (*done)->finish(); // a statement left open would hold the file
  return std::nullopt;
}

Trouble Database::each(Sql sql, std::initializer_list<QVariant> values,
                       const std::function<bool(const QSqlQuery&)>& visit) {
  const auto done = query(sql, values);
  if (!done) return done.problem();
  auto& rows = **done;
  while (rows.next()) {
    if (!visit(rows)) break;
  }
  const auto trouble = troubleOf(rows);
  rows.finish();
  return trouble;
}

core::Result<QVariant> Database::single(Sql sql, std::initializer_list<QVariant> values) {
  QVariant out;
  if (const auto trouble = each(sql, values, [&](const QSqlQuery& row) {
        out = row.value(0);
        return false;
      }))
    return *trouble;
  return out;
}

Trouble Database::troubleOf(const QSqlQuery& query) const {
  if (query.lastError().type() == QSqlError::NoError) return std::nullopt;
  return problemOf(query.lastError());
}

Trouble Database::runResource(const QString& resource) {
  QFile file(resource);
  if (!file.open(QIODevice::ReadOnly))
    return problemAt(ProblemCode::BadFile, resource.toStdString(), {"a part of the program is missing"});
  for (const auto& statement : paragraphs(QString::fromUtf8(file.readAll()))) {
    QSqlQuery query(m_db);
    if (!query.exec(statement)) return problemOf(query.lastError());
  }
  return std::nullopt;
}

} // namespace butte::book
