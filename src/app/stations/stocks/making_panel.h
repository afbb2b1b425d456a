#pragma once
#include "stations/stocks/stock_panel.h"

class QPushButton;

namespace butte::app {

/// Making the tanks: how much water beside the salts, how cold they get, how much hot water brings that back,
/// the pre-stock for what the scale can't weigh, the acid and its cautions.
class MakingPanel : public StockPanel {
  Q_OBJECT

public:
  MakingPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

signals:
  void labelsAsked();

protected:
  void refresh() override;

private:
  QString tankText(std::size_t tank) const;
  QString acidText(std::size_t tank) const;
  QLabel* m_text = nullptr;
  QPushButton* m_acidToPh = nullptr;
};

} // namespace butte::app
