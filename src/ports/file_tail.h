#pragma once
#include "stream/growing_csv.h"
#include "stream_source.h"

#include <QTimer>

namespace butte::ports {

/// A table in a file that a logger writes on and on. Read from its beginning, then as it grows; one that
/// becomes shorter, or is another file under the same name, begins anew.
class FileTail : public StreamSource {
  Q_OBJECT

public:
  FileTail(const QString& path, devices::DateOrder order, int lookMilliseconds, QObject* parent = nullptr);
  ~FileTail() override;
  void open() override;
  void close() override;
  bool isCaughtUp() const override { return m_caughtUp; }

private:
  void look();
  void readOn();
  void leave();

  QString m_path;
  devices::GrowingCsv m_table;
  QTimer m_timer;
  int m_file = -1;
  quint64 m_inode = 0, m_device = 0;
  qint64 m_read = 0;
  bool m_caughtUp = false;
};

} // namespace butte::ports
