#include "wording/dose_words.h"

#include "services/units_shown.h"
#include "wording/tr.h"

#include <QStringList>

#include <cmath>

namespace butte::app {
namespace {

constexpr double sameFactor = 1e-6;

} // namespace

bool haveOwnStrengths(const core::StockAnswer& stock) {
  const core::TankContent* first = nullptr;
  for (const auto& content : stock.tanks) {
    if (content.items.empty()) continue;
    if (first && std::abs(content.factor / first->factor - 1) > sameFactor) return true;
    if (!first) first = &content;
  }
  return false;
}

QString doseOfTanks(const core::StockAnswer& stock, const UnitsShown& units) {
  if (!haveOwnStrengths(stock)) {
    for (const auto& content : stock.tanks)
      if (!content.items.empty()) return tr("%1 of each").arg(units.dose(1000 / content.factor));
    return tr("%1 of each").arg(units.dose(stock.doseMlPerLitre));
  }
  QStringList doses;
  for (const auto& content : stock.tanks) {
    if (content.items.empty()) continue;
    doses << QString("%1 %2").arg(QString::fromStdString(content.tank.name).toHtmlEscaped(),
                                  units.dose(1000 / content.factor));
  }
  return doses.join(" · ");
}

} // namespace butte::app
