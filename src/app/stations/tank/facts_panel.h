#pragma once
#include "book/vessel_facts.h"
#include "edits/tank_edits.h"

#include <QWidget>
#include <string>
#include <vector>

class QCheckBox;
class QComboBox;
class QGridLayout;
class QLabel;

namespace butte::app {

class FillingCombo;
class NumberField;
class UnitsShown;

/// What is known of a vessel: its marks, what fills it, what grows in it.
class FactsPanel : public QWidget {
  Q_OBJECT

public:
  FactsPanel(TankEdits& edits, UnitsShown& units, QWidget* parent = nullptr);
  void show(const std::string& uid, const book::VesselFacts& facts);

signals:
  void message(const QString& words);

private:
  struct AmountField {
    NumberField* field;
    QLabel* unit;
    const char* key;
    enum class Of { Volume, Area, Temperature, Conductivity } of;
  };
  void addAmount(QGridLayout* grid, int row, const QString& words, const QString& object, const char* key,
                 AmountField::Of of);
  void addChoices(QGridLayout* grid, int row);
  void addMeasures(QGridLayout* grid, int row);
  void addStick(QGridLayout* grid, int row);
  void addRule(QGridLayout* grid, int row);
  NumberField* digitsField(const QString& name, const QString& object, const char* key,
                           std::string book::VesselFacts::*of, double least, double most);
  QString filledWith() const;
  std::string unitOf(AmountField::Of of) const;
  QString unitNameOf(AmountField::Of of) const;
  QString digitsOf(const exchange::Amount& amount, AmountField::Of of) const;
  void showFacts();
  void showFormula();
  void keepMeasures();
  void heard(const book::Trouble& trouble);
  TankEdits& m_edits;
  UnitsShown& m_units;
  std::string m_uid;
  book::VesselFacts m_facts;
  std::vector<AmountField> m_amounts;
  FillingCombo* m_formula;
  QComboBox *m_crop, *m_climate, *m_shape;
  QCheckBox *m_waste, *m_rain, *m_southern;
  struct DigitsField {
    NumberField* field;
    std::string book::VesselFacts::*digits;
  };
  std::vector<DigitsField> m_digits;
  NumberField *m_across = nullptr, *m_along = nullptr, *m_high = nullptr;
};

} // namespace butte::app
