#pragma once
#include "units/quantity.h"

#include <QWidget>

class QGridLayout;
class QLabel;
class QPushButton;

namespace butte::sim {

class SimServer;

/// The hand at the stand-in scale: containers, pouring while a button is held, and the mishaps of a bench.
class SimPanel : public QWidget {
  Q_OBJECT

public:
  explicit SimPanel(SimServer& server, QWidget* parent = nullptr);
  /// What is poured about now: how quick the buttons are.
  void setPortion(core::Mass portion) { m_portion = portion; }

private:
  QPushButton* add(QGridLayout* grid, int row, int column, const QString& words, const char* name);
  void addContainers(QGridLayout* grid);
  void addPouring(QGridLayout* grid);
  void addMishaps(QGridLayout* grid);
  void addPen(QGridLayout* grid);
  void refresh();

  SimServer& m_server;
  QLabel *m_display, *m_truth;
  QPushButton *m_slow = nullptr, *m_fast = nullptr;
  core::Mass m_portion = core::Mass::fromGrams(250);
};

} // namespace butte::sim
