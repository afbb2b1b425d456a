#pragma once
#include "tank/tank_priors.h"

#include <Eigen/Core>

#include <functional>
#include <optional>
#include <utility>
#include <vector>

/// What a tank's filter does not know, as one vector: litres; each element in mmol; what no ion balances in
/// meq; the logarithms of what plants drink and of the level of their uptake; each element's own part in it;
/// the EC pen's gain (logarithm) and the pH pen's offset. For tank_filter.cpp alone.
namespace butte::core::unknowns {

inline constexpr Eigen::Index elements = static_cast<Eigen::Index>(keptNutrients.size());
inline constexpr Eigen::Index litres = 0;
constexpr Eigen::Index element(Eigen::Index place) {
  return 1 + place;
}
constexpr Eigen::Index unbalanced() {
  return 1 + elements;
}
constexpr Eigen::Index water() {
  return 2 + elements;
}
constexpr Eigen::Index level() {
  return 3 + elements;
}
constexpr Eigen::Index share(Eigen::Index place) {
  return 4 + elements + place;
}
constexpr Eigen::Index penGain() {
  return 4 + 2 * elements;
}
constexpr Eigen::Index penPh() {
  return 5 + 2 * elements;
}
inline constexpr Eigen::Index count = 6 + 2 * elements;

ReservoirContent contentOf(const Eigen::VectorXd& x);
/// The same unknowns with other content.
Eigen::VectorXd withContent(const Eigen::VectorXd& x, const ReservoirContent& content);
ReservoirFlow flowOf(const Eigen::VectorXd& x, const ReservoirFlow& likeliest);

Eigen::VectorXd startOf(const ReservoirContent& content);
/// A factor of the covariance at the start: all elements off together (one strength), each a little by
/// itself.
Eigen::MatrixXd startSpread(const TankPriors& priors, const ReservoirContent& content, double relativeSd);
/// Which of them wander, and by how much in a day.
std::vector<std::pair<Eigen::Index, double>> wandering(const TankPriors& priors, const Eigen::VectorXd& x);

/// So many litres of a liquid, as a change of the unknowns.
Eigen::VectorXd columnOf(const FeedContent& liquid, double litres);
/// All that is dissolved, as a change: the tank once more without its water.
Eigen::VectorXd strengthOf(const Eigen::VectorXd& x);

/// A figure and how it changes with each unknown.
struct Slope {
  double value = 0;
  Eigen::VectorXd row;
};
Slope concentrationOf(const Eigen::VectorXd& x, Nutrient nutrient); ///< mg/L
Slope alkalinityOf(const Eigen::VectorXd& x);                       ///< meq/L
/// Of what a meter makes of the content, by differences over what it can see; nothing where the chemistry
/// finds none.
std::optional<Slope> slopeOf(const Eigen::VectorXd& x,
                             const std::function<std::optional<double>(const FeedContent&)>& meter);

} // namespace butte::core::unknowns
