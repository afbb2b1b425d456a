#include "stations/water/verdict_figures.h"

#include "services/units_shown.h"
#include "water_words.h"
#include "wording/record_words.h"
#include "wording/tr.h"
#include "wording/water_words.h"
#include "words.h"

#include <QLocale>

namespace butte::app {

QString verdictUnit(const core::Verdict& v, const UnitsShown& units) {
  if (v.property == "EC") return " " + units.conductivityUnitName();
  return v.unit == "pH" || v.property == "SAR"           ? QString()
         : v.property.find("CaCO3") != std::string::npos ? " mg/L"
                                                         : " " + qtext(v.unit);
}

QString inVerdictUnit(const core::Verdict& v, double value, const UnitsShown& units) {
  constexpr int digitsOfALimit = 3; // and no noughts behind: it is a round figure
  return v.property == "EC" ? units.digits(core::Conductivity::fromMilliSiemensPerCm(value))
                            : QLocale().toString(value, 'g', digitsOfALimit);
}

namespace {
QString plainFigure(const core::Verdict& v, const UnitsShown& units) {
  if (v.property == "pH" || v.property == "SAR") return localNumber(*v.value, 1);
  if (v.property == "EC") return inVerdictUnit(v, *v.value, units);
  if (*v.value >= 10 && v.plusMinus == 0 && v.property.find("CaCO3") != std::string::npos)
    return localNumber(*v.value, 0);
  return v.plusMinus > 0 ? "≈ " + plusMinusText(*v.value, v.plusMinus) : localFigure(*v.value);
}
} // namespace

QString verdictFigure(const core::Verdict& v, const UnitsShown& units) {
  return plainFigure(v, units) + verdictUnit(v, units);
}

QString verdictName(const core::Verdict& v) {
  const auto plain = qtext(words::reportKeyName(v.property));
  return v.limit->use == "overhead" ? tr("%1 on leaves").arg(plain) : plain;
}

} // namespace butte::app
