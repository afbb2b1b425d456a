#pragma once
#include "amount.h"
#include "book/record.h"
#include "json_fwd.h"
#include "target/target.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::app {

class BookDesk;

enum class WaterKnown { Pure, Metered, Unknown };

/// What the first questions were answered with; empty figures were not.
struct FirstFormula {
  const core::CatalogueTarget* target = nullptr;
  WaterKnown waterKnown = WaterKnown::Pure;
  exchange::Amount conductivity;         ///< of a metered water
  std::string ph, alkalinityAsCaCO3;     ///< digits; of a metered water
  std::optional<double> strengthMsPerCm; ///< what the target is brought to; none: as it is
  std::vector<std::string> shelf;        ///< catalogue ids
  exchange::Amount batch;
};

/// A new formula of the same farm: with the water, shelf, batch, scales, tanks and acid of the one in hand,
/// and neither its target nor its held weights.
exchange::Json nextFormula(const exchange::Json& inHand);

/// Makes a formula of them and takes it in hand.
book::Trouble makeFirstFormula(BookDesk& desk, const FirstFormula& answers);

} // namespace butte::app
