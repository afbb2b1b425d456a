#pragma once
#include "document/tank_story.h"

#include <QWidget>
#include <optional>

class QLabel;

namespace butte::app {

class NumberField;
class UnitsShown;
class WrappedLabel;

/// How warm it is to be: hot and cold water blended, what a heater takes, and how fast the vessel follows the
/// air. What is typed here is a question and is not kept.
class WarmthPanel : public QWidget {
  Q_OBJECT

public:
  explicit WarmthPanel(UnitsShown& units, QWidget* parent = nullptr);
  void show(const TankGiven& given);

signals:
  void message(const QString& words);

private:
  NumberField* temperature(const QString& name, const QString& object);
  std::optional<core::Temperature> typed(const NumberField* field) const;
  std::optional<core::Temperature> lastOf(const char* quantity) const;
  QString blendText() const;
  QString heaterText() const;
  QString followingText() const;
  void answer();
  UnitsShown& m_units;
  NumberField *m_wanted, *m_hot, *m_cold, *m_litres, *m_watts;
  QLabel *m_degrees, *m_volumeUnit;
  WrappedLabel* m_answer;
  TankGiven m_given;
};

} // namespace butte::app
