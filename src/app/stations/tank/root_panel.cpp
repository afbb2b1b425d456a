#include "stations/tank/root_panel.h"

#include "base/decimal.h"
#include "deed_words.h"
#include "fields/number_field.h"
#include "language.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "report/report_text.h"
#include "services/units_shown.h"
#include "stations/tank/fact_field.h"
#include "stations/tank/irrigation_row.h"
#include "stations/tank/tank_words.h"
#include "tank/root_zone.h"
#include "water/examine.h"
#include "wording/reading_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace butte::app {

using core::Nutrient;

namespace {

constexpr qsizetype mostReportLetters = 100000;
/// Of what is given 20 to 30 % drains, and a root zone stands some third stronger than its feed (common
/// practice).
constexpr double usualShare = 30, usualStrength = 130;

/// A growing medium's own charge, in the list of what was analysed.
QString mediumKey() {
  return "medium";
}

/// What a report says, by element.
std::vector<book::AnalysedFigure> figuresIn(const QString& text) {
  std::vector<book::AnalysedFigure> out;
  const auto read = reading::readReportText(text.toStdString());
  const auto examined = core::waterOf(read.report);
  if (!examined) return out;
  for (const auto n : core::keptNutrients)
    if (examined->measured[static_cast<std::size_t>(n)])
      out.push_back({std::string(core::nutrientKey(n)),
                     {QString::number(examined->milligramsPerLitre.of(n), 'g', 5).toStdString(), "mg/L"}});
  return out;
}

QString figuresText(const std::vector<book::AnalysedFigure>& figures) {
  QStringList out;
  for (const auto& one : figures)
    if (const auto n = core::nutrientFromKey(one.element))
      out << tr("%1 %2").arg(shortName(*n), qtext(words::figureText(one.amount.digits)));
  return out.join(", ");
}

QString standingText(core::DrainClass standing) {
  switch (standing) {
  case core::DrainClass::MuchTooLow:
    return tr("much too low");
  case core::DrainClass::Low:
    return tr("low");
  case core::DrainClass::High:
    return tr("high");
  case core::DrainClass::MuchTooHigh:
    return tr("much too high");
  case core::DrainClass::Good:
  case core::DrainClass::NoTarget:
  case core::DrainClass::NotFed:
    break;
  }
  return tr("good");
}

} // namespace

RootPanel::RootPanel(TankEdits& edits, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_edits(edits), m_units(units), m_irrigation(new IrrigationRow(edits, units)),
      m_text(new QPlainTextEdit), m_of(new QComboBox), m_school(new QComboBox), m_where(new QComboBox),
      m_read(new WrappedLabel), m_steered(new WrappedLabel), m_sideBySide(new WrappedLabel),
      m_keep(new QPushButton(tr("Log the analysis"))),
      m_target(new QPushButton(tr("Adjusted feed as target"))), m_litres(new PlainLabel),
      m_ecUnit(new PlainLabel), m_mediumUnit(new PlainLabel) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  column->addWidget(makePaste());
  column->addWidget(makeDrained());
  column->addWidget(m_irrigation);
  connect(m_irrigation, &IrrigationRow::message, this, &RootPanel::message);
  column->addWidget(makeSteer());
  column->addStretch();
}

QWidget* RootPanel::makePaste() {
  m_text->setObjectName("analysisText");
  m_text->setAccessibleName(tr("the laboratory's report"));
  m_text->setPlaceholderText(tr("Paste the laboratory's report, or type it: K 182 mg/L, Ca 130 mg/L"));
  m_text->setFixedHeight(64);
  m_text->setTabChangesFocus(true);
  m_of->setObjectName("analysisOf");
  m_of->setAccessibleName(tr("what was analysed"));
  m_of->addItem(tr("of the tank"), QString());
  m_of->addItem(tr("of the drain"), QString("drain"));
  m_of->addItem(tr("of the root zone"), QString("root_zone"));
  m_of->addItem(tr("of the drip"), QString("drip"));
  m_of->addItem(tr("brought by the medium, mg/L of it"), mediumKey());
  m_medium = new NumberField(
      {.name = tr("how much medium there is"), .unit = {}, .least = 0, .most = 1e9, .mayBeEmpty = true});
  m_medium->setObjectName("analysisMedium");
  m_medium->setFixedWidth(62);
  m_medium->asked = [this] { return AskedUnit{m_units.measures().volumeUnit(), {}}; };
  m_medium->onMessage = [this](const QString& said) { emit message(said); };
  m_read->setObjectName("analysisRead");
  m_read->setFont(faceOf(12));
  m_keep->setObjectName("analysisKeep");
  connect(m_text, &QPlainTextEdit::textChanged, this, &RootPanel::pasted);
  const auto showMedium = [this] {
    m_medium->parentWidget()->setVisible(m_of->currentData().toString() == mediumKey());
  };
  connect(m_of, &QComboBox::currentIndexChanged, this, showMedium);
  connect(m_of, &QComboBox::activated, this, &RootPanel::steer);
  connect(m_keep, &QPushButton::clicked, this, &RootPanel::keep);
  auto* box = new QWidget;
  auto* inside = new QVBoxLayout(box);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->addWidget(m_text);
  inside->addWidget(m_read);
  auto* row = new FlowRow;
  row->addWidget(m_of);
  row->addTogether({m_medium, m_mediumUnit});
  row->addWidget(m_keep);
  inside->addLayout(row);
  showMedium();
  return box;
}

/// What was given and what ran off, read day by day.
QWidget* RootPanel::makeDrained() {
  const auto field = [&](const QString& name, const QString& object, double most) {
    auto* made = new NumberField({.name = name, .unit = {}, .least = 0, .most = most, .mayBeEmpty = true});
    made->setObjectName(object);
    made->setFixedWidth(62);
    made->onMessage = [this](const QString& said) { emit message(said); };
    connect(made, &QLineEdit::returnPressed, this, &RootPanel::keepDrained);
    return made;
  };
  m_given = field(tr("how much was given to the plants"), "rootGiven", 1e9);
  m_drained = field(tr("how much of it drained"), "rootDrained", 1e9);
  m_ec = field(tr("EC that was read there"), "rootEc", 30000);
  m_ph = field(tr("pH that was read there"), "rootPh", 14);
  m_where->setObjectName("rootWhere");
  m_where->setAccessibleName(tr("where EC and pH were read"));
  m_where->addItem(tr("drain"), QString("drain"));
  m_where->addItem(tr("drip"), QString("drip"));
  m_where->addItem(tr("root zone"), QString("root"));
  for (auto* one : {m_given, m_drained})
    one->asked = [this] { return AskedUnit{m_units.measures().volumeUnit(), {}}; };
  m_ec->asked = [this] { return AskedUnit{m_units.measures().conductivityUnit(), {}}; };
  auto* log = new QPushButton(tr("Log"));
  log->setObjectName("rootKeep");
  connect(log, &QPushButton::clicked, this, &RootPanel::keepDrained);
  m_sideBySide->setObjectName("rootSideBySide");
  m_sideBySide->setFont(faceOf(12));
  auto* box = new QWidget;
  auto* inside = new QVBoxLayout(box);
  inside->setContentsMargins(0, 0, 0, 0);
  auto* row = new FlowRow;
  row->addTogether({new PlainLabel(tr("Given")), m_given});
  row->addTogether({new PlainLabel(tr("drained")), m_drained, m_litres});
  row->addTogether({m_where, new PlainLabel(tr("EC")), m_ec, m_ecUnit});
  row->addTogether({new PlainLabel(tr("pH")), m_ph});
  row->addWidget(log);
  inside->addLayout(row);
  inside->addWidget(m_sideBySide);
  return box;
}

QWidget* RootPanel::makeSteer() {
  m_school->setObjectName("steerSchool");
  m_school->setAccessibleName(tr("how the feed is adjusted"));
  m_school->addItem(tr("in steps, by classes"));
  m_school->addItem(tr("by balance"));
  m_school->setToolTip(
      tr("Steps: 12 or 25 % up or down by the class that an element falls into. Balance: the feed from "
         "which the drain will stand at its target. Both are common; docs/tank.md has their rules."));
  const auto percent = [&](const QString& name, const QString& object, const char* key, double most,
                           double usual) {
    auto* made = factField(
        {.name = name, .unit = "%", .least = 0, .most = most}, object,
        [this, key = std::string(key)](const QString& digits) { heard(m_edits.setText(m_uid, key, digits)); },
        [this](const QString& said) { emit message(said); });
    made->setPlaceholderText(localNumber(usual, 0));
    return made;
  };
  m_share = percent(tr("share that drains"), "steerShare", "drain_percent", 100, usualShare);
  m_strength =
      percent(tr("root zone over the feed's target"), "steerStrength", "root_percent", 1000, usualStrength);
  m_target->setObjectName("steerTarget");
  m_steered->setObjectName("steered");
  m_steered->setFont(faceOf(12));
  connect(m_school, &QComboBox::activated, this, &RootPanel::steer);
  connect(m_target, &QPushButton::clicked, this, [this] { emit targetAsked(m_newFeed); });
  auto* box = new QWidget;
  auto* inside = new QVBoxLayout(box);
  inside->setContentsMargins(0, 0, 0, 0);
  auto* row = new FlowRow;
  row->addWidget(m_school);
  row->addTogether({new PlainLabel(tr("drains")), m_share, new PlainLabel(tr("%"))});
  row->addTogether({new PlainLabel(tr("root zone at")), m_strength, new PlainLabel(tr("% of the target"))});
  inside->addLayout(row);
  inside->addWidget(m_steered);
  inside->addWidget(m_target, 0, Qt::AlignLeft);
  return box;
}

void RootPanel::pasted() {
  const auto text = m_text->toPlainText();
  if (text.size() > mostReportLetters) {
    m_figures.clear();
    m_read->setText(tr("Too long for a report: at most %1 letters.").arg(mostReportLetters));
  } else {
    m_figures = figuresIn(text);
    m_read->setText(text.trimmed().isEmpty() ? QString()
                    : m_figures.empty()      ? tr("No element could be read yet.")
                                             : tr("Read, in mg/L: %1").arg(figuresText(m_figures)));
  }
  m_keep->setEnabled(!m_figures.empty());
  steer();
}

void RootPanel::keep() {
  book::TankLine line;
  line.did = book::TankDid::Analysed;
  line.figures = m_figures;
  const auto of = m_of->currentData().toString();
  if (of == mediumKey()) {
    if (m_medium->isWrong()) return;
    if (m_medium->digits().isEmpty())
      return emit message(tr("How much medium is there? Type its volume beside the analysis."));
    line.did = book::TankDid::Medium;
    line.volume = {m_medium->digits().toStdString(), m_units.measures().volumeUnit()};
  } else {
    line.about = of.toStdString();
  }
  if (m_figures.empty() || !onTold(line)) return;
  m_text->clear();
  m_medium->show({});
}

void RootPanel::keepDrained() {
  for (const auto* one : {m_given, m_drained, m_ec, m_ph})
    if (one->isWrong()) return;
  TypedReadings typed;
  const auto take = [&](const NumberField* from, const std::string& quantity, const std::string& unit) {
    const auto digits = from->digits().toStdString();
    if (!digits.empty()) typed.others.push_back({quantity, {digits, unit}});
  };
  take(m_given, "given", m_units.measures().volumeUnit());
  take(m_drained, "drain", m_units.measures().volumeUnit());
  const auto where = m_where->currentData().toString().toStdString();
  take(m_ec, "ec_" + where, m_units.measures().conductivityUnit());
  take(m_ph, "ph_" + where, {});
  if (typed.others.empty())
    return emit message(tr("Type what was given, what drained, or what the drain reads."));
  if (!onRead(typed)) return;
  for (auto* one : {m_given, m_drained, m_ec, m_ph})
    one->show({});
}

void RootPanel::heard(const book::Trouble& trouble) {
  if (trouble) emit message(problemWords(*trouble));
}

/// Of what is given.
double RootPanel::drainShare() const {
  return core::parseDecimal(m_known.facts.irrigation.drainPercent).value_or(usualShare) / 100;
}

void RootPanel::show(const std::string& uid, const TankGiven& given, const TankStory& story,
                     const std::map<std::string, book::Reading>& lastReadings) {
  m_uid = uid;
  m_known = given;
  m_share->show(qtext(given.facts.irrigation.drainPercent));
  m_strength->show(qtext(given.facts.irrigation.rootPercent));
  m_mediumUnit->setText(m_units.volumeUnitName());
  m_story = story;
  m_last = lastReadings;
  m_litres->setText(m_units.volumeUnitName());
  m_ecUnit->setText(m_units.conductivityUnitName());
  m_keep->setEnabled(!m_figures.empty());
  showSideBySide();
  showIrrigation();
  steer();
}

/// The last that was read of it, in the unit that is kept; 0 where nothing was.
double RootPanel::lastOf(const char* quantity) const {
  const auto found = m_last.find(quantity);
  return found == m_last.end() ? 0.0 : found->second.value;
}

/// What was measured goes before what is reckoned.
void RootPanel::showIrrigation() {
  const double drunk = lastOf("given") - lastOf("drain");
  m_irrigation->show(m_uid, m_known.facts, drunk > 0 ? drunk : m_story.drunkLPerDay, drainShare());
}

/// From the feed to the root zone; what drained, by volume and by EC; and what to give for the wished share.
void RootPanel::showSideBySide() {
  QStringList side;
  const auto add = [&](const QString& name, const char* quantity) {
    if (const auto found = m_last.find(quantity); found != m_last.end())
      side << tr("%1 %2").arg(name, readingText(found->second));
  };
  add(tr("feed EC"), "ec");
  add(tr("drip EC"), "ec_drip");
  add(tr("root zone EC"), "ec_root");
  add(tr("drain EC"), "ec_drain");
  add(tr("feed pH"), "ph");
  add(tr("drip pH"), "ph_drip");
  add(tr("root zone pH"), "ph_root");
  add(tr("drain pH"), "ph_drain");
  constexpr double percent = 100;
  const double given = lastOf("given"), drained = lastOf("drain");
  if (const auto share = core::leachingFraction(given, drained); share && given > 0)
    side << tr("%1 % drained").arg(localNumber(percent * *share, 0));
  if (const auto share = core::leachingFractionByStrength(lastOf("ec"), lastOf("ec_drain"));
      share && lastOf("ec_drain") > 0)
    side << tr("%1 % by EC").arg(localNumber(percent * *share, 0));
  const double wished = percent * drainShare();
  if (given > drained && wished < percent) {
    const auto next = core::Volume::fromLitres((given - drained) / (1 - wished / percent));
    side << tr("for %1 % give %2 where %3 was given")
                .arg(localNumber(wished, 0), m_units.text(next),
                     m_units.text(core::Volume::fromLitres(given)));
  }
  m_sideBySide->setText(side.join(" · "));
}

/// What is pasted for drain or root zone counts; else the newest that is in the log.
std::optional<core::NutrientAmounts> RootPanel::drainFigures(std::vector<Nutrient>& named) const {
  const auto of = m_of->currentData().toString();
  const auto* figures = !m_figures.empty() && (of == "drain" || of == "root_zone") ? &m_figures : nullptr;
  if (!figures)
    for (const auto& line : m_known.lines)
      if (line.did == book::TankDid::Analysed && (line.about == "drain" || line.about == "root_zone"))
        figures = &line.figures;
  if (!figures) return std::nullopt;
  core::NutrientAmounts out;
  for (const auto& one : *figures)
    if (const auto n = core::nutrientFromKey(one.element)) {
      out.add(*n, milligramsOf(one));
      named.push_back(*n);
    }
  return out;
}

void RootPanel::steer() {
  std::vector<Nutrient> named;
  const auto drain = drainFigures(named);
  const bool known = drain && m_story.none == NoStory::None && !m_story.request.rows.empty();
  m_target->setVisible(known);
  m_newFeed = {};
  if (!known)
    return m_steered->setText(
        tr("With an analysis of drain or root zone the feed is adjusted here, element by element."));
  core::SteerRequest request;
  request.feedMgPerL = m_story.request.plan.refill.milligramsPerLitre;
  request.drainMgPerL = *drain;
  request.school = m_school->currentIndex() == 1 ? core::SteerSchool::Balance : core::SteerSchool::Classes;
  request.leachingFraction = drainShare();
  const double strength =
      core::parseDecimal(m_known.facts.irrigation.rootPercent).value_or(usualStrength) / 100;
  for (const auto& row : m_story.request.rows) {
    if (std::find(named.begin(), named.end(), row.nutrient) == named.end()) continue;
    request.targetMgPerL.add(row.nutrient, row.milligramsPerLitre * strength);
    request.withTarget.push_back(row.nutrient);
  }
  const auto found = core::steered(request);
  m_newFeed = {found.newFeedMgPerL, 0};
  QStringList lines;
  for (const auto& element : found.elements) {
    if (element.standing == core::DrainClass::NoTarget || element.standing == core::DrainClass::NotFed)
      continue;
    lines << tr("%1 %2: feed %3 to %4 mg/L")
                 .arg(shortName(element.nutrient), standingText(element.standing),
                      localFigure(element.feedMgPerL), localFigure(element.newMgPerL));
  }
  if (std::abs(found.unbalancedMeqPerL) > 0.05)
    lines << tr("The salts close what the steps leave open: %1 meq/L.")
                 .arg(localNumber(found.unbalancedMeqPerL, 2));
  m_steered->setText(lines.join("\n"));
}

} // namespace butte::app
