#include "stock/cold_nights.h"

#include "stock/tank_model.h"

namespace butte::core {

std::vector<ColdNight> coldNights(const std::vector<ShelfProduct>& shelf, const TankContent& content,
                                  const std::vector<Temperature>& temperatures) {
  std::vector<Concentration> feed(shelf.size());
  for (const auto& item : content.items)
    feed[item.product] = item.strength / content.factor;
  std::vector<ColdNight> nights;
  for (const auto temperature : temperatures) {
    const TankModel model(shelf, feed, content.tank.makeUpPerLitre, temperature, content.factor);
    ColdNight night;
    night.temperature = temperature;
    night.falls = model.fallen();
    if (const auto ceiling = model.ceiling()) night.maxFactor = ceiling->factor;
    for (const auto& item : content.items) {
      if (!model.known(item.product) && !isMiscible(shelf[item.product]))
        night.unknown.push_back(item.product);
    }
    nights.push_back(std::move(night));
  }
  return nights;
}

} // namespace butte::core
