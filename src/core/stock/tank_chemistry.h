#pragma once
#include "solution/solutes.h"
#include "solution/solution_state.h"
#include "units/quantity.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// A solid that a tank may hold: a salt (index into saltSolids()) or one of EquilibriumData::solids().
struct TankSolid {
  std::string name; ///< "gypsum", the salt's catalogue name, or a code of data/crystals.csv
  std::optional<std::size_t> salt;
  FormsWithin formsWithin = FormsWithin::Hours; ///< salts crystallise as the tank cools
  double saturation = 0;    ///< strength over the strength at which it would begin to fall; above 1 it falls
  double gramsPerLitre = 0; ///< that lie on the floor at equilibrium
  double molPerLitre = 0;   ///< the same
};

/// How near a tank's ions, all together, are to every solid they could form.
///
/// The molalities of a tank rise together as it is made stronger. The strength is found at which the first
/// solid's ion product reaches its solubility product: activities, shared ions and ion pairs are all in it.
/// Where the others would begin is read off at that strength, by how fast each is getting nearer: past it
/// they never stand alone.
class TankChemistry {
public:
  /// `perKgWater`: the tank's salts at strength 1, per kilogram of water; `waterPerKg`: what its make-up
  /// water brings at any strength. Nothing is known outside 0 to 45 degC or where the chemistry fails.
  TankChemistry(const Solutes& perKgWater, Temperature temperature, const Solutes& waterPerKg = {});

  bool known() const { return m_known; }

  struct Reach {
    TankSolid solid;
    double criticalStrength; ///< at which it would begin to fall
  };
  /// Solids in reach, the nearest first. Of what the make-up water drops by itself, the strength is 0.
  const std::vector<Reach>& reaches() const { return m_reaches; }

  /// The tank as it stands at one strength. Nothing where the chemistry does not reach.
  std::optional<double> phAt(double strength) const;

  /// Mol per kilogram of water that lie on the floor at this strength, parallel to reaches().
  std::optional<std::vector<double>> fallenAt(double strength) const;

  double molarMass(const TankSolid& solid) const;
  /// What lies on the floor as this solid holds of each component, in mol per litre, its alkalinity too.
  Solutes takenBy(const TankSolid& solid) const;
  /// True when the solid is made of this component, among others.
  bool holds(const TankSolid& solid, Component component) const;

private:
  struct Candidate {
    TankSolid solid;
    SolidPhase phase;
  };
  void addCandidates();
  bool isWatersOwn(const Candidate& candidate) const;
  void order();
  std::vector<SolidPhase> phases() const;
  Solutes totals(double strength) const;

  Solutes m_perKg, m_waterPerKg;
  EquilibriumConditions m_conditions;
  std::vector<Candidate> m_candidates; ///< parallel to m_reaches
  std::vector<Reach> m_reaches;
  bool m_known = true;
};

} // namespace butte::core
