#include "chem/feed_charge.h"

namespace butte::core {

int chargeInFeed(Nutrient nutrient) {
  switch (nutrient) {
  case Nutrient::N:
  case Nutrient::NNitrate:
  case Nutrient::P:
  case Nutrient::Cl:
    return -1;
  case Nutrient::S:
    return -2;
  case Nutrient::NAmmonium:
  case Nutrient::K:
  case Nutrient::Na:
    return 1;
  case Nutrient::Ca:
  case Nutrient::Mg:
    return 2;
  default:
    return 0;
  }
}

} // namespace butte::core
