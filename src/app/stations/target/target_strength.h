#pragma once
#include "base/deed.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;

namespace butte::app {

class FormulaEditor;
class NumberField;
class UnitsShown;

/// The target's own strength: its EC, scaling to another with the ratios kept, the crop's rule for the
/// season, and nitrogen as a sum with its share of ammonium.
class TargetStrength : public QWidget {
  Q_OBJECT
public:
  TargetStrength(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

private:
  QWidget* makeNitrogen();
  void refresh();
  void refreshNitrogen();
  QString rangeText(double low, double high) const;
  void fillSeasons();
  void scaleTo(double milliSiemensPerCm, const core::Deed& deed);
  void nitrogenTyped();

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  QLabel *m_now, *m_wantedUnit;
  NumberField *m_wanted, *m_total, *m_share;
  QCheckBox* m_traces;
  QComboBox* m_season;
  QString m_seasonCrop, m_seasonUnit;
};

} // namespace butte::app
