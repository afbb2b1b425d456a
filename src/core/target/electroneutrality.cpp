#include "target/electroneutrality.h"

#include "chem/atomic_weights.h"
#include "chem/feed_charge.h"

#include <algorithm>
#include <cmath>

namespace butte::core {
namespace {

double meqPerMilligram(Nutrient n) {
  return chargeInFeed(n) / atomicWeight(elementSymbol(n)).value_or(1);
}

bool stated(const std::vector<TargetRow>& rows, Nutrient n) {
  return std::any_of(rows.begin(), rows.end(), [n](const TargetRow& r) { return r.nutrient == n; });
}

/// A sum N beside its forms is counted by the forms: only what they leave is nitrate.
std::vector<TargetRow> counted(const std::vector<TargetRow>& rows) {
  double forms = 0;
  for (const auto& row : rows) {
    if (row.nutrient == Nutrient::NNitrate || row.nutrient == Nutrient::NAmmonium)
      forms += row.milligramsPerLitre;
  }
  std::vector<TargetRow> out;
  for (auto row : rows) {
    if (row.nutrient == Nutrient::N) {
      if (stated(rows, Nutrient::NNitrate)) continue;
      row.milligramsPerLitre = std::max(0.0, row.milligramsPerLitre - forms);
    }
    out.push_back(row);
  }
  return out;
}

} // namespace

TargetBalance balanceOf(const std::vector<TargetRow>& given, double alkalinityLeftMeqPerL) {
  TargetBalance out;
  const auto rows = counted(given);
  out.anionsMeqPerL = std::max(0.0, alkalinityLeftMeqPerL);
  double spread = 0;
  for (const auto& row : rows) {
    const double meq = meqPerMilligram(row.nutrient) * row.milligramsPerLitre;
    (meq > 0 ? out.cationsMeqPerL : out.anionsMeqPerL) += std::abs(meq);
    spread += meq * meq;
  }
  const double gap = out.cationsMeqPerL - out.anionsMeqPerL;
  const double room = 0.01 * std::max(out.cationsMeqPerL, out.anionsMeqPerL);
  if (std::abs(gap) <= room) return out;
  // What is free closes it: sulfate first where cations are over, sodium where anions are.
  for (const auto n :
       {Nutrient::S, Nutrient::NNitrate, Nutrient::Cl, Nutrient::K, Nutrient::Ca, Nutrient::Na}) {
    if (stated(given, n) || chargeInFeed(n) * gap > 0) continue;
    if (n == Nutrient::NNitrate && stated(given, Nutrient::N)) continue;
    out.closes = IonShift{n, 0, -gap / meqPerMilligram(n)};
    return out;
  }
  out.canBalance = false;
  for (const auto& row : rows) {
    const double perMilligram = meqPerMilligram(row.nutrient);
    if (perMilligram == 0 || row.milligramsPerLitre <= 0) continue;
    const double meq = perMilligram * row.milligramsPerLitre;
    // Least relative squares: every ion gives in proportion to its share of the charge.
    out.nearest.push_back({row.nutrient, row.milligramsPerLitre,
                           row.milligramsPerLitre * std::max(0.0, 1 - gap * meq / spread)});
    const double alone = row.milligramsPerLitre - gap / perMilligram;
    if (alone >= 0) out.oneAlone.push_back({row.nutrient, row.milligramsPerLitre, alone});
  }
  std::stable_sort(out.oneAlone.begin(), out.oneAlone.end(), [](const IonShift& a, const IonShift& b) {
    return std::abs(a.to / a.from - 1) < std::abs(b.to / b.from - 1);
  });
  return out;
}

} // namespace butte::core
