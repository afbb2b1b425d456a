#pragma once
#include "stations/stocks/stock_panel.h"

class QLineEdit;

namespace butte::app {

/// How long the tanks last, when to mix again, what a season takes.
class SupplyPanel : public StockPanel {
  Q_OBJECT

public:
  SupplyPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

protected:
  void refresh() override;

private:
  QString tanksText() const;
  QString seasonText() const;
  /// On a setpoint the controller draws more or less than the due.
  double strength() const;
  QLineEdit* m_mixedOn = nullptr;
  QLabel *m_tanks = nullptr, *m_season = nullptr;
};

} // namespace butte::app
