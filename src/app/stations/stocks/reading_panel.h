#pragma once
#include "stations/stocks/stock_panel.h"

namespace butte::app {

/// The meter says otherwise: readings at known doses against what the formula expects, and the likely causes
/// of the difference, each with its size.
class ReadingPanel : public StockPanel {
  Q_OBJECT

public:
  ReadingPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

protected:
  void refresh() override;

private:
  QLabel *m_line = nullptr, *m_causes = nullptr;
};

} // namespace butte::app
