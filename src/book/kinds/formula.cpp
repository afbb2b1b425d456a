// A formula: all of it is a document of its own (docs/formats/formula.md).
#include "kinds/kind_info.h"

#include "changes/formula_changes.h"
#include "formula_json.h"

namespace butte::book {

const KindInfo kinds::formula{
    .kind = Kind::Formula,
    .code = "formula",
    .one = "formula",
    .many = "formulas",
    .check = [](const Json& body) -> Trouble { return exchange::formulaProblem(body); },
    .changes = formulaChanges};

} // namespace butte::book
