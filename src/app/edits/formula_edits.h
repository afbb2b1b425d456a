#pragma once
#include "edits/edits.h"
#include "formula_document.h"

namespace butte::app {

/// Edits of the formula as a whole: its name, its crop, the volume that its weights are for, what it is
/// solved for, the scales they are weighed on.
class FormulaEdits : public Edits {
public:
  using Edits::Edits;

  void setName(const QString& name);
  void setCrop(const QString& crop, bool merge);

  exchange::Amount batch() const { return figure("/batch"); }
  /// Held weights stand for a strength: they follow the volume.
  void setBatch(const exchange::Amount& volume);

  /// "closest", "bands_first" or "cheapest".
  std::string way() const;
  void setWay(const std::string& way);
  /// Digits; empty for any number.
  std::string atMost() const { return figure("/aim/at_most").digits; }
  void setAtMost(const QString& digits);
  void setWholeSteps(bool on);
  /// A set of level measuring spoons, where no scale comes nearer.
  void setSpoons(bool on);

  /// How many scales are stated; none: the usual one counts.
  std::size_t scaleCount() const;
  /// A scale's smallest step and the most that it takes; no digits take the scale away.
  void setScaleReadability(std::size_t scale, const exchange::Amount& step);
  void setScaleCapacity(std::size_t scale, const exchange::Amount& most);
  exchange::Amount scaleReadability(std::size_t scale) const;
  exchange::Amount scaleCapacity(std::size_t scale) const;
  /// What its display shows; both figures are turned into it.
  void setScaleUnit(std::size_t scale, const QString& unit);

  /// What is left of the water's alkalinity once acid is dosed, meq/L; no digits: no acid is dosed.
  void setAlkalinityLeft(const QString& digits);

private:
  void setScale(std::size_t scale, const char* key, const exchange::Amount& amount, DeedCode code);
};

} // namespace butte::app
