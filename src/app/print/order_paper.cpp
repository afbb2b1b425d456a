#include "print/order_paper.h"

#include "print/html_cell.h"
#include "services/units_shown.h"
#include "wording/record_words.h"
#include "wording/shelf_words.h"
#include "wording/tr.h"

#include <QStringList>
#include <algorithm>
#include <map>

namespace butte::app {

using core::Mass;

namespace {

QString orderBy(const ShelfStory& story, const book::ProductOutlook& product) {
  if (!product.orderWithinDays) return {};
  if (*product.orderWithinDays < 1) return tr("now");
  constexpr double day = 86400;
  return dayText({story.now.seconds + static_cast<std::int64_t>(*product.orderWithinDays * day)});
}

QString row(const ShelfStory& story, const book::ProductOutlook& product, const UnitsShown& units) {
  const auto bulk = [&](Mass mass) { return sackText(mass, units); };
  const bool priced = product.order && product.order->cost > 0;
  return "<tr>" + htmlCell(qtext(product.name)) +
         htmlCell(
             tr("%1 (%2 to %3)")
                 .arg(sackText(product.need.mean, units), bulk(product.need.low), bulk(product.need.high))) +
         htmlCell(sackText(product.left, units), CellSide::Right) +
         htmlCell(orderText(story, product, units)) +
         htmlCell(priced ? moneyText(core::Money{story.currency, product.order->cost}) : QString("–"),
                  CellSide::Right) +
         htmlCell(orderBy(story, product)) + "</tr>";
}

/// By whom it comes from.
QString sums(const ShelfStory& story) {
  std::map<std::string, double> bySupplier;
  double all = 0;
  for (const auto& product : story.products) {
    if (!product.isWanted() || !product.order) continue;
    for (std::size_t i = 0; i < product.offers.size(); ++i) {
      const double cost = product.offers[i].bag.price * product.order->bags[i];
      if (cost > 0) bySupplier[story.shelf.lots[product.offers[i].lot].second.supplier] += cost;
      all += cost;
    }
  }
  QStringList out;
  for (const auto& [supplier, cost] : bySupplier)
    out << tr("%1: %2").arg(supplier.empty() ? tr("without a name") : qtext(supplier),
                            moneyText(core::Money{story.currency, cost}));
  if (bySupplier.size() > 1) out << tr("together %1").arg(moneyText(core::Money{story.currency, all}));
  return out.join(" · ");
}

} // namespace

QString orderPaper(const ShelfStory& story, int weeks, const UnitsShown& units) {
  QString rows;
  QStringList enough;
  for (const auto& product : story.products) {
    if (product.isWanted())
      rows += row(story, product, units);
    else if (product.need.from != core::NeedFrom::Nothing)
      enough << qtext(product.name);
  }
  auto out = tr("<h2>To buy, for %1 weeks</h2>").arg(weeks);
  if (rows.isEmpty())
    out += "<p>" + tr("The shelf does for that long. Nothing has to be bought.") + "</p>";
  else
    out += "<table cellspacing='0' cellpadding='3'><tr><th align='left'>" + tr("product") +
           "</th><th align='left'>" + tr("need (9 in 10)") + "</th><th align='right'>" + tr("left") +
           "</th><th align='left'>" + tr("cheapest whole bags") + "</th><th align='right'>" + tr("cost") +
           "</th><th align='left'>" + tr("order by") + "</th></tr>" + rows + "</table><p><b>" +
           sums(story).toHtmlEscaped() + "</b></p>";
  if (!enough.isEmpty())
    out += "<p>" + tr("The shelf does: %1.").arg(enough.join(", ")).toHtmlEscaped() + "</p>";
  out += "<p>" +
         tr("The need is that of the weeks ahead: by the feed per day where a formula has one, else as the "
            "same weeks "
            "last year or the last weeks were. Bags cover its upper end; prices are the newest that the book "
            "knows, in "
            "%1, without freight or tax.")
             .arg(story.currency.empty() ? tr("no currency") : qtext(story.currency))
             .toHtmlEscaped() +
         "</p>";
  return out;
}

} // namespace butte::app
