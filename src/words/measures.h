#pragma once
#include "units/quantity.h"

#include <string>

/// Figures with their units, as the person has chosen them: one choice for all sentences, screens and papers.
namespace butte::words {

/// `PoundsAndOunces`: told as "1 lb 3.4 oz", typed in ounces or as told.
enum class MassShown { Metric, Ounces, Pounds, PoundsAndOunces };
enum class VolumeShown { Litres, UsGallons, ImperialGallons };
enum class ConductivityShown { MilliSiemens, Ppm500, Ppm640, Ppm700 };
enum class TemperatureShown { Celsius, Fahrenheit };
/// Liquids of less than a litre, or half a gallon. `Spoons`: drops, teaspoons, tablespoons, cups (US).
enum class LiquidShown { Millilitres, FluidOunces, Spoons };

/// The units that computed figures are told in. What is stored knows nothing of them.
struct Measures {
  MassShown mass = MassShown::Metric;
  VolumeShown volume = VolumeShown::Litres;
  ConductivityShown conductivity = ConductivityShown::MilliSiemens;
  TemperatureShown temperature = TemperatureShown::Celsius;
  LiquidShown liquid = LiquidShown::Millilitres;
  /// A drop of the person's own pipette, learnt by counting; 20 drops a mL is common practice.
  double dropMillilitres = 0.05;

  bool operator==(const Measures&) const = default;

  /// "515 g", "4.20 kg", "31.40 lb": as many digits as a bench needs, the unit always with it.
  std::string text(core::Mass mass) const;
  std::string massUnit() const; ///< "g", "oz", "lb": for what is typed
  double in(core::Mass mass) const;
  /// The unit of prices, bags and what is weighed by the sack: "kg", "lb".
  std::string bulkUnit() const;
  double inBulk(core::Mass mass) const;

  std::string text(core::Volume volume) const;
  std::string volumeUnit() const;     ///< "L", "gal_us", "gal_imp"
  std::string volumeUnitName() const; ///< "L", "US gal", "imp gal"
  double in(core::Volume volume) const;
  core::Volume oneVolume() const; ///< one litre, one gallon
  /// What feed is reckoned by in the gross: a cubic metre, a thousand gallons.
  core::Volume bulkVolume() const;
  std::string bulkVolumeName() const; ///< "m³", "1000 US gal"

  /// What a bottle, a pail or a tank is stated in: "mL", "floz_us", else volumeUnit().
  std::string vesselUnit(core::Volume volume) const;
  /// A liquid poured from a jug or a pipette: "505 mL", "2.40 L", "1.25 tsp".
  std::string stockText(core::Volume volume) const;
  /// Less than a litre in any case: "37.9 mL", "1.28 fl oz", "12 drops".
  std::string liquidText(core::Volume volume) const;
  /// "10 mL per L", "37.9 mL per US gal".
  std::string dose(double mlPerLitre) const;

  std::string text(core::Conductivity conductivity) const;
  std::string digits(core::Conductivity conductivity) const; ///< the same without its unit
  /// For tight rooms: "EC 1.67 mS/cm", "835 ppm₅₀₀"; the scale stays said.
  std::string shortText(core::Conductivity conductivity) const;
  std::string conductivityUnit() const;     ///< "mS/cm", "ppm500" ...
  std::string conductivityUnitName() const; ///< "mS/cm", "ppm (500)" ...
  double in(core::Conductivity conductivity) const;
  core::Conductivity conductivityOf(double shown) const; ///< the way back

  std::string text(core::Temperature temperature) const; ///< "20 °C", "68 °F"
  std::string digits(core::Temperature temperature) const;
  std::string temperatureUnit() const;     ///< "C", "F"
  std::string temperatureUnitName() const; ///< "°C", "°F"

  /// What a volume holds: "316 g/L", "2.64 lb/US gal".
  std::string text(core::Concentration concentration) const;
  /// "1.250 kg/L", "10.4 lb/US gal"; a density is told in the unit of sacks.
  std::string densityText(double kgPerLitre) const;
  std::string densityUnit() const;     ///< "kg/L", "lb/gal_us", "lb/gal_imp"
  std::string densityUnitName() const; ///< "kg/L", "lb/US gal"

private:
  bool isLittle(core::Volume volume) const;
  bool isByGallon() const;
};

/// "2¼ tsp level", "1 tbsp + 1¼ tsp level": eighths of a teaspoon.
std::string levelSpoons(double teaspoons);

/// What sentences are told in from now on; butte-cli leaves it metric.
void measureIn(const Measures& measures);
const Measures& measures();

} // namespace butte::words
