#include "dose/vessel.h"

#include "base/decimal.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace butte::core {
namespace {

constexpr double cm3PerLitre = 1000;
constexpr std::array<std::string_view, 3> shapes{"round", "rectangular", "tapered"};

std::optional<Problem> faultOf(const Vessel& v) {
  const auto positive = [](const char* where, double cm) {
    return problemAt(ProblemCode::OutOfRange, where, {decimalText(cm), "above 0 cm"});
  };
  if (!(v.acrossCm > 0)) return positive("across_cm", v.acrossCm);
  if (v.shape != VesselShape::Round && !(v.alongCm > 0)) return positive("along_cm", v.alongCm);
  if (v.shape == VesselShape::Tapered && !(v.heightCm > 0)) return positive("height_cm", v.heightCm);
  if (!(v.heightCm >= 0)) return positive("height_cm", v.heightCm);
  return std::nullopt;
}

double litresTo(const Vessel& v, double h) {
  switch (v.shape) {
  case VesselShape::Round:
    return std::numbers::pi / 4 * v.acrossCm * v.acrossCm * h / cm3PerLitre;
  case VesselShape::Rectangular:
    return v.acrossCm * v.alongCm * h / cm3PerLitre;
  case VesselShape::Tapered: {
    const double top = v.acrossCm + (v.alongCm - v.acrossCm) * h / v.heightCm;
    // Frustum of a cone.
    return std::numbers::pi / 12 * h * (v.acrossCm * v.acrossCm + v.acrossCm * top + top * top) / cm3PerLitre;
  }
  }
  return 0;
}

} // namespace

std::string_view vesselShapeKey(VesselShape shape) {
  return shapes[static_cast<std::size_t>(shape)];
}

std::optional<VesselShape> vesselShapeFromKey(std::string_view key) {
  const auto found = std::find(shapes.begin(), shapes.end(), key);
  if (found == shapes.end()) return std::nullopt;
  return static_cast<VesselShape>(found - shapes.begin());
}

Result<Volume> volumeAtHeight(const Vessel& vessel, double heightCm) {
  if (const auto fault = faultOf(vessel)) return *fault;
  const bool tooHigh = vessel.heightCm > 0 && heightCm > vessel.heightCm * (1 + 1e-12);
  if (!(heightCm >= 0) || tooHigh)
    return problemAt(ProblemCode::OutOfRange, "height_cm",
                     {decimalText(heightCm), vessel.heightCm > 0
                                                 ? "0 to " + decimalText(vessel.heightCm) + " cm"
                                                 : std::string("0 or more")});
  return Volume::fromLitres(litresTo(vessel, heightCm));
}

Result<double> heightForVolume(const Vessel& vessel, Volume volume) {
  if (const auto fault = faultOf(vessel)) return *fault;
  if (!(volume >= Volume{}))
    return problemAt(ProblemCode::OutOfRange, "volume", {decimalText(volume.litres()), "0 L or more"});
  if (vessel.heightCm > 0 && volume.litres() > litresTo(vessel, vessel.heightCm) * (1 + 1e-9))
    return problemAt(ProblemCode::OutOfRange, "volume",
                     {decimalText(volume.litres()),
                      "up to " + decimalText(litresTo(vessel, vessel.heightCm)) + " L: it holds no more"});
  if (vessel.shape != VesselShape::Tapered) return volume.litres() / litresTo(vessel, 1);
  double low = 0, high = vessel.heightCm;
  for (int i = 0; i < 80; ++i) {
    const double middle = 0.5 * (low + high);
    (litresTo(vessel, middle) < volume.litres() ? low : high) = middle;
  }
  return 0.5 * (low + high);
}

} // namespace butte::core
