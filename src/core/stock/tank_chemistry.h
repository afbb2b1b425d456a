#pragma once
#include "solution/solutes.h"
#include "solution/solution_state.h"
#include "stock/strength_path.h"
#include "units/quantity.h"

#include <optional>
#include <string>
#include <vector>

namespace butte::core {

/// A solid that a tank may hold: a fertilizer salt (index into saltSolids()) or one of
/// EquilibriumData::solids().
struct TankSolid {
  std::string name; ///< "gypsum", or the salt's catalogue name
  std::optional<std::size_t> salt;
  FormsWithin formsWithin = FormsWithin::Hours; ///< salts crystallise as the tank cools
  double saturation = 0;    ///< strength over the strength at which it would begin to fall; above 1 it falls
  double gramsPerLitre = 0; ///< that lie on the floor at equilibrium
  double molPerLitre = 0;   ///< the same
};

/// How near a tank's ions, all together, are to every solid they could form.
///
/// The molalities of a tank rise together as it is made stronger. For each solid the multiple of today's
/// strength is found at which its ion product reaches its solubility product: activities, shared ions and ion
/// pairs are all in it.
class TankChemistry {
public:
  /// `perKgWater`: the tank's salts as planned; `waterPerKg`: what its make-up water brings at any strength.
  /// Nothing is known outside 0 to 45 degC or where the chemistry fails.
  TankChemistry(const Solutes& perKgWater, Temperature temperature, const Solutes& waterPerKg = {});

  bool known() const { return m_known; }
  double ph() const { return m_ph; }
  /// Solids in reach, the nearest first.
  const std::vector<TankSolid>& solids() const { return m_solids; }
  /// Fills gramsPerLitre where something falls. False where the equilibrium with solids found no end.
  bool findAmounts(double waterKgPerLitre);
  /// What lies on the floor as this solid holds of each component, in mol per litre, its alkalinity too.
  Solutes takenBy(const TankSolid& solid) const;
  /// True when the solid is made of this component, among others.
  bool holds(const TankSolid& solid, Component component) const;

private:
  struct Candidate {
    SolidPhase phase;
    std::vector<SaturationSeen> seen; ///< ascending
  };
  void addCandidates();
  bool look(double multiple);
  void climb();
  void refine();

  Solutes atMultiple(double multiple) const;

  Solutes m_perKg, m_waterPerKg;
  EquilibriumConditions m_conditions;
  StrengthPath m_path;
  std::vector<Candidate> m_candidates; ///< parallel to m_solids until sorted
  std::vector<TankSolid> m_solids;
  bool m_known = true;
  double m_ph = 7;
};

} // namespace butte::core
