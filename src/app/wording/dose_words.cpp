#include "wording/dose_words.h"

#include "services/units_shown.h"
#include "wording/tr.h"

#include <QStringList>

#include <cmath>

namespace butte::app {
namespace {

constexpr double sameFactor = 1e-6;

constexpr std::pair<core::RatioForm, const char*> forms[] = {
    {core::RatioForm::OneTo, "1 :"},
    {core::RatioForm::Percent, "%"},
    {core::RatioForm::MlPerLitre, QT_TRANSLATE_NOOP("butte", "mL per L")},
    {core::RatioForm::MlPerUsGallon, QT_TRANSLATE_NOOP("butte", "mL per US gal")},
    {core::RatioForm::MlPerImperialGallon, QT_TRANSLATE_NOOP("butte", "mL per imp gal")},
    {core::RatioForm::FluidOuncesPerUsGallon, QT_TRANSLATE_NOOP("butte", "fl oz per US gal")},
    {core::RatioForm::MlPerHundredLitres, QT_TRANSLATE_NOOP("butte", "mL per 100 L")},
    {core::RatioForm::LitresPerThousandLitres, QT_TRANSLATE_NOOP("butte", "L per 1000 L")},
    {core::RatioForm::MlPerTenUsGallons, QT_TRANSLATE_NOOP("butte", "mL per 10 US gal")}};

} // namespace

QString ratioFormWords(core::RatioForm form) {
  for (const auto& [known, words] : forms)
    if (known == form) return tr(words);
  return {};
}

QString statedDose(core::RatioForm form, double factor, const UnitsShown& units) {
  constexpr double millilitresPerLitre = 1000;
  if (form == core::RatioForm::OneTo || form == core::RatioForm::Percent)
    return units.dose(millilitresPerLitre / factor);
  return localFigure(core::figureOf(form, factor)) + " " + ratioFormWords(form);
}

bool haveOwnStrengths(const core::StockAnswer& stock) {
  const core::TankContent* first = nullptr;
  for (const auto& content : stock.tanks) {
    if (content.items.empty()) continue;
    if (first && std::abs(content.factor / first->factor - 1) > sameFactor) return true;
    if (!first) first = &content;
  }
  return false;
}

QString doseOfTanks(const core::StockAnswer& stock, core::RatioForm form, const UnitsShown& units) {
  if (!haveOwnStrengths(stock)) {
    for (const auto& content : stock.tanks)
      if (!content.items.empty()) return tr("%1 of each").arg(statedDose(form, content.factor, units));
    return tr("%1 of each").arg(units.dose(stock.doseMlPerLitre));
  }
  QStringList doses;
  for (const auto& content : stock.tanks) {
    if (content.items.empty()) continue;
    doses << QString("%1 %2").arg(QString::fromStdString(content.tank.name).toHtmlEscaped(),
                                  statedDose(form, content.factor, units));
  }
  return doses.join(" · ");
}

} // namespace butte::app
