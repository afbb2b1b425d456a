#pragma once
#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;

namespace butte::app {

class BookDesk;
class FillingCombo;
class FormulaEditor;
class NumberField;

/// What the formula is solved for, and what it is compared with: one row over the lanes.
class SolveBar : public QWidget {
  Q_OBJECT
public:
  SolveBar(FormulaEditor& editor, BookDesk& desk, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

private:
  void refresh();
  void fillComparisons();
  void compareWith(int index);

  FormulaEditor& m_editor;
  BookDesk& m_desk;
  QComboBox* m_way;
  FillingCombo* m_against;
  NumberField* m_atMost;
  QCheckBox* m_steps;
  QLabel* m_state;
};

} // namespace butte::app
