#pragma once
#include "product/catalogue.h"

#include <QWidget>
#include <string>
#include <vector>

class QLabel;
class QPushButton;

namespace butte::app {

class FormulaEditor;
class UnitsShown;

/// The acids side by side, each for the same alkalinity left: dose, what it brings against the target,
/// danger, tank. One press makes one of them the recipe's acid: its N, P or S then count, and the salts give
/// way.
class AcidTable : public QWidget {
  Q_OBJECT

public:
  AcidTable(FormulaEditor& editor, UnitsShown& units, QWidget* parent = nullptr);

signals:
  void message(const QString& words);

private:
  void addRow(const core::CatalogueProduct& product);
  void refresh();
  void use(const std::string& id);
  FormulaEditor& m_editor;
  UnitsShown& m_units;
  struct Row {
    std::string id;
    QWidget* box;
    QPushButton* button;
    QLabel* words;
  };
  std::vector<Row> m_rows;
  QLabel* m_head;
};

} // namespace butte::app
