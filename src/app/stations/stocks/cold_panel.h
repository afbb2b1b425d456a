#pragma once
#include "stations/stocks/stock_panel.h"

namespace butte::app {

/// The tanks through cold nights: what would crystallise at each temperature, and how strong they might be.
class ColdPanel : public StockPanel {
  Q_OBJECT

public:
  ColdPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

protected:
  void refresh() override;
  void paintEvent(QPaintEvent* event) override;

private:
  struct Cell {
    QString head, detail;
    bool falls = false, known = true;
  };
  struct Line {
    QString tank;
    std::vector<Cell> cells;
  };
  std::vector<QString> m_columns;
  std::vector<Line> m_lines;
};

} // namespace butte::app
