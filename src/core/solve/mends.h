#pragma once
#include "solve/solve.h"

#include <functional>
#include <string>
#include <vector>

namespace butte::core {

/// One small change that would help.
enum class MendKind {
  AddProduct, ///< `product` from the candidates
  BandsFirst, ///< keep the bands first, then fit
  WidenBand,  ///< of `nutrient`, to `value` percent
  LiftCap,    ///< on `nutrient`, to `value` mg/L
  LetFree,    ///< `product` is held
  MorePure,   ///< the water option `option` at share `value`
};

/// Another water that could be had: a blend with its share open.
struct WaterOption {
  std::string name;
  double shareNow = 0, shareMost = 1;
  std::function<Water(double share)> at;
};

struct Mend {
  MendKind kind{};
  std::string product;
  Nutrient nutrient = Nutrient::N;
  std::size_t option = 0;
  double value = 0;
  SolveRequest request;            ///< with the change made
  SolveAnswer answer;              ///< of it
  int offBefore = 0, offAfter = 0; ///< elements and ratios outside their bands
};

/// The smallest changes that mend an answer which leaves bands, each solved anew and kept only when it helps:
/// fewest elements left off first, then the least violation; at most `most`. `candidates` are products that
/// could be bought. Empty where every band is kept.
std::vector<Mend> mendsFor(const SolveRequest& request, const SolveAnswer& answer,
                           const std::vector<ShelfProduct>& candidates,
                           const std::vector<WaterOption>& waters, std::size_t most = 6);

/// Elements and ratios outside their bands with these weights.
int offBands(const SolveRequest& request, const std::vector<Mass>& grams);

} // namespace butte::core
