#include "services/units_shown.h"

#include "wording/tr.h"
#include "words.h"

#include <QLocale>
#include <cmath>

namespace butte::app {

using core::Conductivity;
using core::Mass;
using core::Volume;

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
    : QObject(parent), m_settings(settings),
      m_mass(static_cast<MassShown>(settings.value("units/mass", 0).toInt())),
      m_volume(static_cast<VolumeShown>(settings.value("units/volume", 0).toInt())),
      m_conductivity(static_cast<ConductivityShown>(settings.value("units/conductivity", 0).toInt())) {}

void UnitsShown::setMass(MassShown unit) {
  m_mass = unit;
  m_settings.setValue("units/mass", static_cast<int>(unit));
  emit changed();
}
void UnitsShown::setVolume(VolumeShown unit) {
  m_volume = unit;
  m_settings.setValue("units/volume", static_cast<int>(unit));
  emit changed();
}
void UnitsShown::setConductivity(ConductivityShown unit) {
  m_conductivity = unit;
  m_settings.setValue("units/conductivity", static_cast<int>(unit));
  emit changed();
}

QString UnitsShown::massUnit() const {
  switch (m_mass) {
  case MassShown::Metric:
    return "g";
  case MassShown::Ounces:
    return "oz";
  case MassShown::Pounds:
    return "lb";
  }
  return "g";
}

double UnitsShown::massIn(Mass mass) const {
  switch (m_mass) {
  case MassShown::Metric:
    return mass.grams();
  case MassShown::Ounces:
    return mass.ounces();
  case MassShown::Pounds:
    return mass.pounds();
  }
  return mass.grams();
}

QString UnitsShown::text(Mass mass) const {
  const double kilograms = mass.kilograms();
  if (m_mass == MassShown::Metric && kilograms >= 1) {
    const int decimals = kilograms >= 1000 ? 0 : kilograms >= 100 ? 1 : kilograms >= 10 ? 2 : 3;
    return localNumber(kilograms, decimals) + " kg";
  }
  if (m_mass == MassShown::Ounces && mass.ounces() >= 320) return localFigure(mass.pounds()) + " lb";
  if (m_mass == MassShown::Pounds && mass.pounds() < 0.02) return localFigure(mass.ounces()) + " oz";
  return localFigure(massIn(mass)) + " " + massUnit();
}

QString UnitsShown::volumeUnit() const {
  switch (m_volume) {
  case VolumeShown::Litres:
    return "L";
  case VolumeShown::UsGallons:
    return "gal_us";
  case VolumeShown::ImperialGallons:
    return "gal_imp";
  }
  return "L";
}

QString UnitsShown::volumeUnitName() const {
  switch (m_volume) {
  case VolumeShown::Litres:
    return "L";
  case VolumeShown::UsGallons:
    return tr("US gal");
  case VolumeShown::ImperialGallons:
    return tr("imp gal");
  }
  return "L";
}

double UnitsShown::volumeIn(Volume volume) const {
  switch (m_volume) {
  case VolumeShown::Litres:
    return volume.litres();
  case VolumeShown::UsGallons:
    return volume.usGallons();
  case VolumeShown::ImperialGallons:
    return volume.imperialGallons();
  }
  return volume.litres();
}

QString UnitsShown::text(Volume volume) const {
  const double value = volumeIn(volume);
  if (m_volume == VolumeShown::Litres && value >= 10000) return localNumber(value / 1000, 1) + " m³";
  return localFigure(value) + " " + volumeUnitName();
}

QString UnitsShown::digits(Conductivity conductivity) const {
  constexpr double pens = 5; // ppm pens show steps of about that
  const double shown = conductivityIn(conductivity);
  return m_conductivity == ConductivityShown::MilliSiemens ? localNumber(shown, 2)
                                                           : localNumber(std::round(shown / pens) * pens, 0);
}

QString UnitsShown::text(Conductivity conductivity) const {
  return digits(conductivity) + " " + conductivityUnitName();
}

QString UnitsShown::conductivityUnit() const {
  constexpr const char* units[] = {"mS/cm", "ppm500", "ppm640", "ppm700"};
  return units[static_cast<int>(m_conductivity)];
}

QString UnitsShown::conductivityUnitName() const {
  constexpr const char* names[] = {"mS/cm", QT_TRANSLATE_NOOP("butte", "ppm (500)"),
                                   QT_TRANSLATE_NOOP("butte", "ppm (640)"),
                                   QT_TRANSLATE_NOOP("butte", "ppm (700)")};
  return tr(names[static_cast<int>(m_conductivity)]);
}

double UnitsShown::conductivityIn(Conductivity conductivity) const {
  switch (m_conductivity) {
  case ConductivityShown::MilliSiemens:
    return conductivity.milliSiemensPerCm();
  case ConductivityShown::Ppm500:
    return conductivity.ppm500();
  case ConductivityShown::Ppm640:
    return conductivity.ppm640();
  case ConductivityShown::Ppm700:
    return conductivity.ppm700();
  }
  return conductivity.milliSiemensPerCm();
}

QString UnitsShown::stockText(Volume volume) const {
  if (m_volume == VolumeShown::Litres ? volume.litres() < 1 : volumeIn(volume) < 0.5)
    return localFigure(volume.millilitres()) + " mL";
  return text(volume);
}

QString UnitsShown::dose(double mlPerLitre) const {
  switch (m_volume) {
  case VolumeShown::Litres:
    return tr("%1 mL per L").arg(localFigure(mlPerLitre));
  case VolumeShown::UsGallons:
    return tr("%1 mL per US gal").arg(localFigure(mlPerLitre * Volume::fromUsGallons(1).litres()));
  case VolumeShown::ImperialGallons:
    return tr("%1 mL per imp gal").arg(localFigure(mlPerLitre * Volume::fromImperialGallons(1).litres()));
  }
  return {};
}

QString UnitsShown::doseInAll(double mlPerLitre) {
  return tr("%1 mL per L · %2 mL per US gal · %3 mL per imp gal")
      .arg(localFigure(mlPerLitre), localFigure(mlPerLitre * Volume::fromUsGallons(1).litres()),
           localFigure(mlPerLitre * Volume::fromImperialGallons(1).litres()));
}

} // namespace butte::app
