#pragma once
#include "formula/formula_answer.h"

namespace butte::core {

/// The formula's water with the conductivity of its ions, and the pH and the alkalinity that count: the
/// grower's own readings where there are some, else the sources'.
Water waterAsUsed(const Answer& answer);

} // namespace butte::core
