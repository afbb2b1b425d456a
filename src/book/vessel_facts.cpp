#include "vessel_facts.h"

#include "base/decimal.h"
#include "things/choices.h"
#include "things/figures.h"
#include "things/things.h"
#include "units/convert.h"

namespace butte::book {

using core::ProblemCode;
using core::Volume;
using exchange::Amount;
using exchange::Dialect;
using exchange::Figure;
using exchange::ObjectReader;

namespace {

constexpr double mostInVessel = 1e9, mostSquareMetres = 1e7;
constexpr Figure full{"", "volume", "L", 0, mostInVessel, true, true};
constexpr Figure low{"", "low", "L", 0, mostInVessel, true};
constexpr Figure drunk{"", "drunk_per_day", "L", 0, mostInVessel, true};
constexpr Figure ground{"", "ground", "m2", 0, mostSquareMetres, true};
constexpr Figure plants{"", "plants", "", 0, 1e8};
constexpr Figure stickFull{"", "stick_full", "", -1e6, 1e6};
constexpr Figure stickLow{"", "stick_low", "", -1e6, 1e6};
constexpr Figure shot{"", "shot", "L", 0, mostInVessel, true, true};
constexpr Figure firstHour{"", "first_hour", "", 0, 24};
constexpr Figure lastHour{"", "last_hour", "", 0, 24};
constexpr Figure drainPercent{"", "drain_percent", "%", 0, 100};
constexpr Figure rootPercent{"", "root_percent", "%", 0, 1000};
constexpr Figure usual{"", "usual_temperature", "C", 0, 45, true};

constexpr Figure highEc{"", "rule_high_ec", "mS/cm", 0, 500, true};
constexpr Figure lowEc{"", "rule_low_ec", "mS/cm", 0, 500, true};
constexpr Figure highPercent{"", "rule_high_percent", "%", 0, 1000};
constexpr Figure lowPercent{"", "rule_low_percent", "%", 0, 1000};
constexpr Figure highPh{"", "rule_high_ph", "", 0, 14};
constexpr Figure lowPh{"", "rule_low_ph", "", 0, 14};

/// Digits as they stand, once they read as `what`.
std::string digitsAt(ObjectReader& reader, const Figure& what) {
  if (!exchange::figure(reader, Dialect::Document, what)) return {};
  return reader.text(what.document).value_or("");
}

double in(const Amount& amount, const char* unit) {
  if (amount.isEmpty()) return 0;
  const auto value = core::convert(amount.value(), amount.unit, unit);
  return value ? *value : 0;
}

Volume litresOf(const Amount& amount) {
  return Volume::fromLitres(in(amount, "L"));
}

} // namespace

Volume VesselFacts::fullVolume() const {
  return litresOf(full);
}
Volume VesselFacts::lowVolume() const {
  return litresOf(low);
}
double VesselFacts::drunkLPerDay() const {
  return in(drunk, "L");
}
double VesselFacts::groundM2() const {
  return in(ground, "m2");
}
double VesselFacts::plantCount() const {
  return core::parseDecimal(plants).value_or(0);
}

core::GrowersRule VesselFacts::growersRule() const {
  core::GrowersRule out;
  const auto ec = [](const Amount& typed, core::Conductivity& into) {
    if (!typed.isEmpty()) into = core::Conductivity::fromMilliSiemensPerCm(in(typed, "mS/cm"));
  };
  const auto figure = [](const std::string& digits, double share, double& into) {
    if (const auto value = core::parseDecimal(digits)) into = *value * share;
  };
  constexpr double ofPercent = 0.01;
  ec(ruleHighEc, out.highEc);
  ec(ruleLowEc, out.lowEc);
  figure(ruleHighPercent, ofPercent, out.highFactor);
  figure(ruleLowPercent, ofPercent, out.lowFactor);
  figure(ruleHighPh, 1, out.highPh);
  figure(ruleLowPh, 1, out.lowPh);
  return out;
}

std::optional<Volume> VesselFacts::volumeAt(double heightCm) const {
  if (!measures) return std::nullopt;
  const auto volume = core::volumeAtHeight(*measures, heightCm);
  return volume ? std::optional(*volume) : std::nullopt;
}

std::optional<Volume> VesselFacts::volumeAtStick(double shows) const {
  const auto high = core::parseDecimal(stickFull), low = core::parseDecimal(stickLow);
  if (!high || !low || *high == *low || !(fullVolume() > Volume{})) return std::nullopt;
  const double share = (shows - *low) / (*high - *low);
  const auto volume = lowVolume() + (fullVolume() - lowVolume()) * share;
  return volume < Volume{} ? Volume{} : volume;
}

namespace {

IrrigationWish wishFrom(ObjectReader& reader) {
  return {exchange::typedAmount(reader, shot).value_or(Amount{}), digitsAt(reader, firstHour),
          digitsAt(reader, lastHour), digitsAt(reader, drainPercent), digitsAt(reader, rootPercent)};
}

} // namespace

core::Result<VesselFacts> vesselFactsFromJson(const Json& json) {
  Trouble problem;
  VesselFacts out;
  ObjectReader reader(json, "", problem);
  out.name = reader.text("name").value_or("");
  if (out.name.empty())
    reader.fail(ProblemCode::MissingKey, "name", {"a vessel needs the name that it has on the farm"});
  out.note = reader.text("note").value_or("");
  out.full = exchange::typedAmount(reader, full).value_or(Amount{});
  out.low = exchange::typedAmount(reader, low).value_or(Amount{});
  out.drunk = exchange::typedAmount(reader, drunk).value_or(Amount{});
  out.ground = exchange::typedAmount(reader, ground).value_or(Amount{});
  out.usualTemperature = exchange::typedAmount(reader, usual).value_or(Amount{});
  out.crop = reader.text("crop").value_or("");
  static constexpr exchange::Choices<const char*, 3> climates{{{"", ""}, {"cool", "cool"}, {"warm", "warm"}}};
  out.climate = exchange::chosen(reader, "climate", climates);
  out.formulaUid = reader.text("formula").value_or("");
  out.batchUid = reader.text("batch").value_or("");
  out.plants = digitsAt(reader, plants);
  out.southern = reader.flag("southern").value_or(false);
  out.stickFull = digitsAt(reader, stickFull);
  out.stickLow = digitsAt(reader, stickLow);
  out.irrigation = wishFrom(reader);
  out.filledWithWater = reader.flag("filled_with_water").value_or(false);
  out.drainsToWaste = reader.flag("drains_to_waste").value_or(false);
  out.openToRain = reader.flag("open_to_rain").value_or(false);
  out.ruleHighEc = exchange::typedAmount(reader, highEc).value_or(Amount{});
  out.ruleLowEc = exchange::typedAmount(reader, lowEc).value_or(Amount{});
  out.ruleHighPercent = digitsAt(reader, highPercent);
  out.ruleLowPercent = digitsAt(reader, lowPercent);
  out.ruleHighPh = digitsAt(reader, highPh);
  out.ruleLowPh = digitsAt(reader, lowPh);
  if (const auto* measures = reader.object("measures")) {
    ObjectReader inside(*measures, "measures", problem);
    out.measures = exchange::readVessel(inside, Dialect::Document);
    inside.finish();
  }
  reader.finish();
  if (problem) return *problem;
  return out;
}

} // namespace butte::book
