#pragma once
#include "solution/pitzer_data.h"

#include <array>

namespace butte::core {

/// A strong solution of whole ions, in mol per kg of water: what a dilute model would call pairs is counted
/// with its ions here.
struct PitzerSolution {
  std::array<double, pitzerCations.size()> cations{};
  std::array<double, pitzerAnions.size()> anions{};
  /// Other solutes, without parameters of their own: what they add to the ionic strength (mol/kg), to
  /// sum(m |z|), and to the number of dissolved particles.
  double otherStrength = 0, otherCharge = 0, otherMol = 0;

  double ionicStrength() const;
};

/// Activity coefficients (molal) and the activity of water.
struct PitzerActivities {
  std::array<double, pitzerCations.size()> lnCation{};
  std::array<double, pitzerAnions.size()> lnAnion{};
  double lnWater = 0;
};

/// Pitzer's ion interaction model in the form of Harvie, Moller & Weare 1984, with the unsymmetrical mixing
/// terms of ions of unequal charge (Pitzer 1975): good to the saturation of the salts that its parameters
/// (data/pitzer.csv, each with its source and range) were fitted to.
class PitzerModel {
public:
  explicit PitzerModel(double celsius);

  /// The model at a temperature. Kept: the reference stays good until this thread has asked for eight others.
  static const PitzerModel& at(double celsius);

  PitzerActivities activities(const PitzerSolution& solution) const;

  /// True when the two ions' own parameters are known; else nothing but their charges tells them apart.
  bool knows(std::size_t cation, std::size_t anion) const {
    return m_parameters.pairs[cation][anion].isKnown;
  }

private:
  double m_celsius;
  double m_aPhi; ///< Debye and Hueckel's slope for the osmotic coefficient, kg^0.5 mol^-0.5
  PitzerParameters m_parameters;
};

} // namespace butte::core
