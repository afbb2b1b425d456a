#pragma once
#include "base/result.h"
#include "chem/formula.h"
#include "chem/nutrient.h"
#include "solution/solutes.h"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace butte::core {

/// What a product does to the water besides feeding.
enum class ProductRole {
  Salt,
  Acid,     ///< never a free nutrient source; never put into a stock tank by itself
  Base,     ///< as Acid
  Chelate,  ///< a metal in an organic shell; kept from strong acid
  Silicate, ///< strongly basic, stays alone
};

/// Where a product may stand in concentrated stock.
enum class StockSide { Calcium, SulfatePhosphate, Either, Apart };

/// What one gram of a product, as sold, brings to the feed.
struct Composition {
  NutrientAmounts massFraction;    ///< g of the element per g of product
  double alkalinityMeqPerGram = 0; ///< base positive, acid negative; phosphate counted as H2PO4
  double anhydrousFraction = 1;    ///< g of dissolved, water-free substance per g of product
  double hydrateWaterFraction = 0; ///< g of hydrate (or solution) water per g of product
  Solutes solutesPerGram;          ///< as it stands in solution
  ProductRole role = ProductRole::Salt;
  bool acidityKnown =
      true; ///< false: it holds an acid or anion that the chemistry does not know; no pH follows
  StockSide side = StockSide::Either;
  std::optional<ChemicalFormula> formula;
};

/// A label row, as printed on the bag: key ("N_NO3", "P2O5", "Ca" ...) and percent by mass.
using LabelRow = std::pair<std::string, double>;

/// Composition of a product known by its formula. `purityPercent` is the share of the formula in what is sold
/// (above 0, up to 100). Errors: those of parseFormula(), OutOfRange.
Result<Composition> compositionFromFormula(std::string_view formula, double purityPercent);

/// What a label said that had to be interpreted.
enum class LabelRemark {
  NitrogenTakenAsNitrate,     ///< only the sum N was given
  NitrogenRemainderAsNitrate, ///< N was more than the forms given
};

struct LabelComposition {
  Composition composition;
  std::vector<LabelRemark> remarks;
};

/// Composition of a product known by its label. Keys are elements or oxides (P2O5, K2O, CaO, MgO, SO3, SiO2).
/// Errors: UnknownKey, OutOfRange, LabelDoubled (two keys for one element), LabelOverHundred.
Result<LabelComposition> compositionFromLabel(const std::vector<LabelRow>& label);

/// The keys a label may use.
std::vector<std::string> labelKeys();

} // namespace butte::core
