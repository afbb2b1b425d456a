#pragma once
#include "base/result.h"

#include <string_view>

namespace butte::core {

/// What a concentration is "of": an element as its usual ion in a feed, an ion, an oxide or any formula.
struct Substance {
  double molarMassGPerMol = 0;
  double chargeNumber = 0; ///< equivalents per mole, without sign; 0 where there is none to speak of
};

/// Reads element keys (N_NO3, P, Ca ...), ions (NO3, SO4, HCO3 ...), oxides and formulas.
/// An element's charge is that of its usual ion in a feed: P as H2PO4, S as SO4, N as NO3 or NH4, Mo as MoO4.
/// Error: UnknownSubstance.
Result<Substance> substanceNamed(std::string_view name);

/// Grams of `to` that hold the same characteristic atoms as one gram of `from`, e.g. ("P2O5", "P") = 0.436.
/// Errors: UnknownUnit when a name is neither unit nor formula; IncompatibleUnits when they share no such
/// atom.
Result<double> massOfOneInOther(std::string_view from, std::string_view to);

} // namespace butte::core
