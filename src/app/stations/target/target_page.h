#pragma once
#include <QWidget>

class QComboBox;
class QLineEdit;

namespace butte::app {

class BookDesk;
class FillingCombo;
class FormulaEditor;
class NumberField;
class StageLine;
class TargetTable;
class UnitsShown;

/// The crop's target: published or own, through its stages, against another, and whether it is possible at
/// all.
class TargetPage : public QWidget {
  Q_OBJECT

public:
  TargetPage(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent = nullptr);

signals:
  void message(const QString& words);
  void severalAsked();

private:
  QWidget* makeHead();
  QWidget* makeStageKeeper();
  void readChoices(QComboBox& box, const QString& first);
  void fillCompare();
  void refresh();
  void choose(int index);
  void compare(int index);

  FormulaEditor& m_editor;
  BookDesk& m_desk;
  QComboBox* m_choice;
  FillingCombo* m_compare;
  QLineEdit *m_name, *m_crop, *m_stage;
  NumberField* m_week;
  TargetTable* m_table;
  StageLine* m_stages;
};

} // namespace butte::app
