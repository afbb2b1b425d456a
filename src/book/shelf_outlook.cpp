#include "shelf_outlook.h"

#include "changes/computed_formula.h"
#include "dose/supply.h"
#include "formula_json.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

namespace butte::book {

using core::Mass;

namespace {

constexpr double daysPerWeek = 7;

/// The events without what planned formulas took: the plan stands for that.
std::vector<core::ShelfEvent> besideThePlan(const ShelfBook& shelf, const PlannedFeed& plan) {
  if (plan.formulas.empty()) return shelf.events;
  std::set<std::string> planned;
  for (const auto& use : shelf.uses)
    if (plan.formulas.count(use.formulaUid)) planned.insert(use.batchUid);
  std::vector<core::ShelfEvent> out;
  for (const auto& event : shelf.events) {
    const auto* used = std::get_if<core::shelved::Used>(&event.what);
    if (!used || !planned.count(used->batch)) out.push_back(event);
  }
  return out;
}

std::vector<Offer> offersOf(const ShelfBook& shelf, const std::string& product, const std::string& currency) {
  std::map<std::pair<double, std::string>, std::size_t> newest;
  for (std::size_t i = 0; i < shelf.lots.size(); ++i) {
    const auto& lot = shelf.coreLots[i];
    if (lot.product == product && lot.pricePerBag && lot.currency == currency)
      newest[{lot.bag.grams(), shelf.lots[i].second.supplier}] = i; // the lots come by time
  }
  std::vector<Offer> out;
  for (const auto& [key, lot] : newest)
    out.push_back(
        {lot, {shelf.coreLots[lot].bag, *shelf.coreLots[lot].pricePerBag}, shelf.lots[lot].second.leadDays});
  return out;
}

class Outlook {
public:
  Outlook(const ShelfBook& shelf, const core::ShelfAccount& account, const PlannedFeed& plan,
          const OutlookAsked& asked)
      : m_shelf(shelf), m_account(account), m_plan(plan), m_asked(asked),
        m_beside(besideThePlan(shelf, plan)),
        m_currency(asked.currency.empty() ? currencyOf(shelf) : asked.currency) {}

  ProductOutlook of(const std::string& id, const std::string& name) const {
    ProductOutlook out;
    out.id = id;
    out.name = name;
    for (std::size_t i = 0; i < m_shelf.lots.size(); ++i)
      if (m_shelf.lots[i].second.product == id && m_shelf.lots[i].second.bags > 0) out.lots.push_back(i);
    out.left = m_account.leftOf(m_shelf.coreLots, id);
    const auto now = m_asked.now.seconds;
    out.rate = core::useRateOf(id, m_shelf.events, now);
    const auto perDay = m_plan.perDay.find(id);
    const auto perWeek = perDay == m_plan.perDay.end() ? Mass() : perDay->second * daysPerWeek;
    const auto ahead = [&](int weeks) {
      return core::needAhead(id, m_beside, now, weeks,
                             perWeek > Mass() ? std::vector<Mass>(static_cast<std::size_t>(weeks), perWeek)
                                              : std::vector<Mass>());
    };
    out.need = ahead(m_asked.weeks);
    if (out.need.from == core::NeedFrom::Nothing) return out;
    out.weeksLeft = core::weeksUntilOut(out.left, ahead(core::mostWeeksAhead));
    order(out);
    return out;
  }

private:
  void order(ProductOutlook& out) const {
    out.missing = std::max(out.need.high - out.left, Mass());
    out.offers = offersOf(m_shelf, out.id, m_currency);
    std::vector<core::BagOffer> bags;
    for (const auto& offer : out.offers)
      bags.push_back(offer.bag);
    out.order = core::cheapestBags(out.missing, bags);
    if (!out.order || !(out.missing > Mass()) || !out.weeksLeft) return;
    int lead = 0;
    for (std::size_t i = 0; i < out.offers.size(); ++i)
      if (out.order->bags[i] > 0) lead = std::max(lead, out.offers[i].leadDays.value_or(0));
    out.orderWithinDays = std::max(*out.weeksLeft * daysPerWeek - lead, 0.0);
  }

  const ShelfBook& m_shelf;
  const core::ShelfAccount& m_account;
  const PlannedFeed& m_plan;
  const OutlookAsked& m_asked;
  std::vector<core::ShelfEvent> m_beside;
  std::string m_currency;
};

} // namespace

core::Result<PlannedFeed> plannedFeed(Store& store) {
  PlannedFeed out;
  const auto trouble = store.eachRecord(Kind::Formula, [&](const Record& record, Moment) {
    if (record.binnedAt) return true;
    const auto document = exchange::readFormulaDocument(record.body);
    if (!document || !document->given.dosing.feedPerDay) return true;
    const auto formula = computed(record.body);
    if (!formula) return true;
    const auto& request = formula->document.given.request;
    const auto day =
        core::needFor(formula->answer.solution.grams, request.volume, *document->given.dosing.feedPerDay, 1);
    for (std::size_t i = 0; i < day.size(); ++i)
      if (day[i] > Mass()) out.perDay[request.shelf[i].id] = out.perDay[request.shelf[i].id] + day[i];
    PlannedFormula planned{document->name, document->dosing.mixedOn, {}};
    for (const auto& supply : core::suppliesOf(formula->answer.stock, *document->given.dosing.feedPerDay, 1))
      if (supply.daysPerFill)
        planned.fillDays = std::min(planned.fillDays.value_or(*supply.daysPerFill), *supply.daysPerFill);
    out.formulas[record.ref.uid] = std::move(planned);
    return true;
  });
  if (trouble) return *trouble;
  return out;
}

std::string currencyOf(const ShelfBook& shelf) {
  for (auto lot = shelf.coreLots.rbegin(); lot != shelf.coreLots.rend(); ++lot)
    if (lot->pricePerBag) return lot->currency;
  return {};
}

std::vector<ProductOutlook> shelfOutlook(const ShelfBook& shelf, const core::ShelfAccount& account,
                                         const PlannedFeed& plan, const OutlookAsked& asked) {
  const Outlook outlook(shelf, account, plan, asked);
  std::vector<ProductOutlook> out;
  for (const auto& [id, name] : shelf.names)
    out.push_back(outlook.of(id, name));
  const auto rank = [](const ProductOutlook& one) {
    if (one.weeksLeft) return *one.weeksLeft;
    const bool isUsed = one.need.from != core::NeedFrom::Nothing;
    return isUsed ? double(core::mostWeeksAhead) : std::numeric_limits<double>::infinity();
  };
  std::stable_sort(out.begin(), out.end(), [&](const auto& a, const auto& b) {
    return rank(a) != rank(b) ? rank(a) < rank(b) : a.name < b.name;
  });
  return out;
}

} // namespace butte::book
