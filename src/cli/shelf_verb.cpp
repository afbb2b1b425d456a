/// `butte-cli shelf`: what is on the shelf, how long it does, what to buy.
#include "base/decimal.h"
#include "book/shelf_outlook.h"
#include "book_input.h"
#include "book_verbs.h"

namespace butte::cli {

using namespace core;

namespace {

Json bandObject(Mass mean, Mass low, Mass high) {
  return {{"mean_kg", mean.kilograms()}, {"low_kg", low.kilograms()}, {"high_kg", high.kilograms()}};
}

const char* needFromText(NeedFrom from) {
  switch (from) {
  case NeedFrom::Present:
    return "present";
  case NeedFrom::LastYear:
    return "last_year";
  case NeedFrom::Plan:
    return "plan";
  case NeedFrom::Nothing:
    break;
  }
  return "nothing";
}

Json lotObject(const OpenShelf& open, std::size_t index) {
  const auto& [uid, lot] = open.shelf.lots[index];
  const auto& bags = open.shelf.coreLots[index];
  const auto& state = open.account.lots[index];
  Json out{{"lot", uid},
           {"mark", lot.mark},
           {"bought", lot.bought.iso()},
           {"bags", lot.bags},
           {"bag_kg", bags.bag.kilograms()},
           {"left_kg", state.left.kilograms()},
           {"used_kg", state.used.kilograms()},
           {"wasted_kg", state.wasted.kilograms()},
           {"corrected_kg", state.corrected.kilograms()},
           {"price_per_kg", optionalNumber(bags.pricePerKg())},
           {"currency", lot.currency},
           {"supplier", lot.supplier},
           {"place", lot.place}};
  out["best_before"] = lot.bestBefore ? Json(lot.bestBefore->iso()) : Json(nullptr);
  return out;
}

Json needObject(const Need& need) {
  auto out = bandObject(need.mean, need.low, need.high);
  out["from"] = needFromText(need.from);
  out["weeks"] = Json::array();
  for (const auto& week : need.weeks)
    out["weeks"].push_back(bandObject(week.mean, week.low, week.high));
  return out;
}

Json orderObject(const OpenShelf& open, const book::ProductOutlook& product) {
  if (!product.order || !(product.missing > Mass())) return nullptr;
  Json bags = Json::array();
  for (std::size_t i = 0; i < product.offers.size(); ++i) {
    const auto& lot = open.shelf.lots[product.offers[i].lot].second;
    bags.push_back({{"bag_kg", product.offers[i].bag.bag.kilograms()},
                    {"price", product.offers[i].bag.price},
                    {"supplier", lot.supplier},
                    {"bags", product.order->bags[i]}});
  }
  const auto& lot = open.shelf.lots[product.offers.front().lot].second;
  return {{"bags", bags},
          {"kg", product.order->mass.kilograms()},
          {"cost", product.order->cost},
          {"currency", lot.currency},
          {"within_days", optionalNumber(product.orderWithinDays)}};
}

Json productObject(const OpenShelf& open, const book::ProductOutlook& product) {
  Json lots = Json::array();
  for (const auto lot : product.lots)
    lots.push_back(lotObject(open, lot));
  auto rate = bandObject(product.rate.perWeek, product.rate.low, product.rate.high);
  rate["weeks"] = product.rate.weeks;
  return {{"product", product.id},
          {"name", product.name},
          {"left_kg", product.left.kilograms()},
          {"lots", lots},
          {"use_per_week", rate},
          {"need", needObject(product.need)},
          {"weeks_left", optionalNumber(product.weeksLeft)},
          {"missing_kg", product.missing.kilograms()},
          {"order", orderObject(open, product)}};
}

/// Uses that no lot covers though the product was on the shelf by then.
Json notCovered(const OpenShelf& open) {
  std::map<std::string, Mass> missing;
  for (const auto& use : open.account.uses)
    if (!use.beforeFirstLot && use.notCovered > Mass::fromGrams(1)) {
      const auto& used = std::get<shelved::Used>(open.shelf.events[use.event].what);
      missing[used.product] = missing[used.product] + use.notCovered;
    }
  Json out = Json::array();
  for (const auto& [product, mass] : missing)
    out.push_back(warning("more_used_than_bought", open.shelf.names.at(product) + ": " +
                                                       decimalText(mass.kilograms()) +
                                                       " kg more was used than its lots held"));
  return out;
}

} // namespace

Result<Outcome> shelf(const ShelfAsked& asked) {
  if (asked.weeks < 1 || asked.weeks > mostWeeksAhead)
    return problemAt(ProblemCode::OutsideLimits, "--weeks",
                     {std::to_string(asked.weeks), "1", std::to_string(mostWeeksAhead), ""});
  const auto now = momentFrom(asked.at, "--at", book::Moment::now());
  if (!now) return now.problem();
  const auto open = openShelf(asked.book);
  if (!open) return open.problem();
  const auto plan = book::plannedFeed(*open->store);
  if (!plan) return plan.problem();
  const auto currency = asked.currency.empty() ? book::currencyOf(open->shelf) : asked.currency;
  Json products = Json::array();
  for (const auto& product :
       book::shelfOutlook(open->shelf, open->account, *plan, {*now, asked.weeks, currency}))
    products.push_back(productObject(*open, product));
  return Outcome{{{"at", now->iso()},
                  {"weeks", asked.weeks},
                  {"currency", currency},
                  {"products", products},
                  {"warnings", notCovered(*open)}},
                 0};
}

} // namespace butte::cli
