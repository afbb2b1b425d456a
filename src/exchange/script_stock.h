#pragma once
#include "json_reader.h"
#include "script_input.h"

#include <string>
#include <vector>

/// The parts of the scripting interface that speak of tanks and doses.
namespace butte::exchange {

/// `tank` of a product: where a hand puts it.
struct TankByHand {
  std::string product;
  std::string path;
  Json value; ///< a tank's name, or shares per tank
};

/// Reads `stock` with the products' own tanks. The water must have been read.
void readScriptStock(ObjectReader& top, const std::vector<TankByHand>& byHand, ScriptInput& out);

/// Reads what only `dose` asks for.
void readScriptDose(ObjectReader& top, ScriptDose& out);

} // namespace butte::exchange
