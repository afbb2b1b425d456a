#pragma once
#include "formula_document.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;

namespace butte::core {
struct CatalogueProduct;
}

namespace butte::app {

class FormulaEditor;
class NumberField;
class UnitsShown;

/// The grower's own drops: how much of the bottle went into how much water, what the pen read each time, and
/// what follows from it.
class TitrationTable : public QWidget {
  Q_OBJECT

public:
  TitrationTable(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

private:
  struct Row {
    NumberField* dose = nullptr;
    NumberField* ph = nullptr;
    QLabel* unit = nullptr;
    QString typedDose, typedPh; ///< good digits, also of a row that is not whole yet
  };
  QWidget* makeHead();
  QWidget* makeRows();
  void typed();
  void refresh();
  QString verdict() const;
  QString leftToAdd() const;
  QString sampleInShownUnit(const exchange::Amount& sample) const;
  const core::CatalogueProduct* bottle() const;

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  NumberField* m_sample = nullptr;
  QLabel* m_sampleUnit = nullptr;
  QComboBox* m_seek = nullptr;
  std::vector<Row> m_rows;
  QLabel* m_verdict = nullptr;
  QCheckBox* m_use = nullptr;
};

} // namespace butte::app
