#pragma once
#include "run/run_order.h"

#include <QWidget>
#include <functional>

class QComboBox;
class QLabel;

namespace butte::app {

class BenchEdits;
class UnitsShown;

/// In which order the salts go in, before anything is done: by chemistry, or as another school has it where
/// that costs nothing; what it would cost is said where it does.
class RunOrderRow : public QWidget {
  Q_OBJECT

public:
  RunOrderRow(BenchEdits& run, const UnitsShown& units, QWidget* parent = nullptr);
  void refresh();

  std::function<void()> onChosen;
  std::function<void(const QString& words)> onMessage;

private:
  void choose(core::OrderSchool school);

  BenchEdits& m_run;
  const UnitsShown& m_units;
  QComboBox* m_schools;
  QLabel* m_cost;
};

} // namespace butte::app
