#pragma once
#include "formula/mix.h"
#include "product/shelf_product.h"
#include "solution/acid_dose.h"
#include "solution/titration_fit.h"
#include "water/water.h"

#include <optional>
#include <vector>

namespace butte::core {

/// The acid or base dosed by hand, and the pH it should bring.
struct AcidPlan {
  std::optional<ShelfProduct> product;
  double targetPh = 5.8; ///< middle of the usual 5.5 to 6.2 (common practice)
};

/// A grower's own drops: his bottle, his water, what his pen read.
struct OwnTitration {
  std::string productId; ///< which bottle
  Solutes acidPerMl;     ///< as labelled; a guess where the strength is sought
  TitrationUnknown unknown = TitrationUnknown::Alkalinity;
  std::vector<TitrationReading> readings; ///< dose in mL per litre of the water
  bool used = true;                       ///< its alkalinity stands for the report's
};

/// What follows for the hand with the acid.
struct AcidAnswer {
  std::optional<TitrationFit> titration;
  std::optional<Problem> titrationProblem;
  Solutes productPerGram;           ///< the plan's product, at the strength that the titration found
  std::optional<AcidDose> forWater; ///< to bring the source water by itself to the target
  std::optional<AcidDose> forFeed;  ///< to bring the finished feed there; nothing where it can't
};

/// Fits the titration; with a fit that is used, the water takes its alkalinity and pH.
void takeTitration(const OwnTitration& titration, Water& water, AcidAnswer& answer);

/// The doses for a water and a feed, closed to the air as they are dosed.
void planAcid(const AcidPlan& plan, const std::optional<OwnTitration>& titration, const MixResult& water,
              const MixResult& feed, AcidAnswer& answer);

/// A mix as something to be titrated, closed to the air, at its temperature.
Titrated titrated(const MixResult& mix);

} // namespace butte::core
