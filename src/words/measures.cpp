#include "measures.h"

#include "language.h"
#include "words.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace butte::words {
namespace {

using core::Concentration;
using core::Conductivity;
using core::Mass;
using core::Temperature;
using core::Volume;

Measures& inForce() {
  static Measures measures;
  return measures;
}

std::string fixed(double value, int decimals) {
  if (std::abs(value) < 0.5 * std::pow(10, -decimals)) value = 0; // no "-0.0"
  return figureText(fmt::format("{:.{}f}", value, decimals));
}

std::string in(const std::string& digits, const std::string& unit) {
  return digits + " " + unit;
}

/// Spoons and cups are filled by eye: eighths of a teaspoon are what a set of them has (common practice).
std::string spoonText(Volume volume, double dropMillilitres) {
  const double teaspoons = volume.litres() / core::factor::litresPerUsTeaspoon;
  const double tablespoons = volume.litres() / core::factor::litresPerUsTablespoon;
  const double cups = volume.litres() / core::factor::litresPerUsCup;
  constexpr double leastTeaspoon = 0.25, leastTablespoon = 1, leastCup = 0.25;
  if (teaspoons < leastTeaspoon && volume.millilitres() > 0)
    return in(fixed(std::max(1.0, volume.millilitres() / dropMillilitres), 0), text("drops"));
  if (tablespoons < leastTablespoon) return in(figure(teaspoons), text("tsp"));
  if (cups < leastCup) return in(figure(tablespoons), text("tbsp"));
  return in(figure(cups), text("cups"));
}

/// "1 lb 3.4 oz"; rounded before it is parted, so that no "1 lb 16.0 oz" comes out.
std::string poundsAndOunces(Mass m) {
  constexpr double perPound = 16;
  if (m.ounces() < perPound - 0.005) return in(figure(m.ounces()), "oz"); // what rounds to a pound is one
  const int decimals = m.ounces() >= 1000 ? 0 : m.ounces() >= 100 ? 1 : 2;
  const double unit = std::pow(10, decimals);
  const double ounces = std::round(m.ounces() * unit) / unit;
  const double pounds = std::floor(ounces / perPound);
  return in(fixed(pounds, 0), "lb") + " " + in(fixed(ounces - pounds * perPound, decimals), "oz");
}

/// Whole ones and the nearest eighth: "2¼".
std::string inEighths(double value) {
  static constexpr std::array<const char*, 8> parts{"", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"};
  const auto eighths = static_cast<std::size_t>(std::lround(std::max(0.0, value) * 8));
  const auto whole = eighths / 8;
  return (whole > 0 || eighths == 0 ? std::to_string(whole) : std::string()) + parts[eighths % 8];
}

} // namespace

std::string levelSpoons(double teaspoons) {
  constexpr double inTablespoon = 3;
  const double tablespoons = std::floor(teaspoons / inTablespoon + 1e-9);
  const double rest = teaspoons - tablespoons * inTablespoon;
  std::string out;
  if (tablespoons > 0) out = in(inEighths(tablespoons), text("tbsp"));
  if (rest > 0.01 || tablespoons < 1) out += (out.empty() ? "" : " + ") + in(inEighths(rest), text("tsp"));
  return said("{} level", out);
}

void measureIn(const Measures& measures) {
  inForce() = measures;
}

const Measures& measures() {
  return inForce();
}

std::string Measures::massUnit() const {
  constexpr const char* units[] = {"g", "oz", "lb", "oz"};
  return units[static_cast<int>(mass)];
}

double Measures::in(Mass m) const {
  return mass == MassShown::Metric ? m.grams() : mass == MassShown::Pounds ? m.pounds() : m.ounces();
}

std::string Measures::bulkUnit() const {
  return mass == MassShown::Metric ? "kg" : "lb";
}

double Measures::inBulk(Mass m) const {
  return mass == MassShown::Metric ? m.kilograms() : m.pounds();
}

std::string Measures::text(Mass m) const {
  const double kilograms = m.kilograms();
  if (mass == MassShown::Metric && kilograms >= 1)
    return words::in(fixed(kilograms, kilograms >= 1000  ? 0
                                      : kilograms >= 100 ? 1
                                      : kilograms >= 10  ? 2
                                                         : 3),
                     "kg");
  if (mass == MassShown::Ounces && m.ounces() >= 320) return words::in(figure(m.pounds()), "lb");
  if (mass == MassShown::PoundsAndOunces) return poundsAndOunces(m);
  if (mass == MassShown::Pounds && m.pounds() < 0.02) return words::in(figure(m.ounces()), "oz");
  return words::in(figure(in(m)), massUnit());
}

std::string Measures::volumeUnit() const {
  constexpr const char* units[] = {"L", "gal_us", "gal_imp"};
  return units[static_cast<int>(volume)];
}

std::string Measures::volumeUnitName() const {
  return volume == VolumeShown::Litres      ? "L"
         : volume == VolumeShown::UsGallons ? words::text("US gal")
                                            : words::text("imp gal");
}

Volume Measures::oneVolume() const {
  return volume == VolumeShown::Litres      ? Volume::fromLitres(1)
         : volume == VolumeShown::UsGallons ? Volume::fromUsGallons(1)
                                            : Volume::fromImperialGallons(1);
}

Volume Measures::bulkVolume() const {
  return oneVolume() * 1000;
}

std::string Measures::bulkVolumeName() const {
  return volume == VolumeShown::Litres ? "m³" : "1000 " + volumeUnitName();
}

double Measures::in(Volume v) const {
  return v / oneVolume();
}

std::string Measures::text(Volume v) const {
  if (volume == VolumeShown::Litres && v.litres() >= 10000) return words::in(fixed(v.cubicMetres(), 1), "m³");
  return words::in(figure(in(v)), volumeUnitName());
}

bool Measures::isLittle(Volume v) const {
  return volume == VolumeShown::Litres ? v.litres() < 1 : in(v) < 0.5;
}

std::string Measures::vesselUnit(Volume v) const {
  if (!isLittle(v)) return volumeUnit();
  return volume == VolumeShown::Litres || liquid == LiquidShown::Millilitres ? "mL" : "floz_us";
}

std::string Measures::stockText(Volume v) const {
  return isLittle(v) ? liquidText(v) : text(v);
}

std::string Measures::liquidText(Volume v) const {
  if (liquid == LiquidShown::FluidOunces) return words::in(figure(v.usFluidOunces()), words::text("fl oz"));
  if (liquid == LiquidShown::Spoons) return spoonText(v, dropMillilitres);
  return words::in(figure(v.millilitres()), "mL");
}

std::string Measures::dose(double mlPerLitre) const {
  return said("{} per {}", liquidText(Volume::fromMillilitres(mlPerLitre * oneVolume().litres())),
              volumeUnitName());
}

std::string Measures::conductivityUnit() const {
  constexpr const char* units[] = {"mS/cm", "ppm500", "ppm640", "ppm700"};
  return units[static_cast<int>(conductivity)];
}

std::string Measures::conductivityUnitName() const {
  switch (conductivity) {
  case ConductivityShown::MilliSiemens:
    return "mS/cm";
  case ConductivityShown::Ppm500:
    return words::text("ppm (500)");
  case ConductivityShown::Ppm640:
    return words::text("ppm (640)");
  case ConductivityShown::Ppm700:
    return words::text("ppm (700)");
  }
  return "mS/cm";
}

double Measures::in(Conductivity c) const {
  return c / conductivityOf(1);
}

Conductivity Measures::conductivityOf(double shown) const {
  switch (conductivity) {
  case ConductivityShown::MilliSiemens:
    break;
  case ConductivityShown::Ppm500:
    return Conductivity::fromPpm500(shown);
  case ConductivityShown::Ppm640:
    return Conductivity::fromPpm640(shown);
  case ConductivityShown::Ppm700:
    return Conductivity::fromPpm700(shown);
  }
  return Conductivity::fromMilliSiemensPerCm(shown);
}

std::string Measures::digits(Conductivity c) const {
  constexpr double pens = 5; // ppm pens show steps of about that
  return conductivity == ConductivityShown::MilliSiemens ? fixed(in(c), 2)
                                                         : fixed(std::round(in(c) / pens) * pens, 0);
}

std::string Measures::text(Conductivity c) const {
  return words::in(digits(c), conductivityUnitName());
}

std::string Measures::shortText(Conductivity c) const {
  const char* scales[] = {"", "₅₀₀", "₆₄₀", "₇₀₀"};
  return conductivity == ConductivityShown::MilliSiemens
             ? said("EC {}", text(c))
             : words::in(digits(c), words::text("ppm") + scales[static_cast<int>(conductivity)]);
}

std::string Measures::temperatureUnit() const {
  return temperature == TemperatureShown::Celsius ? "C" : "F";
}

std::string Measures::temperatureUnitName() const {
  return "°" + temperatureUnit();
}

std::string Measures::digits(Temperature t) const {
  const double shown = temperature == TemperatureShown::Celsius ? t.celsius() : t.fahrenheit();
  const bool whole = std::abs(shown - std::round(shown)) < 0.05;
  return fixed(shown, whole || temperature == TemperatureShown::Fahrenheit ? 0 : 1);
}

std::string Measures::text(Temperature t) const {
  return words::in(digits(t), temperatureUnitName());
}

std::string Measures::text(Concentration c) const {
  const auto held = c * oneVolume();
  const bool small = mass == MassShown::Metric && volume == VolumeShown::Litres;
  return (small ? words::in(figure(held.grams()), "g") : text(held)) + "/" + volumeUnitName();
}

/// Labels state pounds per gallon or kilograms per litre, nothing between (common practice).
std::string Measures::densityUnit() const {
  return isByGallon() ? "lb/" + volumeUnit() : "kg/L";
}

std::string Measures::densityUnitName() const {
  return isByGallon() ? "lb/" + volumeUnitName() : "kg/L";
}

std::string Measures::densityText(double kgPerLitre) const {
  const double pounds = Mass::fromKilograms(kgPerLitre * oneVolume().litres()).pounds();
  return words::in(isByGallon() ? fixed(pounds, 2) : fixed(kgPerLitre, 3), densityUnitName());
}

bool Measures::isByGallon() const {
  return mass != MassShown::Metric && volume != VolumeShown::Litres;
}

} // namespace butte::words
