#pragma once
#include "book/tank_line.h"
#include "edits/tank_edits.h"

#include <QWidget>
#include <functional>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace butte::app {

class NumberField;
class UnitsShown;

/// The log in two keystrokes: what the meters read, and what was done, each with Enter.
class LogEntry : public QWidget {
  Q_OBJECT

public:
  explicit LogEntry(UnitsShown& units, QWidget* parent = nullptr);
  void setFacts(const book::VesselFacts& facts);
  void focusFirst();

  /// True once it is kept: only then the fields are emptied. The line's vessel and formula are for them.
  std::function<bool(const TypedReadings& typed)> onRead;
  std::function<bool(const book::TankLine& line)> onTold;

signals:
  void message(const QString& words);

private:
  NumberField* field(const QString& name, const QString& object, double least, double most);
  QWidget* makeReadRow();
  QWidget* makeDidRow();
  void showUnits();
  void didChosen();
  void keepReadings();
  void keepDone();
  bool anyWrong() const;
  UnitsShown& m_units;
  NumberField *m_ec, *m_ph, *m_level, *m_temperature, *m_air, *m_amount, *m_second;
  QLabel *m_ecUnit, *m_levelUnit, *m_temperatureUnit, *m_amountUnit, *m_secondName;
  QComboBox *m_did, *m_phBy;
  QLineEdit* m_text;
  QPushButton *m_keepRead, *m_keepDone;
  book::VesselFacts m_facts;
};

} // namespace butte::app
