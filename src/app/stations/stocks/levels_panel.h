#pragma once
#include "stations/stocks/stock_panel.h"

class QComboBox;
class QGridLayout;

namespace butte::app {

/// What the levels say: where the line for a volume is in each vessel, and what was drawn from each tank,
/// which tells a clogged line, an injector's true ratio, and what the plants got; and what a tank made weaker
/// or stronger than planned does to the feed.
class LevelsPanel : public StockPanel {
  Q_OBJECT

public:
  LevelsPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

protected:
  void refresh() override;

private:
  struct Row {
    QLabel *name, *line;
    QComboBox* shape;
    NumberField *across, *along, *height, *drawn, *ofPlan;

    std::vector<QWidget*> widgets() const; ///< in the order of the columns
  };
  void makeRows();
  void refreshRow(std::size_t tank);

  QGridLayout* m_grid = nullptr;
  std::vector<Row> m_rows;
  QLabel* m_drawn = nullptr;
};

} // namespace butte::app
