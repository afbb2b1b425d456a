#include "book_input.h"

#include "book/open_store.h"

namespace butte::cli {

using namespace core;

Result<OpenShelf> openShelf(const std::string& path) {
  auto store = book::openStore(path, book::OpenFor::Reading);
  if (!store) return store.problem();
  OpenShelf out;
  out.store = std::move(store).value();
  auto shelf = book::shelfBook(*out.store);
  if (!shelf) return shelf.problem();
  out.shelf = std::move(shelf).value();
  out.account = out.shelf.account();
  return out;
}

Result<book::Moment> momentFrom(const std::string& text, const char* where, book::Moment otherwise) {
  if (text.empty()) return otherwise;
  const auto at = book::Moment::fromIso(text);
  if (!at)
    return problemAt(ProblemCode::OutOfRange, where,
                     {"'" + text + "'", "a date and time such as 2026-03-02T07:15:00Z"});
  return *at;
}

Json moneyArray(const std::vector<Money>& money) {
  Json out = Json::array();
  for (const auto& one : money)
    out.push_back({{"currency", one.currency}, {"amount", one.amount}});
  return out;
}

Json costObject(const BatchCost& cost) {
  return {{"paid", moneyArray(cost.paid.money)},
          {"paid_unpriced_kg", cost.paid.unpriced.kilograms()},
          {"today", moneyArray(cost.today.money)},
          {"today_unpriced_kg", cost.today.unpriced.kilograms()}};
}

} // namespace butte::cli
