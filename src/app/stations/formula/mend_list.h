#pragma once
#include <QWidget>

class QVBoxLayout;

namespace butte::app {

class MendFinder;

/// What would help, each a press away: the first press shows the result over the lanes, the second takes it.
class MendList : public QWidget {
  Q_OBJECT
public:
  explicit MendList(MendFinder& finder, QWidget* parent = nullptr);

private:
  void refresh();
  MendFinder& m_finder;
  QVBoxLayout* m_rows;
};

} // namespace butte::app
