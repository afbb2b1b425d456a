#pragma once
#include "water_document.h"

namespace butte::app {

/// Gives every water that nobody named a name by what it holds: pure while it holds nothing. The file keeps
/// no name for it.
void nameUnnamedWaters(exchange::WaterDocument& water);

} // namespace butte::app
