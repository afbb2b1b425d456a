#include "solution/activity.h"

#include "units/constants.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {
constexpr double smallestRoot = 1e-7; // of the ionic strength: the slope of a square root has no value at 0
} // namespace

double waterPermittivity(double t) {
  return 87.740 - 0.40008 * t + 9.398e-4 * t * t - 1.410e-6 * t * t * t;
}

double waterDensityKgPerL(double t) {
  const double numerator =
      999.83952 +
      t * (16.945176 + t * (-7.9870401e-3 + t * (-46.170461e-6 + t * (105.56302e-9 - t * 280.54253e-12))));
  return numerator / (1 + 16.879850e-3 * t) / 1000;
}

double waterRelativeViscosity(double t) {
  const double below = 20 - t;
  return std::pow(10, below / (t + 96) * (1.2364 - 1.37e-3 * below + 5.7e-6 * below * below));
}

ActivityModel::ActivityModel(double celsius) {
  const double kelvin = celsius + 273.15;
  const double dt = waterPermittivity(celsius) * kelvin;
  const double rootDensity = std::sqrt(waterDensityKgPerL(celsius));
  // Debye-Hueckel constants from the permittivity and density (Robinson & Stokes 1959, from memory).
  m_a = 1.82483e6 * rootDensity / std::pow(dt, 1.5);
  m_b = 50.2916 * rootDensity / std::sqrt(dt);
}

double ActivityModel::lnGamma(int charge, double size, double linear, double strength) const {
  return at(strength).coefficient(charge, size, linear).lnGamma;
}

double ActivityModel::lnGammaSlope(int charge, double size, double linear, double strength) const {
  return at(strength).coefficient(charge, size, linear).slope;
}

ActivityModel::AtStrength::AtStrength(const ActivityModel& model, double strength) {
  const double root = std::sqrt(std::max(strength, 0.0));
  m_root = constant::ln10 * model.m_a * root;
  m_perRoot = constant::ln10 * model.m_a / (2 * std::max(root, smallestRoot));
  m_sizeTerm = model.m_b * root;
  m_linear = constant::ln10 * std::min(strength, linearUpTo);
  m_linearSlope = strength < linearUpTo ? constant::ln10 : 0;
}

ActivityModel::Coefficient ActivityModel::AtStrength::coefficient(int charge, double size,
                                                                  double linear) const {
  const double squared = charge * charge;
  const double share = 1 / (1 + m_sizeTerm * size);
  return {-squared * m_root * share + linear * m_linear,
          -squared * m_perRoot * share * share + linear * m_linearSlope};
}

} // namespace butte::core
