#pragma once
#include "label/label_text.h"
#include "page/laid_out.h"

#include <span>

namespace butte::reading {

/// A figure of a label that its picture's readings do not have alike.
struct BlurredFigure {
  std::string key;             ///< "K2O"
  std::vector<double> percent; ///< what they have it as
  int line = 0;                ///< of the first reading, from 1; 0: only another one has it
};

/// A label out of several readings of its picture: what at least two have alike and none otherwise is in
/// `label`, the rest in `blurred`.
struct AgreedLabel {
  LabelText label;
  std::vector<BlurredFigure> blurred;
};
AgreedLabel agreedLabel(std::span<const LaidOut> readings);

} // namespace butte::reading
