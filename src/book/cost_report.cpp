#include "cost_report.h"

#include "changes/computed_formula.h"

#include <algorithm>

namespace butte::book {

using core::Mass;

namespace {

void add(CostLine& line, const CostLine& more) {
  line.batches += more.batches;
  line.litres += more.litres;
  line.mass = line.mass + more.mass;
  core::addCost(line.cost.paid, more.cost.paid);
  core::addCost(line.cost.today, more.cost.today);
}

std::vector<CostLine> linesOf(std::map<std::string, CostLine>&& lines) {
  std::vector<CostLine> out;
  for (auto& [key, line] : lines) {
    line.key = key;
    out.push_back(std::move(line));
  }
  return out;
}

class Reporter {
public:
  Reporter(const ShelfBook& shelf, const core::ShelfAccount& account, const CostAsked& asked)
      : m_shelf(shelf), m_account(account), m_asked(asked),
        m_today(core::pricesToday(shelf.coreLots, asked.now.seconds)) {}

  CostReport report() {
    for (const auto& use : m_shelf.uses)
      if (isAsked(use)) m_batches.emplace(use.batchUid, lineOf(use));
    for (const auto& use : m_account.uses)
      addUse(use);
    CostReport out;
    std::map<std::string, CostLine> crops, months;
    for (auto& batch : linesOf(std::move(m_batches))) {
      add(out.total, batch);
      add(crops[m_cropOf.at(batch.key)], batch);
      constexpr std::size_t yearAndMonth = 7;
      add(months[batch.at.iso().substr(0, yearAndMonth)], batch);
      out.batches.push_back(std::move(batch));
    }
    std::stable_sort(out.batches.begin(), out.batches.end(),
                     [](const auto& a, const auto& b) { return a.at < b.at; });
    out.crops = linesOf(std::move(crops));
    out.months = linesOf(std::move(months));
    out.products = linesOf(std::move(m_products));
    std::stable_sort(out.products.begin(), out.products.end(),
                     [](const auto& a, const auto& b) { return a.name < b.name; });
    return out;
  }

private:
  bool isAsked(const BatchUse& use) const {
    return (!m_asked.from || use.at >= *m_asked.from) && (!m_asked.before || use.at < *m_asked.before) &&
           (m_asked.crop.empty() || use.crop == m_asked.crop);
  }

  CostLine lineOf(const BatchUse& use) {
    CostLine out;
    out.name = use.formulaName;
    out.at = use.at;
    out.batches = 1;
    out.litres = use.batchLitres;
    m_cropOf[use.batchUid] = use.crop;
    return out;
  }

  void addUse(const core::UseAccount& use) {
    const auto& used = std::get<core::shelved::Used>(m_shelf.events[use.event].what);
    const auto batch = m_batches.find(used.batch);
    if (batch == m_batches.end()) return;
    CostLine one;
    one.mass = used.mass;
    one.cost = {core::costOf(use, m_shelf.coreLots), core::costToday(used.product, used.mass, m_today)};
    add(batch->second, one);
    auto& product = m_products[used.product];
    product.name = m_shelf.names.at(used.product);
    add(product, one);
  }

  const ShelfBook& m_shelf;
  const core::ShelfAccount& m_account;
  const CostAsked& m_asked;
  std::map<std::string, core::PricePoint> m_today;
  std::map<std::string, CostLine> m_batches, m_products;
  std::map<std::string, std::string> m_cropOf;
};

} // namespace

CostReport costReport(const ShelfBook& shelf, const core::ShelfAccount& account, const CostAsked& asked) {
  return Reporter(shelf, account, asked).report();
}

std::vector<core::Money> moneyPer(const std::vector<core::Money>& money, double litres, double per) {
  std::vector<core::Money> out;
  if (!(litres > 0)) return out;
  for (const auto& one : money)
    out.push_back({one.currency, one.amount * per / litres});
  return out;
}

std::vector<core::WantedElement> wantedElements(const ComputedFormula& formula) {
  std::vector<core::WantedElement> out;
  for (const auto& row : formula.document.given.request.rows) {
    const double fromWater =
        formula.answer.contributions[static_cast<std::size_t>(row.nutrient)].front().milligramsPerLitre;
    const double wanted = row.milligramsPerLitre - fromWater;
    if (wanted > 0) out.push_back({row.nutrient, wanted});
  }
  return out;
}

std::optional<core::ElementPrices> elementPricesOf(const ComputedFormula& formula,
                                                   const std::map<std::string, core::PricePoint>& prices,
                                                   const std::string& currency) {
  auto shelf = formula.document.given.request.shelf;
  for (auto& product : shelf) {
    const auto price = prices.find(product.id);
    const bool known = price != prices.end() && price->second.perKg.currency == currency;
    product.pricePerKg = known ? std::optional(price->second.perKg.amount) : std::nullopt;
  }
  return core::elementPrices(shelf, wantedElements(formula));
}

} // namespace butte::book
