#pragma once
#include "measures.h"

#include <QObject>
#include <QPageSize>
#include <QSettings>
#include <QString>
#include <optional>

namespace butte::app {

using words::ConductivityShown;
using words::LiquidShown;
using words::MassShown;
using words::TemperatureShown;
using words::VolumeShown;

enum class PaperShown { A4, Letter };

/// A choice of all units at once, as a country's growers commonly have them.
enum class UnitsOf { Metric, UnitedStates, UnitedKingdom };

/// The units that computed figures are shown in, kept in the settings; the sentences of src/words are told in
/// them too. Switching them touches no stored value.
class UnitsShown : public QObject {
  Q_OBJECT

public:
  explicit UnitsShown(QSettings& settings, QObject* parent = nullptr);

  const words::Measures& measures() const { return m_measures; }
  MassShown mass() const { return m_measures.mass; }
  VolumeShown volume() const { return m_measures.volume; }
  ConductivityShown conductivity() const { return m_measures.conductivity; }
  TemperatureShown temperature() const { return m_measures.temperature; }
  LiquidShown liquid() const { return m_measures.liquid; }
  PaperShown paper() const;
  QPageSize pageSize() const;
  void setMass(MassShown unit) { choose(&words::Measures::mass, unit); }
  void setVolume(VolumeShown unit) { choose(&words::Measures::volume, unit); }
  void setConductivity(ConductivityShown unit) { choose(&words::Measures::conductivity, unit); }
  void setTemperature(TemperatureShown unit) { choose(&words::Measures::temperature, unit); }
  void setLiquid(LiquidShown unit) { choose(&words::Measures::liquid, unit); }
  void setDropMillilitres(double millilitres) { choose(&words::Measures::dropMillilitres, millilitres); }
  void setPaper(PaperShown paper);
  void setAll(UnitsOf all);

  // The same as of words::Measures, as the window's texts.
  QString text(core::Mass mass) const { return shown(m_measures.text(mass)); }
  QString massUnit() const { return shown(m_measures.massUnit()); }
  double massIn(core::Mass mass) const { return m_measures.in(mass); }
  QString bulkUnit() const { return shown(m_measures.bulkUnit()); }
  QString text(core::Volume volume) const { return shown(m_measures.text(volume)); }
  QString volumeUnit() const { return shown(m_measures.volumeUnit()); }
  QString volumeUnitName() const { return shown(m_measures.volumeUnitName()); }
  double volumeIn(core::Volume volume) const { return m_measures.in(volume); }
  QString stockText(core::Volume volume) const { return shown(m_measures.stockText(volume)); }
  QString liquidText(core::Volume volume) const { return shown(m_measures.liquidText(volume)); }
  QString dose(double mlPerLitre) const { return shown(m_measures.dose(mlPerLitre)); }
  QString text(core::Conductivity conductivity) const { return shown(m_measures.text(conductivity)); }
  QString digits(core::Conductivity conductivity) const { return shown(m_measures.digits(conductivity)); }
  QString shortText(core::Conductivity conductivity) const {
    return shown(m_measures.shortText(conductivity));
  }
  QString conductivityUnit() const { return shown(m_measures.conductivityUnit()); }
  QString conductivityUnitName() const { return shown(m_measures.conductivityUnitName()); }
  double conductivityIn(core::Conductivity conductivity) const { return m_measures.in(conductivity); }
  QString text(core::Temperature temperature) const { return shown(m_measures.text(temperature)); }
  QString temperatureUnit() const { return shown(m_measures.temperatureUnit()); }
  QString temperatureUnitName() const { return shown(m_measures.temperatureUnitName()); }
  QString text(core::Concentration concentration) const { return shown(m_measures.text(concentration)); }
  QString densityText(double kgPerLitre) const { return shown(m_measures.densityText(kgPerLitre)); }

signals:
  void changed();

private:
  static QString shown(const std::string& text) { return QString::fromStdString(text); }
  void set(const words::Measures& measures);
  template <class Unit> void choose(Unit words::Measures::*part, Unit unit) {
    auto next = m_measures;
    next.*part = unit;
    set(next);
  }
  QSettings& m_settings;
  words::Measures m_measures;
  std::optional<PaperShown> m_paper;
};

/// A number with `decimals` places in the locale of the person.
QString localNumber(double value, int decimals);
/// A number with as many digits as mean something.
QString localFigure(double value);

} // namespace butte::app
