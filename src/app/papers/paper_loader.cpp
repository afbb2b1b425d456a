#include "papers/paper_loader.h"

#include <QPointer>

namespace butte::app {

PaperLoader::PaperLoader(QObject* parent) : QObject(parent) {}

PaperLoader::~PaperLoader() {
  stop();
}

void PaperLoader::stop() {
  if (m_stop) *m_stop = true;
  m_background.cancel();
}

void PaperLoader::load(const QByteArray& bytes) {
  begin([bytes](const scan::Watch& watch) { return scan::readPaper(bytes, watch); });
}

void PaperLoader::load(const QImage& picture) {
  begin([picture](const scan::Watch& watch) { return scan::readPaper(picture, watch); });
}

void PaperLoader::begin(std::function<scan::Paper(const scan::Watch&)> read) {
  stop();
  m_stop = std::make_shared<std::atomic<bool>>(false);
  // The loader outlives the work: its destructor stops it and waits.
  m_background.start<scan::Paper>(
      [this, read = std::move(read), stop = m_stop] {
        scan::Watch watch;
        watch.stop = stop.get();
        watch.progress = [this](int percent) {
          QMetaObject::invokeMethod(
              this, [this, percent] { emit progress(percent); }, Qt::QueuedConnection);
        };
        return read(watch);
      },
      [this](scan::Paper paper) { emit loaded(paper); });
}

} // namespace butte::app
