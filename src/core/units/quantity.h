#pragma once
#include "units/factors.h"

#include <compare>

namespace butte::core {

/// A physical quantity that knows its kind: Mass and Volume do not mix, and a number can only come in or go
/// out through a name that says the unit. Derived (CRTP) classes add those names.
template <class Kind> class Quantity {
public:
  constexpr auto operator<=>(const Quantity&) const = default;
  friend constexpr Kind operator+(Kind a, Kind b) { return made(a.m_base + b.m_base); }
  friend constexpr Kind operator-(Kind a, Kind b) { return made(a.m_base - b.m_base); }
  friend constexpr Kind operator*(Kind a, double k) { return made(a.m_base * k); }
  friend constexpr Kind operator*(double k, Kind a) { return made(a.m_base * k); }
  friend constexpr Kind operator/(Kind a, double k) { return made(a.m_base / k); }
  friend constexpr double operator/(Kind a, Kind b) { return a.m_base / b.m_base; }

protected:
  constexpr Quantity() = default;
  explicit constexpr Quantity(double base) : m_base(base) {}
  static constexpr Kind made(double base) { return Kind(base); }
  double m_base = 0;
};

/// Mass; kept in grams.
class Mass : public Quantity<Mass> {
public:
  constexpr Mass() = default;
  static constexpr Mass fromGrams(double v) { return Mass(v); }
  static constexpr Mass fromMilligrams(double v) { return Mass(v / 1000); }
  static constexpr Mass fromKilograms(double v) { return Mass(v * 1000); }
  static constexpr Mass fromPounds(double v) { return Mass(v * factor::gramsPerPound); }
  static constexpr Mass fromOunces(double v) { return Mass(v * factor::gramsPerOunce); }
  constexpr double grams() const { return m_base; }
  constexpr double milligrams() const { return m_base * 1000; }
  constexpr double kilograms() const { return m_base / 1000; }
  constexpr double pounds() const { return m_base / factor::gramsPerPound; }
  constexpr double ounces() const { return m_base / factor::gramsPerOunce; }

private:
  friend class Quantity<Mass>;
  explicit constexpr Mass(double g) : Quantity(g) {}
};

/// Volume; kept in litres.
class Volume : public Quantity<Volume> {
public:
  constexpr Volume() = default;
  static constexpr Volume fromLitres(double v) { return Volume(v); }
  static constexpr Volume fromMillilitres(double v) { return Volume(v / 1000); }
  static constexpr Volume fromCubicMetres(double v) { return Volume(v * 1000); }
  static constexpr Volume fromUsGallons(double v) { return Volume(v * factor::litresPerUsGallon); }
  static constexpr Volume fromImperialGallons(double v) {
    return Volume(v * factor::litresPerImperialGallon);
  }
  static constexpr Volume fromUsFluidOunces(double v) { return Volume(v * factor::litresPerUsFluidOunce); }
  constexpr double litres() const { return m_base; }
  constexpr double millilitres() const { return m_base * 1000; }
  constexpr double cubicMetres() const { return m_base / 1000; }
  constexpr double usGallons() const { return m_base / factor::litresPerUsGallon; }
  constexpr double imperialGallons() const { return m_base / factor::litresPerImperialGallon; }
  constexpr double usFluidOunces() const { return m_base / factor::litresPerUsFluidOunce; }

private:
  friend class Quantity<Volume>;
  explicit constexpr Volume(double l) : Quantity(l) {}
};

/// Mass concentration; kept in grams per litre.
class Concentration : public Quantity<Concentration> {
public:
  constexpr Concentration() = default;
  static constexpr Concentration fromGramsPerLitre(double v) { return Concentration(v); }
  static constexpr Concentration fromMilligramsPerLitre(double v) { return Concentration(v / 1000); }
  constexpr double gramsPerLitre() const { return m_base; }
  constexpr double milligramsPerLitre() const { return m_base * 1000; }
  constexpr double gramsPerUsGallon() const { return m_base * factor::litresPerUsGallon; }

private:
  friend class Quantity<Concentration>;
  explicit constexpr Concentration(double gPerL) : Quantity(gPerL) {}
};

constexpr Concentration operator/(Mass m, Volume v) {
  return Concentration::fromGramsPerLitre(m.grams() / v.litres());
}
constexpr Mass operator*(Concentration c, Volume v) {
  return Mass::fromGrams(c.gramsPerLitre() * v.litres());
}
constexpr Mass operator*(Volume v, Concentration c) {
  return c * v;
}

/// Temperature on a scale (not a difference); kept in degrees Celsius.
class Temperature {
public:
  constexpr Temperature() = default;
  static constexpr Temperature fromCelsius(double v) { return Temperature(v); }
  static constexpr Temperature fromFahrenheit(double v) { return Temperature((v - 32) / 1.8); }
  constexpr double celsius() const { return m_celsius; }
  constexpr double fahrenheit() const { return m_celsius * 1.8 + 32; }
  constexpr auto operator<=>(const Temperature&) const = default;

private:
  explicit constexpr Temperature(double c) : m_celsius(c) {}
  double m_celsius = 20;
};

/// Electrical conductivity at 25 degC; kept in mS/cm. The ppm scales are conventions: always name which.
class Conductivity : public Quantity<Conductivity> {
public:
  constexpr Conductivity() = default;
  static constexpr Conductivity fromMilliSiemensPerCm(double v) { return Conductivity(v); }
  static constexpr Conductivity fromMicroSiemensPerCm(double v) { return Conductivity(v / 1000); }
  static constexpr Conductivity fromPpm500(double v) { return Conductivity(v / factor::ppm500); }
  static constexpr Conductivity fromPpm640(double v) { return Conductivity(v / factor::ppm640); }
  static constexpr Conductivity fromPpm700(double v) { return Conductivity(v / factor::ppm700); }
  constexpr double milliSiemensPerCm() const { return m_base; }
  constexpr double microSiemensPerCm() const { return m_base * 1000; }
  constexpr double ppm500() const { return m_base * factor::ppm500; }
  constexpr double ppm640() const { return m_base * factor::ppm640; }
  constexpr double ppm700() const { return m_base * factor::ppm700; }

private:
  friend class Quantity<Conductivity>;
  explicit constexpr Conductivity(double mS) : Quantity(mS) {}
};

} // namespace butte::core
