#pragma once
#include "chem/nutrient.h"

#include <array>
#include <optional>
#include <string_view>

namespace butte::core {

/// A way in which labels and water reports state an element other than as itself.
struct StatedForm {
  std::string_view key; ///< as written and as a formula: "P2O5", "SO4"
  Nutrient nutrient;    ///< what it stands for
  bool onLabels;        ///< an oxide used on fertilizer labels
};

/// Oxides and ions by which an element may be stated (definition; factors follow from atomic weights).
inline constexpr std::array<StatedForm, 11> statedForms{{{"P2O5", Nutrient::P, true},
                                                         {"K2O", Nutrient::K, true},
                                                         {"CaO", Nutrient::Ca, true},
                                                         {"MgO", Nutrient::Mg, true},
                                                         {"SO3", Nutrient::S, true},
                                                         {"SiO2", Nutrient::Si, true},
                                                         {"NO3", Nutrient::NNitrate, false},
                                                         {"NH4", Nutrient::NAmmonium, false},
                                                         {"SO4", Nutrient::S, false},
                                                         {"H2PO4", Nutrient::P, false},
                                                         {"PO4", Nutrient::P, false}}};

/// Mass of the element in one unit mass of the stated form (P2O5: 0.4364).
double elementShare(const StatedForm& form);

std::optional<StatedForm> statedFormFor(std::string_view key);

} // namespace butte::core
