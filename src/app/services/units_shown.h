#pragma once
#include "units/quantity.h"

#include <QObject>
#include <QSettings>
#include <QString>

namespace butte::app {

enum class MassShown { Metric, Ounces, Pounds };
enum class VolumeShown { Litres, UsGallons, ImperialGallons };
enum class ConductivityShown { MilliSiemens, Ppm500, Ppm640, Ppm700 };

/// The units that computed figures are shown in. Switching them touches no stored value.
class UnitsShown : public QObject {
  Q_OBJECT

public:
  explicit UnitsShown(QSettings& settings, QObject* parent = nullptr);

  MassShown mass() const { return m_mass; }
  VolumeShown volume() const { return m_volume; }
  ConductivityShown conductivity() const { return m_conductivity; }
  void setMass(MassShown unit);
  void setVolume(VolumeShown unit);
  void setConductivity(ConductivityShown unit);

  /// "515 g", "4.20 kg", "31.40 lb": as many digits as a bench needs, the unit always with it.
  QString text(core::Mass mass) const;
  /// Digits and unit for a field that edits a mass: unit as butte-cli names it ("g", "kg", "oz", "lb").
  QString massUnit() const;
  double massIn(core::Mass mass) const;
  QString text(core::Volume volume) const;
  QString volumeUnit() const;     ///< "L", "gal_us", "gal_imp"
  QString volumeUnitName() const; ///< "L", "US gal", "imp gal"
  double volumeIn(core::Volume volume) const;
  QString text(core::Conductivity conductivity) const;
  QString digits(core::Conductivity conductivity) const; ///< the same without its unit
  QString conductivityUnit() const;                      ///< "mS/cm", "ppm500" ...
  QString conductivityUnitName() const;                  ///< "mS/cm", "ppm (500)" ...
  double conductivityIn(core::Conductivity conductivity) const;
  /// Small volumes of stock: "505 mL", "2.40 L", "0.63 US gal".
  QString stockText(core::Volume volume) const;
  /// "10 mL per L" or "37.9 mL per US gal"
  QString dose(double mlPerLitre) const;

  /// The same dose for every measure at once: "10.0 mL per L · 37.9 mL per US gal · 45.5 mL per imp gal"
  static QString doseInAll(double mlPerLitre);

signals:
  void changed();

private:
  QSettings& m_settings;
  MassShown m_mass;
  VolumeShown m_volume;
  ConductivityShown m_conductivity;
};

/// A number with `decimals` places in the locale of the person.
QString localNumber(double value, int decimals);
/// A number with as many digits as mean something.
QString localFigure(double value);

} // namespace butte::app
