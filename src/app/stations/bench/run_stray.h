#pragma once
#include "run/run_event.h"
#include "run/run_trouble.h"

#include <QWidget>
#include <functional>
#include <optional>
#include <vector>

class QLabel;
class QPushButton;

namespace butte::app {

class BenchEdits;
class UnitsShown;

/// What came into a vessel where it does not belong: what falls out, what the plants would lack, and the two
/// ways out. Seen only then.
class RunStray : public QWidget {
  Q_OBJECT

public:
  RunStray(const BenchEdits& run, const UnitsShown& units, QWidget* parent = nullptr);
  void refresh();

  std::function<void(const std::vector<core::RunDeed>& deeds)> onDeeds;

private:
  void leaveOut();

  const BenchEdits& m_run;
  const UnitsShown& m_units;
  QLabel* m_words;
  QPushButton *m_leaveOut, *m_discard;
  std::optional<core::Misplaced> m_stray;
};

} // namespace butte::app
