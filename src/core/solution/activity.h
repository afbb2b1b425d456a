#pragma once

namespace butte::core {

/// Relative permittivity of water, 0 to 100 degC: Malmberg & Maryott 1956, from memory.
double waterPermittivity(double celsius);

/// Density of pure water in kg/L, 0 to 100 degC: Kell 1975, from memory; within 0.0001 kg/L.
double waterDensityKgPerL(double celsius);

/// Viscosity of pure water over that at 20 degC, 0 to 45 degC: Kestin, Sokolov & Wakeham 1978, from memory.
double waterRelativeViscosity(double celsius);

/// Activity coefficients by the extended Debye-Hueckel equation with a linear term (Truesdell & Jones 1974):
///   log10 gamma = -A z^2 sqrt(I) / (1 + B a sqrt(I)) + b I
/// with I in mol/kg, a the ion's size and b its linear term. One equation for every species;
/// strong solutions pass into Pitzer's model (solution/strong_solution.h). Past `linearUpTo` the linear term
/// is held level, since nothing it was fitted to reaches there.
class ActivityModel {
public:
  /// ln gamma, and its derivative by the ionic strength in kg/mol.
  struct Coefficient {
    double lnGamma = 0;
    double slope = 0;
  };

  static constexpr double linearUpTo = 6.0; ///< mol/kg
  /// Activity coefficients were held against measured ones up to here, mol/kg; what comes of strong solutions
  /// beyond is Pitzer's (docs/chemistry.md); the pH stays with this model.
  static constexpr double checkedUpTo = 3.0;

  explicit ActivityModel(double celsius);

  /// ln gamma of a species.
  double lnGamma(int charge, double sizeAngstrom, double linearTerm, double ionicStrength) const;
  /// Its derivative by the ionic strength, kg/mol.
  double lnGammaSlope(int charge, double sizeAngstrom, double linearTerm, double ionicStrength) const;

  /// Both at once, for one species after the other at the same ionic strength.
  class AtStrength {
  public:
    AtStrength(const ActivityModel& model, double ionicStrength);
    Coefficient coefficient(int charge, double sizeAngstrom, double linearTerm) const;

  private:
    double m_root, m_perRoot; ///< slope by the root, and by the strength, in infinite dilution
    double m_sizeTerm;        ///< per angstrom
    double m_linear, m_linearSlope;
  };
  AtStrength at(double ionicStrength) const { return {*this, ionicStrength}; }

  double a() const { return m_a; } ///< kg^0.5 mol^-0.5, for log10
  double b() const { return m_b; } ///< kg^0.5 mol^-0.5 per angstrom

private:
  double m_a;
  double m_b;
};

} // namespace butte::core
