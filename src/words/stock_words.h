#pragma once
#include "dose/reading_causes.h"
#include "dose/reservoir_plan.h"
#include "words.h"

/// English for tanks, doses and readings.
namespace butte::words {

/// What a tank holds, in words that stay true whatever its letter is: "calcium side", "sulfate and phosphate
/// side", "traces", "acid", "silicate", "all in one", "empty".
std::string tankSideText(const std::vector<core::ShelfProduct>& shelf, const core::TankContent& content);

/// "A · calcium side"; a tank called by what it holds says it once.
std::string tankTitle(const std::vector<core::ShelfProduct>& shelf, const core::TankContent& content);
/// Where salts go that go into no tank but straight into the finished feed.
std::string vesselTitle();
/// A ceiling as a strength that holds: rounded down to what is worth telling, "829", "1050", "1230".
std::string ceilingFigure(double factor);

std::string_view code(core::ReadingCause cause);
/// One cause with its size: "the vessel holds 115 L, not 100 L". `tankName` for a shut side.
std::string causeText(const core::PossibleCause& cause, const core::ReadingGap& gap,
                      const std::vector<std::string>& tankNames);

std::string_view code(core::ReservoirAct act);

/// How acid goes into a tank and what the tank must be made of (common practice); the acid by its name.
std::vector<std::string> acidTankCautions(const core::ShelfProduct& acid,
                                          std::optional<double> warmsByKelvin);

} // namespace butte::words
