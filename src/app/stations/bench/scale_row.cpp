#include "stations/bench/scale_row.h"

#include "edits/bench_edits.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "refresh/while_seen.h"
#include "scale/weigh_watch.h"
#include "services/units_shown.h"
#include "stations/bench/run_choices.h"
#include "stations/bench/run_words.h"
#include "stations/bench/scale_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

namespace butte::app {

using core::RunPhase;
using devices::WatchHint;
using devices::WatchState;

namespace {
constexpr int toldSize = 30;
} // namespace

ScaleRow::ScaleRow(DeviceDesk& devices, const BenchEdits& run, const UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_devices(devices), m_run(run), m_units(units), m_words(new WrappedLabel),
      m_auto(new QCheckBox(tr("Take it by itself"))) {
  m_words->setObjectName("scaleWords");
  m_words->setFont(faceOf(toldSize, true));
  m_auto->setObjectName("scaleAuto");
  m_auto->setChecked(true);
  m_auto->setToolTip(tr("A weight is taken once it is still and within its band"));
  m_tare = add(tr("Tare (F7)"), "scaleTare", [](LiveDevice& scale) { scale.send(scale.setting().tare); });
  m_zero = add(tr("The container (F8)"), "scaleZero",
               [](LiveDevice& scale) { scale.watch().takeAsZero(scale.now()); });
  m_salt = add(tr("The salt"), "scaleSalt", [](LiveDevice& scale) { scale.watch().isNoContainer(); });
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->addWidget(m_words, 1);
  for (QWidget* part : std::initializer_list<QWidget*>{m_zero, m_salt, m_tare, m_auto})
    row->addWidget(part);
  connect(&devices, &DeviceDesk::changed, this, &ScaleRow::follow);
}

QPushButton* ScaleRow::add(const QString& words, const char* name, std::function<void(LiveDevice&)> does) {
  auto* button = gloveButton(words, name);
  button->setFocusPolicy(Qt::NoFocus); // Enter stays with the next step
  connect(button, &QPushButton::clicked, this, [this, does = std::move(does)] {
    if (auto* device = scale()) does(*device);
    follow();
  });
  return button;
}

LiveDevice* ScaleRow::scale() const {
  if (!m_run.isOpen()) return nullptr;
  const auto at = m_run.at();
  if (at.phase != RunPhase::Weigh && at.phase != RunPhase::Tip) return nullptr;
  return m_devices.scale(QString::fromStdString(m_run.plan().vessels[at.vessel].steps[at.step].scale));
}

std::optional<devices::WatchNow> ScaleRow::weighed() const {
  auto* device = m_run.isOpen() && m_run.at().phase == RunPhase::Weigh ? scale() : nullptr;
  if (!device) return std::nullopt;
  return device->scaleNow();
}

std::optional<devices::PenNow> ScaleRow::read() const {
  auto* device = m_run.isOpen() && m_run.at().phase == RunPhase::Measure ? m_devices.pen() : nullptr;
  if (!device) return std::nullopt;
  return device->penNow();
}

void ScaleRow::refresh() {
  const auto at = m_run.at();
  if (auto* device = scale(); device && at.phase == RunPhase::Weigh) {
    const auto& step = m_run.plan().vessels[at.vessel].steps[at.step];
    m_toPour = core::toWeighNow(m_run.state(), m_run.plan(), at.vessel, at.step);
    device->watch().setTask(
        {m_toPour, step.tolerance * m_run.state().ratio, stepOfScale(m_run.document().scales, step.scale)});
  }
  follow();
}

void ScaleRow::emptied() {
  if (auto* device = scale()) device->watch().emptied();
}

void ScaleRow::struck() {
  auto* device = scale();
  if (!device) return;
  device->watch().uncount();
  m_heldAt = device->scaleNow().shown;
}

void ScaleRow::follow() {
  const auto now = weighed();
  const auto pen = read();
  setVisible(now.has_value() || pen.has_value());
  if (now)
    showWeight(*now);
  else if (pen)
    showPen();
  if (onChange) onChange();
  const bool seen = parentWidget() && parentWidget()->isVisible(); // nothing behind the hand's back
  if (!now || !now->mayCapture || !m_auto->isChecked() || m_run.state().paused || !seen) return;
  const auto& step = m_run.plan().vessels[m_run.at().vessel].steps[m_run.at().step];
  if (m_heldAt && std::abs((now->shown - *m_heldAt).grams()) <= step.tolerance.grams()) return;
  capture(*now);
}

void ScaleRow::showWeight(const devices::WatchNow& now) {
  const auto words = scaleWords(now, m_toPour);
  m_words->setText(words.text);
  const auto colour = words.tone == ScaleWords::Tone::Alarm  ? theme().red
                      : words.tone == ScaleWords::Tone::Good ? theme().accent
                                                             : theme().ink;
  restyle(*m_words, QString("color:%1").arg(colour.name()));
  auto* device = scale();
  const bool something = now.state == WatchState::NotZero || now.hint == WatchHint::LooksLikeContainer;
  m_tare->setVisible(device && !device->setting().tare.isEmpty());
  m_zero->setVisible(something);
  m_salt->setVisible(something);
  m_auto->setVisible(true);
}

void ScaleRow::showPen() {
  const auto now = read();
  QStringList shown;
  if (now->conductivity) shown << tr("EC %1").arg(m_units.text(*now->conductivity));
  if (now->ph) shown << tr("pH %1").arg(localNumber(*now->ph, 2));
  m_words->setText(!now->heard  ? tr("▲ Nothing comes from the pen")
                   : now->still ? tr("%1: it is still, press Enter").arg(shown.join(" · "))
                                : tr("%1: it still moves").arg(shown.join(" · ")));
  restyle(*m_words, QString("color:%1").arg((now->still ? theme().accent : theme().ink).name()));
  for (QWidget* part : std::initializer_list<QWidget*>{m_tare, m_zero, m_salt, m_auto})
    part->setVisible(false);
}

void ScaleRow::press(int key) {
  auto* button = key == Qt::Key_F7 ? m_tare : m_zero;
  if (button->isVisible()) button->click();
}

bool ScaleRow::captureNow() {
  const auto now = weighed();
  if (!now) return false;
  const bool weight = now->state == WatchState::Right || now->state == WatchState::TooMuch ||
                      now->state == WatchState::Filling || now->state == WatchState::Near;
  const bool doubt = now->hint == WatchHint::LooksLikeContainer || now->hint == WatchHint::TooCoarse;
  if (!weight || !now->still || doubt) {
    onMessage(tr("Nothing is taken yet: %1").arg(scaleWords(*now, m_toPour).text));
    return true;
  }
  capture(*now);
  return true;
}

void ScaleRow::capture(const devices::WatchNow& now) {
  m_heldAt.reset();
  auto* device = scale();
  device->watch().count(device->now());
  if (onCapture(now.fresh)) return;
  device->watch().uncount(); // it is not in the book: not taken again by itself, but by Enter
  m_heldAt = now.shown;
}

} // namespace butte::app
