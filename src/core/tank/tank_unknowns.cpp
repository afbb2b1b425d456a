#include "tank/tank_unknowns.h"

#include <algorithm>
#include <cmath>

namespace butte::core::unknowns {
namespace {

constexpr double leastLitres = 1e-6;

/// Exponents are held where a figure would only be nonsense.
double factor(double logarithm) {
  return std::exp(std::clamp(logarithm, -5.0, 5.0));
}

Eigen::Index placeOf(Nutrient nutrient) {
  return std::find(keptNutrients.begin(), keptNutrients.end(), nutrient) - keptNutrients.begin();
}

} // namespace

ReservoirContent contentOf(const Eigen::VectorXd& x) {
  ReservoirContent out;
  out.volume = Volume::fromLitres(std::max(x[litres], leastLitres));
  out.alkalinityMeq = x[unbalanced()];
  for (Eigen::Index e = 0; e < elements; ++e) {
    const auto n = keptNutrients[static_cast<std::size_t>(e)];
    const double millimoles = std::max(x[element(e)], 0.0);
    out.milligrams.add(n, millimoles * molarMass(n));
    out.alkalinityMeq += chargeInFeed(n) * millimoles;
  }
  return out;
}

Eigen::VectorXd withContent(const Eigen::VectorXd& x, const ReservoirContent& content) {
  Eigen::VectorXd out = x;
  out[litres] = content.volume.litres();
  for (Eigen::Index e = 0; e < elements; ++e) {
    const auto n = keptNutrients[static_cast<std::size_t>(e)];
    out[element(e)] = content.milligrams.of(n) / molarMass(n);
  }
  out[unbalanced()] = content.unbalancedMeq();
  return out;
}

ReservoirFlow flowOf(const Eigen::VectorXd& x, const ReservoirFlow& likeliest) {
  auto out = likeliest;
  out.transpirationLPerDay *= factor(x[water()]);
  out.uptake = {};
  for (Eigen::Index e = 0; e < elements; ++e) {
    const auto n = keptNutrients[static_cast<std::size_t>(e)];
    const double own = factor(x[share(e)]);
    out.uptake.millimolesPerLitre.add(n,
                                      likeliest.uptake.millimolesPerLitre.of(n) * own * factor(x[level()]));
    out.uptake.shareOfConcentration.add(n, likeliest.uptake.shareOfConcentration.of(n) * own);
  }
  return out;
}

Eigen::VectorXd startOf(const ReservoirContent& content) {
  return withContent(Eigen::VectorXd::Zero(count), content);
}

Eigen::MatrixXd startSpread(const TankPriors& priors, const ReservoirContent& content, double relativeSd) {
  constexpr double eachByItself = 0.5; // of the common error: weighing and purity of single salts
  Eigen::MatrixXd out = Eigen::MatrixXd::Zero(count, count);
  const auto strength = strengthOf(startOf(content));
  out.col(unbalanced()) = strength * relativeSd;
  for (Eigen::Index e = 0; e < elements; ++e) {
    const auto n = keptNutrients[static_cast<std::size_t>(e)];
    // A salt that is off brings both of its ions: the alkalinity stays what it is.
    out(element(e), element(e)) = strength[element(e)] * relativeSd * eachByItself;
    out(unbalanced(), element(e)) = -chargeInFeed(n) * out(element(e), element(e));
    out(share(e), share(e)) = priors.uptakeSd.of(n);
  }
  out(litres, litres) = priors.markSd * priors.full.litres();
  out(water(), water()) = priors.transpirationSd;
  out(level(), level()) = priors.uptakeLevelSd;
  out(penGain(), penGain()) = priors.penGainSd;
  out(penPh(), penPh()) = priors.penPhSd;
  return out;
}

std::vector<std::pair<Eigen::Index, double>> wandering(const TankPriors& priors, const Eigen::VectorXd& x) {
  std::vector<std::pair<Eigen::Index, double>> out{
      {unbalanced(), priors.alkalinityWander * std::max(x[litres], leastLitres)},
      {water(), priors.waterWander},
      {level(), priors.levelWander}};
  for (Eigen::Index e = 0; e < elements; ++e)
    if (priors.uptakeSd.of(keptNutrients[static_cast<std::size_t>(e)]) > 0)
      out.emplace_back(share(e), priors.elementWander);
  return out;
}

Eigen::VectorXd columnOf(const FeedContent& liquid, double volumeL) {
  ReservoirContent content;
  content.pour(liquid, Volume::fromLitres(volumeL));
  return withContent(Eigen::VectorXd::Zero(count), content);
}

Eigen::VectorXd strengthOf(const Eigen::VectorXd& x) {
  Eigen::VectorXd out = Eigen::VectorXd::Zero(count);
  out.segment(element(0), elements + 1) = x.segment(element(0), elements + 1);
  return out;
}

Slope concentrationOf(const Eigen::VectorXd& x, Nutrient nutrient) {
  const auto at = element(placeOf(nutrient));
  const double volume = std::max(x[litres], leastLitres), grams = molarMass(nutrient);
  Slope out{std::max(x[at], 0.0) * grams / volume, Eigen::VectorXd::Zero(count)};
  out.row[at] = grams / volume;
  out.row[litres] = -out.value / volume;
  return out;
}

Slope alkalinityOf(const Eigen::VectorXd& x) {
  const double volume = std::max(x[litres], leastLitres);
  Slope out{contentOf(x).alkalinityMeq / volume, Eigen::VectorXd::Zero(count)};
  for (Eigen::Index e = 0; e < elements; ++e)
    out.row[element(e)] = chargeInFeed(keptNutrients[static_cast<std::size_t>(e)]) / volume;
  out.row[unbalanced()] = 1 / volume;
  out.row[litres] = -out.value / volume;
  return out;
}

std::optional<Slope> slopeOf(const Eigen::VectorXd& x,
                             const std::function<std::optional<double>(const FeedContent&)>& meter) {
  const auto at = [&](const Eigen::VectorXd& where) { return meter(*contentOf(where).perLitre()); };
  const auto value = at(x);
  if (!value) return std::nullopt;
  Slope out{*value, Eigen::VectorXd::Zero(count)};
  const double volume = std::max(x[litres], leastLitres);
  const auto probe = [&](Eigen::Index index, double step) {
    Eigen::VectorXd moved = x;
    moved[index] += step;
    const auto there = at(moved);
    if (there) out.row[index] = (*there - *value) / step;
    return there.has_value();
  };
  constexpr double stepMmolPerL = 0.02;
  for (Eigen::Index e = 0; e < elements; ++e) {
    const auto n = keptNutrients[static_cast<std::size_t>(e)];
    if (chargeInFeed(n) != 0 && !probe(element(e), stepMmolPerL * volume)) return std::nullopt;
  }
  if (!probe(unbalanced(), stepMmolPerL * volume) || !probe(litres, 0.005 * volume)) return std::nullopt;
  return out;
}

} // namespace butte::core::unknowns
