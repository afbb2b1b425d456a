/// `butte-cli label`: what a fertilizer's label says, as it stands on the bag.
#include "label/label_text.h"
#include "reading_words.h"
#include "verb_json.h"

namespace butte::cli {

using namespace core;

namespace {

Json lineObject(const reading::LabelLine& line) {
  Json out{{"line", line.text}, {"line_number", line.line}};
  out["as"] = line.key.empty() ? Json(nullptr) : Json(line.key);
  out["percent"] = line.key.empty() ? Json(nullptr) : Json(line.percent);
  out["part_of_another"] = line.part;
  return out;
}

} // namespace

Result<Outcome> label(const std::string& text) {
  const auto read = reading::readLabelText(text);
  if (read.rows.empty())
    return problemAt(ProblemCode::BadFile, "FILE", {"no line of a fertilizer's label was recognised"});
  const auto composition = compositionFromLabel(read.rows);
  if (!composition) return composition.problem();
  Outcome out;
  Json stated = Json::object(), elements = Json::object(), lines = Json::array(), warnings = Json::array();
  for (const auto& [key, percent] : read.rows)
    stated[key] = percent;
  for (const auto n : allNutrients) {
    const double fraction = composition->composition.massFraction.of(n);
    if (n != Nutrient::N && fraction > 0) elements[std::string(nutrientKey(n))] = fraction * 100;
  }
  for (const auto& line : read.read)
    lines.push_back(lineObject(line));
  for (const auto& doubt : read.doubts)
    warnings.push_back(warning(words::code(doubt.doubt), words::labelDoubtText(doubt)));
  for (const auto remark : composition->remarks)
    warnings.push_back(warning(words::code(remark), words::labelRemarkText(remark, "label")));
  out.json = {{"label_percent", stated},
              {"elements_percent", elements},
              {"density_kg_per_l", optionalNumber(read.densityKgPerL)},
              {"chelates", read.chelates},
              {"read", lines},
              {"unplaced", read.unplaced},
              {"warnings", warnings}};
  return out;
}

} // namespace butte::cli
