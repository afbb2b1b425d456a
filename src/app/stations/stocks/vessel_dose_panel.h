#pragma once
#include "stations/stocks/stock_panel.h"

class QCheckBox;

namespace butte::app {

/// A vessel made up or put right by hand: step by step, with what the meters should show after each.
class VesselDosePanel : public StockPanel {
  Q_OBJECT

public:
  VesselDosePanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

protected:
  void refresh() override;

private:
  QCheckBox* flag(const QString& words, const QString& id, const std::string& path);
  QString stepsText(double stockStrength) const;
  QCheckBox *m_cautious = nullptr, *m_acid = nullptr, *m_byReadings = nullptr;
  QLabel *m_steps = nullptr, *m_care = nullptr;
};

} // namespace butte::app
