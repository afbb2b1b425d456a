#include "stations/bench/run_page.h"

#include "document/book_desk.h"
#include "paint/beside_or_below.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/bench_sounds.h"
#include "services/device_desk.h"
#include "services/keep_awake.h"
#include "services/units_shown.h"
#include "stations/bench/practice/debrief_view.h"
#include "stations/bench/practice/practice_panel.h"
#include "stations/bench/run_choices.h"
#include "stations/bench/run_fields.h"
#include "stations/bench/run_figure.h"
#include "stations/bench/run_foot.h"
#include "stations/bench/run_order_row.h"
#include "stations/bench/run_result_view.h"
#include "stations/bench/run_stray.h"
#include "stations/bench/run_trouble_panel.h"
#include "stations/bench/scale_row.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

namespace {
constexpr int headingPixels = 26, buttonPixels = 22, clockMilliseconds = 1000;
} // namespace

RunPage::RunPage(BookDesk& desk, UnitsShown& units, Prompts& prompts, DeviceDesk& devices, QWidget* parent)
    : QWidget(parent), m_desk(desk), m_run(desk), m_units(units), m_prompts(prompts), m_devices(devices),
      m_where(new PlainLabel), m_heading(new WrappedLabel), m_detail(new WrappedLabel),
      m_caution(new WrappedLabel), m_log(new WrappedLabel), m_preparation(new WrappedLabel),
      m_figure(new RunFigure), m_scale(new ScaleRow(devices, m_run, units)), m_fields(new RunFields(units)),
      m_troubles(new RunTroublePanel(m_run, units)), m_awake(new KeepAwake(this)),
      m_stray(new RunStray(m_run, units)), m_foot(new RunFoot), m_next(gloveButton({}, "runNext")),
      m_meanwhile(gloveButton({}, "runMeanwhile")),
      m_check(gloveButton(tr("Check a scale with a known weight…"), "runCheckScale")),
      m_order(new RunOrderRow(m_run, units)), m_result(new RunResultView(m_run, units)),
      m_practice(new PracticePanel(m_run, devices, units)), m_debrief(new DebriefView(m_run, units)),
      m_sounds(new BenchSounds(devices.settings(), this)), m_choices(new RunChoices(m_run, units)) {
  setObjectName("runPage");
  m_where->setProperty("soft", true);
  m_heading->setObjectName("runHeading");
  m_heading->setFont(faceOf(headingPixels, true));
  m_detail->setObjectName("runDetail");
  m_detail->setFont(faceOf(16));
  m_caution->setObjectName("runCaution");
  m_caution->setFont(faceOf(14));
  m_log->setObjectName("runLog");
  m_log->setProperty("soft", true);
  m_preparation->setObjectName("runPreparation");
  m_preparation->setTextFormat(Qt::RichText);
  m_preparation->setFont(faceOf(14));
  m_next->setFont(faceOf(buttonPixels, true));
  m_next->setProperty("primary", true);
  layOut();
  connectParts();
  connectFoot();
}

/// The page; at a practice bench the hands stand beside it.
void RunPage::layOut() {
  auto* column = new QVBoxLayout;
  column->setSpacing(8);
  for (QWidget* part : std::initializer_list<QWidget*>{
           m_where, m_heading, m_figure, m_scale, m_detail, m_fields, m_choices, m_next, m_meanwhile, m_stray,
           m_troubles, m_caution, m_order, m_preparation, m_result, m_debrief, m_check})
    column->addWidget(part);
  column->addStretch();
  column->addWidget(m_log);
  column->addWidget(m_foot);
  auto* hands = new QVBoxLayout;
  hands->addWidget(m_practice);
  hands->addStretch();
  auto* halves = new BesideOrBelow(0);
  halves->add(column, 1);
  halves->add(hands, 0);
  auto* all = new QVBoxLayout(this);
  all->setContentsMargins(0, 0, 0, 0);
  all->addWidget(halves);
}

void RunPage::connectParts() {
  m_clock.setInterval(clockMilliseconds);
  connect(&m_clock, &QTimer::timeout, this, &RunPage::refreshTime);
  connect(&m_units, &UnitsShown::changed, this, &RunPage::refresh);
  connect(&m_desk, &BookDesk::changed, this, &RunPage::onBookChanged);
  connect(&m_desk, &BookDesk::bookOpened, this, [this] {
    const bool was = m_run.isOpen();
    m_run.leave(); // nothing more goes into it, and nothing of it into the other book
    if (was) emit left();
  });
  connect(m_next, &QPushButton::clicked, this, &RunPage::next);
  connect(m_meanwhile, &QPushButton::clicked, this, &RunPage::meanwhile);
  connect(m_check, &QPushButton::clicked, this, &RunPage::checkAsked);
  connect(m_result, &RunResultView::labelsAsked, this, &RunPage::labelsAsked);
  connect(m_result, &RunResultView::tankLogAsked, this, [this] {
    const auto trouble = m_run.logIntoTank();
    emit message(
        trouble ? problemWords(*trouble)
                : tr("In the log of %1, as it was weighed. Ctrl+Z takes it back.").arg(m_run.tankName()));
    refresh();
  });
  m_choices->onChosen = [this](const core::RunDeed& deed) { tell(deed); };
  m_order->onChosen = [this] { refresh(); };
  m_practice->onTruth = [this](const core::TrueDeed& deed) {
    m_telling = true;
    const auto trouble = m_run.tellTruth(deed);
    m_telling = false;
    if (trouble) emit message(problemWords(*trouble));
  };
  m_order->onMessage = [this](const QString& words) { emit message(words); };
  m_fields->massUnit = [this] { return scaleUnit(); };
  m_fields->onMessage = [this](const QString& words) { emit message(words); };
  m_troubles->onDeeds = [this](const std::vector<core::RunDeed>& deeds) { tellAll(deeds); };
  m_troubles->onMessage = [this](const QString& words) { emit message(words); };
  m_troubles->onSecondBag = [this] { m_fields->newLot(); };
  m_stray->onDeeds = [this](const std::vector<core::RunDeed>& deeds) { tellAll(deeds); };
  m_scale->onCapture = [this](core::Mass mass) {
    const auto events = m_run.events().size();
    tellWeight(mass, false);
    const bool told = m_run.events().size() > events;
    if (told) m_sounds->play(BenchSound::Taken);
    return told;
  };
  m_scale->onChange = [this] { refreshLive(); };
  m_scale->onMessage = [this](const QString& words) { emit message(words); };
  connect(&m_devices, &DeviceDesk::devicesChanged, this, &RunPage::refresh);
}

void RunPage::connectFoot() {
  connect(m_foot, &RunFoot::strike, this, &RunPage::strike);
  connect(m_foot, &RunFoot::skip, this, &RunPage::skip);
  connect(m_foot, &RunFoot::wrong, m_troubles, &RunTroublePanel::openOrShut);
  connect(m_foot, &RunFoot::pause, this, &RunPage::pause);
  connect(m_foot, &RunFoot::fullScreen, this, &RunPage::fullScreen);
  connect(m_foot, &RunFoot::handOver, this, &RunPage::handOver);
  connect(m_foot, &RunFoot::endHere, this, &RunPage::endHere);
  connect(m_foot, &RunFoot::standIn, this, &RunPage::standIn);
  connect(m_foot, &RunFoot::devices, this, &RunPage::devicesAsked);
  connect(m_foot, &RunFoot::leave, this, &RunPage::left);
  connect(m_foot, &RunFoot::sounds, this, [this](bool on) {
    m_sounds->setOn(on);
    m_sounds->play(BenchSound::Taken); // so that one hears how it sounds
  });
}

} // namespace butte::app
