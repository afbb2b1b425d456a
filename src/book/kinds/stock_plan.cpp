// Stock tanks kept for later formulas.
#include "kinds/kind_info.h"

#include "changes/json_changes.h"
#include "kinds/parts.h"

namespace butte::book {

using core::ProblemCode;
using exchange::ObjectReader;

namespace {

Trouble checkStockPlan(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  for (const auto* key : {"name", "formula", "note"})
    reader.text(key);
  const auto* stock = reader.object("stock");
  if (!stock) reader.fail(ProblemCode::MissingKey, "stock", {"a stock plan needs its tanks"});
  reader.finish();
  return problem ? problem : checkPart("stock", *stock, "");
}

std::vector<core::Change> stockPlanChanges(const Json& before, const Json& after) {
  std::vector<core::Change> out;
  const Differences found{before, after, out};
  found.place("/name", "name");
  found.place("/note", "note");
  found.place("/stock/factor", "stock_factor");
  found.place("/stock/coldest", "coldest");
  const Json::json_pointer tanks("/stock/tanks");
  const auto count = after.contains(tanks) ? after[tanks].size() : 0;
  for (std::size_t i = 0; i < count; ++i)
    found.place("/stock/tanks/" + std::to_string(i) + "/volume", "tank_volume",
                after[tanks][i].value("name", std::to_string(i + 1)));
  return out;
}

} // namespace

const KindInfo kinds::stockPlan{.kind = Kind::StockPlan,
                                .code = "stock_plan",
                                .one = "stock plan",
                                .many = "stock plans",
                                .check = checkStockPlan,
                                .changes = stockPlanChanges};

} // namespace butte::book
