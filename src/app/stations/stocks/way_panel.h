#pragma once
#include "stations/stocks/dilution_picture.h"
#include "stations/stocks/stock_panel.h"

class QComboBox;
class QHBoxLayout;

namespace butte::core {
class Delivery;
}

namespace butte::app {

/// From tank to tap: which device doses, at what flow, every rate in the grower's units, and what the meter
/// shows after each tank.
class WayPanel : public StockPanel {
  Q_OBJECT

public:
  WayPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

protected:
  void refresh() override;

private:
  QWidget* makeFields();
  void makePumps();
  /// What each tank gives of its due by the device as it is set.
  std::vector<double> draws() const;
  QStringList ratesOf(std::size_t tank, double draw) const;
  QString noteText(const core::Delivery& delivery, const std::vector<double>& draws) const;

  QComboBox* m_device = nullptr;
  QWidget *m_pumpRow = nullptr, *m_setpointRow = nullptr;
  QHBoxLayout* m_runs = nullptr;
  QHBoxLayout* m_minutes = nullptr;
  std::size_t m_pumpCount = 0;
  DilutionPicture* m_picture = nullptr;
  QLabel* m_note = nullptr;
};

} // namespace butte::app
