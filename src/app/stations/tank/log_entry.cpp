#include "stations/tank/log_entry.h"

#include "deed_words.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "services/units_shown.h"
#include "stations/tank/level_typed.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QComboBox>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <array>

namespace butte::app {

using book::TankDid;
using book::TankLine;

namespace {

/// What can be told here: what its field asks for.
enum class Asks { Volume, Nothing, Text, Slope, Cups };
struct Telling {
  const char* words; ///< tr() it
  TankDid did;
  book::TankLiquid liquid;
  Asks asks;
  const char* about = "";
};
constexpr std::array tellings{
    Telling{QT_TRANSLATE_NOOP("butte", "filled to the mark with feed"), TankDid::Filled,
            book::TankLiquid::Feed, Asks::Volume},
    Telling{QT_TRANSLATE_NOOP("butte", "filled to the mark with water"), TankDid::Filled,
            book::TankLiquid::Water, Asks::Volume},
    Telling{QT_TRANSLATE_NOOP("butte", "poured in feed"), TankDid::Poured, book::TankLiquid::Feed,
            Asks::Volume},
    Telling{QT_TRANSLATE_NOOP("butte", "poured in water"), TankDid::Poured, book::TankLiquid::Water,
            Asks::Volume},
    Telling{QT_TRANSLATE_NOOP("butte", "drained"), TankDid::Drained, book::TankLiquid::Feed, Asks::Volume},
    Telling{QT_TRANSLATE_NOOP("butte", "rain fell in"), TankDid::Rained, book::TankLiquid::Feed,
            Asks::Volume},
    Telling{QT_TRANSLATE_NOOP("butte", "let off every day from now"), TankDid::Bleeds, book::TankLiquid::Feed,
            Asks::Volume},
    Telling{QT_TRANSLATE_NOOP("butte", "emptied"), TankDid::Emptied, book::TankLiquid::Feed, Asks::Nothing},
    Telling{QT_TRANSLATE_NOOP("butte", "cups of feed given, left"), TankDid::Cups, book::TankLiquid::Feed,
            Asks::Cups},
    Telling{QT_TRANSLATE_NOOP("butte", "EC pen calibrated, slope %"), TankDid::Calibrated,
            book::TankLiquid::Feed, Asks::Slope, "ec"},
    Telling{QT_TRANSLATE_NOOP("butte", "pH pen calibrated, slope %"), TankDid::Calibrated,
            book::TankLiquid::Feed, Asks::Slope, "ph"},
    Telling{QT_TRANSLATE_NOOP("butte", "planted"), TankDid::Planted, book::TankLiquid::Feed, Asks::Text},
    Telling{QT_TRANSLATE_NOOP("butte", "roots"), TankDid::Noted, book::TankLiquid::Feed, Asks::Text, "roots"},
    Telling{QT_TRANSLATE_NOOP("butte", "leaves"), TankDid::Noted, book::TankLiquid::Feed, Asks::Text,
            "leaves"},
    Telling{QT_TRANSLATE_NOOP("butte", "harvest"), TankDid::Noted, book::TankLiquid::Feed, Asks::Text,
            "harvest"},
    Telling{QT_TRANSLATE_NOOP("butte", "photo"), TankDid::Noted, book::TankLiquid::Feed, Asks::Text, "photo"},
    Telling{QT_TRANSLATE_NOOP("butte", "note"), TankDid::Noted, book::TankLiquid::Feed, Asks::Text}};

const Telling& tellingAt(int index) {
  return tellings[static_cast<std::size_t>(std::clamp(index, 0, static_cast<int>(tellings.size()) - 1))];
}

} // namespace

LogEntry::LogEntry(UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_units(units), m_ecUnit(new PlainLabel), m_levelUnit(new PlainLabel),
      m_temperatureUnit(new PlainLabel), m_amountUnit(new PlainLabel),
      m_secondName(new PlainLabel(tr("left"))), m_did(new QComboBox), m_phBy(new QComboBox),
      m_text(new QLineEdit), m_keepRead(new QPushButton(tr("Log"))),
      m_keepDone(new QPushButton(tr("Log it"))) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  column->addWidget(makeReadRow());
  column->addWidget(makeDidRow());
  connect(&units, &UnitsShown::changed, this, &LogEntry::showUnits);
  showUnits();
  didChosen();
}

NumberField* LogEntry::field(const QString& name, const QString& object, double least, double most) {
  auto* made = new NumberField({.name = name, .unit = {}, .least = least, .most = most, .mayBeEmpty = true});
  made->setObjectName(object);
  made->setFixedWidth(62);
  made->onMessage = [this](const QString& words) { emit message(words); };
  return made;
}

QWidget* LogEntry::makeReadRow() {
  constexpr double mostEc = 30000, mostLitres = 1e9;
  m_ec = field(tr("EC read in the tank"), "tankEc", 0, mostEc);
  m_ph = field(tr("pH read in the tank"), "tankPh", 0, 14);
  m_level = field(tr("how much stands in the tank"), "tankLevel", 0, mostLitres);
  m_level->setToolTip(levelHint());
  m_temperature = field(tr("temperature in the tank"), "tankTemperature", -50, 140);
  m_air = field(tr("temperature of the air"), "tankAir", -60, 140);
  m_ec->asked = [this] { return AskedUnit{m_units.conductivityUnit().toStdString(), {}}; };
  m_level->asked = [this] { return AskedUnit{m_units.measures().volumeUnit(), {}}; };
  for (auto* one : {m_temperature, m_air})
    one->asked = [this] { return AskedUnit{m_units.measures().temperatureUnit(), {}}; };
  // A height, a mark and a stick are no volume: the vessel makes one of it.
  m_level->orElse = [this](const QString& text) {
    const auto volume = levelTyped(text, m_facts);
    return volume ? QString::number(m_units.volumeIn(*volume), 'g', 8) : QString();
  };
  for (auto* one : {m_ec, m_ph, m_level, m_temperature, m_air})
    connect(one, &QLineEdit::returnPressed, this, &LogEntry::keepReadings);
  m_keepRead->setObjectName("tankKeepReadings");
  connect(m_keepRead, &QPushButton::clicked, this, &LogEntry::keepReadings);
  auto* box = new QWidget;
  auto* row = new FlowRow(box);
  row->addTogether({new PlainLabel(tr("EC")), m_ec, m_ecUnit});
  m_phBy->setObjectName("tankPhBy");
  m_phBy->setAccessibleName(tr("what the pH was read with"));
  m_phBy->setToolTip(tr("A pen is trusted to 0.1, a drop kit to 0.25, a strip to half a unit."));
  m_phBy->addItem(tr("pen"), QString("ph"));
  m_phBy->addItem(tr("drops"), QString("ph_drops"));
  m_phBy->addItem(tr("strip"), QString("ph_strip"));
  row->addTogether({new PlainLabel(tr("pH")), m_ph, m_phBy});
  row->addTogether({new PlainLabel(tr("level")), m_level, m_levelUnit});
  row->addTogether(
      {new PlainLabel(tr("water")), m_temperature, new PlainLabel(tr("air")), m_air, m_temperatureUnit});
  row->addWidget(m_keepRead);
  return box;
}

QWidget* LogEntry::makeDidRow() {
  m_amount = field(tr("how much"), "tankAmount", 0, 1e9);
  m_second = field(tr("how much was left"), "tankLeft", 0, 1e9);
  m_did->setObjectName("tankDid");
  m_did->setAccessibleName(tr("what was done"));
  for (const auto& choice : tellings)
    m_did->addItem(app::tr(choice.words));
  m_text->setObjectName("tankText");
  m_text->setAccessibleName(tr("in words"));
  m_text->setPlaceholderText(tr("in your words"));
  m_text->setMaxLength(500);
  m_keepDone->setObjectName("tankKeepDone");
  const auto volumeAsked = [this] {
    const auto asks = tellingAt(m_did->currentIndex()).asks;
    const bool isVolume = asks == Asks::Volume || asks == Asks::Cups;
    return AskedUnit{isVolume ? m_units.measures().volumeUnit() : std::string(), {}};
  };
  m_amount->asked = volumeAsked;
  m_second->asked = volumeAsked;
  connect(m_did, &QComboBox::currentIndexChanged, this, &LogEntry::didChosen);
  for (auto* one : {static_cast<QLineEdit*>(m_amount), static_cast<QLineEdit*>(m_second), m_text})
    connect(one, &QLineEdit::returnPressed, this, &LogEntry::keepDone);
  connect(m_keepDone, &QPushButton::clicked, this, &LogEntry::keepDone);
  auto* box = new QWidget;
  auto* row = new FlowRow(box);
  row->addWidget(m_did);
  row->addTogether({m_amount, m_amountUnit});
  row->addTogether({m_secondName, m_second});
  row->addWidget(m_text);
  row->addWidget(m_keepDone);
  return box;
}

void LogEntry::showUnits() {
  m_ecUnit->setText(m_units.conductivityUnitName());
  m_levelUnit->setText(m_units.volumeUnitName());
  m_temperatureUnit->setText(m_units.temperatureUnitName());
  didChosen();
}

void LogEntry::didChosen() {
  const auto asks = tellingAt(m_did->currentIndex()).asks;
  const bool amount = asks == Asks::Volume || asks == Asks::Slope || asks == Asks::Cups;
  m_amount->parentWidget()->setVisible(amount);
  m_second->parentWidget()->setVisible(asks == Asks::Cups);
  m_text->setVisible(asks == Asks::Text);
  m_amountUnit->setText(asks == Asks::Slope ? tr("%") : m_units.volumeUnitName());
  const bool filled = tellingAt(m_did->currentIndex()).did == TankDid::Filled;
  const auto full = m_facts.fullVolume();
  if (filled && m_amount->text().isEmpty() && full > core::Volume{})
    m_amount->setPlaceholderText(localFigure(m_units.volumeIn(full)));
  else
    m_amount->setPlaceholderText({});
}

void LogEntry::setFacts(const book::VesselFacts& facts) {
  m_facts = facts;
  didChosen();
}

void LogEntry::focusFirst() {
  m_ec->setFocus(Qt::ShortcutFocusReason);
}

bool LogEntry::anyWrong() const {
  for (const auto* one : {m_ec, m_ph, m_level, m_temperature, m_air})
    if (one->isWrong()) return true;
  return false;
}

void LogEntry::keepReadings() {
  if (anyWrong()) return;
  TypedReadings typed;
  const auto take = [](const NumberField* from, const std::string& unit) {
    const auto digits = from->digits().toStdString();
    return digits.empty() ? exchange::Amount{} : exchange::Amount{digits, unit};
  };
  typed.ec = take(m_ec, m_units.measures().conductivityUnit());
  typed.ph = take(m_ph, {});
  typed.phBy = m_phBy->currentData().toString().toStdString();
  typed.level = take(m_level, m_units.measures().volumeUnit());
  if (levelTyped(m_level->text(), m_facts)) typed.levelAs = m_level->text().simplified().toStdString();
  typed.temperature = take(m_temperature, m_units.measures().temperatureUnit());
  if (const auto air = take(m_air, m_units.measures().temperatureUnit()); !air.isEmpty())
    typed.others.emplace_back("air", air);
  if (typed.ec.isEmpty() && typed.ph.isEmpty() && typed.level.isEmpty() && typed.temperature.isEmpty() &&
      typed.others.empty())
    return emit message(tr("Type what the meters read: EC, pH, level or temperature."));
  if (!onRead(typed)) return;
  for (auto* one : {m_ec, m_ph, m_level, m_temperature, m_air})
    one->show({});
  m_ec->setFocus();
}

void LogEntry::keepDone() {
  const auto& choice = tellingAt(m_did->currentIndex());
  if (m_amount->isWrong() || m_second->isWrong()) return;
  TankLine line;
  line.did = choice.did;
  line.liquid = choice.liquid;
  line.about = choice.about;
  line.text = m_text->text().trimmed().toStdString();
  auto digits = m_amount->digits().toStdString();
  const auto unit = m_units.measures().volumeUnit();
  if (choice.did == TankDid::Filled && digits.empty() && m_facts.fullVolume() > core::Volume{}) {
    line.volume = m_facts.full;
  } else if (choice.asks == Asks::Volume || choice.asks == Asks::Cups) {
    if (digits.empty()) return emit message(tr("How much was it? Type it beside what was done."));
    line.volume = {digits, unit};
  }
  if (choice.asks == Asks::Cups && !m_second->digits().isEmpty())
    line.left = {m_second->digits().toStdString(), unit};
  if (choice.asks == Asks::Slope && !digits.empty()) line.slopePercent = {digits, ""};
  if (choice.asks == Asks::Text && line.text.empty())
    return emit message(tr("Say it in your words beside what was done."));
  if (!onTold(line)) return;
  m_amount->show({});
  m_second->show({});
  m_text->clear();
}

} // namespace butte::app
