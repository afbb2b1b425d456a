#pragma once
#include "units/quantity.h"

#include <QWidget>
#include <optional>

class QComboBox;
class QLabel;

namespace butte::app {

class FormulaEditor;
class NumberField;
class UnitsShown;

/// Beside the water: which acid or base, to which pH, how much of it, what that brings, and the curve it
/// follows.
class AcidPanel : public QWidget {
  Q_OBJECT

public:
  AcidPanel(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

private:
  QWidget* makeChoice();
  void choose(int index);
  void refresh();
  QString doseText() const;
  QString consequences() const;
  std::optional<core::Mass> acidInFormula() const;
  QString caution() const;

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  QComboBox* m_product = nullptr;
  NumberField* m_target = nullptr;
  QLabel* m_dose = nullptr;
  QLabel* m_consequences = nullptr;
  QLabel* m_caution = nullptr;
};

} // namespace butte::app
