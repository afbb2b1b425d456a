#include "file_tail.h"

#include <QFile>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace butte::ports {

namespace {
constexpr std::size_t atOnce = 1 << 18; ///< so much between two looks at the window
constexpr int soonMilliseconds = 5;
} // namespace

FileTail::FileTail(const QString& path, devices::DateOrder order, int lookMilliseconds, QObject* parent)
    : StreamSource(parent), m_path(path), m_table(order) {
  m_timer.setInterval(lookMilliseconds);
  connect(&m_timer, &QTimer::timeout, this, &FileTail::look);
}

FileTail::~FileTail() {
  leave();
}

void FileTail::open() {
  if (m_timer.isActive()) return;
  become(State::Trying);
  m_timer.start();
  QTimer::singleShot(0, this, &FileTail::look);
}

void FileTail::close() {
  m_timer.stop();
  leave();
  become(State::Closed);
}

void FileTail::leave() {
  if (m_file >= 0) ::close(m_file);
  m_file = -1;
  m_read = 0;
  m_table.restart();
}

/// Whether the name still leads to the file that is open, and it is no shorter than what was read.
void FileTail::look() {
  if (!m_timer.isActive()) return;
  const auto name = QFile::encodeName(m_path);
  struct stat now {};
  if (::stat(name.constData(), &now) != 0) {
    const auto why = QString::fromLocal8Bit(std::strerror(errno));
    leave();
    return become(State::Trying, why);
  }
  // A pipe or a device would be waited for without end.
  if (!S_ISREG(now.st_mode)) {
    leave();
    return become(State::Trying, QStringLiteral("not a file"));
  }
  if (m_file >= 0 && (now.st_ino != m_inode || now.st_dev != m_device || now.st_size < m_read)) leave();
  if (m_file < 0) {
    m_file = ::open(name.constData(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
    if (m_file < 0) return become(State::Trying, QString::fromLocal8Bit(std::strerror(errno)));
    m_inode = now.st_ino;
    m_device = now.st_dev;
  }
  become(State::Open);
  readOn();
}

void FileTail::readOn() {
  std::string bytes(atOnce, '\0');
  const auto count = ::read(m_file, bytes.data(), bytes.size());
  if (count <= 0) {
    m_caughtUp = true;
    return;
  }
  m_read += count;
  auto taken = m_table.take(std::string_view(bytes.data(), static_cast<std::size_t>(count)));
  for (auto& row : taken.rows) {
    row.isOld = !m_caughtUp && row.at.index() == 0;
    emit rowRead(row);
  }
  for (const auto& line : taken.unread)
    emit unread(QByteArray::fromStdString(line));
  if (static_cast<std::size_t>(count) < atOnce)
    m_caughtUp = true;
  else
    QTimer::singleShot(soonMilliseconds, this, &FileTail::look);
}

} // namespace butte::ports
