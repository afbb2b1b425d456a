#pragma once
#include <QWidget>

class QComboBox;
class QHBoxLayout;
class QLabel;
class QToolButton;

namespace butte::app {

class FormulaEditor;
class NumberField;
class UnitsShown;

/// The strength in figures, in whatever form the device states it, and what decides how strong it may be.
class StrengthBar : public QWidget {
  Q_OBJECT

public:
  StrengthBar(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);
  void refresh();
  /// From the ruler; `done` when the hand lets go.
  void setFactor(double factor, bool done);

signals:
  void message(const QString& words);

private:
  NumberField* makeField(const QString& name, const QString& id, double least, double most, int width);
  void makeForm();
  void makeFields();
  QToolButton* makeAdd();
  QString acidText() const;
  QString makesText() const;

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  QComboBox* m_form = nullptr;
  QLabel* m_coldestUnit = nullptr;
  NumberField *m_factor = nullptr, *m_coldest = nullptr, *m_margin = nullptr, *m_alkalinity = nullptr;
  QLabel* m_dose = nullptr;
};

} // namespace butte::app
