#pragma once
#include "solution/equilibrium.h"
#include "units/quantity.h"

#include <optional>
#include <string>

namespace butte::core {

/// What falls when two concentrates meet.
struct Meeting {
  std::string solid;          ///< one of EquilibriumData::solids(): "gypsum", "brushite" ...
  double saturationIndex = 0; ///< log10 of ion product over solubility product; above 0
};

/// What a product brings, per kilogram of the water in which it meets others; settled once, when first asked.
class Concentrate {
public:
  Concentrate(const Solutes& perKgWater, Temperature temperature);

  const Solutes& perKgWater() const { return m_perKgWater; }
  Temperature temperature() const { return m_temperature; }
  const ComponentSet& components() const { return m_there; }
  /// True when all ions of this solid (index into EquilibriumData::solids()) are there.
  bool holdsIonsOf(std::size_t solid) const;
  /// log10 of ion product over solubility product; nothing where an ion is missing or the chemistry knows no
  /// answer.
  std::optional<double> saturationIndex(std::size_t solid) const;

private:
  Solutes m_perKgWater;
  Temperature m_temperature;
  ComponentSet m_there;
  mutable std::optional<Result<Equilibrium>> m_settled;
};

/// The solid that `a` and `b` over-saturate together most, though neither does alone. Of those that form
/// within hours; fertilizer salts that merely give out are not among them. Nothing where all stays clear, or
/// where the chemistry knows no answer. Both at one temperature.
std::optional<Meeting> meetingOf(const Concentrate& a, const Concentrate& b);

/// The same for what a product brings all by itself.
std::optional<Meeting> meetingWithin(const Concentrate& a);

} // namespace butte::core
