#pragma once
#include "formula/shelf.h"
#include "stock/tank_chemistry.h"
#include "units/quantity.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace butte::core {

struct Tank {
  std::string name;
  Volume volume = Volume::fromLitres(1);
};

/// How a formula goes into stock tanks.
struct StockPlan {
  double factor = 100; ///< 100 means 1:100, 10 mL in a litre of finished feed
  Temperature temperature = Temperature::fromCelsius(20); ///< the coldest that the tanks will see
  std::vector<Tank>
      tanks; ///< the calcium side goes into the first, the sulfate and phosphate side into the second
  /// Products placed by hand: share of the product per tank, parallel to `tanks`; others are placed by the
  /// rules.
  std::map<std::string, std::vector<double>> shares;
};

enum class StockWarning {
  NotPlaced, ///< acid, base, silicate, or calcium and sulfate in one product: not put into a tank by itself
  CalciumMeets,     ///< by hand: calcium stands with sulfate or phosphate; values: tank
  ChelateMeetsAcid, ///< by hand; values: tank
  WontDissolve,     ///< product, tank, g/L asked, factor that would dissolve
  PartlyUnknown,    ///< the ceiling of a tank is not known because of a product
  WhollyTooStrong,  ///< the salts leave no water
  FallsOut,         ///< a solid that no product is: its name, tank, g/L on the floor, factor that stays clear
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

struct TankContent {
  Tank tank;
  std::vector<TankItem> items;
  Mass total() const;
  double waterKgPerLitre = 1;
  std::optional<double> ph;                   ///< of the stock; nothing: not known
  std::vector<TankSolid> solids;              ///< in reach, the nearest first
  std::optional<double> maxFactor;            ///< nothing: not known, or empty
  std::optional<double> maxFactorOfKnown;     ///< the ceiling by those salts that are known
  std::optional<std::size_t> limitingProduct; ///< the product that gives out first ...
  std::string limitingSolid;                  ///< ... or the solid that no product is, such as gypsum
};

struct StockAnswer {
  std::vector<TankContent> tanks;
  std::vector<std::size_t> notPlaced; ///< shelf indices with a weight but no tank
  double doseMlPerLitre = 10;
  std::optional<Volume> feedMade; ///< by the tank that empties first; equal doses from every tank
  std::vector<StockNotice> notices;
};

/// Splits `grams` in `batch` of finished feed into the plan's tanks, `factor` times as strong, and holds
/// what its ions could form against their solubility at the plan's temperature: shared ions, activities and
/// pairs counted, per kilogram of the tank's free water. Products whose chemistry is not known are held
/// against their own solubility, where that is known. Factor, volumes and the batch must be above 0.
StockAnswer planStock(const std::vector<ShelfProduct>& shelf, const std::vector<Mass>& grams, Volume batch,
                      const StockPlan& plan);

} // namespace butte::core
