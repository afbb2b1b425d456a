#include "product/oxides.h"

#include "chem/substance.h"

#include <algorithm>

namespace butte::core {

double elementShare(const StatedForm& form) {
  const auto share = massOfOneInOther(form.key, elementSymbol(form.nutrient));
  return share ? *share : 0; // every key of the table is a valid formula; tested
}

std::optional<StatedForm> statedFormFor(std::string_view key) {
  const auto it =
      std::find_if(statedForms.begin(), statedForms.end(), [&](const StatedForm& f) { return f.key == key; });
  if (it == statedForms.end()) return std::nullopt;
  return *it;
}

} // namespace butte::core
