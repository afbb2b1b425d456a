#pragma once
#include <QWidget>
#include <vector>

class QComboBox;
class QGridLayout;
class QLabel;
class QLineEdit;

namespace butte::app {

class FormulaEditor;
class NumberField;
class UnitsShown;

/// The source water: chosen, or typed from the report in the form that the report uses.
class WaterPage : public QWidget {
  Q_OBJECT

public:
  WaterPage(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

private:
  /// One thing that a report states, in one of several forms.
  struct Row {
    std::vector<std::string> keys;
    QComboBox* form = nullptr;
    NumberField* amount = nullptr;
  };

  void addRow(const QString& name, std::vector<std::pair<QString, std::string>> forms, QGridLayout* grid, int index);
  void readChoices();
  void refresh();
  void choose(int index);
  void typed(std::size_t row, const QString& digits);
  void formChosen(std::size_t row);
  int documentRowOf(const Row& row) const;

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  QComboBox* m_choice;
  QLineEdit* m_name;
  std::vector<Row> m_rows;
  NumberField *m_ec, *m_ph;
  QLabel* m_balance;
};

} // namespace butte::app
