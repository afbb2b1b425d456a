#include "json_reader.h"
#include "things/choices.h"
#include "things/figures.h"
#include "things/things.h"
#include "typed_numbers.h"

namespace butte::exchange {

using namespace core;

TankUse readTankUse(ObjectReader& tank) {
  const auto text = tank.text("use");
  if (!text) return TankUse::Salts;
  const auto use = tankUseFromKey(*text);
  if (!use) tank.fail(ProblemCode::NotOneOf, "use", {*text, "salts, traces, acid, alone"});
  return use.value_or(TankUse::Salts);
}

VesselShape readVesselShape(ObjectReader& vessel) {
  const auto text = vessel.text("shape");
  if (!text) return VesselShape::Round;
  const auto shape = vesselShapeFromKey(*text);
  if (!shape) vessel.fail(ProblemCode::NotOneOf, "shape", {*text, "round, rectangular, tapered"});
  return shape.value_or(VesselShape::Round);
}

Vessel readVessel(ObjectReader& vessel, Dialect dialect) {
  Vessel v;
  v.shape = readVesselShape(vessel);
  v.acrossCm = figure(vessel, dialect, figures::acrossCm).value_or(0);
  v.alongCm = figure(vessel, dialect, figures::alongCm).value_or(0);
  v.heightCm = figure(vessel, dialect, figures::heightCm).value_or(0);
  return v;
}

void readTank(ObjectReader& tank, Dialect dialect, Tank& out) {
  out.volume = volumeOf(tank, dialect, figures::tankVolume).value_or(Volume::fromLitres(1));
  out.use = readTankUse(tank);
  out.ownFactor = figure(tank, dialect, figures::tankFactor);
}

void readDissolving(ObjectReader& reader, Dialect dialect, DissolvingPlan& out) {
  out.coldWater = temperatureOf(reader, dialect, figures::coldWater).value_or(out.coldWater);
  out.hotWater = temperatureOf(reader, dialect, figures::hotWater).value_or(out.hotWater);
  out.wanted = temperatureOf(reader, dialect, figures::wantedTemperature).value_or(out.wanted);
}

Scale readScale(const Json& json, const std::string& path, Dialect dialect, const Scale& usual,
                std::optional<Problem>& problem) {
  ObjectReader reader(json, path, problem);
  Scale scale = usual;
  if (dialect == Dialect::Document) scale.name = reader.text("name").value_or(usual.name);
  if (const auto g = figure(reader, dialect, figures::readability)) scale.readability = Mass::fromGrams(*g);
  if (dialect == Dialect::Document && !problem && json.is_object() && json.contains("readability"))
    scale.unit = figureFrom(json["readability"]).unit;
  if (const auto g = figure(reader, dialect, figures::capacity)) scale.capacity = Mass::fromGrams(*g);
  reader.finish();
  return scale;
}

DirectPlan readDirectPlan(ObjectReader& reader, Dialect dialect) {
  DirectPlan plan;
  plan.present = volumeOf(reader, dialect, figures::vesselPresent).value_or(plan.present);
  plan.reading = conductivityOf(reader, dialect, figures::vesselReading);
  plan.acid = chosen(reader, "acid", acidTurns);
  return plan;
}

DosingPump readPump(ObjectReader& reader, Dialect dialect) {
  DosingPump pump;
  if (const auto ml = figure(reader, dialect, figures::perRun)) pump.perRun = Volume::fromMillilitres(*ml);
  if (const auto ml = figure(reader, dialect, figures::perMinute))
    pump.perMinute = Volume::fromMillilitres(*ml);
  return pump;
}

std::optional<DosedReading> readDosedReading(ObjectReader& reader, Dialect dialect) {
  const auto dose = figure(reader, dialect, figures::readingDose);
  const auto reading = conductivityOf(reader, dialect, figures::readingConductivity);
  return dose && reading ? std::optional(DosedReading{*dose, *reading}) : std::nullopt;
}

HandErrors readHandErrors(ObjectReader& reader, Dialect dialect) {
  return {figure(reader, dialect, figures::volumeError), figure(reader, dialect, figures::dosingError),
          figure(reader, dialect, figures::waterError)};
}

} // namespace butte::exchange
