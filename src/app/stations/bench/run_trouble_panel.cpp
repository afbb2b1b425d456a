#include "stations/bench/run_trouble_panel.h"

#include "edits/bench_edits.h"
#include "edits/bench_mends.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "run/run_trouble.h"
#include "run/substitute.h"
#include "services/units_shown.h"
#include "stations/bench/run_choices.h"
#include "stations/bench/run_words.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "words.h"

#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace butte::app {

using core::RunPhase;

namespace {
constexpr int questionSize = 18;
constexpr int fewLines = 8;
} // namespace

RunTroublePanel::RunTroublePanel(const BenchEdits& run, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_run(run), m_units(units), m_question(new WrappedLabel),
      m_column(new QVBoxLayout(this)) {
  setObjectName("runTroublePanel");
  m_question->setObjectName("troubleQuestion");
  m_question->setFont(faceOf(questionSize, true));
  m_column->setContentsMargins(0, 0, 0, 0);
  m_column->addWidget(m_question);
  hide();
}

void RunTroublePanel::openOrShut() {
  isVisible() ? shut() : askWhat();
}

void RunTroublePanel::shut() {
  hide();
}

void RunTroublePanel::ask(const QString& question) {
  m_question->setText(question);
  if (m_answers) m_answers->deleteLater();
  m_answers = new QWidget;
  m_volume = nullptr;
  new FlowRow(m_answers);
  m_column->addWidget(m_answers);
  show();
}

void RunTroublePanel::add(const QString& words, const char* name, std::function<void()> does) {
  auto* button = gloveButton(words, name);
  connect(button, &QPushButton::clicked, this, std::move(does));
  m_answers->layout()->addWidget(button);
}

void RunTroublePanel::addDeeds(const QString& words, const char* name, const Deeds& deeds) {
  add(words, name, [this, deeds] {
    shut();
    onDeeds(deeds);
  });
}

void RunTroublePanel::askWhat() {
  ask(tr("What went wrong?"));
  if (BenchMends(m_run).canMove())
    add(tr("It went into another vessel"), "troubleVessel", [this] { askVessel(); });
  if (BenchMends(m_run).canSwap()) add(tr("It was another salt"), "troubleProduct", [this] { askProduct(); });
  if (m_run.at().phase == RunPhase::Weigh) add(tr("The bag is empty"), "troubleBag", [this] { askBag(); });
  if (m_run.at().phase != RunPhase::Done && m_run.at().phase != RunPhase::Prepare)
    add(tr("Too much water is in"), "troubleWater", [this] { askWater(); });
  add(tr("A line below is not so"), "troubleLine", [this] { askLine(); });
  add(tr("Nothing, go on"), "troubleNone", [this] { shut(); });
}

void RunTroublePanel::askVessel() {
  const BenchMends mends(m_run);
  ask(tr("Where did the %1 go?").arg(m_run.nameOf(mends.movable()->product)));
  for (std::size_t v = 0; v < m_run.plan().vessels.size(); ++v)
    if (v != mends.movable()->vessel)
      addDeeds(qtext(m_run.plan().vessels[v].name), "troubleInto", mends.moved(v));
}

void RunTroublePanel::askProduct() {
  const BenchMends mends(m_run);
  ask(tr("What was it instead of %1?").arg(m_run.nameOf(*mends.swappable())));
  for (std::size_t p = 0; p < m_run.plan().shelf.size(); ++p)
    if (p != *mends.swappable()) addDeeds(m_run.nameOf(p), "troubleInstead", mends.swapped(p));
}

void RunTroublePanel::askBag() {
  const auto at = m_run.at();
  const auto& step = m_run.plan().vessels[at.vessel].steps[at.step];
  ask(tr("%1 of it is here. How does it go on?")
          .arg(m_units.text(core::hasOf(m_run.state(), m_run.plan(), at.vessel, at.step))));
  add(tr("From another bag: type its lot"), "troubleSecondBag", [this] {
    shut();
    onSecondBag();
  });
  addSubstitutes(at.vessel, at.step);
  if (const auto ratio = core::ratioThatSuffices(m_run.plan(), m_run.state(), at.vessel, at.step))
    addDeeds(tr("All of it smaller: %1 times the plan").arg(localNumber(*ratio, 3)), "troubleSmaller",
             {core::did::Rescaled{*ratio}});
  addDeeds(tr("Go on with too little of it"), "troubleTooLittle",
           {m_run.state().cup[step.product] > core::Mass{} ||
                    m_run.state().vessels[at.vessel].of[step.product].in > core::Mass{}
                ? core::RunDeed(core::did::Accepted{step.product, at.vessel})
                : core::RunDeed(core::did::Skipped{step.product, at.vessel})});
}

/// What else on the shelf brings what is missing, and what it does to the feed.
void RunTroublePanel::addSubstitutes(std::size_t vessel, std::size_t step) {
  const auto product = m_run.plan().vessels[vessel].steps[step].product;
  for (const auto& offer : core::substitutesFor(m_run.plan(), m_run.state(), vessel, step)) {
    QStringList parts, shifts;
    Deeds deeds;
    if (m_run.state().cup[product] > core::Mass{}) deeds.push_back(core::did::Tipped{product, vessel});
    for (const auto& part : offer.parts) {
      parts << tr("%1 of %2").arg(m_units.text(part.mass), m_run.nameOf(part.product));
      deeds.push_back(core::did::Substituted{product, vessel, part.product, part.mass});
    }
    constexpr qsizetype mostShifts = 4;
    for (const auto& [nutrient, percent] : offer.shiftsPercent)
      if (nutrient != core::Nutrient::N && shifts.size() < mostShifts)
        shifts << QString("%1 %2%3 %")
                      .arg(qtext(words::nutrientSymbol(nutrient)), percent > 0 ? "+" : "",
                           localNumber(percent, 0));
    addDeeds(tr("Instead %1: %2")
                 .arg(parts.join(tr(" and ")),
                      shifts.isEmpty() ? tr("the feed stays as planned") : shifts.join(", ")),
             "troubleSubstitute", deeds);
  }
}

void RunTroublePanel::askWater() {
  const auto at = m_run.at();
  ask(tr("How much is in %1 now, in %2?")
          .arg(qtext(m_run.plan().vessels[at.vessel].name), m_units.volumeUnitName()));
  m_volume = new NumberField({tr("volume in the vessel"), "", 0, 1e9, true});
  m_volume->setObjectName("troubleVolume");
  m_volume->asked = [this] { return AskedUnit{m_units.volumeUnit().toStdString(), {}}; };
  m_volume->onMessage = [this](const QString& words) { onMessage(words); };
  m_volume->setFont(faceOf(questionSize, true));
  m_volume->setFixedSize(150, gloveHeight - 12);
  m_answers->layout()->addWidget(m_volume);
  add(tr("So much is in"), "troubleWaterIs", [this] { takeWater(); });
  m_volume->setFocus();
}

void RunTroublePanel::takeWater() {
  const auto litres = core::convert(m_volume->digits().toDouble(), m_units.volumeUnit().toStdString(), "L");
  if (m_volume->isWrong() || m_volume->digits().isEmpty() || !litres || *litres <= 0)
    return onMessage(tr("Type how much is in the vessel now, water and salts together."));
  const auto volume = core::Volume::fromLitres(*litres);
  const BenchMends mends(m_run);
  if (!mends.isBeyondMark(volume)) {
    const auto deeds = mends.poured(volume);
    shut();
    return onDeeds(deeds);
  }
  const auto mark = m_run.plan().vessels[m_run.at().vessel].volume * m_run.state().ratio;
  constexpr double percent = 100;
  ask(tr("That is %1 above the mark. How does it go on?").arg(m_units.stockText(volume - mark)));
  addDeeds(tr("All of the run larger, in proportion"), "troubleLarger", mends.allLarger(volume));
  addDeeds(tr("Leave it weaker by %1 %").arg(localNumber(percent * (1 - mark / volume), 0)), "troubleWeaker",
           mends.leftWeaker(volume));
}

void RunTroublePanel::askLine() {
  ask(tr("Which of these did not happen so? It is struck; what did happen is told anew."));
  const auto stands = m_run.standing();
  const auto lines = runLog(m_run, m_units, fewLines);
  int shown = 0;
  for (auto i = stands.size(); i > 0 && shown < lines.size(); --i)
    if (stands[i - 1]) addDeeds(lines[shown++], "troubleStrike", {core::did::Struck{i - 1}});
  add(tr("None of them"), "troubleNone", [this] { shut(); });
}

} // namespace butte::app
