#pragma once

#include "services/units_shown.h"

#include <QWidget>
#include <vector>

class QButtonGroup;
class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;

namespace butte::core {
struct CatalogueTarget;
}

namespace butte::app {

class BookDesk;
struct FirstFormula;
class NumberField;

/// The short way in, on one page: units, crop, water, what stands on the shelf. Ends in a working formula.
class FirstStart : public QWidget {
  Q_OBJECT

public:
  FirstStart(BookDesk& desk, UnitsShown& units, QWidget* parent = nullptr);
  void start();

protected:
  void keyPressEvent(QKeyEvent* event) override;

signals:
  void done();
  void message(const QString& words);

private:
  QWidget* makeUnits();
  QWidget* makeWater();
  QWidget* makeCrop();
  QWidget* makeShelf();
  void showUnits();
  void showStrengths();
  const core::CatalogueTarget* target() const;
  void make();
  FirstFormula answers() const;

  BookDesk& m_desk;
  UnitsShown& m_units;
  QComboBox *m_mass, *m_volume, *m_salts, *m_crop, *m_strength;
  QButtonGroup* m_water;
  NumberField *m_ec, *m_ph, *m_alkalinity, *m_batch;
  QLabel *m_ecUnit, *m_strengthNote;
  VolumeShown m_batchIn; ///< what the batch that nobody typed yet was offered in
  bool m_batchTyped = false;
  QLineEdit* m_who;
  std::vector<std::pair<std::string, QCheckBox*>> m_shelf;
};

} // namespace butte::app
