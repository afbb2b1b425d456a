#include "dose/draw_down.h"

#include "base/decimal.h"

#include <algorithm>

namespace butte::core {

Result<DrawDown> judgeDrawDown(const std::vector<Volume>& drawn, const std::vector<double>& factors,
                               std::optional<Volume> feed, double alikePercent) {
  constexpr double nextToNothing = 0.1;
  if (drawn.size() < 2 || drawn.size() != factors.size())
    return problemAt(ProblemCode::MissingKey, "drawn", {"the draw of at least two tanks"});
  DrawDown out;
  std::vector<double> feedMade; // litres that each tank's draw was due for
  for (std::size_t t = 0; t < drawn.size(); ++t) {
    if (!(drawn[t] >= Volume{}))
      return problemAt(ProblemCode::OutOfRange, "drawn", {decimalText(drawn[t].litres()), "0 L or more"});
    feedMade.push_back(drawn[t].litres() * factors[t]);
  }
  const double fullest = *std::max_element(feedMade.begin(), feedMade.end());
  if (!(fullest > 0))
    return problemAt(ProblemCode::OutOfRange, "drawn", {"0", "above 0 L in one tank at least"});
  out.dueKnown = feed && *feed > Volume{};
  for (const double made : feedMade)
    out.ofDue.push_back(made / (out.dueKnown ? feed->litres() : fullest));
  const auto least = std::min_element(feedMade.begin(), feedMade.end());
  if (*least < fullest * (1 - alikePercent / 100)) {
    out.weak = static_cast<std::size_t>(least - feedMade.begin());
    out.shut = *least < fullest * nextToNothing;
  }
  return out;
}

} // namespace butte::core
