#pragma once
#include "run/run_event.h"

#include <QWidget>
#include <functional>
#include <vector>

class QLabel;
class QVBoxLayout;

namespace butte::app {

class BenchEdits;
class FlowRow;
class NumberField;
class UnitsShown;

/// "Something went wrong": what it was is chosen with a glove, then what is so. Past lines stay; what did not
/// happen is struck, what did is told. Shut until it is opened.
class RunTroublePanel : public QWidget {
  Q_OBJECT

public:
  RunTroublePanel(const BenchEdits& run, UnitsShown& units, QWidget* parent = nullptr);

  void openOrShut();
  void shut();

  std::function<void(const std::vector<core::RunDeed>& deeds)> onDeeds;
  std::function<void()> onSecondBag; ///< its lot is typed next
  std::function<void(const QString& words)> onMessage;

private:
  using Deeds = std::vector<core::RunDeed>;
  void ask(const QString& question);
  void add(const QString& words, const char* name, std::function<void()> does);
  void addDeeds(const QString& words, const char* name, const Deeds& deeds);
  void askWhat();
  void askVessel();
  void askProduct();
  void askBag();
  void addSubstitutes(std::size_t vessel, std::size_t step);
  void askWater();
  void askLine();
  void takeWater();

  const BenchEdits& m_run;
  UnitsShown& m_units;
  QLabel* m_question;
  QWidget* m_answers = nullptr;
  NumberField* m_volume = nullptr;
  QVBoxLayout* m_column;
};

} // namespace butte::app
