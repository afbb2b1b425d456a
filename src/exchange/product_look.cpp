// The look and the hazards that a grower gives a product, alike in formulas and in the book.
#include "formula_json.h"

#include <algorithm>

namespace butte::exchange {

using core::ProblemCode;

namespace {

bool isColour(const std::string& text) {
  return text.size() == 7 && text.front() == '#' &&
         std::all_of(text.begin() + 1, text.end(), [](unsigned char c) { return std::isxdigit(c) != 0; });
}

/// "H272", "H360FD"
bool isHazardCode(const std::string& text) {
  return text.size() >= 4 && text.front() == 'H' &&
         std::all_of(text.begin() + 1, text.begin() + 4,
                     [](unsigned char c) { return std::isdigit(c) != 0; }) &&
         std::all_of(text.begin() + 4, text.end(), [](unsigned char c) { return std::isalpha(c) != 0; });
}

} // namespace

const std::vector<std::string>& hatchNames() {
  static const std::vector<std::string> names{"plain", "rising",  "falling", "upright",
                                              "level", "crossed", "dotted"};
  return names;
}

void readLook(ObjectReader& reader, DocumentProduct& product) {
  product.colour = reader.text("colour").value_or("");
  if (!product.colour.empty() && !isColour(product.colour))
    reader.fail(ProblemCode::OutOfRange, "colour", {"'" + product.colour + "'", "a colour such as #5b7fa6"});
  product.hatch = reader.text("hatch").value_or("");
  const auto& names = hatchNames();
  if (!product.hatch.empty() && std::find(names.begin(), names.end(), product.hatch) == names.end())
    reader.fail(ProblemCode::OutOfRange, "hatch",
                {"'" + product.hatch + "'", "plain, rising, falling, upright, level, crossed or dotted"});
  const auto* codes = reader.array("hazards");
  for (std::size_t i = 0; codes && i < codes->size(); ++i) {
    const auto& code = (*codes)[i];
    if (!code.is_string() || !isHazardCode(code.get<std::string>()))
      return reader.fail(ProblemCode::OutOfRange, "hazards",
                         {code.dump(), "hazard codes from the label such as H272"});
    product.hazards.push_back(code.get<std::string>());
  }
}

} // namespace butte::exchange
