#pragma once
#include "solve/solve.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// How many products, and from where.
struct ProductChoice {
  std::optional<int> atMost;       ///< bags to open; products held at a weight count
  bool fewest = false;             ///< after all else is as good as it gets, as few as will do
  std::vector<ShelfProduct> toBuy; ///< what could be bought beside the shelf: as few of these as will do
};

struct ChosenFormula {
  SolveRequest request;          ///< the shelf and what is to be bought; what was not chosen has a most of 0
  SolveAnswer answer;            ///< parallel to request.shelf
  std::vector<std::string> used; ///< ids with a weight
  std::vector<std::string> buy;  ///< ids of toBuy with a weight
  bool proven = true;            ///< false: the search was cut short, and this is the best it found
};

/// Closest: the best fit with at most so many products. Bands first, or with something to buy: the least
/// violation, then the fewest bought, then (if asked) the fewest, then the fit. Cheapest: the least
/// violation, then the least cost, then the fewest. Deterministic. Errors as solve().
Result<ChosenFormula> chooseProducts(const SolveRequest& request, const ProductChoice& choice);

} // namespace butte::core
