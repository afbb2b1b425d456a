#include "stations/tank/irrigation_row.h"

#include "base/decimal.h"
#include "paint/flow_row.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "paint/wrapped_label.h"
#include "services/units_shown.h"
#include "stations/tank/fact_field.h"
#include "tank/irrigation.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QVBoxLayout>
#include <cmath>

namespace butte::app {

namespace {
/// From two hours after sunrise to two before sunset (common practice).
constexpr double usualFirst = 8, usualLast = 16;
constexpr double mostGivenAtOnce = 1e9; // of any unit of volume: beyond it is a slip

/// "13:05"
QString clockText(double hours) {
  const auto minutes = std::lround(hours * 60);
  return QString("%1:%2").arg(minutes / 60, 2, 10, QChar('0')).arg(minutes % 60, 2, 10, QChar('0'));
}
} // namespace

IrrigationRow::IrrigationRow(TankEdits& edits, UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_edits(edits), m_units(units), m_unit(new PlainLabel), m_plan(new WrappedLabel) {
  m_shot = factField(
      {.name = tr("how much is given at once"), .unit = {}, .least = 0, .most = mostGivenAtOnce},
      "irrigationShot",
      [this](const QString& digits) {
        const exchange::Amount typed{digits.toStdString(), m_units.measures().volumeUnit()};
        heard(m_edits.setAmount(m_uid, "shot", digits.isEmpty() ? exchange::Amount{} : typed));
      },
      [this](const QString& said) { emit message(said); });
  constexpr int sixDigits = 84; // of another unit than it was typed in
  m_shot->setFixedWidth(sixDigits);
  m_shot->asked = [this] { return AskedUnit{m_units.measures().volumeUnit(), {}}; };
  m_first = hourField(tr("hour of the first turn"), "irrigationFirst", "first_hour", usualFirst);
  m_last = hourField(tr("hour of the last turn"), "irrigationLast", "last_hour", usualLast);
  m_plan->setObjectName("irrigationPlan");
  m_plan->setFont(faceOf(12));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  auto* row = new FlowRow;
  row->addTogether({new PlainLabel(tr("Each turn gives")), m_shot, m_unit});
  row->addTogether(
      {new PlainLabel(tr("from")), m_first, new PlainLabel(tr("to")), m_last, new PlainLabel(tr("o'clock"))});
  column->addLayout(row);
  column->addWidget(m_plan);
}

NumberField* IrrigationRow::hourField(const QString& name, const QString& object, const char* key,
                                      double usual) {
  constexpr double hoursOfDay = 24;
  auto* made = factField(
      {.name = name, .unit = {}, .least = 0, .most = hoursOfDay}, object,
      [this, key = std::string(key)](const QString& digits) { heard(m_edits.setText(m_uid, key, digits)); },
      [this](const QString& said) { emit message(said); });
  made->setPlaceholderText(localNumber(usual, 0));
  return made;
}

void IrrigationRow::heard(const book::Trouble& trouble) {
  if (trouble) emit message(problemWords(*trouble));
}

void IrrigationRow::show(const std::string& uid, const book::VesselFacts& facts, double drunkLPerDay,
                         double drainShare) {
  m_uid = uid;
  m_facts = facts;
  m_drunk = drunkLPerDay;
  m_share = drainShare;
  const auto& wish = facts.irrigation;
  m_unit->setText(m_units.volumeUnitName());
  const auto unit = m_units.measures().volumeUnit();
  if (wish.shot.isEmpty() || wish.shot.unit == unit)
    m_shot->show(qtext(wish.shot.digits));
  else if (const auto there = core::convert(wish.shot.value(), wish.shot.unit, unit))
    m_shot->show(QString::number(*there, 'g', 6));
  m_first->show(qtext(wish.firstHour));
  m_last->show(qtext(wish.lastHour));
  showPlan();
}

void IrrigationRow::showPlan() {
  const auto& wish = m_facts.irrigation;
  if (wish.shot.isEmpty())
    return m_plan->setText(tr("With what one turn gives, the day's turns stand here."));
  if (!(m_drunk > 0))
    return m_plan->setText(
        tr("What the plants drink is not known yet: say it under Vessel, or the crop and its area."));
  const auto litres = core::convert(wish.shot.value(), wish.shot.unit, "L");
  core::IrrigationRequest request;
  request.drunkLPerDay = m_drunk;
  request.drainShare = m_share;
  request.shot = core::Volume::fromLitres(litres ? *litres : 0);
  request.firstHour = core::parseDecimal(wish.firstHour).value_or(usualFirst);
  request.lastHour = core::parseDecimal(wish.lastHour).value_or(usualLast);
  const auto plan = core::irrigationPlan(request);
  if (!plan)
    return m_plan->setText(
        request.firstHour > request.lastHour
            ? tr("The last turn can't be before the first.")
            : tr("That is more than %1 turns: give more at once.").arg(core::mostIrrigationTurns));
  const auto drunk = m_units.text(core::Volume::fromLitres(m_drunk));
  const auto given = m_units.text(core::Volume::fromLitres(plan->givenLPerDay));
  const auto count = plan->startHours.size();
  auto text = tr("Give %1 today: the plants drink about %2, %3 % drains.")
                  .arg(given, drunk, localNumber(100 * m_share, 0));
  text +=
      " " + (count == 1 ? tr("One turn at %1.").arg(clockText(plan->startHours.front()))
                        : tr("%1 turns of %2, every %3 min from %4 to %5.")
                              .arg(count)
                              .arg(m_units.text(plan->each),
                                   localNumber(60 * (plan->startHours[1] - plan->startHours[0]), 0),
                                   clockText(plan->startHours.front()), clockText(plan->startHours.back())));
  m_plan->setText(text);
}

} // namespace butte::app
