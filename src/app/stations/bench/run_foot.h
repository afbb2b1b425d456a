#pragma once
#include <QWidget>

class QPushButton;

namespace butte::app {

class FlowRow;

/// What can be pressed at any time of a run: back, out of order, away.
class RunFoot : public QWidget {
  Q_OBJECT

public:
  struct State {
    bool canSkip = false, standsIn = false, isPaused = false, practises = false, sounds = false;
  };

  explicit RunFoot(QWidget* parent = nullptr);
  void refresh(const State& state);

signals:
  void strike();
  void skip();
  void wrong();
  void pause();
  void fullScreen();
  void handOver();
  void endHere();
  void standIn();
  void devices();
  void leave();
  void sounds(bool on);

private:
  QPushButton* add(const QString& words, const char* name, void (RunFoot::*what)());

  FlowRow* m_row;
  QPushButton *m_skip, *m_standIn, *m_devices, *m_pause, *m_sounds;
};

} // namespace butte::app
