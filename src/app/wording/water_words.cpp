#include "wording/water_words.h"

#include "services/units_shown.h"
#include "units/constants.h"
#include "wording/tr.h"

#include <algorithm>

namespace butte::app {

QString plusMinusText(double value, double plusMinus) {
  const int decimals = plusMinus >= 10 ? 0 : plusMinus >= 1 ? 1 : 2;
  return tr("%1 ± %2").arg(localNumber(value, decimals), localNumber(plusMinus, decimals));
}

bool isGuessed(const core::Water& water) {
  return water.alkalinityPlusMinusMeqPerL > 0 &&
         std::find(water.remarks.begin(), water.remarks.end(), core::WaterRemark::Estimated) !=
             water.remarks.end();
}

QString alkalinityText(double meqPerL, const core::Water& water) {
  constexpr double perMeq = core::constant::milligramsCaCO3PerMeq;
  if (!(water.alkalinityPlusMinusMeqPerL > 0)) return tr("%1 mg/L").arg(localNumber(meqPerL * perMeq, 0));
  const auto figure = plusMinusText(meqPerL * perMeq, water.alkalinityPlusMinusMeqPerL * perMeq);
  return isGuessed(water) ? tr("≈ %1 mg/L").arg(figure) : tr("%1 mg/L").arg(figure);
}

} // namespace butte::app
