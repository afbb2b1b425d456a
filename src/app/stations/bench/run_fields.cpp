#include "stations/bench/run_fields.h"

#include "base/decimal.h"
#include "fields/number_field.h"
#include "paint/plain_label.h"
#include "paint/theme.h"
#include "scale/scale_line.h"
#include "services/units_shown.h"
#include "stations/bench/run_choices.h"
#include "units/convert.h"
#include "wording/tr.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>

namespace butte::app {

using core::RunPhase;

namespace {

constexpr int fieldSize = 26, fieldWidth = 170, lotWidth = 130;

/// Digits of a field in a unit of the core's.
double inUnit(const QString& digits, const QString& from, const char* to) {
  const auto value = core::convert(digits.toDouble(), from.toStdString(), to);
  return value ? *value : 0;
}

/// A scale that plays a keyboard types its whole line; nothing where no weight that lies still stands in it.
QString massOfLine(const QString& line, const std::string& unit) {
  const auto reading = devices::readScaleLine(line.toStdString());
  if (reading.status != devices::ScaleStatus::Weight || !reading.mass || reading.stable == false) return {};
  const auto value = core::convert(reading.mass->grams(), "g", unit);
  return value ? QString::fromStdString(core::decimalText(*value)) : QString();
}

bool isZero(const NumberField& field) {
  return !field.digits().isEmpty() && field.digits().toDouble() <= 0;
}

QWidget* rowOf(std::initializer_list<QWidget*> parts) {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  for (auto* part : parts)
    row->addWidget(part);
  row->addStretch();
  return box;
}

} // namespace

RunFields::RunFields(UnitsShown& units, QWidget* parent)
    : QWidget(parent), m_units(units), m_mass(field(tr("weight on the scale"), "runMass", 1e9)),
      m_volume(field(tr("volume"), "runVolume", 1e9)), m_ec(field(tr("EC read"), "runEc", 1e6)),
      m_ph(field(tr("pH read"), "runPh", 14)), m_massUnit(new PlainLabel), m_volumeUnit(new PlainLabel),
      m_ecUnit(new PlainLabel), m_lot(new QLineEdit) {
  m_mass->asked = [this] { return AskedUnit{massUnit(), {}}; };
  m_mass->orElse = [this](const QString& line) { return massOfLine(line, massUnit()); };
  m_volume->asked = [this] { return AskedUnit{m_units.volumeUnit().toStdString(), {}}; };
  m_ec->asked = [this] { return AskedUnit{m_units.conductivityUnit().toStdString(), {}}; };
  m_lot->setObjectName("runLot");
  m_lot->setPlaceholderText(tr("lot"));
  m_lot->setAccessibleName(tr("lot of the bag"));
  m_lot->setFixedWidth(lotWidth);
  m_massRow = rowOf({new PlainLabel(tr("The scale shows")), m_mass, m_massUnit, m_lot});
  m_volumeRow = rowOf({new PlainLabel(tr("Poured")), m_volume, m_volumeUnit});
  m_readRow = rowOf({new PlainLabel(tr("EC")), m_ec, m_ecUnit, new PlainLabel(tr("pH")), m_ph});
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  for (auto* row : {m_massRow, m_volumeRow, m_readRow})
    column->addWidget(row);
}

NumberField* RunFields::field(const QString& name, const QString& id, double most) {
  auto* made = new NumberField({name, "", 0, most, true});
  made->setObjectName(id);
  made->setFont(faceOf(fieldSize, true));
  made->setFixedSize(fieldWidth, gloveHeight - 12);
  made->onMessage = [this](const QString& words) { onMessage(words); };
  return made;
}

void RunFields::refresh(RunPhase phase) {
  m_massRow->setVisible(phase == RunPhase::Weigh);
  m_volumeRow->setVisible(phase == RunPhase::Pour || phase == RunPhase::TopUp);
  m_readRow->setVisible(phase == RunPhase::Measure);
  m_massUnit->setText(QString::fromStdString(massUnit()));
  m_volumeUnit->setText(m_units.volumeUnitName() + tr(" (as above where empty)"));
  m_ecUnit->setText(m_units.conductivityUnitName());
}

QWidget* RunFields::fieldOf(RunPhase phase) const {
  return phase == RunPhase::Weigh ? m_mass : phase == RunPhase::Measure ? m_ec : nullptr;
}

void RunFields::clear() {
  for (auto* one : {m_mass, m_volume, m_ec, m_ph})
    one->show({});
}

bool RunFields::hasMass() const {
  return m_mass->isWrong() || !m_mass->digits().isEmpty();
}

std::optional<core::Mass> RunFields::mass() const {
  if (m_mass->isWrong() || m_mass->digits().isEmpty() || isZero(*m_mass)) return std::nullopt;
  return core::Mass::fromGrams(inUnit(m_mass->digits(), QString::fromStdString(massUnit()), "g"));
}

bool RunFields::isVolumeWrong() const {
  return m_volume->isWrong() || isZero(*m_volume);
}

std::optional<core::Volume> RunFields::volume() const {
  if (m_volume->digits().isEmpty()) return std::nullopt;
  return core::Volume::fromLitres(inUnit(m_volume->digits(), m_units.volumeUnit(), "L"));
}

bool RunFields::areReadingsWrong() const {
  return m_ec->isWrong() || m_ph->isWrong();
}

core::did::Read RunFields::readings(std::size_t vessel) const {
  core::did::Read read{vessel, {}, {}};
  if (!m_ec->digits().isEmpty())
    read.conductivity = core::Conductivity::fromMilliSiemensPerCm(
        inUnit(m_ec->digits(), m_units.conductivityUnit(), "mS/cm"));
  if (!m_ph->digits().isEmpty()) read.ph = m_ph->digits().toDouble();
  return read;
}

bool RunFields::goesOnToPh() {
  if (!m_ec->hasFocus() || m_ec->digits().isEmpty() || !m_ph->digits().isEmpty()) return false;
  m_ph->setFocus();
  return true;
}

std::string RunFields::lot() const {
  return m_lot->text().trimmed().toStdString();
}

void RunFields::newLot() {
  m_lot->clear();
  m_lot->setFocus();
}

void RunFields::clearLot() {
  m_lot->clear();
}

} // namespace butte::app
