#pragma once
#include "amount.h"
#include "book/record.h"
#include "target/target.h"

#include <string>
#include <vector>

namespace butte::app {

class BookDesk;

enum class WaterKnown { Pure, Metered, Unknown };

/// What the first questions were answered with; empty figures were not.
struct FirstFormula {
  const core::CatalogueTarget* target = nullptr;
  WaterKnown waterKnown = WaterKnown::Pure;
  std::string conductivityMsPerCm, alkalinityAsCaCO3; ///< digits; of a metered water
  std::vector<std::string> shelf;                     ///< catalogue ids
  exchange::Amount batch;
};

/// Makes a formula of them and takes it in hand.
book::Trouble makeFirstFormula(BookDesk& desk, const FirstFormula& answers);

} // namespace butte::app
