#pragma once
#include "text/atoms.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::reading {

/// What a report's name for a figure means.
struct Analyte {
  std::string key; ///< "Ca", "N_NO3", "alkalinity_as_CaCO3", "EC", "pH", "temperature" (waterKeys())
  bool asCalciumCarbonate = false;    ///< "calcium as CaCO3": the figure counts equivalents
  bool aside = false;                 ///< known, and nothing that a feed asks for: turbidity
  bool oneOfAlkalinity = false;       ///< bicarbonate alkalinity: the total one is meant where both stand
  std::vector<std::string> otherwise; ///< keys that it could as well mean: "ammonia" is N or NH4
  double factor = 1;                  ///< from what the paper states to the key's own form (NH3 to N)
};

/// The longest name from `at` on, before `end`, with how many atoms it takes. Forms may stand in it in any of
/// the usual manners ("Nitrate as N", "Sulfate (SO4-S)", "Nitrogen, nitrate", "N-NO3"), or behind it with the
/// unit: `form` are the symbols found there ("mg/L as N").
struct AnalyteFound {
  std::size_t length = 0;
  Analyte analyte;
};
std::optional<AnalyteFound> analyteAt(Atoms atoms, std::size_t at, std::size_t end,
                                      const std::vector<std::string>& form = {});

/// All of the atoms as one name; nothing where something in them is no part of any.
std::optional<Analyte> analyteOf(Atoms atoms, const std::vector<std::string>& form = {});

} // namespace butte::reading
