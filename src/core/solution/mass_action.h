#pragma once
#include "solution/activity.h"
#include "solution/equilibrium.h"
#include "solution/scaled_cholesky.h"
#include "solution/species_set.h"

#include <memory>
#include <optional>
#include <vector>

namespace butte::core {

/// The mass-action equations of one solution, and Newton's method on the logarithms of the activities.
///
/// At a given ionic strength the balances are the gradient of a convex function of those logarithms
///   Phi(x) = sum of all molalities - sum of totals times x,
/// so that damped Newton steps always arrive. Near the solution the ionic strength joins the unknowns, which
/// makes the last steps quadratic. Held activities (a held pH, an open gas) are put into the constants, and
/// solids that are present add linear conditions on x with their amounts as multipliers.
class MassAction {
public:
  /// Both must outlive the system.
  MassAction(const Solutes& totals, const EquilibriumConditions& conditions);

  /// Finds the state with exactly these solids present (indices into the conditions' solids). False when the
  /// iteration does not end or two solids exclude each other.
  bool settle(const std::vector<std::size_t>& present);

  /// ln of (ion product / solubility product) of a solid in the state found; nothing where an ion is missing.
  std::optional<double> lnSaturation(std::size_t solid) const;
  /// Amount (mol/kg) of each solid present, in the order given to settle().
  const std::vector<double>& amounts() const { return m_amounts; }
  Equilibrium result() const;

private:
  static constexpr int mostUnknowns = SpeciesSet::mostUnknowns;
  static constexpr double mostLn = 600; ///< keeps an exponential finite
  using Vector = SpeciesSet::Vector;
  using Factor = ScaledCholesky<mostUnknowns>;
  using Matrix = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, 0, mostUnknowns, mostUnknowns>;

  struct Held {
    Vector row; ///< powers over the unknowns
    double lnK = 0;
    double water = 0;
    bool possible = true;
  };

  class Kkt;
  /// A total over the species that the activities depend on in turn (ionic strength, water's activity), and
  /// how it moves: with the unknowns, with the ionic strength, with the water.
  struct Sum {
    Vector byUnknown;
    double byStrength = 0, byWater = 0;
  };
  struct Linear {
    Factor::Matrix j;      ///< lower triangle
    Vector balance, gross; ///< totals found less those given, and without signs
    Vector byStrength, byWater;
    Sum strength, solutes;
    double strengthGap = 0, waterGap = 0;
    double waterBySolutes = 0; ///< kg/mol, of ln activity
  };
  /// One step of all that moves.
  struct Step {
    Vector x, amounts;
    double strength = 0, lnWater = 0;
  };

  void setTarget();
  void buildSolids();
  void start();
  bool takeStart();
  void shareOut();
  void scaleToTotals();
  double hydrogenExcess(const std::vector<double>& amounts, double lnHydrogen, Vector& share) const;
  void updateGammas();
  void updateMolalities(const Vector& x);
  double potential(const Vector& x);
  double strengthFound() const;
  double waterFound(double solutesMol) const;
  Linear linearise() const;
  Vector solidGaps(const std::vector<std::size_t>& present) const;
  bool isClosed(const Linear& at, const std::vector<std::size_t>& present, const Vector& gaps,
                bool coupled) const;
  Vector hydrateWater(const std::vector<std::size_t>& present) const;
  Step coupledStep(const Linear& at, const Kkt& kkt, const std::vector<std::size_t>& present,
                   const Vector& gaps) const;
  bool isLast(const Step& step) const;
  double stepLength(const Linear& at, const Vector& step, bool damped);
  bool newtonAt(const std::vector<std::size_t>& present, bool coupled, int most);
  bool settleNested(const std::vector<std::size_t>& present);

  const EquilibriumData& m_data;
  const Solutes& m_totals;
  const EquilibriumConditions& m_conditions;
  ActivityModel m_activity;
  std::shared_ptr<const SpeciesSet> m_set;
  int m_n = 0; ///< unknowns
  Vector m_target;
  std::vector<ActivityModel::Coefficient> m_coefficients; ///< parallel to the set's kinds
  Eigen::ArrayXd m_lnMolality, m_molality;                ///< parallel to the set's species
  std::vector<Held> m_solids;
  double m_inertStrength = 0;
  double m_inertMol = 0;
  double m_lnWater = 0;
  double m_strength = 0;
  Vector m_x;
  std::vector<double> m_amounts;
  int m_iterations = 0;
};

} // namespace butte::core
