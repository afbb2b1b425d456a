#pragma once
#include "measures.h"

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
class UnitsShown;

/// One product's details: its price, and for the grower's own its composition by label or by formula.
class ProductPage : public QWidget {
  Q_OBJECT

public:
  ProductPage(FormulaEditor& editor, UnitsShown& units, Prompts& prompts, QWidget* parent = nullptr);
  /// Shows a product of the shelf; an empty id starts a new one.
  void showProduct(const std::string& id);

signals:
  /// An own product stands on the shelf, new or changed.
  void ownPut(const std::string& id);
  void done();
  void message(const QString& words);

private:
  void makeOwnPart();
  void askInUnits();
  void put();
  void remove();
  void showFacts();
  TypedProduct asTyped() const;
  bool anythingWrong();
  QLayout* makeLabelGrid();
  QLayout* makeBag();
  QLayout* makeSpoons();
  void showInUnits(const TypedProduct& product);
  double kilogramsOfPrice() const;
  QString priceShown(const std::string& perKg) const;
  std::string pricePerKg() const;
  void showBag(const TypedProduct& product);
  void showDoubts();
  void takeLabel(const reading::LabelText& read);

  FormulaEditor& m_editor;
  UnitsShown& m_units;
  words::Measures m_shownIn; ///< what the fields are in
  std::string m_id;
  std::string m_storedPrice; ///< per kilogram, as it was when shown
  QLabel *m_title, *m_facts, *m_problem;
  QLineEdit *m_name, *m_formula, *m_code;
  QRadioButton *m_byLabel, *m_byFormula;
  NumberField *m_purity, *m_price, *m_density, *m_bagPrice, *m_bag, *m_step, *m_content, *m_spoons;
  QLabel *m_doubts, *m_densityUnit, *m_priceUnit, *m_bagUnit, *m_stepUnit, *m_spoonsUnit;
  LabelPaper* m_labelPaper;
  QWidget* m_ownPart;
  QPushButton *m_put, *m_remove;
  std::vector<std::pair<std::string, NumberField*>> m_label;
};

} // namespace butte::app
