#include "stations/bench/practice/practice_panel.h"

#include "edits/bench_edits.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "serve/sim_server.h"
#include "services/device_desk.h"
#include "services/units_shown.h"
#include "stations/bench/practice/practice_picture.h"
#include "stations/bench/run_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QButtonGroup>
#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

namespace butte::app {

using core::Mass;
using core::RunPhase;

namespace {
/// Shares of the portion that fall in a second, and at once.
constexpr double slowly = 0.02, quickly = 0.25, scoop = 0.25, pinch = 0.004, spoonful = 0.05;
} // namespace

PracticePanel::PracticePanel(BenchEdits& run, DeviceDesk& devices, const UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_run(run), m_devices(devices), m_units(units), m_column(new QVBoxLayout(this)) {
  setObjectName("practicePanel");
  setMinimumWidth(panelWidth); // beside the page so wide, below it as wide as that
  m_column->setContentsMargins(12, 0, 0, 0);
  hide();
}

PracticePanel::~PracticePanel() = default;

void PracticePanel::refresh() {
  const bool practises = m_run.isOpen() && m_run.sort() == RunSort::Practice && !m_run.state().finished;
  if (m_standing) return; // other devices are there because of it
  if (!practises) return putAway();
  const bool stands = m_world && m_of == m_run.ref().uid && m_devices.standIn() &&
                      m_world->happenings() == m_run.practice().truth.size(); // else something was undone
  if (!stands) standUp();
  const auto at = m_run.at();
  const auto& steps = m_run.plan().vessels[at.vessel].steps;
  m_world->standAt({at.phase, at.vessel, steps[std::min(at.step, steps.size() - 1)].product},
                   m_run.state().ratio);
  setVisible(m_run.at().phase != RunPhase::Done);
  show();
}

void PracticePanel::putAway() {
  hide();
  if (!m_world) return;
  if (m_run.isOpen()) m_world->settle();
  m_world.reset();
  m_of.clear();
  m_devices.stopStandIn();
}

void PracticePanel::standUp() {
  m_world.reset();
  m_standing = true;
  m_devices.startStandIn();
  m_standing = false;
  auto* server = m_devices.standIn();
  m_of = m_run.ref().uid;
  m_world = std::make_unique<sim::PracticeWorld>(
      m_run.firstPlan(), core::seedMishaps(m_run.firstPlan(), m_run.practice().seed), server->bench());
  m_world->restore(m_run.practice().truth);
  m_world->onTruth = [this](const core::TrueDeed& deed) { onTruth(deed); };
  connect(server, &sim::SimServer::ticked, this, &PracticePanel::tick);
  build();
}

QPushButton* PracticePanel::add(FlowRow* row, const QString& words, const QString& name,
                                std::function<void()> does) {
  auto* button = new QPushButton(words);
  button->setObjectName(name);
  button->setFocusPolicy(Qt::TabFocus); // Enter stays with the next step, but for who comes by Tab
  connect(button, &QPushButton::clicked, this, [this, does = std::move(does)] {
    does();
    show();
  });
  row->addWidget(button);
  return button;
}

FlowRow* PracticePanel::section(const QString& title) {
  auto* head = new PlainLabel(title);
  head->setProperty("soft", true);
  m_body->layout()->addWidget(head);
  auto* box = new QWidget;
  auto* row = new FlowRow(box);
  row->setContentsMargins(0, 0, 0, 0);
  m_body->layout()->addWidget(box);
  return row;
}

void PracticePanel::build() {
  delete m_body;
  m_body = new QWidget;
  auto* column = new QVBoxLayout(m_body);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(3);
  m_column->addWidget(m_body);
  auto* title = new PlainLabel(tr("Practice: your hands at the bench"));
  title->setFont(faceOf(15, true));
  column->addWidget(title);
  m_picture = new PracticePicture;
  m_picture->setObjectName("practicePicture");
  column->addWidget(m_picture);
  m_note = new WrappedLabel;
  m_note->setObjectName("practiceNote");
  m_note->setFont(faceOf(14, true));
  column->addWidget(m_note);
  note(tr("Some things go wrong here that nobody tells you. Do what you would do at a true bench."));
  buildGear();
  buildTubs();
  buildScale();
  buildVessels();
  buildPens();
  column->addStretch();
}

void PracticePanel::buildGear() {
  auto* row = section(tr("Put on"));
  struct Piece {
    core::Gear gear;
    const char* name;
    QString words;
  };
  for (const auto& piece : {Piece{core::Gear::Goggles, "practiceGoggles", tr("Goggles")},
                            Piece{core::Gear::Gloves, "practiceGloves", tr("Gloves")},
                            Piece{core::Gear::Mask, "practiceMask", tr("Dust mask")}}) {
    auto* button = add(row, piece.words, piece.name, [this, gear = piece.gear] { m_world->wear(gear); });
    button->setCheckable(true);
    button->setChecked(m_world->truth().wears[static_cast<std::size_t>(piece.gear)]);
    connect(button, &QPushButton::clicked, this, [button] { button->setChecked(true); });
  }
}

void PracticePanel::buildTubs() {
  auto* row = section(tr("Tub, by what is on the lid"));
  std::vector<std::size_t> products;
  for (const auto& vessel : m_run.plan().vessels)
    for (const auto& step : vessel.steps)
      if (std::find(products.begin(), products.end(), step.product) == products.end())
        products.push_back(step.product);
  std::sort(products.begin(), products.end()); // as on the shelf, not in the order of the run
  m_tubs = new QComboBox;
  m_tubs->setObjectName("practiceTubs");
  m_tubs->setAccessibleName(tr("the tub in hand"));
  m_tubs->setPlaceholderText(tr("take a tub"));
  for (const auto product : products)
    m_tubs->addItem(m_run.nameOf(product), QVariant::fromValue(product));
  m_tubs->setCurrentIndex(-1);
  connect(m_tubs, &QComboBox::activated, this, [this](int index) {
    m_world->takeTub(m_tubs->itemData(index).value<std::size_t>());
    show();
  });
  row->addWidget(m_tubs);
  add(row, tr("Look closely into it"), "practiceLook", [this] { look(); });
}

void PracticePanel::buildScale() {
  auto* row = section(tr("Scale"));
  add(row, tr("Empty cup on"), "practiceCup", [this] { m_world->layCup(); });
  add(row, tr("Tare"), "practiceTare", [this] { m_world->tare(); });
  m_fast = add(row, tr("Pour fast (hold)"), "practiceFast", [] {});
  m_slow = add(row, tr("Pour slowly (hold)"), "practiceSlow", [] {});
  add(row, tr("A scoop"), "practiceScoop", [this] { m_world->pour(portion() * scoop); });
  add(row, tr("A pinch"), "practicePinch", [this] { m_world->pour(portion() * pinch); });
  add(row, tr("A spoonful out"), "practiceOut", [this] { m_world->spoonOut(portion() * spoonful); });
  add(row, tr("Empty the cup"), "practiceEmpty", [this] { m_world->emptyCup(); });
  add(row, tr("Shut the window"), "practiceWindow", [this] { m_world->shutWindow(); });
  m_cupsWords = new PlainLabel(tr("Two filled cups stand there; at hand:"));
  row->addWidget(m_cupsWords);
  m_nearer = add(row, {}, "practiceNearer", [this] { m_world->takeCup(m_world->nearerCup()); });
  m_farther = add(row, {}, "practiceFarther", [this] { m_world->takeCup(m_world->fartherCup()); });
  auto* group = new QButtonGroup(m_body);
  for (auto* button : {m_nearer, m_farther}) {
    button->setCheckable(true);
    group->addButton(button);
  }
}

void PracticePanel::buildVessels() {
  auto* row = section(tr("Vessel"));
  m_vessels = new QComboBox;
  m_vessels->setObjectName("practiceVessels");
  m_vessels->setAccessibleName(tr("the vessel that you stand at"));
  for (const auto& vessel : m_run.plan().vessels)
    m_vessels->addItem(qtext(vessel.name));
  row->addWidget(
      m_vessels); // it does not follow the run: to stand at the wrong one is a mistake of the trade
  add(row, tr("Water into it"), "practiceWater", [this] { pourWater(vessel()); });
  add(row, tr("Tip the cup into it"), "practiceTip", [this] { m_world->tip(vessel()); });
  add(row, tr("Stir it"), "practiceStir", [this] { m_world->stir(vessel()); });
  add(row, tr("Pens into it"), "practiceDip",
      [this] { m_world->dip(vessel(), core::madeUpTo(m_run.plan(), m_run.state(), vessel())); });
}

void PracticePanel::buildPens() {
  auto* row = section(tr("Pens"));
  add(row, tr("Into the standard"), "practiceStandard", [this] {
    m_world->dipInStandard();
    note(tr("The pens hang in the standard: they should show EC %1 and pH %2.")
             .arg(m_units.text(sim::penStandard()), localNumber(sim::penBufferPh, 2)));
  });
  add(row, tr("Calibrate them"), "practiceCalibrate", [this] { calibrate(); });
}

std::size_t PracticePanel::vessel() const {
  return static_cast<std::size_t>(std::max(0, m_vessels->currentIndex()));
}

void PracticePanel::look() {
  const auto lid = m_world->tubInHand();
  const auto holds = m_world->lookIntoTub();
  if (!holds) return note(tr("No tub is in hand."));
  if (*holds == *lid) return note(tr("It is %1, as the lid says.").arg(m_run.nameOf(*holds)));
  note(tr("The grains are %1, not what the lid says. It goes back, and the right tub is in hand now; what "
          "came "
          "from it is still in the cup.")
           .arg(m_run.nameOf(*holds)));
}

void PracticePanel::calibrate() {
  m_world->calibrate();
  note(tr("The pens are set by the standard and the buffers."));
}

/// What the run asks for: the first water, else what is missing to the mark.
void PracticePanel::pourWater(std::size_t vessel) {
  const auto& planned = m_run.plan().vessels[vessel];
  const auto there = m_world->truth().vessels[vessel].water;
  const auto aim = there <= core::Volume{} ? core::waterFirst(planned) : planned.volume;
  const auto volume = aim * m_run.state().ratio - there;
  if (volume <= core::Volume{}) return note(tr("It stands at its mark."));
  m_world->pourWater(vessel, volume);
}

Mass PracticePanel::portion() const {
  const auto at = m_run.at();
  if (at.phase != RunPhase::Weigh) return Mass::fromGrams(100);
  return core::toWeighNow(m_run.state(), m_run.plan(), at.vessel, at.step);
}

void PracticePanel::settle() {
  if (m_world) m_world->settle();
}

void PracticePanel::tick() {
  if (!m_world || !isVisible()) return;
  constexpr double perSecond = 1000.0 / sim::SimServer::tickMilliseconds;
  if (m_fast->isDown()) m_world->pour(portion() * (quickly / perSecond));
  if (m_slow->isDown()) m_world->pour(portion() * (slowly / perSecond));
  constexpr int ticksAPicture = 4;
  if (++m_ticks % ticksAPicture == 0) show();
}

void PracticePanel::show() {
  if (!m_world || !m_picture) return;
  auto* server = m_devices.standIn();
  if (!server) return;
  auto seen = m_world->truth();
  const auto known = seen.inCup();
  // What is poured and not told yet is seen all the same.
  if (!seen.cup.empty()) seen.cup.front() = seen.cup.front() + (server->bench().scale.content() - known);
  const auto at = m_run.at();
  const bool salt = at.phase == RunPhase::Weigh || at.phase == RunPhase::Tip || at.phase == RunPhase::Decide;
  const auto wanted =
      salt ? core::wantedOf(m_run.state(), m_run.plan().vessels[at.vessel].steps[at.step]) : Mass{};
  m_picture->show(m_run.firstPlan(), seen, wanted,
                  qtext(server->bench().scale.line()).section(',', -1).simplified());
  const bool between = m_world->isBetweenCups();
  for (QWidget* part : std::initializer_list<QWidget*>{m_cupsWords, m_nearer, m_farther})
    part->setVisible(between);
  if (!between) return;
  m_nearer->setText(tr("cup \"%1\"").arg(m_run.nameOf(m_world->nearerCup())));
  m_farther->setText(tr("cup \"%1\"").arg(m_run.nameOf(m_world->fartherCup())));
  if (!m_nearer->isChecked() && !m_farther->isChecked()) m_nearer->setChecked(true);
}

void PracticePanel::note(const QString& words) {
  m_note->setText(words);
}

} // namespace butte::app
