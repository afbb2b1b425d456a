#pragma once
#include <QWidget>
#include <vector>

class QComboBox;
class QLabel;
class QVBoxLayout;

namespace butte::app {

class BookDesk;
class FillingCombo;
class FormulaEditor;
class ProductRow;
class NumberField;
class UnitsShown;

/// The shelf: every product with its weight, and a way to put more on it.
class ProductList : public QWidget {
  Q_OBJECT

public:
  ProductList(FormulaEditor& editor, UnitsShown& units, BookDesk& desk, QWidget* parent = nullptr);
  void light(const std::string& id);

signals:
  void lit(const std::string& id);
  void detailsAsked(const std::string& id);
  void newProductAsked();
  void message(const QString& words);

private:
  void refresh();
  void rebuildRows();
  void fillChoice();
  void showTotal();
  void addChosen();
  void batchTyped(const QString& digits);

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  BookDesk& m_desk;
  std::vector<ProductRow*> m_rows;
  QVBoxLayout* m_rowsLayout;
  FillingCombo* m_choice;
  NumberField* m_batch;
  QLabel *m_batchUnit, *m_total;
};

} // namespace butte::app
