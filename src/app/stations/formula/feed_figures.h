#pragma once
#include "document/background.h"
#include "formula/uncertainty.h"

#include <QTimer>
#include <QWidget>
#include <optional>
#include <vector>

class QLabel;

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// The sums under the lanes: EC, ions, alkalinity left, ratios, cost.
class FeedFigures : public QWidget {
  Q_OBJECT

public:
  FeedFigures(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  void refresh();
  FormulaEditor& m_editor;
  UnitsShown& m_units;
  void findSpread();
  void showConductivity();

  Background m_background;
  QTimer m_rest;
  std::optional<core::Spread> m_spread; ///< of the EC; found behind the window, gone at every change
  QLabel* m_ecName = nullptr;
  std::vector<QLabel*> m_values;
};

} // namespace butte::app
