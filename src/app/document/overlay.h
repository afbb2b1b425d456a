#pragma once
#include "chem/nutrient.h"
#include "units/quantity.h"

#include <QString>
#include <map>
#include <optional>
#include <string>

namespace butte::app {

/// A second formula laid over the one in hand: another month's, another water's, or a change before it is
/// taken.
struct Overlay {
  QString name;
  core::NutrientAmounts milligramsPerLitre;
  std::map<std::string, core::Mass> grams; ///< by product id, for the same batch volume
  core::Conductivity conductivity;
  std::optional<double> cost;
};

} // namespace butte::app
