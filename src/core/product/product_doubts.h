#pragma once
#include "product/shelf_product.h"

#include <string>
#include <vector>

namespace butte::core {

/// What looks wrong about a product as it was typed in; never refused, a person decides.
enum class ProductDoubt {
  IonsOverHundred,           ///< figures: percent. The nutrients can't weigh less than this as ions
  TetrahydrateTyped,         ///< by the formula of the tetrahydrate; bags of 15.5-0-0 hold the double salt
  DoubleSaltWithoutAmmonium, ///< the label of 15.5-0-0 without its ammonium
  SameAsOther,               ///< other: a product of the shelf with the same composition
  GradeAsElements,           ///< P and K typed as elements, as high as a grade's oxides usually are
  LabelUnbalanced,           ///< figure, other: meq of cations and of anions in a gram, too far apart
  AcidityUnknown,            ///< an acid or anion that the chemistry does not know: no pH follows with it
};
struct ProductDoubtFound {
  ProductDoubt doubt{};
  double figure = 0;
  std::string other;
};

/// Cations less anions of a gram that the label leaves open, in meq either way; 0 where they are within what
/// labels are rounded by, or a formula tells them.
double unstatedMeqPerGram(const ShelfProduct& product);

/// Looks at one product among the others of its shelf.
std::vector<ProductDoubtFound> productDoubts(const ShelfProduct& product, const std::vector<LabelRow>& label,
                                             const std::vector<ShelfProduct>& others);

} // namespace butte::core
