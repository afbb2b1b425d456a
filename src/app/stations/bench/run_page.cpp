#include "stations/bench/run_page.h"

#include "document/book_desk.h"
#include "paint/theme.h"
#include "panel/sim_panel.h"
#include "run/run_advice.h"
#include "serve/sim_server.h"
#include "services/bench_sounds.h"
#include "services/device_desk.h"
#include "services/keep_awake.h"
#include "services/prompts.h"
#include "services/units_shown.h"
#include "stations/bench/practice/debrief_view.h"
#include "stations/bench/practice/practice_panel.h"
#include "stations/bench/run_choices.h"
#include "stations/bench/run_deeds.h"
#include "stations/bench/run_fields.h"
#include "stations/bench/run_figure.h"
#include "stations/bench/run_foot.h"
#include "stations/bench/run_order_row.h"
#include "stations/bench/run_preparation.h"
#include "stations/bench/run_result_view.h"
#include "stations/bench/run_stray.h"
#include "stations/bench/run_trouble_panel.h"
#include "stations/bench/run_words.h"
#include "stations/bench/scale_check_dialog.h"
#include "stations/bench/scale_row.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QDateTime>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

using core::RunPhase;

namespace {
constexpr int headingSize = 26, largeHeadingSize = 44, logLines = 3;
} // namespace

void RunPage::beginWeights(const FormulaEditor& editor, const std::string& vessel, core::Volume holds,
                           const std::vector<core::Mass>& grams, const book::ForTank& forTank) {
  told(m_run.beginWeights(editor, vessel, holds, grams, forTank));
}

void RunPage::begin(const FormulaEditor& editor) {
  told(m_run.begin(editor));
}

void RunPage::beginBags(const FormulaEditor& editor, std::size_t count) {
  told(m_run.beginBags(editor, count));
}

void RunPage::beginPractice(const FormulaEditor& editor, std::uint64_t seed) {
  told(m_run.beginPractice(editor, seed));
}

void RunPage::goOn(const book::Ref& ref) {
  told(m_run.goOn(ref));
}

void RunPage::told(const book::Trouble& trouble) {
  if (trouble) emit message(problemWords(*trouble));
  if (m_run.isOpen()) refresh();
}

void RunPage::tellAll(const std::vector<core::RunDeed>& deeds) {
  if (deeds.empty()) return refresh();
  m_troubles->shut(); // its answers are of the run as it was
  m_telling = true;
  m_practice->settle();
  const auto trouble = m_run.tellAll(deeds);
  m_telling = false;
  if (!trouble) m_fields->clear(); // what was refused stays to be mended
  told(trouble);
}

/// Undone elsewhere, or told in another window.
void RunPage::onBookChanged(const std::vector<book::Ref>& refs) {
  if (!m_run.isOpen() || m_telling) return;
  if (std::find(refs.begin(), refs.end(), m_run.ref()) == refs.end()) return;
  const auto trouble = m_run.goOn(m_run.ref());
  told(trouble);
  if (!m_run.isOpen()) emit left();
}

/// Of the scale that the product in hand goes on; else the person's own.
std::string RunPage::scaleUnit() const {
  const bool weighing = m_run.isOpen() && m_run.at().phase == RunPhase::Weigh;
  return weighing ? shownNow(m_run, m_units).unit : m_units.massUnit().toStdString();
}

std::size_t RunPage::product() const {
  const auto next = m_run.at();
  return m_run.plan().vessels[next.vessel].steps[next.step].product;
}

void RunPage::next() {
  if (!m_run.isOpen()) return;
  if (m_run.state().paused) return tell(core::did::Resumed{});
  const auto next = m_run.at();
  const bool pours = next.phase == RunPhase::Pour || next.phase == RunPhase::TopUp;
  if (pours && m_fields->isVolumeWrong())
    return emit message(tr("Type how much water it is, or leave the field empty for what stands above."));
  if (next.phase == RunPhase::Tip) m_scale->emptied();
  if (const auto deed = plainDeed(m_run, pours ? m_fields->volume() : std::nullopt)) return tell(*deed);
  if (next.phase == RunPhase::Weigh) return weigh();
  if (next.phase == RunPhase::Measure) return measure();
  if (next.phase == RunPhase::Done) finish();
}

void RunPage::weigh() {
  if (!m_fields->hasMass() && m_scale->captureNow()) return;
  const auto mass = m_fields->hasMass() ? m_fields->mass() : massBySpoons(m_run);
  if (!mass) return emit message(tr("Type what the scale shows for this, then press Enter."));
  tellWeight(*mass, true);
}

void RunPage::tellWeight(core::Mass mass, bool typed) {
  tell(core::did::Weighed{product(), mass, m_fields->lot(), typed});
}

/// The next salt into a cup of its own, or the next vessel, and back to what dissolves or rests.
void RunPage::meanwhile() {
  m_run.weighMeanwhile(!m_run.isMeanwhile());
  refresh();
}

void RunPage::standIn() {
  m_devices.standIn() ? m_devices.stopStandIn() : m_devices.startStandIn();
  if (auto* panel = m_devices.standInPanel()) panel->show();
  refresh();
}

void RunPage::measure() {
  if (m_fields->areReadingsWrong()) return;
  auto read = m_fields->readings(m_run.at().vessel);
  if (const auto pen = m_scale->read(); pen && !read.conductivity && !read.ph) {
    if (!pen->still)
      return emit message(tr("The pen still moves: wait until it is still, or type what it shows."));
    read.conductivity = pen->conductivity;
    read.ph = pen->ph;
  }
  if (!read.conductivity && !read.ph) return emit message(tr("Type the EC or the pH that the meter shows."));
  tell(read);
}

void RunPage::strike() {
  const auto last = m_run.lastStanding();
  if (!last) return;
  if (std::holds_alternative<core::did::Weighed>(m_run.events()[*last].deed)) m_scale->struck();
  tell(core::did::Struck{*last});
}

void RunPage::skip() {
  tell(core::did::Skipped{product(), m_run.at().vessel});
}

void RunPage::pause() {
  tell(m_run.state().paused ? core::RunDeed(core::did::Resumed{}) : core::RunDeed(core::did::Paused{}));
}

void RunPage::fullScreen() {
  m_fullScreen = !m_fullScreen;
  m_figure->setLarge(m_fullScreen);
  m_heading->setFont(faceOf(m_fullScreen ? largeHeadingSize : headingSize, true));
  emit fullScreenAsked(m_fullScreen);
}

void RunPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  m_awake->set(true, tr("weighing at the bench"));
}

void RunPage::hideEvent(QHideEvent* event) {
  QWidget::hideEvent(event);
  m_awake->set(false, {});
  if (event->spontaneous()) return;
  if (m_fullScreen) fullScreen();
  m_practice->putAway();
}

void RunPage::handOver() {
  const auto to = m_prompts.words(tr("Hand over"), tr("Initials of who goes on:"), {}).trimmed();
  if (!to.isEmpty()) tell(core::did::HandedOver{to.toStdString()});
}

void RunPage::finish() {
  if (m_run.sort() != RunSort::Batch) {
    if (m_run.state().finished) return emit left();
    return tell(core::did::Finished{});
  }
  m_telling = true;
  const auto batch = m_run.finish();
  m_telling = false;
  if (!batch) return emit message(problemWords(batch.problem()));
  emit finished(*batch);
}

/// With what is in: a batch of that. With nothing in: as if it had not been begun.
void RunPage::endHere() {
  const auto& lots = m_run.state().lots;
  const bool something = std::any_of(lots.begin(), lots.end(), [](const core::LotUse& lot) {
    return lot.vessel.has_value() && !lot.discarded; // not what a vessel held before
  });
  const auto kept =
      m_run.sort() == RunSort::Batch
          ? tr("What is in the vessels goes into the book as a batch; the rest of the plan is left.")
          : tr("What was done stays in the book; the rest of the plan is left.");
  if (!m_prompts.goOn(tr("End it here"),
                      something ? kept : tr("Nothing is in a vessel yet: the run goes into the bin."),
                      tr("End it")))
    return;
  if (something) return finish();
  const auto trouble = m_desk.book().moveToBin(m_run.ref(), m_run.name().toStdString());
  if (trouble) return emit message(problemWords(*trouble));
  m_run.leave();
  emit left();
}

void RunPage::refresh() {
  if (!m_run.isOpen()) return;
  const auto& state = m_run.state();
  const auto phase = m_run.at().phase;
  const bool done = phase == RunPhase::Done, prepares = phase == RunPhase::Prepare;
  const bool salt = phase == RunPhase::Weigh || phase == RunPhase::Decide || phase == RunPhase::Tip ||
                    phase == RunPhase::Dissolve;
  m_where->setText(done || prepares ? m_run.name()
                                    : tr("%1 · vessel %2 of %3: %4")
                                          .arg(m_run.name())
                                          .arg(m_run.at().vessel + 1)
                                          .arg(m_run.plan().vessels.size())
                                          .arg(qtext(m_run.plan().vessels[m_run.at().vessel].name)));
  m_heading->setText(runHeading(m_run));
  m_figure->refresh(m_run, m_units, m_scale->weighed());
  m_caution->setText(salt ? runCautions(m_run) : QString());
  m_caution->setVisible(!m_caution->text().isEmpty());
  const auto lastCheck = [this](const std::string& scale) {
    return lastCheckWords(m_desk, m_run.document().scales, scale, m_units);
  };
  m_preparation->setText(prepares ? runPreparation(m_run, m_units, lastCheck) : QString());
  m_preparation->setVisible(prepares);
  m_order->refresh();
  m_result->setVisible(done && m_run.sort() != RunSort::Practice);
  if (m_result->isVisibleTo(this)) m_result->refresh();
  m_practice->refresh();
  m_debrief->refresh();
  m_check->setVisible(prepares);
  m_stray->refresh();
  m_log->setText(runLog(m_run, m_units, logLines).join("\n"));
  m_next->setText(runDone(m_run, m_units));
  m_next->setVisible(phase != RunPhase::Decide);
  m_meanwhile->setVisible(m_run.canWeighMeanwhile());
  m_meanwhile->setText(meanwhileWords(m_run));
  m_foot->refresh({salt, m_devices.standIn() != nullptr, state.paused, m_run.sort() == RunSort::Practice,
                   m_sounds->isOn()});
  refreshFields();
  m_choices->refresh();
  refreshTime();
  m_scale->refresh();
  tuneStandIn();
  if (phase == RunPhase::Measure) dipStandIn();
}

/// The stand-in plays the scale that the product in hand goes on; what is done to it by its panel stays until
/// the next one.
void RunPage::tuneStandIn() {
  auto* sim = m_devices.standIn();
  const auto at = m_run.at();
  const auto& steps = m_run.plan().vessels[at.vessel].steps;
  if (!sim || at.step >= steps.size()) return;
  const auto& step = steps[at.step];
  const auto& scales = m_run.document().scales;
  const auto known = std::find_if(scales.begin(), scales.end(), [&](const core::Scale& one) {
    return !one.spoons && one.name == step.scale;
  });
  const auto tuned = std::make_pair(static_cast<const void*>(sim), step.product);
  if (known == scales.end() || m_tuned == tuned) return;
  m_tuned = tuned;
  sim->bench().scale.setStep(known->readability);
  sim->bench().scale.setUnit(known->unit);
}

/// The stand-in's pen hangs in what truly was made.
void RunPage::dipStandIn() {
  auto* sim = m_devices.standIn();
  if (!sim || m_run.sort() == RunSort::Practice) return; // there the hand dips it
  const auto reading = core::expectedReading(m_run.plan(), m_run.state(), m_run.at().vessel);
  constexpr double neutralPh = 7, roomCelsius = 20;
  sim->bench().apply(sim::act::Dip{reading.conductivity, reading.ph.value_or(neutralPh),
                                   core::Temperature::fromCelsius(roomCelsius)});
}

/// What the scale shows while it is poured.
void RunPage::refreshLive() {
  if (!m_run.isOpen()) return;
  const auto at = m_run.at();
  const auto now = m_scale->weighed();
  if (!now || at.phase != RunPhase::Weigh || !isVisible()) return;
  const bool tooMuch = now->state == devices::WatchState::TooMuch;
  if (tooMuch && !m_wasTooMuch) m_sounds->play(BenchSound::Warning);
  m_wasTooMuch = tooMuch;
  if (auto* panel = m_devices.standInPanel())
    panel->setPortion(core::toWeighNow(m_run.state(), m_run.plan(), at.vessel, at.step));
  m_figure->refresh(m_run, m_units, now);
}

/// A lot belongs to one product's bag.
void RunPage::refreshLot() {
  const auto phase = m_run.at().phase;
  if (phase != RunPhase::Weigh && phase != RunPhase::Decide) return;
  if (m_lotOf && *m_lotOf != product()) m_fields->clearLot();
  m_lotOf = product();
}

void RunPage::refreshFields() {
  refreshLot();
  const auto phase = m_run.at().phase;
  m_fields->refresh(phase);
  auto* field = m_fields->fieldOf(phase);
  if (isVisible()) (field ? field : m_next)->setFocus();
}

void RunPage::refreshTime() {
  if (!m_run.isOpen()) return;
  const auto& next = m_run.state().next;
  const bool waits = next.phase == RunPhase::Dissolve || next.phase == RunPhase::Measure;
  if (waits != m_clock.isActive()) waits ? m_clock.start() : m_clock.stop();
  const auto now = QDateTime::currentMSecsSinceEpoch();
  const bool rested = hasRested(m_run, now);
  if (rested && !m_hasRested) m_sounds->play(BenchSound::TimeUp);
  m_hasRested = rested;
  m_detail->setText(runDetail(m_run, m_units, now));
  m_detail->setVisible(!m_detail->text().isEmpty());
}

void RunPage::keyPressEvent(QKeyEvent* event) {
  switch (event->key()) {
  case Qt::Key_F9:
    return strike();
  case Qt::Key_F4:
    return m_troubles->openOrShut();
  case Qt::Key_F7:
  case Qt::Key_F8:
    return m_scale->press(event->key());
  case Qt::Key_F11:
    return fullScreen();
  case Qt::Key_Escape:
    m_troubles->shut();
    if (m_fullScreen) fullScreen();
    return;
  default:
    break;
  }
  const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
  if (enter && m_fields->goesOnToPh()) return;
  if (enter && m_next->isVisible()) return next();
  QWidget::keyPressEvent(event);
}

} // namespace butte::app
