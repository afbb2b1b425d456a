#pragma once
#include "run/run_state.h"
#include "services/device_desk.h"

#include <QWidget>
#include <functional>
#include <optional>

class QCheckBox;
class QLabel;
class QPushButton;

namespace butte::app {

class BenchEdits;
class UnitsShown;

/// The scale on its cable while something is weighed, and the pen while something is read: what it says in a
/// few large words, and what is asked back. Takes a weight by itself once it is still and right.
class ScaleRow : public QWidget {
  Q_OBJECT

public:
  ScaleRow(DeviceDesk& devices, const BenchEdits& run, const UnitsShown& units, QWidget* parent = nullptr);

  /// After every event: what is weighed now.
  void refresh();
  /// What the scale of the product in hand shows; nothing where none is listened to, or nothing is weighed.
  std::optional<devices::WatchNow> weighed() const;
  std::optional<devices::PenNow> read() const;
  /// What was weighed went into a vessel.
  void emptied();
  /// The weight told last did not happen: nothing is taken by itself until the weight changes.
  void struck();

  /// A weight to be told; false where it could not be kept.
  std::function<bool(core::Mass mass)> onCapture;
  /// What it shows has changed.
  std::function<void()> onChange;
  std::function<void(const QString& words)> onMessage;
  /// The weight on it, because the hand says so; false and a word where that can't be.
  bool captureNow();
  /// F7 tares, F8 says that the container lies on it.
  void press(int key);

private:
  LiveDevice* scale() const;
  void follow();
  void showWeight(const devices::WatchNow& now);
  void showPen();
  void capture(const devices::WatchNow& now);
  QPushButton* add(const QString& words, const char* name, std::function<void(LiveDevice&)> does);

  DeviceDesk& m_devices;
  const BenchEdits& m_run;
  const UnitsShown& m_units;
  QLabel* m_words;
  QPushButton *m_tare, *m_zero, *m_salt;
  QCheckBox* m_auto;
  core::Mass m_toPour;
  std::optional<core::Mass> m_heldAt; ///< after a strike: this weight is not taken again by itself
};

} // namespace butte::app
