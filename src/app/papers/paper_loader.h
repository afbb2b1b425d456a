#pragma once
#include "document/background.h"
#include "scan/paper_reader.h"

#include <atomic>
#include <memory>

namespace butte::app {

/// Reads papers behind the window's thread: tells how far it is, and can be stopped.
class PaperLoader : public QObject {
  Q_OBJECT

public:
  explicit PaperLoader(QObject* parent = nullptr);
  ~PaperLoader() override;
  void load(const QByteArray& bytes);
  void load(const QImage& picture);
  void stop();

signals:
  void progress(int percent);
  void loaded(const butte::scan::Paper& paper);

private:
  void begin(std::function<scan::Paper(const scan::Watch&)> read);
  Background m_background;
  std::shared_ptr<std::atomic<bool>> m_stop;
};

} // namespace butte::app
