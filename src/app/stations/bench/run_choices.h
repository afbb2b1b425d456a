#pragma once
#include "run/run_event.h"

#include <QPushButton>
#include <QWidget>
#include <functional>

class QLabel;

namespace butte::app {

class BenchEdits;
class UnitsShown;

inline constexpr int gloveHeight = 64; ///< of what a wet glove presses

/// A button for a wet glove.
QPushButton* gloveButton(const QString& words, const char* name);

/// Too much of a product: what can be done, each way with what it costs. Seen only then.
class RunChoices : public QWidget {
  Q_OBJECT

public:
  RunChoices(const BenchEdits& run, const UnitsShown& units, QWidget* parent = nullptr);
  void refresh();

  std::function<void(const core::RunDeed& deed)> onChosen;

private:
  struct Choice {
    QWidget* row = nullptr;
    QLabel* cost = nullptr;
  };
  Choice make(const QString& words, const char* name, std::function<core::RunDeed()> deed);

  const BenchEdits& m_run;
  const UnitsShown& m_units;
  Choice m_takeOut, m_accept, m_larger;
};

} // namespace butte::app
