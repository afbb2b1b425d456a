#pragma once
#include "product/shelf_product.h"
#include "stock/tank.h"
#include "stock/tank_chemistry.h"
#include "units/quantity.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// How a formula goes into stock tanks.
struct StockPlan {
  double factor = 100; ///< 100 means 1:100, 10 mL in a litre of finished feed
  Temperature temperature = Temperature::fromCelsius(20); ///< the coldest that the tanks will see
  std::vector<Tank> tanks;                                ///< stock/split.h says what goes where
  double marginPercent = 10; ///< a tank is called safe up to its ceiling less this (common practice)
  /// Products placed by hand: share of the product per tank, parallel to `tanks`; others are placed by the
  /// rules.
  std::map<std::string, std::vector<double>> shares;
};

enum class StockWarning {
  NotPlaced, ///< acid, base, silicate, or calcium and sulfate in one product: not put into a tank by itself
  CalciumMeets,      ///< by hand: calcium stands with sulfate or phosphate and something falls; values: tank
  ChelateMeetsAcid,  ///< by hand; values: tank
  AcidMeetsWeakSalt, ///< by hand: acid with carbonate, bicarbonate, acetate or silicate: it fizzes or gels
  AcidMeetsHypochlorite, ///< chlorine gas
  WontDissolve,          ///< product, tank, g/L asked, factor that would dissolve
  PartlyUnknown,         ///< the ceiling of a tank is not known because of a product
  WhollyTooStrong,       ///< the salts leave no water
  FallsOut,      ///< a solid that no product is: its name, tank, g/L on the floor, factor that stays clear
  WaterFallsOut, ///< the make-up water drops a solid at any strength: its name, tank, g/L
};

struct StockNotice {
  StockWarning kind{};
  std::string product;
  std::string tank;
  double gramsPerLitre = 0;
  std::optional<double> factorThatDissolves;
};

/// One salt in one tank.
struct TankItem {
  std::size_t product = 0; ///< index into the shelf
  Mass mass;               ///< to weigh for the whole tank
  Concentration strength;
  /// Strength over the strength at which this salt would begin to crystallise in this company; nothing: not
  /// known.
  std::optional<double> saturation;
  bool miscible = false; ///< a liquid acid or base: it can't crystallise out this way
};

/// What lies on a tank's floor.
struct Fallen {
  std::optional<std::size_t> product; ///< index into the shelf, where a product crystallises as itself
  std::string solid;                  ///< else a solid of the chemistry, or another salt of the same ions
  double gramsPerLitre = 0;
};

/// Two products of one tank that should not meet, and what they drop.
struct TankMeeting {
  std::size_t a = 0, b = 0; ///< shelf indices
  std::string solid;
};

struct TankContent {
  Tank tank;
  double factor = 100; ///< its own, or the plan's
  std::vector<TankItem> items;
  Mass total() const;
  double waterKgPerLitre = 1;
  double densityKgPerLitre = 1;
  /// Of water to be poured in beside what the salts bring with them; the salts take up the rest of the litre.
  double addedWaterLitresPerLitre = 1;
  /// All that a litre holds in solution once it has settled at the coldest, the make-up water's too.
  Solutes dissolvedPerLitre;
  /// What lies on the floor is lost to the plant: mg per litre of feed.
  NutrientAmounts lostMgPerLitreOfFeed;
  std::vector<Fallen> fallen;                 ///< the most first
  std::vector<TankMeeting> meetings;          ///< why something falls, where two products do it
  std::optional<double> ph;                   ///< of the stock; nothing: not known
  std::vector<TankSolid> solids;              ///< in reach, the nearest first
  std::optional<double> maxFactor;            ///< nothing: not known, or empty
  std::optional<double> safeFactor;           ///< the ceiling of what is known, less the plan's margin
  std::optional<double> maxFactorOfKnown;     ///< the ceiling by those salts that are known
  std::optional<std::size_t> limitingProduct; ///< the product that gives out first ...
  std::string limitingSolid;                  ///< ... or the solid that no product is, such as gypsum
};

struct StockAnswer {
  std::vector<TankContent> tanks;
  std::vector<std::size_t> notPlaced; ///< shelf indices with a weight but no tank
  double doseMlPerLitre = 10;         ///< at the plan's factor
  /// By the tank that empties first, those for acid apart: they are refilled by themselves.
  std::optional<Volume> feedMade;
  std::vector<StockNotice> notices;
};

/// Splits `grams` in `batch` of finished feed into the plan's tanks, `factor` times as strong, and holds
/// what its ions could form against their solubility at the plan's temperature: shared ions, activities and
/// pairs counted, per kilogram of the tank's free water. Products whose chemistry is not known are held
/// against their own solubility, where that is known. Factor, volumes and the batch must be above 0.
StockAnswer planStock(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams, Volume batch,
                      const StockPlan& plan);

} // namespace butte::core
