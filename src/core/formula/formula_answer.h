#pragma once
#include "formula/acid_plan.h"
#include "formula/mix.h"
#include "solve/solve.h"
#include "stock/stock.h"

namespace butte::core {

/// All that is given for one formula.
struct Given {
  SolveRequest request;
  StockPlan stock;
  AcidPlan acid;
  std::optional<OwnTitration> titration;
};

/// All that follows from it.
struct Answer {
  SolveAnswer solution;
  MixResult feed;
  MixResult water; ///< the source water by itself, for the base reading
  StockAnswer stock;
  AcidAnswer acid;
  bool checked = false; ///< the independent check agreed
};

/// The one function between what is given and what is shown: solve, check, mix, stock, acid. Pure; a few
/// milliseconds.
Result<Answer> compute(const Given& given);

} // namespace butte::core
