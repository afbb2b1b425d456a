#pragma once
#include "solve/solver_memory.h"

#include <QObject>
#include <QThreadPool>
#include <atomic>
#include <functional>
#include <memory>

namespace butte::app {

/// Work that takes longer than a keystroke. Only the newest request counts: what an older one finds is
/// dropped. The result is taken on the window's own thread.
class Background : public QObject {
  Q_OBJECT
public:
  explicit Background(QObject* parent = nullptr) : QObject(parent) { m_pool.setMaxThreadCount(1); }
  ~Background() override { m_pool.waitForDone(); }

  bool isBusy() const { return m_running > 0; }
  void cancel() { ++m_newest; }

  /// `work` must touch nothing shared; `taken` gets what it returned, unless something newer was asked.
  template <class T> void start(std::function<T()> work, std::function<void(T)> taken) {
    const int mine = ++m_newest;
    ++m_running;
    m_pool.start([this, mine, work = std::move(work), taken = std::move(taken)] {
      // Overtaken while it waited: nobody wants to know.
      if (mine != m_newest) {
        QMetaObject::invokeMethod(
            this, [this] { --m_running; }, Qt::QueuedConnection);
        return;
      }
      auto result = std::make_shared<T>(work());
      core::releaseSolverMemory();
      QMetaObject::invokeMethod(
          this,
          [this, mine, result, taken] {
            --m_running;
            if (mine == m_newest) taken(std::move(*result));
          },
          Qt::QueuedConnection);
    });
  }

private:
  QThreadPool m_pool;
  std::atomic<int> m_newest = 0;
  int m_running = 0;
};

} // namespace butte::app
