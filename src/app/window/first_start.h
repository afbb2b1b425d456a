#pragma once

#include <QWidget>
#include <vector>

class QButtonGroup;
class QCheckBox;
class QComboBox;
class QLineEdit;

namespace butte::app {

class BookDesk;
struct FirstFormula;
class NumberField;
class UnitsShown;

/// The short way in, on one page: units, crop, water, what stands on the shelf. Ends in a working formula.
class FirstStart : public QWidget {
  Q_OBJECT

public:
  FirstStart(BookDesk& desk, UnitsShown& units, QWidget* parent = nullptr);
  void start();

signals:
  void done();
  void message(const QString& words);

private:
  QWidget* makeUnits();
  QWidget* makeWater();
  QWidget* makeShelf();
  void make();
  FirstFormula answers() const;

  BookDesk& m_desk;
  UnitsShown& m_units;
  QComboBox *m_mass, *m_volume, *m_salts, *m_crop;
  QButtonGroup* m_water;
  NumberField *m_ec, *m_alkalinity, *m_batch;
  QLineEdit* m_who;
  std::vector<std::pair<std::string, QCheckBox*>> m_shelf;
};

} // namespace butte::app
