#pragma once
#include "chem/nutrient.h"

#include <QWidget>
#include <vector>

class QComboBox;
class QLabel;
class QLineEdit;

namespace butte::app {

class FormulaEditor;
class NumberField;

/// The crop's target: chosen from the published ones or typed, each element with its band.
class TargetPage : public QWidget {
  Q_OBJECT

public:
  explicit TargetPage(FormulaEditor& editor, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

private:
  struct Row {
    core::Nutrient nutrient{};
    NumberField *amount = nullptr, *band = nullptr;
  };

  void readChoices();
  void refresh();
  void choose(int index);
  void amountTyped(core::Nutrient nutrient, const QString& digits);
  void bandTyped(core::Nutrient nutrient, const QString& digits);
  int rowOf(core::Nutrient nutrient) const;

  FormulaEditor& m_editor;
  QComboBox* m_choice;
  QLineEdit* m_name;
  QLabel* m_source;
  std::vector<Row> m_rows;
};

} // namespace butte::app
