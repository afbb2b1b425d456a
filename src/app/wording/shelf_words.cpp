#include "wording/shelf_words.h"

#include "base/decimal.h"
#include "deed_words.h"
#include "product/catalogue.h"
#include "services/units_shown.h"
#include "shelf/moisture.h"
#include "units/convert.h"
#include "wording/record_words.h"
#include "wording/tr.h"

#include <QStringList>
#include <algorithm>
#include <cmath>

namespace butte::app {

using core::Mass;

namespace {
constexpr double daysPerWeek = 7, shortWeeks = 2;

/// As it was typed (25 is not 25.0) where that is in the person's unit, else turned into it.
QString figureText(const exchange::Amount& amount, const UnitsShown& units) {
  const auto& in = units.measures();
  const auto value = core::parseDecimal(amount.digits).value_or(0);
  if (const auto grams = core::convert(value, amount.unit, "g"); grams && amount.unit != in.bulkUnit())
    return sackText(Mass::fromGrams(*grams), units);
  if (const auto litres = core::convert(value, amount.unit, "L"); litres && amount.unit != in.volumeUnit())
    return units.text(core::Volume::fromLitres(*litres));
  const auto point = amount.digits.find('.');
  const auto places = point == std::string::npos ? 0 : static_cast<int>(amount.digits.size() - point - 1);
  return tr("%1 %2").arg(localNumber(value, places), qtext(words::unitName(amount.unit)));
}
} // namespace

QString moneyText(const core::Money& money) {
  constexpr int cents = 2, finer = 4;
  const auto digits = localNumber(money.amount, std::abs(money.amount) < 0.1 ? finer : cents);
  return money.currency.empty() ? digits : tr("%1 %2").arg(digits, qtext(money.currency));
}

QString moneyText(const std::vector<core::Money>& money) {
  QStringList out;
  for (const auto& one : money)
    out << moneyText(one);
  return out.isEmpty() ? QString("–") : out.join(" + ");
}

QString sackText(Mass mass, const UnitsShown& units) {
  const double bulk = units.measures().inBulk(mass);
  return std::abs(bulk) < 1 ? units.text(mass) : tr("%1 %2").arg(localFigure(bulk), units.bulkUnit());
}

QString pricePerBulk(double perKg, const std::string& currency, const UnitsShown& units) {
  const double bulkPerKg = units.measures().inBulk(Mass::fromKilograms(1));
  return tr("%1 per %2").arg(moneyText(core::Money{currency, perKg / bulkPerKg}), units.bulkUnit());
}

QString lastsText(const book::ProductOutlook& product) {
  if (product.need.from == core::NeedFrom::Nothing) return tr("not used now");
  if (!product.weeksLeft) return tr("over 2 years");
  if (*product.weeksLeft < shortWeeks)
    return counted(std::lround(*product.weeksLeft * daysPerWeek), tr("%1 day"), tr("%1 days"));
  return tr("%1 weeks").arg(localNumber(*product.weeksLeft, *product.weeksLeft < 10 ? 1 : 0));
}

QString hurryText(const book::ProductOutlook& product) {
  if (!product.weeksLeft) return {};
  if (!product.orderWithinDays)
    return *product.weeksLeft < shortWeeks ? tr("runs out in %1").arg(lastsText(product)) : QString();
  const auto days = std::floor(*product.orderWithinDays);
  constexpr double soon = 7;
  if (days < 1) return tr("order now");
  if (days <= soon)
    return counted(static_cast<int>(days), tr("order within %1 day"), tr("order within %1 days"));
  return {};
}

QString useText(const book::ProductOutlook& product, const UnitsShown& units) {
  if (product.rate.weeks == 0) return tr("nothing used in the last weeks");
  return tr("%1 a week (%2 to %3)")
      .arg(sackText(product.rate.perWeek, units), sackText(product.rate.low, units),
           sackText(product.rate.high, units));
}

QString needFromText(core::NeedFrom from) {
  switch (from) {
  case core::NeedFrom::Present:
    return tr("as the last weeks were");
  case core::NeedFrom::LastYear:
    return tr("as the same weeks last year, at this year's size");
  case core::NeedFrom::Plan:
    return tr("by the feed per day of the formulas");
  case core::NeedFrom::Nothing:
    break;
  }
  return tr("not used");
}

QString lotText(const ShelfStory& story, std::size_t index, const UnitsShown& units) {
  const auto& lot = story.shelf.lots[index].second;
  QStringList out;
  out << (lot.mark.empty() ? tr("no mark") : qtext(lot.mark));
  const auto left = story.account.lots[index].left;
  out << (left > Mass::fromGrams(1) ? tr("%1 left").arg(sackText(left, units)) : tr("used up"));
  out << tr("%1 × %2").arg(lot.bags).arg(figureText(lot.bag, units));
  out << tr("bought %1").arg(dayText(lot.bought));
  if (const auto price = story.shelf.coreLots[index].pricePerKg())
    out << pricePerBulk(*price, lot.currency, units);
  if (!lot.supplier.empty()) out << qtext(lot.supplier);
  if (!lot.place.empty()) out << qtext(lot.place);
  if (lot.bestBefore)
    out << (lot.bestBefore->seconds < story.now.seconds ? tr("PAST ITS DATE %1") : tr("best before %1"))
               .arg(dayText(*lot.bestBefore));
  return out.join(" · ");
}

QString shelfLineText(const book::ShelfLine& line, const UnitsShown& units) {
  using book::ShelfDid;
  QString out;
  if (line.did == ShelfDid::Counted) out = tr("%1 counted").arg(figureText(line.amount, units));
  if (line.did == ShelfDid::Wasted) out = tr("%1 thrown away").arg(figureText(line.amount, units));
  if (line.did == ShelfDid::Opened) out = tr("bag opened");
  if (line.did == ShelfDid::Dried)
    out = tr("sample %1, dry %2: %3 % of it is product")
              .arg(figureText(line.amount, units), figureText(line.dried, units),
                   localNumber(book::dryShare(line) * 100, 1));
  if (!line.text.empty()) out += tr(": %1").arg(qtext(line.text));
  if (!line.who.empty()) out += tr(" (%1)").arg(qtext(line.who));
  return out;
}

QString orderText(const ShelfStory& story, const book::ProductOutlook& product, const UnitsShown& units) {
  if (!(product.missing > Mass())) return tr("the shelf does");
  if (product.offers.empty()) return tr("no price known: note one");
  if (!product.order) return tr("no whole bags found");
  QStringList out;
  for (std::size_t i = 0; i < product.offers.size(); ++i) {
    if (product.order->bags[i] == 0) continue;
    const auto& lot = story.shelf.lots[product.offers[i].lot].second;
    auto bags = tr("%1 × %2").arg(product.order->bags[i]).arg(figureText(lot.bag, units));
    if (!lot.supplier.empty()) bags += tr(" (%1)").arg(qtext(lot.supplier));
    out << bags;
  }
  return out.join(" + ");
}

QString dampText(const ShelfStory& story, std::size_t index) {
  const auto& [uid, lot] = story.shelf.lots[index];
  const auto* known = core::findInCatalogue(lot.product);
  std::optional<book::Moment> opened;
  const book::ShelfLine* dried = nullptr;
  for (const auto* line : story.linesOf(uid)) {
    if (line->second.did == book::ShelfDid::Opened && !opened) opened = line->second.at;
    if (line->second.did == book::ShelfDid::Dried && !dried) dried = &line->second;
  }
  if (dried)
    return tr("By the sample of %1, %2 % of this bag is product: weigh %3 times as much.")
        .arg(dayText(dried->at), localNumber(book::dryShare(*dried) * 100, 1),
             localNumber(1 / std::max(book::dryShare(*dried), 0.01), 3));
  if (!opened || !known || !known->hygroscopic) return {};
  const auto water = core::likelyWaterShare(static_cast<double>(story.now.seconds - opened->seconds));
  return tr("Opened %1: it takes water from the air. Up to %2 % of it may be water by now, none if it was "
            "kept closed. To know: weigh 20 g of it and 20 g from a sealed bag, dry both warm until they "
            "stay "
            "the same, and tell it here as a dried sample.")
      .arg(dayText(*opened), localNumber(water * 100, 0));
}

} // namespace butte::app
