/// `butte-cli cost`: what batches cost, by the lots that they took and at today's prices.
#include "book/changes/computed_formula.h"
#include "book/cost_report.h"
#include "book/shelf_outlook.h"
#include "book_input.h"
#include "book_verbs.h"

#include <array>

namespace butte::cli {

using namespace core;

namespace {

Json lineObject(const book::CostLine& line) {
  constexpr double litresPerCubicMetre = 1000;
  const double litresPerGallon = 3.785411784; // US, exact by definition
  Json out = costObject(line.cost);
  out["kg"] = line.mass.kilograms();
  if (line.litres > 0) {
    out["feed_l"] = line.litres;
    out["paid_per_m3"] = moneyArray(book::moneyPer(line.cost.paid.money, line.litres, litresPerCubicMetre));
    out["paid_per_gal_us"] = moneyArray(book::moneyPer(line.cost.paid.money, line.litres, litresPerGallon));
    out["today_per_m3"] = moneyArray(book::moneyPer(line.cost.today.money, line.litres, litresPerCubicMetre));
  }
  return out;
}

Json linesArray(const std::vector<book::CostLine>& lines, const char* key) {
  Json out = Json::array();
  for (const auto& line : lines) {
    auto one = lineObject(line);
    one[key] = line.key;
    if (!line.name.empty()) one["name"] = line.name;
    if (line.batches > 0) one["batches"] = line.batches;
    if (line.at.seconds != 0) one["at"] = line.at.iso();
    out.push_back(std::move(one));
  }
  return out;
}

Json pricesArray(const OpenShelf& open) {
  Json out = Json::array();
  for (const auto& [id, name] : open.shelf.names) {
    Json history = Json::array();
    for (const auto& point : priceHistory(id, open.shelf.coreLots))
      history.push_back({{"at", book::Moment{point.atSeconds}.iso()},
                         {"per_kg", point.perKg.amount},
                         {"currency", point.perKg.currency},
                         {"lot", open.shelf.lots[point.lot].first}});
    if (!history.empty()) out.push_back({{"product", id}, {"name", name}, {"history", history}});
  }
  return out;
}

/// Of each formula of the book.
Result<Json> elementsArray(const OpenShelf& open, book::Moment now) {
  const auto prices = pricesToday(open.shelf.coreLots, now.seconds);
  const auto currency = book::currencyOf(open.shelf);
  Json out = Json::array();
  const auto trouble =
      open.store->eachRecord(book::Kind::Formula, [&](const book::Record& record, book::Moment) {
        const auto formula = record.binnedAt ? std::nullopt : book::computed(record.body);
        const auto found = formula ? book::elementPricesOf(*formula, prices, currency) : std::nullopt;
        if (!found) return true;
        const auto wanted = book::wantedElements(*formula);
        const auto& shelf = formula->document.given.request.shelf;
        Json marginal = Json::object(), sources = Json::array();
        for (std::size_t i = 0; i < wanted.size(); ++i)
          marginal[std::string(nutrientKey(wanted[i].nutrient))] = optionalNumber(found->marginalPerKg[i]);
        for (const auto& source : found->sources)
          sources.push_back({{"element", nutrientKey(source.nutrient)},
                             {"product", shelf[source.product].id},
                             {"per_kg", source.pricePerKg},
                             {"price_shared", source.isShared}});
        constexpr double gramsPerCubicMetre = 1; // mg/L is g/m3
        out.push_back({{"formula", formula->document.name},
                       {"currency", currency},
                       {"cheapest_per_m3", found->cheapest * gramsPerCubicMetre},
                       {"marginal_per_kg", marginal},
                       {"sources", sources}});
        return true;
      });
  if (trouble) return *trouble;
  return out;
}

} // namespace

Result<Outcome> cost(const CostAsked& asked) {
  const auto now = momentFrom(asked.at, "--at", book::Moment::now());
  const auto from = momentFrom(asked.from, "--from", {}), before = momentFrom(asked.before, "--before", {});
  for (const auto* moment : {&now, &from, &before})
    if (!*moment) return moment->problem();
  const auto open = openShelf(asked.book);
  if (!open) return open.problem();
  book::CostAsked what{*now, {}, {}, asked.crop};
  if (!asked.from.empty()) what.from = *from;
  if (!asked.before.empty()) what.before = *before;
  const auto report = book::costReport(open->shelf, open->account, what);
  const auto elements = elementsArray(*open, *now);
  if (!elements) return elements.problem();
  Json total = lineObject(report.total);
  total["batches"] = report.total.batches;
  return Outcome{{{"at", now->iso()},
                  {"total", total},
                  {"batches", linesArray(report.batches, "batch")},
                  {"crops", linesArray(report.crops, "crop")},
                  {"months", linesArray(report.months, "month")},
                  {"products", linesArray(report.products, "product")},
                  {"prices", pricesArray(*open)},
                  {"elements", *elements}},
                 0};
}

} // namespace butte::cli
