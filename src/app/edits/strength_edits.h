#pragma once
#include "base/problem.h"
#include "edits/edits.h"
#include "units/quantity.h"

#include <optional>

namespace butte::app {

/// A formula made weaker or stronger as a whole: its target's majors and all weights that are held, in
/// proportion; traces stay as they are wished (both schools: docs/formula.md), held ones follow.
class StrengthEdits : public Edits {
public:
  using Edits::Edits;

  /// 0.5: half strength.
  void times(double factor);
  /// Where weights are held, all weights in proportion until the feed reads that much; else the target.
  /// Nothing where it was done; else why not.
  std::optional<core::Problem> toConductivity(core::Conductivity ec);

private:
  void scale(const Deed& deed, double factor);
};

} // namespace butte::app
