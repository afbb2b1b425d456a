#include "dose/ratio.h"

#include "base/decimal.h"
#include "units/factors.h"

#include <array>

namespace butte::core {
namespace {

constexpr std::array<std::string_view, ratioFormCount> ratioKeys{
    "one_to",          "percent",      "ml_per_l",     "ml_per_gal_us",   "ml_per_gal_imp",
    "floz_per_gal_us", "ml_per_100_l", "l_per_1000_l", "ml_per_10_gal_us"};

/// Figure times factor is the same for all forms but the first.
double figureTimesFactor(RatioForm form) {
  switch (form) {
  case RatioForm::Percent:
    return 100;
  case RatioForm::MlPerLitre:
    return 1000;
  case RatioForm::MlPerUsGallon:
    return 1000 * factor::litresPerUsGallon;
  case RatioForm::MlPerImperialGallon:
    return 1000 * factor::litresPerImperialGallon;
  case RatioForm::FluidOuncesPerUsGallon:
    return factor::litresPerUsGallon / factor::litresPerUsFluidOunce;
  case RatioForm::MlPerHundredLitres:
    return 1000 * 100;
  case RatioForm::LitresPerThousandLitres:
    return 1000;
  case RatioForm::MlPerTenUsGallons:
    return 1000 * 10 * factor::litresPerUsGallon;
  case RatioForm::OneTo:
    break;
  }
  return 1;
}

} // namespace

std::string_view ratioKey(RatioForm form) {
  return ratioKeys[static_cast<std::size_t>(form)];
}

Result<double> factorFrom(RatioForm form, double figure) {
  const auto key = std::string(ratioKey(form));
  if (!(figure > 0)) return problemAt(ProblemCode::OutOfRange, key, {decimalText(figure), "above 0"});
  const double factor = form == RatioForm::OneTo ? figure : figureTimesFactor(form) / figure;
  if (factor < 1)
    return problemAt(ProblemCode::OutOfRange, key, {decimalText(figure), "no more stock than finished feed"});
  return factor;
}

double figureOf(RatioForm form, double factor) {
  return form == RatioForm::OneTo ? factor : figureTimesFactor(form) / factor;
}

} // namespace butte::core
