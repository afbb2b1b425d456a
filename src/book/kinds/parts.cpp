#include "kinds/parts.h"

#include "formula_json.h"

namespace butte::book {

Trouble checkPart(const char* key, const Json& part, const std::string& path) {
  auto formula = exchange::emptyFormula();
  formula[key] = part;
  auto problem = exchange::formulaProblem(formula);
  if (problem) problem->where = path + problem->where;
  return problem;
}

} // namespace butte::book
