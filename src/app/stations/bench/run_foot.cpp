#include "stations/bench/run_foot.h"

#include "paint/flow_row.h"

#include <QPushButton>

namespace butte::app {

RunFoot::RunFoot(QWidget* parent) : QWidget(parent), m_row(new FlowRow(this)) {
  m_row->setContentsMargins(0, 0, 0, 0);
  add(tr("Strike the last (F9)"), "runStrike", &RunFoot::strike);
  m_skip = add(tr("Without this one"), "runSkip", &RunFoot::skip);
  add(tr("Trouble (F4)"), "runWrong", &RunFoot::wrong);
  m_pause = add(tr("Pause"), "runPause", &RunFoot::pause);
  add(tr("Full screen (F11)"), "runFull", &RunFoot::fullScreen);
  add(tr("Hand over…"), "runHandOver", &RunFoot::handOver);
  add(tr("End it here…"), "runEnd", &RunFoot::endHere);
  m_standIn = add(tr("Stand-in scale"), "runStandIn", &RunFoot::standIn);
  m_standIn->setCheckable(true);
  m_standIn->setToolTip(tr("A scale and a pen that are none, with a panel to pour with: to try how it goes"));
  m_devices = add(tr("Scales, pens…"), "runDevices", &RunFoot::devices);
  m_sounds = new QPushButton(tr("Sounds"));
  m_sounds->setObjectName("runSounds");
  m_sounds->setCheckable(true);
  m_sounds->setToolTip(
      tr("A tone when a weight is taken, when it is too much, and when a vessel has rested"));
  connect(m_sounds, &QPushButton::clicked, this, &RunFoot::sounds);
  m_row->addWidget(m_sounds);
  m_row->addStretch();
  add(tr("Go on later"), "runLeave", &RunFoot::leave);
}

QPushButton* RunFoot::add(const QString& words, const char* name, void (RunFoot::*what)()) {
  auto* button = new QPushButton(words);
  button->setObjectName(name);
  connect(button, &QPushButton::clicked, this, what);
  m_row->addWidget(button);
  return button;
}

void RunFoot::refresh(const State& state) {
  m_skip->setEnabled(state.canSkip);
  m_standIn->setChecked(state.standsIn);
  m_standIn->setVisible(!state.practises);
  m_devices->setVisible(!state.practises);
  m_pause->setText(state.isPaused ? tr("Go on") : tr("Pause"));
  m_sounds->setChecked(state.sounds);
}

} // namespace butte::app
