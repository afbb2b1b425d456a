#pragma once
#include <QObject>

#include <functional>

class QAction;

namespace butte::app {

class MainWindow;

/// The Edit menu: undo and redo, named by what they take back.
class EditActions : public QObject {
  Q_OBJECT

public:
  explicit EditActions(MainWindow& window);

private:
  void step(bool back, const QString& words, const std::function<bool()>& go);
  bool isElsewhere(bool back) const;
  void refresh();
  MainWindow& m_window;
  QAction *m_undo, *m_redo, *m_here;
};

} // namespace butte::app
