// Opening a book: what kind of folder it lies on decides about its journal; nothing is changed in a file that
// is no book, is damaged or comes from a newer program.
#include "open_store.h"
#include "private_files.h"
#include "sqlite/schema.h"
#include "sqlite/sqlite_store.h"

#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QSet>
#include <QStorageInfo>
#include <QUuid>
#include <sys/stat.h>
#include <tuple>
#include <unistd.h>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

namespace {

constexpr qint64 checkedAtOnce =
    8 << 20; // a file up to this size is read through before it is used: some 20 ms

/// Whether the file's header says that it has a write-ahead log (bytes 18 and 19,
/// sqlite.org/fileformat2.html).
bool isInWalMode(const QString& path) {
  QFile file(path);
  return file.open(QIODevice::ReadOnly) && file.seek(18) && file.read(2) == QByteArray("\x02\x02", 2);
}

Trouble setJournal(Database& db, bool network, bool wasWal) {
  if (!network) {
    if (const auto trouble = db.run("PRAGMA journal_mode = WAL")) return trouble;
    return db.run("PRAGMA synchronous = FULL");
  }
  // A write-ahead log needs shared memory, which a network folder has not; alone with the file it can be
  // left.
  if (wasWal) {
    if (const auto trouble = db.run("PRAGMA locking_mode = EXCLUSIVE")) return trouble;
    if (const auto trouble = db.run("PRAGMA journal_mode = DELETE")) return trouble;
    if (const auto trouble = db.run("PRAGMA locking_mode = NORMAL")) return trouble;
  }
  if (const auto trouble = db.run("PRAGMA journal_mode = DELETE")) return trouble;
  return db.run("PRAGMA synchronous = EXTRA"); // FULL does not push the journal's removal to the disk
}

Trouble mustBeAFile(const QString& path) {
  const QFileInfo info(path);
  if (!info.exists()) return problemAt(ProblemCode::BookMissing, path.toStdString());
  if (!info.isFile() || info.size() == 0) return problemAt(ProblemCode::NotABook, path.toStdString());
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly))
    return problemAt(ProblemCode::BadFile, path.toStdString(),
                     {"it can't be read: " + file.errorString().toStdString()});
  if (!looksLikeBook(path.toStdString())) return problemAt(ProblemCode::NotABook, path.toStdString());
  return std::nullopt;
}

Trouble bringForward(Database& db, int from, const QString& path) {
  // Aside first, looked through, then under its name: one that was cut off never stands for a copy.
  const auto kept = path + QString(".before-v%1").arg(newestSchema), half = kept + ".half";
  if (!looksLikeBook(kept.toStdString())) {
    QFile::remove(half);
    QFile::remove(kept);
    makePrivateFile(half);
    if (const auto trouble = db.run("VACUUM INTO ?", {half})) return trouble;
    auto copy = Database::open(half, Database::Mode::Read);
    if (!copy) return copy.problem();
    if (const auto schema = schemaOf(**copy); !schema) return schema.problem();
    if (!QFile::rename(half, kept))
      return problemAt(ProblemCode::BadFile, kept.toStdString(),
                       {"the copy before the upgrade can't be made"});
  }
  return migrate(db, from, newestSchema);
}

QString stampOf(const QString& path) {
  const QFileInfo book(path), log(path + "-wal");
  const auto time = [](const QFileInfo& info) {
    return info.exists() ? info.lastModified().toMSecsSinceEpoch() : 0;
  };
  return QString("%1 %2 %3 %4").arg(time(book)).arg(book.size()).arg(time(log)).arg(log.size());
}

/// A journal that a killed writer left behind (a network folder has no write-ahead log) is played back by
/// whoever may write: the file itself holds half a change until then.
void playBackJournal(const QString& path) {
  if (QFileInfo(path + "-journal").size() == 0 || !QFileInfo(path).isWritable()) return;
  if (auto db = Database::open(path, Database::Mode::Write)) std::ignore = schemaOf(**db);
}

/// Where a link leads: the log lies there.
QString realPath(const std::string& file) {
  const auto real = QFileInfo(qt(file)).canonicalFilePath();
  return real.isEmpty() ? qt(file) : real;
}

/// Another user's look leaves a log and its index beside the book that the owner can't write: the log is made
/// ours with all that is in it, the index is worked out anew. Only for who holds the book's mark.
Trouble takeOverLog(const QString& path) {
  if (!makeOurs(path + "-wal"))
    return problemAt(ProblemCode::BookNotWritable, path.toStdString(),
                     {"its log (" + path.toStdString() + "-wal) belongs to another user"});
  struct stat index {};
  const auto shared = QFile::encodeName(path + "-shm");
  if (::lstat(shared.constData(), &index) == 0 && index.st_uid != ::geteuid()) ::unlink(shared.constData());
  return std::nullopt;
}

/// What a look at a refused book leaves beside it goes with it: an empty log and its index, where none were.
class LeftoverSweep {
public:
  explicit LeftoverSweep(const QString& path) : m_path(path) {
    m_log = QFile::exists(path + "-wal");
    m_index = QFile::exists(path + "-shm");
  }
  void sweep() const {
    const bool empty = QFileInfo(m_path + "-wal").size() == 0;
    if (!m_log && empty) QFile::remove(m_path + "-wal");
    if (!m_index && empty) QFile::remove(m_path + "-shm");
  }

private:
  QString m_path;
  bool m_log = false, m_index = false;
};

core::Result<std::unique_ptr<Store>> openChecked(const QString& path, OpenFor purpose) {
  const bool writing = purpose == OpenFor::Writing;
  if (writing) playBackJournal(path);
  // Looked at first without the right to write: a file that is no book must stay as it is.
  {
    auto look = Database::open(path, Database::Mode::Read);
    if (!look) return look.problem();
    const auto schema = schemaOf(**look);
    if (!schema) return schema.problem();
    if (!writing && *schema != newestSchema)
      return problemAt(ProblemCode::BookOlder, path.toStdString(),
                       {std::to_string(*schema), std::to_string(newestSchema)});
  }
  const QFileInfo info(path);
  if (writing && (!info.isWritable() || !QFileInfo(info.absolutePath()).isWritable()))
    return problemAt(ProblemCode::BookNotWritable, path.toStdString(),
                     {"the file or its folder is write-protected"});
  auto opened = Database::open(path, writing ? Database::Mode::Write : Database::Mode::Read);
  if (!opened) return opened.problem();
  auto db = std::move(opened).value();
  auto store = std::make_unique<SqliteStore>(std::move(db), !writing);
  if (info.size() <= checkedAtOnce) {
    if (const auto trouble = store->checkWhole()) return *trouble;
  }
  return std::unique_ptr<Store>(std::move(store));
}

} // namespace

bool looksLikeBook(const std::string& path) {
  QFile file(qt(path));
  return file.open(QIODevice::ReadOnly) && file.read(15) == "SQLite format 3";
}

bool isOnNetwork(const std::string& path) {
  static const QSet<QByteArray> shared{
      "nfs", "nfs4", "cifs",      "smb3",       "smbfs", "smb2",        "ncpfs",           "afs",
      "9p",  "ceph", "glusterfs", "fuse.sshfs", "davfs", "fuse.davfs2", "fuse.gvfsd-fuse", "fuse.glusterfs"};
  if (qEnvironmentVariableIsSet("BUTTE_TREAT_AS_NETWORK"))
    return true; // for tests, and for file systems not listed here
  return shared.contains(QStorageInfo(QFileInfo(qt(path)).absolutePath()).fileSystemType());
}

core::Result<std::unique_ptr<Store>> openStore(const std::string& file, OpenFor purpose) {
  const auto path = realPath(file);
  if (const auto trouble = mustBeAFile(path)) return *trouble;
  const bool network = isOnNetwork(file);
  const bool wal = isInWalMode(path);
  if (purpose == OpenFor::Writing) {
    if (const auto trouble = takeOverLog(path)) return *trouble;
    const LeftoverSweep leftovers(path);
    // The look, the journal and the migration each need the file; one after the other.
    auto checked = openChecked(path, purpose);
    if (!checked) {
      leftovers.sweep();
      return checked.problem();
    }
    std::move(checked).value().reset();
    auto opened = Database::open(path, Database::Mode::Write);
    if (!opened) return opened.problem();
    auto db = std::move(opened).value();
    if (const auto trouble = setJournal(*db, network, wal)) return *trouble;
    const auto schema = schemaOf(*db);
    if (!schema) return schema.problem();
    if (*schema < newestSchema) {
      if (const auto trouble = bringForward(*db, *schema, path)) return *trouble;
    }
    return std::unique_ptr<Store>(std::make_unique<SqliteStore>(std::move(db), false));
  }
  return openChecked(path, purpose);
}

core::Result<std::unique_ptr<Store>> openBeside(const std::string& file) {
  auto opened = Database::open(realPath(file), Database::Mode::Read);
  if (!opened) return opened.problem();
  return std::unique_ptr<Store>(std::make_unique<SqliteStore>(std::move(opened).value(), true));
}

core::Result<std::unique_ptr<Store>> createStore(const std::string& file) {
  const auto path = qt(file);
  if (QFile::exists(path))
    return problemAt(ProblemCode::BadFile, file, {"there is a file of this name already"});
  // What fails here fails in opening as well, and is told there.
  makePrivateFolder(QFileInfo(path).absolutePath());
  makePrivateFile(path);
  auto opened = Database::open(path, Database::Mode::Create);
  if (!opened) return opened.problem();
  auto db = std::move(opened).value();
  if (const auto trouble = setJournal(*db, isOnNetwork(file), false)) return *trouble;
  if (const auto trouble = migrate(*db, 0, newestSchema)) return *trouble;
  return std::unique_ptr<Store>(std::make_unique<SqliteStore>(std::move(db), false));
}

core::Result<std::unique_ptr<Store>> openSnapshot(const std::string& file, const std::string& privateFolder) {
  const auto path = realPath(file);
  if (const auto trouble = mustBeAFile(path)) return *trouble;
  makePrivateFolder(qt(privateFolder));
  const auto copy =
      qt(privateFolder) + "/snapshot-" + QUuid::createUuid().toString(QUuid::WithoutBraces) + ".butte";
  const auto discard = [&] {
    for (const auto* ending : {"", "-wal", "-shm", "-journal"})
      QFile::remove(copy + ending);
  };
  // A book kept with a log, and none beside it, is whole as it lies, and a look through SQLite would leave
  // one there.
  const bool wal = isInWalMode(path);
  const bool emptyLog = wal && QFileInfo(path + "-wal").size() == 0;
  const bool foreignLog = isOnNetwork(file) && wal;
  bool copied = false;
  if (!emptyLog && !foreignLog) {
    auto source = Database::open(path, Database::Mode::Read);
    if (!source) return source.problem();
    const auto trouble = (*source)->run("VACUUM INTO ?", {copy});
    if (trouble && trouble->code != ProblemCode::BookNotWritable) return *trouble;
    copied = !trouble;
  }
  // Another computer writes through shared memory that this one can't see, or the folder is write-protected:
  // the files are copied as they lie, again if they changed meanwhile.
  for (int attempt = 0; attempt < 5 && !copied; ++attempt) {
    discard();
    const auto before = stampOf(path);
    QFile::copy(path, copy);
    for (const auto* log : {"-wal", "-journal"})
      if (QFile::exists(path + log)) copyPrivately(path + log, copy + log);
    copied = stampOf(path) == before;
  }
  QFile::setPermissions(copy, QFile::ReadOwner | QFile::WriteOwner);
  playBackJournal(copy);
  return openChecked(copy, OpenFor::Reading);
}

} // namespace butte::book
