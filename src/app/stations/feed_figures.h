#pragma once
#include <QWidget>
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
  std::vector<QLabel*> m_values;
};

} // namespace butte::app
