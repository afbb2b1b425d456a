#include "formula/water_as_used.h"

namespace butte::core {

Water waterAsUsed(const Answer& answer) {
  auto out = answer.waters.water;
  const auto& found = answer.water;
  if (out.conductivityMsPerCm) out.conductivityMsPerCm = found.conductivity.milliSiemensPerCm();
  if (found.ph) out.ph = found.ph;
  if (out.alkalinityMeqPerL) out.alkalinityMeqPerL = found.netAlkalinityMeqPerL;
  return out;
}

} // namespace butte::core
