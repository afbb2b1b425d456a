#include "order_table.h"

#include "base/csv.h"
#include "base/decimal.h"

#include <cmath>

namespace butte::book {

std::string orderTable(const ShelfBook& shelf, const std::vector<ProductOutlook>& products,
                       const words::Measures& in) {
  const auto unit = " (" + in.bulkUnit() + ")";
  std::string out = "to buy,bags,bag" + unit + ",supplier,price,cost,currency,need" + unit + ",left" + unit +
                    ",order within (days)\r\n";
  const auto number = [](double value) { return core::decimalText(value); };
  const auto text = [](const std::string& words) { return core::csvCell(core::harmlessText(words)); };
  for (const auto& product : products) {
    if (!product.isWanted() || !product.order) continue;
    for (std::size_t i = 0; i < product.offers.size(); ++i) {
      if (product.order->bags[i] == 0) continue;
      const auto& lot = shelf.lots[product.offers[i].lot].second;
      const auto& bag = product.offers[i].bag;
      out += text(product.name) + "," + std::to_string(product.order->bags[i]) + "," +
             number(in.inBulk(bag.bag)) + "," + text(lot.supplier) + "," + number(bag.price) + "," +
             number(bag.price * product.order->bags[i]) + "," + text(lot.currency) + "," +
             number(in.inBulk(product.need.high)) + "," + number(in.inBulk(product.left)) + "," +
             (product.orderWithinDays ? number(std::floor(*product.orderWithinDays)) : "") + "\r\n";
    }
  }
  return out;
}

} // namespace butte::book
