#pragma once
#include "edits/tank_edits.h"

#include <QWidget>
#include <functional>

class QLabel;

namespace butte::app {

class NumberField;
class UnitsShown;

/// The day's watering: what is given at once and between which hours, and the plan that comes of it.
class IrrigationRow : public QWidget {
  Q_OBJECT

public:
  IrrigationRow(TankEdits& edits, UnitsShown& units, QWidget* parent = nullptr);
  /// `drunkLPerDay`: what its plants drink now; 0 where it is not known. `drainShare` of what is given.
  void show(const std::string& uid, const book::VesselFacts& facts, double drunkLPerDay, double drainShare);

signals:
  void message(const QString& words);

private:
  NumberField* hourField(const QString& name, const QString& object, const char* key, double usual);
  void showPlan();
  void heard(const book::Trouble& trouble);

  TankEdits& m_edits;
  UnitsShown& m_units;
  NumberField *m_shot, *m_first, *m_last;
  QLabel *m_unit, *m_plan;
  std::string m_uid;
  book::VesselFacts m_facts;
  double m_drunk = 0, m_share = 0;
};

} // namespace butte::app
