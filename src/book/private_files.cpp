#include "private_files.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <cstdio>
#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace butte::book {

bool makePrivateFolder(const QString& path) {
  if (QFileInfo(path).isDir()) return true;
  const auto above = QFileInfo(path).absolutePath();
  if (!QFileInfo(above).isDir() && above != path && !makePrivateFolder(above)) return false;
  return QDir().mkdir(path, QFile::ReadOwner | QFile::WriteOwner | QFile::ExeOwner) ||
         QFileInfo(path).isDir();
}

bool makePrivateFile(const QString& path) {
  const int made = ::open(QFile::encodeName(path).constData(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0600);
  if (made < 0) return false;
  ::close(made);
  return true;
}

bool copyPrivately(const QString& from, const QString& to) {
  return QFile::copy(from, to) && QFile::setPermissions(to, QFile::ReadOwner | QFile::WriteOwner);
}

bool makeOurs(const QString& path) {
  struct stat about {};
  const auto name = QFile::encodeName(path);
  if (::lstat(name.constData(), &about) != 0) return true;
  if (S_ISREG(about.st_mode) && about.st_uid == ::geteuid()) return true;
  const auto aside = path + ".ours";
  QFile::remove(aside);
  const bool nothingIn = !S_ISREG(about.st_mode) || about.st_size == 0;
  if (nothingIn) return ::unlink(name.constData()) == 0;
  if (!copyPrivately(path, aside)) return false;
  // On the disk first, then in its place at once: at no moment is there none.
  const auto copy = QFile::encodeName(aside);
  const int file = ::open(copy.constData(), O_RDONLY | O_CLOEXEC);
  const bool pushed = file >= 0 && ::fsync(file) == 0;
  if (file >= 0) ::close(file);
  return pushed && ::rename(copy.constData(), name.constData()) == 0;
}

} // namespace butte::book
