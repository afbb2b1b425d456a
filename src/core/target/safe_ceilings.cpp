#include "target/safe_ceilings.h"

#include "base/csv.h"
#include "base/embedded.h"

#include <algorithm>
#include <cassert>
#include <cctype>

namespace butte::core {
namespace {

std::vector<SafeCeiling> readCeilings() {
  const CsvTable table(embedded::safe_ceilings());
  std::vector<SafeCeiling> out;
  for (std::size_t row = 0; row < table.rowCount(); ++row) {
    const auto nutrient = nutrientFromKey(table.cell(row, "element"));
    assert(nutrient && "data/safe_ceilings.csv names an element that is none");
    out.push_back({*nutrient, table.cell(row, "crop"), table.number(row, "unasked_most_mg_per_l"),
                   table.number(row, "harmful_above_mg_per_l"), table.cell(row, "why"),
                   table.cell(row, "source"), table.cell(row, "confidence")});
  }
  return out;
}

std::string inLowerCase(std::string text) {
  std::transform(text.begin(), text.end(), text.begin(), [](unsigned char c) { return std::tolower(c); });
  return text;
}

/// The crop's own row, else that of any; nothing where neither has a limit.
const SafeCeiling* limitFor(Nutrient nutrient, const std::string& crop) {
  const SafeCeiling* found = nullptr;
  for (const auto& row : safeCeilings()) {
    if (row.nutrient != nutrient || !row.harmfulAboveMgPerL) continue;
    if (row.crop.empty() ? !found : crop.find(row.crop) != std::string::npos) found = &row;
  }
  return found;
}

} // namespace

const std::vector<SafeCeiling>& safeCeilings() {
  static const std::vector<SafeCeiling> ceilings = readCeilings();
  return ceilings;
}

std::optional<double> unaskedMost(Nutrient nutrient) {
  for (const auto& row : safeCeilings()) {
    if (row.nutrient == nutrient && row.unaskedMostMgPerL) return row.unaskedMostMgPerL;
  }
  return std::nullopt;
}

std::vector<HarmfulLevel> harmfulLevels(const NutrientAmounts& milligramsPerLitre, const std::string& crop) {
  std::vector<HarmfulLevel> out;
  const auto wanted = inLowerCase(crop);
  for (const auto nutrient : allNutrients) {
    const auto* limit = limitFor(nutrient, wanted);
    const double stands = milligramsPerLitre.of(nutrient);
    if (limit && stands > *limit->harmfulAboveMgPerL)
      out.push_back({nutrient, stands, *limit->harmfulAboveMgPerL, limit->crop});
  }
  std::stable_sort(out.begin(), out.end(), [](const HarmfulLevel& a, const HarmfulLevel& b) {
    return a.milligramsPerLitre / a.harmfulAbove > b.milligramsPerLitre / b.harmfulAbove;
  });
  return out;
}

} // namespace butte::core
