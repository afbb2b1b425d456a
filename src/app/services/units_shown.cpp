#include "services/units_shown.h"

#include "words.h"

#include <QLocale>
#include <cmath>

namespace butte::app {
namespace {

words::Measures kept(const QSettings& settings) {
  const auto number = [&](const char* key) { return settings.value(key, 0).toInt(); };
  words::Measures out;
  out.mass = static_cast<MassShown>(number("units/mass"));
  out.volume = static_cast<VolumeShown>(number("units/volume"));
  out.conductivity = static_cast<ConductivityShown>(number("units/conductivity"));
  out.temperature = static_cast<TemperatureShown>(number("units/temperature"));
  out.liquid = static_cast<LiquidShown>(number("units/liquid"));
  out.dropMillilitres = settings.value("units/drop", out.dropMillilitres).toDouble();
  return out;
}

} // namespace

QString localNumber(double value, int decimals) {
  QLocale locale;
  locale.setNumberOptions(QLocale::OmitGroupSeparator);
  if (std::abs(value) < 0.5 * std::pow(10, -decimals)) value = 0; // no "-0.0"
  return locale.toString(value, 'f', decimals);
}

QString localFigure(double value) {
  QString text = QString::fromStdString(words::digits(value));
  const auto point = QLocale().decimalPoint();
  return point == "." ? text : text.replace(".", point);
}

UnitsShown::UnitsShown(QSettings& settings, QObject* parent)
    : QObject(parent), m_settings(settings), m_measures(kept(settings)) {
  if (const auto paper = settings.value("units/paper"); paper.isValid())
    m_paper = static_cast<PaperShown>(paper.toInt());
  words::measureIn(m_measures);
}

void UnitsShown::set(const words::Measures& measures) {
  m_measures = measures;
  const auto keep = [this](const char* key, auto value) {
    m_settings.setValue(key, static_cast<int>(value));
  };
  keep("units/mass", measures.mass);
  keep("units/volume", measures.volume);
  keep("units/conductivity", measures.conductivity);
  keep("units/temperature", measures.temperature);
  keep("units/liquid", measures.liquid);
  m_settings.setValue("units/drop", measures.dropMillilitres);
  words::measureIn(measures);
  emit changed();
}

void UnitsShown::setPaper(PaperShown paper) {
  m_paper = paper;
  m_settings.setValue("units/paper", static_cast<int>(paper));
  emit changed();
}

void UnitsShown::setAll(UnitsOf all) {
  auto next = m_measures;
  const bool states = all == UnitsOf::UnitedStates;
  next.mass = states ? MassShown::Pounds : MassShown::Metric;
  next.volume = states                          ? VolumeShown::UsGallons
                : all == UnitsOf::UnitedKingdom ? VolumeShown::ImperialGallons
                                                : VolumeShown::Litres;
  next.conductivity = states ? ConductivityShown::Ppm500 : ConductivityShown::MilliSiemens;
  next.temperature = states ? TemperatureShown::Fahrenheit : TemperatureShown::Celsius;
  next.liquid = states ? LiquidShown::FluidOunces : LiquidShown::Millilitres;
  m_paper = states ? PaperShown::Letter : PaperShown::A4;
  m_settings.setValue("units/paper", static_cast<int>(*m_paper));
  set(next);
}

/// Where nobody chose: whoever measures in US gallons prints on Letter.
PaperShown UnitsShown::paper() const {
  return m_paper.value_or(volume() == VolumeShown::UsGallons ? PaperShown::Letter : PaperShown::A4);
}

QPageSize UnitsShown::pageSize() const {
  return QPageSize(paper() == PaperShown::A4 ? QPageSize::A4 : QPageSize::Letter);
}

} // namespace butte::app
