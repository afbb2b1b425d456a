#pragma once
#include "base/result.h"
#include "units/quantity.h"

#include <optional>
#include <string_view>

namespace butte::core {

enum class VesselShape {
  Round,       ///< upright cylinder: `acrossCm` is its inner diameter
  Rectangular, ///< `acrossCm` by `alongCm`, inside
  Tapered,     ///< a pail: inner diameter `acrossCm` at the bottom, `alongCm` at `heightCm`
};

/// "round", "rectangular", "tapered": how files and scripts name a shape.
std::string_view vesselShapeKey(VesselShape shape);
std::optional<VesselShape> vesselShapeFromKey(std::string_view key);

/// A vessel by its inner measures.
struct Vessel {
  VesselShape shape = VesselShape::Round;
  double acrossCm = 0;
  double alongCm = 0;
  double heightCm = 0; ///< inner height; 0: not known (a pail needs it)
};

/// What it holds up to a height above its floor. Errors: OutOfRange with the measure's name ("across_cm",
/// "along_cm", "height_cm").
Result<Volume> volumeAtHeight(const Vessel& vessel, double heightCm);

/// Where the line for a volume is, in cm above the floor. Errors as volumeAtHeight(); OutOfRange ("volume")
/// where it does not go in.
Result<double> heightForVolume(const Vessel& vessel, Volume volume);

} // namespace butte::core
