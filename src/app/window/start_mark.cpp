#include "window/start_mark.h"

#include <QFile>
#include <QFileInfo>
#include <QSaveFile>
#include <algorithm>

namespace butte::app {
namespace {

constexpr int mostCounted = 9;

} // namespace

StartMark::StartMark(const QString& folder) : m_path(folder + "/starting") {
  if (QFile before(m_path); QFileInfo(m_path).isFile() && before.open(QIODevice::ReadOnly))
    m_unfinished = std::clamp(before.read(2).trimmed().toInt(), 1, mostCounted);
  QSaveFile mark(m_path);
  if (!mark.open(QIODevice::WriteOnly)) return; // a full disk: the start goes on without
  mark.write(QByteArray::number(std::min(m_unfinished + 1, mostCounted)));
  m_standing = mark.commit();
}

void StartMark::done() {
  if (m_standing) QFile::remove(m_path);
  m_standing = false;
}

} // namespace butte::app
