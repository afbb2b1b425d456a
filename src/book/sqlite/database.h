#pragma once
#include "book/record.h"
#include "book/sqlite/sql_text.h"

#include <QHash>
#include <QSqlDatabase>
#include <QSqlQuery>
#include <QString>
#include <QVariant>
#include <functional>
#include <initializer_list>
#include <memory>

namespace butte::book {

/// One connection to one SQLite file, with its prepared statements. Used by the thread that made it.
class Database {
public:
  enum class Mode { Write, Read, Create };

  static core::Result<std::unique_ptr<Database>> open(const QString& path, Mode mode);
  ~Database();
  Database(const Database&) = delete;
  Database& operator=(const Database&) = delete;

  const QString& path() const { return m_path; }
  /// Whether its name still leads to the file that was opened. A program that syncs folders may have put
  /// another one there: what is written now would go nowhere, and the log beside it belongs to the old one.
  bool isStillThere() const;
  Trouble run(Sql sql, std::initializer_list<QVariant> values = {});
  /// Steps through the rows; a visitor that returns false ends it. The same statement must not be run inside.
  Trouble each(Sql sql, std::initializer_list<QVariant> values,
               const std::function<bool(const QSqlQuery&)>& visit);
  /// The first column of the first row; an invalid value when there is none.
  core::Result<QVariant> single(Sql sql, std::initializer_list<QVariant> values = {});
  std::int64_t lastRow() const { return m_lastRow; }
  /// Runs a migration's text, paragraph by paragraph, from the program's resources.
  Trouble runResource(const QString& resource);

private:
  core::Result<QSqlQuery*> query(Sql sql, std::initializer_list<QVariant> values);
  core::Problem problemOf(const QSqlError& error) const;
  /// What stopped the stepping through rows, if anything did.
  Trouble troubleOf(const QSqlQuery& query) const;
  Database(QString path, QString name) : m_path(std::move(path)), m_name(std::move(name)) {}
  QString m_path, m_name;
  std::uint64_t m_device = 0, m_inode = 0; ///< of the file as it was opened
  QSqlDatabase m_db;
  QHash<const char*, std::shared_ptr<QSqlQuery>> m_prepared;
  std::int64_t m_lastRow = 0;
};

} // namespace butte::book
