#include "stations/tank/warmth_panel.h"

#include "base/decimal.h"
#include "fields/number_field.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "stations/tank/tank_words.h"
#include "tank/warmth.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QVBoxLayout>

namespace butte::app {

using core::Temperature;
using core::Volume;

WarmthPanel::WarmthPanel(UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_units(units), m_degrees(new PlainLabel), m_volumeUnit(new PlainLabel),
      m_answer(new WrappedLabel) {
  m_wanted = temperature(tr("how warm it is to be"), "warmWanted");
  m_hot = temperature(tr("hot water"), "warmHot");
  m_cold = temperature(tr("cold water"), "warmCold");
  const auto number = [&](const QString& name, const QString& object, const QString& unit, double most) {
    auto* made = new NumberField({.name = name, .unit = unit, .least = 0, .most = most, .mayBeEmpty = true});
    made->setObjectName(object);
    made->setFixedWidth(62);
    made->onMessage = [this](const QString& said) { emit message(said); };
    made->onTyped = [this](const QString&) { answer(); };
    return made;
  };
  m_litres = number(tr("how much water"), "warmVolume", {}, 1e9);
  m_litres->asked = [this] { return AskedUnit{m_units.measures().volumeUnit(), {}}; };
  m_watts = number(tr("heater"), "warmWatts", "W", 1e7);
  m_answer->setObjectName("warmAnswer");
  auto* row = new FlowRow;
  row->addTogether({new PlainLabel(tr("Wanted")), m_wanted, m_degrees});
  row->addTogether({new PlainLabel(tr("hot water")), m_hot});
  row->addTogether({new PlainLabel(tr("cold water")), m_cold});
  row->addTogether({new PlainLabel(tr("in all")), m_litres, m_volumeUnit});
  row->addTogether({new PlainLabel(tr("heater")), m_watts, new PlainLabel(tr("W"))});
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addLayout(row);
  column->addWidget(m_answer);
  column->addStretch();
}

NumberField* WarmthPanel::temperature(const QString& name, const QString& object) {
  constexpr double hottest = 212; // boiling, in the larger degrees
  auto* made = new NumberField({.name = name, .unit = {}, .least = -20, .most = hottest, .mayBeEmpty = true});
  made->setObjectName(object);
  made->setFixedWidth(56);
  made->asked = [this] { return AskedUnit{m_units.measures().temperatureUnit(), {}}; };
  made->onMessage = [this](const QString& said) { emit message(said); };
  made->onTyped = [this](const QString&) { answer(); };
  return made;
}

std::optional<Temperature> WarmthPanel::typed(const NumberField* field) const {
  const auto digits = core::parseDecimal(field->digits().toStdString());
  if (!digits) return std::nullopt;
  const auto celsius = core::convert(*digits, m_units.measures().temperatureUnit(), "C");
  return celsius ? std::optional(Temperature::fromCelsius(*celsius)) : std::nullopt;
}

std::optional<Temperature> WarmthPanel::lastOf(const char* quantity) const {
  for (auto reading = m_given.readings.rbegin(); reading != m_given.readings.rend(); ++reading)
    if (reading->quantity == quantity) return Temperature::fromCelsius(reading->value);
  return std::nullopt;
}

QString WarmthPanel::blendText() const {
  const auto wanted = typed(m_wanted), hot = typed(m_hot), cold = typed(m_cold);
  if (!wanted || !hot || !cold) return {};
  const auto share = core::hotShareFor(*hot, *cold, *wanted);
  if (!share) return tr("Neither of these waters gets there.");
  const auto digits = core::parseDecimal(m_litres->digits().toStdString());
  const auto litres = digits ? core::convert(*digits, m_units.measures().volumeUnit(), "L")
                             : core::Result<double>(m_given.facts.fullVolume().litres());
  const auto all = Volume::fromLitres(litres ? *litres : 0);
  return tr("For %1 at %2: %3 of hot water and %4 of cold.")
      .arg(m_units.text(all), m_units.text(*wanted), m_units.text(all * *share),
           m_units.text(all * (1 - *share)));
}

QString WarmthPanel::heaterText() const {
  const auto wanted = typed(m_wanted), stands = lastOf("temperature");
  const auto watts = core::parseDecimal(m_watts->digits().toStdString());
  if (!wanted || !watts || !stands) return {};
  const auto full = m_given.facts.fullVolume();
  const auto hours = core::heaterHours(full, *stands, *wanted, *watts);
  if (!hours) return tr("It is that warm already.");
  return tr("From %1, as it was read last, a heater of %2 W takes %3 hours for %4; what is lost meanwhile "
            "comes on "
            "top.")
      .arg(m_units.text(*stands), localFigure(*watts), localNumber(*hours, 1), m_units.text(full));
}

/// From the last two readings of one day and the air's last.
QString WarmthPanel::followingText() const {
  const auto air = lastOf("air");
  const book::Reading *after = nullptr, *before = nullptr;
  for (auto reading = m_given.readings.rbegin(); reading != m_given.readings.rend() && !before; ++reading) {
    if (reading->quantity != "temperature") continue;
    (after ? before : after) = &*reading;
  }
  constexpr double secondsPerHour = 3600, longest = 36, ahead = 12;
  if (!air || !before) return {};
  const double hours = static_cast<double>(after->at.seconds - before->at.seconds) / secondsPerHour;
  const auto now = Temperature::fromCelsius(after->value);
  const auto rate =
      hours > longest ? std::nullopt
                      : core::followingRatePerHour(Temperature::fromCelsius(before->value), now, *air, hours);
  if (!rate) return {};
  return tr("In an air of %1 it will stand at %2 in twelve hours.")
      .arg(m_units.text(*air), m_units.text(core::warmedTo(now, *air, *rate, ahead)));
}

void WarmthPanel::show(const TankGiven& given) {
  m_given = given;
  m_degrees->setText(m_units.temperatureUnitName());
  m_volumeUnit->setText(m_units.volumeUnitName());
  m_litres->setPlaceholderText(localFigure(m_units.volumeIn(given.facts.fullVolume())));
  answer();
}

void WarmthPanel::answer() {
  QStringList said;
  for (const auto& text : {blendText(), heaterText(), followingText()})
    if (!text.isEmpty()) said << text;
  if (said.isEmpty()) said << tr("Type how warm it is to be, with hot and cold water, or with a heater.");
  said << warmthWords(m_given);
  m_answer->setText(said.join("\n"));
}

} // namespace butte::app
