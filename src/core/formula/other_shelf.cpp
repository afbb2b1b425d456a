#include "formula/other_shelf.h"

#include <algorithm>
#include <cmath>

namespace butte::core {

namespace {

double resultOf(const Answer& answer, const TargetRow& row) {
  return answer.feed.milligramsPerLitre.of(row.nutrient);
}

/// How far outside its band, in mg/L; 0 inside.
double outsideOf(const Answer& answer, const TargetRow& row) {
  const double result = resultOf(answer, row);
  if (row.contains(result)) return 0;
  return std::max(row.bandLow() - result, result - row.bandHigh());
}

/// A row that is outside already may go a little further.
double slackOf(const Answer& before, const TargetRow& row) {
  return outsideOf(before, row) > 0 ? furtherOutShare * row.divisor() : 0;
}

OtherShelf compared(const Given& given, const Answer& before, Answer after) {
  OtherShelf out;
  const auto& rows = given.request.rows;
  for (std::size_t r = 0; r < rows.size(); ++r)
    if (outsideOf(after, rows[r]) > outsideOf(before, rows[r]) + slackOf(before, rows[r]))
      out.suffers.push_back({r, resultOf(before, rows[r]), resultOf(after, rows[r])});
  out.costBefore = before.feed.cost;
  out.costAfter = after.feed.cost;
  out.answer = std::move(after);
  return out;
}

} // namespace

Result<OtherShelf> withoutProduct(const Given& given, const Answer& answer, std::size_t product) {
  auto other = given;
  auto& gone = other.request.shelf[product];
  gone.locked.reset();
  gone.least = {};
  gone.most = Mass();
  auto solved = compute(other);
  if (!solved) return solved.problem();
  return compared(given, answer, std::move(solved).value());
}

std::optional<OtherShelf> withMostOf(const Given& given, const Answer& answer, std::size_t product,
                                     Mass most) {
  if (answer.solution.grams.size() <= product) return std::nullopt;
  const auto held = [&](Mass mass) -> std::optional<OtherShelf> {
    auto other = given;
    other.request.shelf[product].locked = mass;
    auto solved = compute(other);
    if (!solved || solved->solution.grams.empty()) return std::nullopt;
    auto out = compared(given, answer, std::move(solved).value());
    return out.suffers.empty() ? std::optional(std::move(out)) : std::nullopt;
  };
  // The masses that do no harm reach from what it is to some most: halved down to a thousandth of the whole.
  auto good = answer.solution.grams[product];
  if (!(most > good)) return std::nullopt;
  if (auto all = held(most)) return all;
  std::optional<OtherShelf> best;
  auto bad = most;
  constexpr int halvings = 10;
  for (int i = 0; i < halvings; ++i) {
    const auto middle = (good + bad) * 0.5;
    if (auto found = held(middle)) {
      best = std::move(found);
      good = middle;
    } else {
      bad = middle;
    }
  }
  return best;
}

} // namespace butte::core
