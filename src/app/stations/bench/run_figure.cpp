#include "stations/bench/run_figure.h"

#include "edits/bench_edits.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "stations/bench/run_gauge.h"
#include "stations/bench/run_words.h"

#include <QHBoxLayout>
#include <QVBoxLayout>

namespace butte::app {

using core::RunPhase;
using devices::WatchState;

namespace {
constexpr int figureSize = 80, largeFigureSize = 150, noteSize = 26, largeNoteSize = 44, noteGap = 24;
} // namespace

RunFigure::RunFigure(QWidget* parent)
    : QWidget(parent), m_figure(new PlainLabel), m_note(new PlainLabel), m_gauge(new RunGauge) {
  m_figure->setObjectName("runFigure");
  m_note->setObjectName("runFigureNote");
  setLarge(false);
  auto* row = new QHBoxLayout;
  row->setSpacing(noteGap);
  row->addWidget(m_figure);
  row->addWidget(m_note, 1, Qt::AlignBottom);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addLayout(row);
  column->addWidget(m_gauge);
}

void RunFigure::setLarge(bool large) {
  m_figure->setFont(faceOf(large ? largeFigureSize : figureSize, true));
  m_note->setFont(faceOf(large ? largeNoteSize : noteSize));
}

void RunFigure::refresh(const BenchEdits& run, const UnitsShown& units,
                        const std::optional<devices::WatchNow>& live) {
  const auto at = run.at();
  const bool salt = at.phase == RunPhase::Weigh || at.phase == RunPhase::Decide;
  m_note->setText(runFigureNote(run, live));
  m_gauge->setVisible(salt);
  if (salt && live) { // 20 times a second: nothing is worked out that the scale says itself
    setVisible(true);
    return showLive(run, *live);
  }
  const auto text = runFigure(run, units);
  setVisible(!text.isEmpty());
  m_figure->setText(text);
  if (!salt) return;
  const auto& step = run.plan().vessels[at.vessel].steps[at.step];
  const auto wanted = core::wantedOf(run.state(), step);
  const auto missing = core::stillToWeigh(run.state(), run.plan(), at.vessel, at.step);
  m_gauge->show((wanted - missing).grams(), wanted.grams(), (step.tolerance * run.state().ratio).grams());
}

void RunFigure::showLive(const BenchEdits& run, const devices::WatchNow& now) {
  const auto at = run.at();
  const auto& step = run.plan().vessels[at.vessel].steps[at.step];
  const auto toPour = core::toWeighNow(run.state(), run.plan(), at.vessel, at.step);
  const bool poured = now.state > WatchState::NotZero && now.state != WatchState::Lifted;
  const auto fresh = poured ? now.fresh : core::Mass{};
  const auto display = displayOf(now);
  m_figure->setText(now.state == WatchState::TooMuch ? "+" + display.text(fresh - toPour)
                                                     : display.text(toPour - fresh));
  m_gauge->show(fresh.grams(), toPour.grams(), (step.tolerance * run.state().ratio).grams());
}

} // namespace butte::app
