#include "stations/bench/run_page.h"

#include "cautions.h"
#include "document/book_desk.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "print/hazard_facts.h"
#include "services/prompts.h"
#include "services/units_shown.h"
#include "stations/bench/run_choices.h"
#include "stations/bench/run_gauge.h"
#include "stations/bench/run_words.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

using core::RunPhase;

namespace {
constexpr int headingSize = 26, figureSize = 80, fieldSize = 26, buttonSize = 22;
constexpr int clockMilliseconds = 1000, logLines = 6;

/// Digits of a field in a unit of the core's.
double inUnit(const QString& digits, const QString& from, const char* to) {
  const auto value = core::convert(digits.toDouble(), from.toStdString(), to);
  return value ? *value : 0;
}

bool isZero(const NumberField& field) {
  return !field.digits().isEmpty() && field.digits().toDouble() <= 0;
}
} // namespace

RunPage::RunPage(BookDesk& desk, UnitsShown& units, Prompts& prompts, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_run(desk), m_units(units), m_prompts(prompts), m_where(new PlainLabel),
      m_heading(new WrappedLabel), m_figure(new PlainLabel), m_detail(new WrappedLabel),
      m_caution(new WrappedLabel), m_log(new WrappedLabel), m_result(new WrappedLabel),
      m_gauge(new RunGauge) {
  setObjectName("runPage");
  m_where->setProperty("soft", true);
  m_heading->setObjectName("runHeading");
  m_heading->setFont(faceOf(headingSize, true));
  m_figure->setObjectName("runFigure");
  m_figure->setFont(faceOf(figureSize, true));
  m_detail->setObjectName("runDetail");
  m_detail->setFont(faceOf(16));
  m_caution->setObjectName("runCaution");
  m_caution->setFont(faceOf(14));
  m_log->setObjectName("runLog");
  m_log->setProperty("soft", true);
  m_result->setObjectName("runResult");
  m_result->setTextFormat(Qt::RichText);
  m_result->setFont(faceOf(14));
  m_next = gloveButton({}, "runNext");
  m_next->setFont(faceOf(buttonSize, true));
  m_next->setProperty("primary", true);
  m_choices = new RunChoices(m_run, units);
  m_choices->onChosen = [this](const core::RunDeed& deed) { tell(deed); };
  connect(m_next, &QPushButton::clicked, this, &RunPage::next);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(8);
  for (QWidget* part : std::initializer_list<QWidget*>{m_where, m_heading, m_figure, m_gauge, m_detail,
                                                       makeFields(), m_choices, m_next, m_caution, m_result})
    column->addWidget(part);
  column->addStretch();
  column->addWidget(m_log);
  column->addWidget(makeFoot());
  m_clock.setInterval(clockMilliseconds);
  connect(&m_clock, &QTimer::timeout, this, &RunPage::refreshTime);
  connect(&units, &UnitsShown::changed, this, &RunPage::refresh);
  connect(&desk, &BookDesk::changed, this, &RunPage::onBookChanged);
  connect(&desk, &BookDesk::bookOpened, this, [this] {
    if (m_run.isOpen()) emit left();
    m_run.leave();
  });
}

QWidget* RunPage::makeFields() {
  const auto field = [this](const QString& name, const char* id, double most) {
    auto* made = new NumberField({name, "", 0, most, true});
    made->setObjectName(id);
    made->setFont(faceOf(fieldSize, true));
    made->setFixedSize(170, gloveHeight - 12);
    made->onMessage = [this](const QString& words) { emit message(words); };
    return made;
  };
  m_mass = field(tr("weight on the scale"), "runMass", 1e9);
  m_mass->asked = [this] { return AskedUnit{scaleUnit(), {}}; };
  m_volume = field(tr("volume"), "runVolume", 1e9);
  m_volume->asked = [this] { return AskedUnit{m_units.volumeUnit().toStdString(), {}}; };
  m_ec = field(tr("EC read"), "runEc", 1e6);
  m_ec->asked = [this] { return AskedUnit{m_units.conductivityUnit().toStdString(), {}}; };
  m_ph = field(tr("pH read"), "runPh", 14);
  m_massUnit = new PlainLabel;
  m_volumeUnit = new PlainLabel;
  m_ecUnit = new PlainLabel;
  m_lot = new QLineEdit;
  m_lot->setObjectName("runLot");
  m_lot->setPlaceholderText(tr("lot"));
  m_lot->setAccessibleName(tr("lot of the bag"));
  m_lot->setFixedWidth(130);
  const auto rowOf = [](std::initializer_list<QWidget*> parts) {
    auto* box = new QWidget;
    auto* row = new QHBoxLayout(box);
    row->setContentsMargins(0, 0, 0, 0);
    for (auto* part : parts)
      row->addWidget(part);
    row->addStretch();
    return box;
  };
  m_massRow = rowOf({new PlainLabel(tr("The scale shows")), m_mass, m_massUnit, m_lot});
  m_volumeRow = rowOf({new PlainLabel(tr("Poured")), m_volume, m_volumeUnit});
  m_readRow = rowOf({new PlainLabel(tr("EC")), m_ec, m_ecUnit, new PlainLabel(tr("pH")), m_ph});
  auto* box = new QWidget;
  auto* column = new QVBoxLayout(box);
  column->setContentsMargins(0, 0, 0, 0);
  for (auto* row : {m_massRow, m_volumeRow, m_readRow})
    column->addWidget(row);
  return box;
}

QWidget* RunPage::makeFoot() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  const auto add = [&](const QString& text, const char* name, void (RunPage::*what)()) {
    auto* button = new QPushButton(text);
    button->setObjectName(name);
    connect(button, &QPushButton::clicked, this, what);
    row->addWidget(button);
    return button;
  };
  add(tr("Strike the last (F9)"), "runStrike", &RunPage::strike);
  m_skip = add(tr("Without this one"), "runSkip", &RunPage::skip);
  add(tr("Hand over…"), "runHandOver", &RunPage::handOver);
  add(tr("End it here…"), "runEnd", &RunPage::endHere);
  row->addStretch();
  auto* leave = new QPushButton(tr("To the sheet; go on later"));
  leave->setObjectName("runLeave");
  connect(leave, &QPushButton::clicked, this, &RunPage::left);
  row->addWidget(leave);
  return box;
}

void RunPage::begin(const FormulaEditor& editor) {
  told(m_run.begin(editor));
}

void RunPage::goOn(const book::Ref& ref) {
  told(m_run.goOn(ref));
}

void RunPage::told(const book::Trouble& trouble) {
  if (trouble) emit message(problemWords(*trouble));
  if (m_run.isOpen()) refresh();
}

void RunPage::tell(const core::RunDeed& deed) {
  m_telling = true;
  const auto trouble = m_run.tell(deed);
  m_telling = false;
  for (auto* field : {m_mass, m_volume, m_ec, m_ph})
    if (!trouble) field->show({}); // what was refused stays to be mended
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
  const bool weighing = m_run.isOpen() && m_run.state().next.phase == RunPhase::Weigh;
  return weighing ? shownNow(m_run, m_units).unit : m_units.massUnit().toStdString();
}

std::size_t RunPage::product() const {
  const auto& next = m_run.state().next;
  return m_run.plan().vessels[next.vessel].steps[next.step].product;
}

void RunPage::next() {
  if (!m_run.isOpen()) return;
  const auto& next = m_run.state().next;
  const bool pours = next.phase == RunPhase::Pour || next.phase == RunPhase::TopUp;
  if (pours && (m_volume->isWrong() || isZero(*m_volume)))
    return emit message(tr("Type how much water it is, or leave the field empty for what stands above."));
  const auto typedVolume = [this](core::Volume usual) {
    return m_volume->digits().isEmpty()
               ? usual
               : core::Volume::fromLitres(inUnit(m_volume->digits(), m_units.volumeUnit(), "L"));
  };
  switch (next.phase) {
  case RunPhase::Pour:
    return tell(core::did::Poured{next.vessel, typedVolume(waterToBeginWith(m_run))});
  case RunPhase::Weigh:
    return weigh();
  case RunPhase::Tip:
    return tell(core::did::Tipped{product(), next.vessel});
  case RunPhase::Dissolve:
    return tell(core::did::Clear{product(), next.vessel});
  case RunPhase::TopUp:
    return tell(core::did::ToppedUp{
        next.vessel, typedVolume(m_run.plan().vessels[next.vessel].volume * m_run.state().ratio)});
  case RunPhase::Measure:
    return measure();
  case RunPhase::Decide:
    return;
  case RunPhase::Done:
    break;
  }
  finish();
}

void RunPage::weigh() {
  if (m_mass->isWrong() || m_mass->digits().isEmpty() || isZero(*m_mass))
    return emit message(tr("Type what the scale shows for this, then press Enter."));
  const auto grams = inUnit(m_mass->digits(), QString::fromStdString(scaleUnit()), "g");
  tell(core::did::Weighed{product(), core::Mass::fromGrams(grams), m_lot->text().trimmed().toStdString(),
                          true});
}

void RunPage::measure() {
  core::did::Read read{m_run.state().next.vessel, {}, {}};
  if (m_ec->isWrong() || m_ph->isWrong()) return;
  if (!m_ec->digits().isEmpty())
    read.conductivity = core::Conductivity::fromMilliSiemensPerCm(
        inUnit(m_ec->digits(), m_units.conductivityUnit(), "mS/cm"));
  if (!m_ph->digits().isEmpty()) read.ph = m_ph->digits().toDouble();
  if (!read.conductivity && !read.ph) return emit message(tr("Type the EC or the pH that the meter shows."));
  tell(read);
}

void RunPage::strike() {
  if (const auto last = m_run.lastStanding()) tell(core::did::Struck{*last});
}

void RunPage::skip() {
  tell(core::did::Skipped{product(), m_run.state().next.vessel});
}

void RunPage::handOver() {
  const auto to = m_prompts.words(tr("Hand over"), tr("Initials of who goes on:"), {}).trimmed();
  if (!to.isEmpty()) tell(core::did::HandedOver{to.toStdString()});
}

void RunPage::finish() {
  m_telling = true;
  const auto batch = m_run.finish();
  m_telling = false;
  if (!batch) return emit message(problemWords(batch.problem()));
  emit finished(*batch);
}

/// With what is in: a batch of that. With nothing in: as if it had not been begun.
void RunPage::endHere() {
  const auto& vessels = m_run.state().vessels;
  const bool something = std::any_of(vessels.begin(), vessels.end(), [](const auto& vessel) {
    return std::any_of(vessel.of.begin(), vessel.of.end(),
                       [](const auto& step) { return step.in > core::Mass{}; });
  });
  if (!m_prompts.goOn(
          tr("End it here"),
          something
              ? tr("What is in the vessels goes into the book as a batch; the rest of the plan is left.")
              : tr("Nothing is in a vessel yet: the run goes into the bin."),
          tr("End it")))
    return;
  if (something) return finish();
  const auto trouble = m_desk.book().moveToBin(m_run.ref(), m_run.name().toStdString());
  if (trouble) return emit message(problemWords(*trouble));
  m_run.leave();
  emit left();
}

QString RunPage::cautions() const {
  const auto facts = hazardFacts(m_run.document(), m_run.plan().shelf[product()]);
  QStringList lines;
  for (const auto& caution : words::cautionsFor({facts}))
    lines << "⚠ " + qtext(caution.text);
  return lines.mid(0, 2).join("\n");
}

void RunPage::refresh() {
  if (!m_run.isOpen()) return;
  const auto& state = m_run.state();
  const auto phase = state.next.phase;
  const bool done = phase == RunPhase::Done;
  const bool salt = phase == RunPhase::Weigh || phase == RunPhase::Decide || phase == RunPhase::Tip ||
                    phase == RunPhase::Dissolve;
  m_where->setText(done ? m_run.name()
                        : tr("%1 · vessel %2 of %3: %4")
                              .arg(m_run.name())
                              .arg(state.next.vessel + 1)
                              .arg(m_run.plan().vessels.size())
                              .arg(qtext(m_run.plan().vessels[state.next.vessel].name)));
  m_heading->setText(runHeading(m_run));
  m_figure->setText(runFigure(m_run, m_units));
  m_figure->setVisible(!m_figure->text().isEmpty());
  m_gauge->setVisible(phase == RunPhase::Weigh || phase == RunPhase::Decide);
  if (salt) {
    const auto& step = m_run.plan().vessels[state.next.vessel].steps[state.next.step];
    const auto wanted = core::wantedOf(state, step);
    const auto missing = core::stillToWeigh(state, m_run.plan(), state.next.vessel, state.next.step);
    m_gauge->show((wanted - missing).grams(), wanted.grams(), (step.tolerance * state.ratio).grams());
  }
  m_caution->setText(salt ? cautions() : QString());
  m_caution->setVisible(!m_caution->text().isEmpty());
  m_result->setText(done ? runResultText(m_run, m_units) : QString());
  m_result->setVisible(done);
  m_log->setText(runLog(m_run, m_units, logLines).join("\n"));
  m_next->setText(runDone(m_run, m_units));
  m_next->setVisible(phase != RunPhase::Decide);
  m_skip->setEnabled(salt);
  refreshFields();
  m_choices->refresh();
  refreshTime();
}

/// A lot belongs to one product's bag.
void RunPage::refreshLot() {
  const auto phase = m_run.state().next.phase;
  if (phase != RunPhase::Weigh && phase != RunPhase::Decide) return;
  if (m_lotOf && *m_lotOf != product()) m_lot->clear();
  m_lotOf = product();
}

void RunPage::refreshFields() {
  refreshLot();
  const auto phase = m_run.state().next.phase;
  const bool volume = phase == RunPhase::Pour || phase == RunPhase::TopUp;
  m_massRow->setVisible(phase == RunPhase::Weigh);
  m_volumeRow->setVisible(volume);
  m_readRow->setVisible(phase == RunPhase::Measure);
  m_massUnit->setText(QString::fromStdString(scaleUnit()));
  m_volumeUnit->setText(m_units.volumeUnitName() + tr(" (as above where empty)"));
  m_ecUnit->setText(m_units.conductivityUnitName());
  auto* field = phase == RunPhase::Weigh     ? static_cast<QWidget*>(m_mass)
                : phase == RunPhase::Measure ? m_ec
                                             : static_cast<QWidget*>(m_next);
  if (isVisible()) field->setFocus();
}

void RunPage::refreshTime() {
  if (!m_run.isOpen()) return;
  const bool waits = m_run.state().next.phase == RunPhase::Dissolve;
  if (waits != m_clock.isActive()) waits ? m_clock.start() : m_clock.stop();
  m_detail->setText(runDetail(m_run, m_units, QDateTime::currentMSecsSinceEpoch()));
  m_detail->setVisible(!m_detail->text().isEmpty());
}

void RunPage::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_F9) return strike();
  const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
  if (enter && m_ec->hasFocus() && m_ph->digits().isEmpty()) return m_ph->setFocus();
  if (enter && m_next->isVisible()) return next();
  QWidget::keyPressEvent(event);
}

} // namespace butte::app
