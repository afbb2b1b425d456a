#pragma once
#include "formula/mix.h"
#include "solve/solve.h"
#include "stock/stock.h"

namespace butte::core {

/// All that is given for one formula.
struct Given {
  SolveRequest request;
  StockPlan stock;
};

/// All that follows from it.
struct Answer {
  SolveAnswer solution;
  MixResult feed;
  MixResult water; ///< the source water by itself, for the base reading
  StockAnswer stock;
  bool checked = false; ///< the independent check agreed
};

/// The one function between what is given and what is shown: solve, check, mix, stock. Pure; under a
/// millisecond.
Result<Answer> compute(const Given& given);

} // namespace butte::core
