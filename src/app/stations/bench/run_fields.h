#pragma once
#include "run/run_event.h"
#include "run/run_state.h"

#include <QWidget>
#include <functional>
#include <optional>
#include <string>

class QLabel;
class QLineEdit;

namespace butte::app {

class NumberField;
class UnitsShown;

/// What is typed at the bench: the weight that a scale shows and its bag's lot, how much water, what the
/// meters show. Only the fields of what is in hand are seen.
class RunFields : public QWidget {
  Q_OBJECT

public:
  explicit RunFields(UnitsShown& units, QWidget* parent = nullptr);

  /// The unit that a weight without one is in.
  std::function<std::string()> massUnit;
  std::function<void(const QString& words)> onMessage;

  void refresh(core::RunPhase phase);
  /// Where the hand types now; nothing where it only presses.
  QWidget* fieldOf(core::RunPhase phase) const;
  /// What was typed is told.
  void clear();

  bool hasMass() const; ///< something stands there, right or wrong
  /// Nothing where it is empty, wrong or zero.
  std::optional<core::Mass> mass() const;
  bool isVolumeWrong() const; ///< wrong, or zero
  std::optional<core::Volume> volume() const;
  bool areReadingsWrong() const;
  /// Of the meters; nothing in it where nothing was typed.
  core::did::Read readings(std::size_t vessel) const;
  /// Whether the hand is done with the EC and the pH is next.
  bool goesOnToPh();

  std::string lot() const;
  void clearLot();
  void newLot(); ///< another bag: its lot is typed next

private:
  NumberField* field(const QString& name, const QString& id, double most);

  UnitsShown& m_units;
  NumberField *m_mass, *m_volume, *m_ec, *m_ph;
  QLabel *m_massUnit, *m_volumeUnit, *m_ecUnit;
  QLineEdit* m_lot;
  QWidget *m_massRow, *m_volumeRow, *m_readRow;
};

} // namespace butte::app
