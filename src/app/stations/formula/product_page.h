#pragma once
#include <QWidget>
#include <string>
#include <vector>

class QLabel;
class QLineEdit;
class QPushButton;
class QRadioButton;

namespace butte::reading {
struct LabelText;
}

namespace butte::app {

class FormulaEditor;
class LabelPaper;
class NumberField;
struct Prompts;
struct TypedProduct;

/// One product's details: its price, and for the grower's own its composition by label or by formula.
class ProductPage : public QWidget {
  Q_OBJECT

public:
  ProductPage(FormulaEditor& editor, Prompts& prompts, QWidget* parent = nullptr);
  /// Shows a product of the shelf; an empty id starts a new one.
  void showProduct(const std::string& id);

signals:
  void done();
  void message(const QString& words);

private:
  void put();
  void remove();
  void showFacts();
  TypedProduct asTyped() const;
  bool anythingWrong();
  QLayout* makeLabelGrid();
  QLayout* makeBag();
  void showBag(const TypedProduct& product);
  void showDoubts();
  void takeLabel(const reading::LabelText& read);

  FormulaEditor& m_editor;
  std::string m_id;
  QLabel *m_title, *m_facts, *m_problem;
  QLineEdit *m_name, *m_formula, *m_code;
  QRadioButton *m_byLabel, *m_byFormula;
  NumberField *m_purity, *m_price, *m_density, *m_bagPrice, *m_bag, *m_step, *m_content;
  QLabel* m_doubts;
  LabelPaper* m_labelPaper;
  QWidget* m_ownPart;
  QPushButton *m_put, *m_remove;
  std::vector<std::pair<std::string, NumberField*>> m_label;
};

} // namespace butte::app
