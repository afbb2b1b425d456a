#pragma once
#include "things/figure.h"

/// Every figure that both scripts and documents know: key in scripts, key in documents, unit, limits. The
/// limits keep out what can only be a slip; what is unwise but possible is said by the answer, not refused.
namespace butte::exchange::figures {

// A water.
inline constexpr Figure share{"share", "share", "", 0, 1e6};
inline constexpr Figure ph{"ph", "ph", "", 0, 14};
inline constexpr Figure waterTemperature{"temperature_c", "temperature", "C", -5, 60, true};
inline constexpr Figure waterConductivity{"ec_ms_per_cm", "ec", "mS/cm", 0, 200, true};
inline constexpr Figure rejection{"rejection_percent", "rejection_percent", "%", 0, 100};
inline constexpr Figure recovery{"recovery_percent", "recovery_percent", "%", 1, 99};
inline constexpr Figure hardnessLeft{"hardness_left_meq_per_l", "hardness_left", "meq/L", 0, 100, true};
inline constexpr Figure alkalinityLeft{"alkalinity_left_meq_per_l", "alkalinity_left", "meq/L", 0, 100, true};
inline constexpr Figure reported{"value", "amount", "", 0, 1e8};

// A product.
inline constexpr Figure purity{"purity_percent", "purity_percent", "%", 0, 100};
inline constexpr Figure density{"density_kg_per_l", "density_kg_per_l", "kg/L", 0.1, 5};
inline constexpr Figure price{"price_per_kg", "price_per_kg", "", 0, 1e9};
inline constexpr Figure labelPercent{"percent", "percent", "%", 0, 100};

// A target.
inline constexpr Figure wantedMgPerL{"mg_per_l", "mg_per_l", "mg/L", 0, 1e6};
inline constexpr Figure band{"tolerance_percent", "tolerance_percent", "%", 0, 1000};
inline constexpr Figure rowWeight{"weight", "weight", "", 0, 1e6};
inline constexpr Figure ratioValue{"value", "value", "", 0, 1e6, false, true};
inline constexpr Figure ratioBand{"tolerance_percent", "tolerance_percent", "%", 0, 100};

// The batch, the aim.
inline constexpr Figure batch{"volume_l", "batch", "L", 0, 1e9, true, true};
inline constexpr Figure targetPh{"target_ph", "target_ph", "", 0, 14};
inline constexpr Figure volumeError{"volume_percent", "volume_percent", "%", 0, 100};
inline constexpr Figure dosingError{"dosing_percent", "dosing_percent", "%", 0, 100};
inline constexpr Figure waterError{"water_percent", "water_percent", "%", 0, 100};

// Stocks.
inline constexpr Figure tankVolume{"volume_l", "volume", "L", 0, 1e9, true, true};
inline constexpr Figure tankFactor{"factor", "own_factor", "", 0, 1e6, false, true};
inline constexpr Figure margin{"margin_percent", "margin_percent", "%", 0, 90};
inline constexpr Figure coldest{"temperature_c", "coldest", "C", -5, 100, true};
inline constexpr Figure coldWater{"cold_c", "cold_water", "C", 0, 100, true};
inline constexpr Figure hotWater{"hot_c", "hot_water", "C", 0, 100, true};
inline constexpr Figure wantedTemperature{"wanted_c", "wanted", "C", 0, 100, true};

// A scale.
inline constexpr Figure readability{"readability_g", "readability", "g", 0, 1e6, true, true};
inline constexpr Figure capacity{"capacity_g", "capacity", "g", 0, 1e9, true, true};

// Dosing.
inline constexpr Figure acrossCm{"across_cm", "across_cm", "cm", 0, 1e5};
inline constexpr Figure alongCm{"along_cm", "along_cm", "cm", 0, 1e5};
inline constexpr Figure heightCm{"height_cm", "height_cm", "cm", 0, 1e5};
inline constexpr Figure lineFor{"line_for_l", "line_for", "L", 0, 1e9, true};
inline constexpr Figure feedPerDay{"feed_per_day_l", "feed_per_day", "L", 0, 1e9, true};
inline constexpr Figure feedPerHour{"feed_per_hour_l", "feed_per_hour", "L", 0, 1e9, true};
inline constexpr Figure fillDays{"fill_days", "fill_days", "", 0, 10000, false, true};
inline constexpr Figure seasonDays{"season_days", "season_days", "", 0, 10000, false, true};
inline constexpr Figure drawn{"volume_l", "volume", "L", 0, 1e9, true};
inline constexpr Figure drawnFeed{"feed_l", "drawn_feed", "L", 0, 1e9, true};
inline constexpr Figure setpoint{"ec_setpoint", "setpoint", "mS/cm", 0, 500, true};
inline constexpr Figure perRun{"ml_per_run", "ml_per_run", "mL", 0, 1e6, false, true};
inline constexpr Figure perMinute{"ml_per_minute", "ml_per_minute", "mL", 0, 1e7};
inline constexpr Figure readingDose{"ml_per_l", "ml_per_l", "", 0, 1000};
inline constexpr Figure readingConductivity{"ec", "ec", "mS/cm", 0, 500, true};

// A vessel of feed.
inline constexpr Figure vesselVolume{"volume_l", "volume", "L", 0, 1e9, true, true};
inline constexpr Figure vesselPresent{"present_l", "present", "L", 0, 1e9, true};
inline constexpr Figure vesselLastWater{"last_water_l", "last_water", "L", 0, 1e9, true};
inline constexpr Figure vesselReading{"ec_now", "reading", "mS/cm", 0, 500, true};
inline constexpr Figure vesselTarget{"ec_target", "target", "mS/cm", 0, 500, true};

} // namespace butte::exchange::figures
