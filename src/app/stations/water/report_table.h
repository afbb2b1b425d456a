#pragma once
#include <QWidget>
#include <string>
#include <vector>

class QComboBox;
class QGridLayout;
class QLabel;

namespace butte::app {

class FormulaEditor;
class NumberField;

/// The report of one source, row by row as it was typed: figure ("< 0.02" too), unit and form; the normal
/// form stands beside it as one types. An empty row is not measured, which is not zero.
class ReportTable : public QWidget {
  Q_OBJECT

public:
  explicit ReportTable(FormulaEditor& editor, QWidget* parent = nullptr);
  void show(std::size_t part);

signals:
  void message(const QString& words);

private:
  struct Row {
    std::vector<std::string> keys;
    QComboBox *form = nullptr, *unit = nullptr;
    NumberField* amount = nullptr;
    QLabel* normal = nullptr;
  };
  void addRow(QGridLayout* grid, const QString& name, std::vector<std::pair<QString, std::string>> forms,
              bool charged);
  void addMeters(QGridLayout* grid);
  void typedIn(std::size_t row, const QString& digits);
  void formChosen(std::size_t row);
  void unitChosen(std::size_t row);
  void refreshRow(const Row& row);
  std::string keyOf(const Row& row) const;

  FormulaEditor& m_editor;
  std::size_t m_part = 0;
  bool m_ecUnitByHand = false; ///< chosen for the figure that is to come
  std::vector<Row> m_rows;
  NumberField *m_ec = nullptr, *m_ph = nullptr;
  QComboBox* m_ecUnit = nullptr;
};

} // namespace butte::app
