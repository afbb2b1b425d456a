#pragma once
#include <QObject>
#include <QSettings>

class QMenu;

namespace butte::app {

class MainWindow;

/// The View menu: stations, text size, units, light and dark.
class ViewActions : public QObject {
  Q_OBJECT

public:
  ViewActions(MainWindow& window, QSettings& settings);

private:
  void addStations(QMenu* menu);
  void addTextSizes(QMenu* menu, QSettings& settings);
  void addUnits(QMenu* menu);
  void countDrops();
  MainWindow& m_window;
};

} // namespace butte::app
