#include "verb_json.h"

namespace butte::cli {

using namespace core;
using exchange::ScriptInput;

Json optionalNumber(const std::optional<double>& value) {
  return value ? Json(*value) : Json(nullptr);
}

Json warning(std::string_view code, const std::string& text) {
  return Json{{"code", code}, {"text", text}};
}

Json nutrientObject(const NutrientAmounts& amounts) {
  Json out = Json::object();
  for (const auto n : allNutrients)
    out[std::string(nutrientKey(n))] = amounts.of(n);
  return out;
}

Json inputWarnings(const ScriptInput& input) {
  Json out = Json::array();
  for (const auto remark : input.given.request.water.remarks)
    out.push_back(warning(words::code(remark), words::waterRemarkText(remark)));
  for (const auto& [remark, id] : input.labelRemarks)
    out.push_back(warning(words::code(remark), words::labelRemarkText(remark, id)));
  return out;
}

std::vector<Mass> weightsOf(const ScriptInput& input) {
  using Weights = std::map<std::string, Mass>;
  std::vector<Mass> grams;
  for (const auto& p : input.given.request.shelf) {
    const auto it = input.weights ? input.weights->find(p.id) : Weights::const_iterator{};
    grams.push_back(!input.weights || it == input.weights->end() ? Mass{} : it->second);
  }
  return grams;
}

} // namespace butte::cli
