#include "stations/tank/advice_lines.h"

#include "base/decimal.h"

#include <QString>
#include <cmath>

namespace butte::app {

using book::TankDid;
using book::TankLine;
using core::AdviceKind;

std::vector<TankLine> linesOf(const core::Advice& a, const TankStory& story, const book::VesselFacts& facts) {
  std::vector<TankLine> out;
  TankLine line;
  const auto litres = [](core::Volume volume) {
    return exchange::Amount{QString::number(volume.litres(), 'g', 6).toStdString(), "L"};
  };
  const auto pour = [&](book::TankLiquid liquid, double factor) {
    if (!(a.pour > core::Volume{})) return;
    line.did = TankDid::Poured;
    line.liquid = liquid;
    line.volume = litres(a.pour);
    if (liquid == book::TankLiquid::Feed && std::abs(factor - 1) > 1e-6)
      line.strengthPercent = {QString::number(100 * factor, 'g', 4).toStdString(), ""};
    out.push_back(line);
  };
  const auto weigh = [&] {
    TankLine salts;
    salts.did = TankDid::Salts;
    for (std::size_t p = 0; p < a.grams.size(); ++p)
      if (a.grams[p] > core::Mass::fromMilligrams(1))
        salts.weighed.push_back(
            {story.productIds[p], {QString::number(a.grams[p].grams(), 'g', 5).toStdString(), "g"}});
    if (!salts.weighed.empty()) out.push_back(salts);
  };
  switch (a.kind) {
  case AdviceKind::RefillAsPlanned:
  case AdviceKind::RefillByRule:
  case AdviceKind::RefillByStocks:
    pour(book::TankLiquid::Feed, a.feedFactor);
    break;
  case AdviceKind::RefillBySalts:
    pour(book::TankLiquid::Water, 0);
    weigh();
    break;
  case AdviceKind::AcidOrBase:
    weigh();
    break;
  case AdviceKind::Bleed:
    line.did = TankDid::Bleeds;
    line.volume = litres(core::Volume::fromLitres(a.bleedLPerDay));
    out.push_back(line);
    break;
  case AdviceKind::Dump:
    line.did = TankDid::Emptied;
    out.push_back(line);
    line.did = TankDid::Filled;
    line.volume = facts.full;
    out.push_back(line);
    break;
  case AdviceKind::FeedByUptake:
    break;
  }
  return out;
}

std::vector<book::TankLine> fillsShown(const TankStory& story, const book::VesselFacts& facts) {
  constexpr double leastShare = 0.05; // less is a pen's or a float's matter
  std::vector<book::TankLine> out;
  for (const auto& check : story.checks) {
    const bool leapt =
        check.kind == core::ReadingKind::Level && !check.fits && check.read > check.expected.high;
    if (!leapt || check.read - check.expected.value < leastShare * facts.fullVolume().litres()) continue;
    book::TankLine line;
    line.did = book::TankDid::Filled;
    line.at = {story.secondsOf(check.day) - 1};
    line.volume = {core::decimalText(check.read), "L"};
    out.push_back(std::move(line));
  }
  return out;
}

} // namespace butte::app
