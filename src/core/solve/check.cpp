#include "solve/check.h"

#include "solve/trace_guard.h"

#include <cmath>

namespace butte::core {
namespace {

double resultOf(const SolveRequest& request, const std::vector<Mass>& grams, Nutrient nutrient) {
  double sum = request.water.milligramsPerLitre.of(nutrient);
  for (std::size_t j = 0; j < grams.size(); ++j)
    sum += request.shelf[j].composition.massFraction.of(nutrient) *
           (grams[j] / request.volume).milligramsPerLitre();
  return sum;
}

NutrientAmounts elementsOf(const SolveRequest& request, const std::vector<Mass>& grams) {
  NutrientAmounts feed = request.water.milligramsPerLitre;
  for (std::size_t j = 0; j < grams.size(); ++j)
    feed.addScaled(request.shelf[j].composition.massFraction,
                   (grams[j] / request.volume).milligramsPerLitre());
  return feed;
}

bool ratiosKept(const SolveRequest& request, const std::vector<Mass>& grams) {
  const auto feed = elementsOf(request, grams);
  for (const auto& wish : request.ratios) {
    const double above = ratioSide(wish.above, wish.basis, feed),
                 below = ratioSide(wish.below, wish.basis, feed);
    const double slack = 2e-9 * *ratioDivisor(request.rows, wish);
    if (above > wish.high() * below + slack || above < wish.low() * below - slack) return false;
  }
  return true;
}

bool overACap(const SolveRequest& request, const std::vector<TraceGuard>& guards,
              const std::vector<Mass>& grams) {
  for (const auto& cap : request.caps) {
    if (resultOf(request, grams, cap.nutrient) > cap.milligramsPerLitre * (1 + 1e-7) + 1e-7) return true;
  }
  for (const auto& guard : guards) {
    double brought = 0;
    for (const auto j : guard.salts)
      brought += request.shelf[j].composition.massFraction.of(guard.nutrient) *
                 (grams[j] / request.volume).milligramsPerLitre();
    if (brought > guard.saltsMayBringMgPerL * (1 + 1e-7) + 1e-7) return true;
  }
  return false;
}

/// The fit's badness when one product changes, from the results before the change.
double badnessAfter(const SolveRequest& request, const std::vector<double>& results,
                    const std::vector<double>& ratioMisses, const ShelfProduct& product, Mass change) {
  const double milligramsPerLitre = (change / request.volume).milligramsPerLitre();
  double sum = 0;
  for (std::size_t i = 0; i < results.size(); ++i) {
    const auto& row = request.rows[i];
    const double result = results[i] + product.composition.massFraction.of(row.nutrient) * milligramsPerLitre;
    const double miss = (result - row.milligramsPerLitre) / row.divisor();
    sum += row.weight * miss * miss;
  }
  for (std::size_t r = 0; r < request.ratios.size(); ++r) {
    const auto& wish = request.ratios[r];
    const auto& fraction = product.composition.massFraction;
    const double perMilligram = ratioSide(wish.above, wish.basis, fraction) -
                                wish.value * ratioSide(wish.below, wish.basis, fraction);
    const double miss =
        ratioMisses[r] + perMilligram * milligramsPerLitre / *ratioDivisor(request.rows, wish);
    sum += wish.weight * miss * miss;
  }
  return sum;
}

/// Whether nudging a weight by one part in a thousand (or 1 mg/L) either way gives a clearly better fit.
bool canBeBettered(const SolveRequest& request, const std::vector<TraceGuard>& guards,
                   const std::vector<Mass>& grams) {
  std::vector<double> results;
  for (const auto& row : request.rows)
    results.push_back(resultOf(request, grams, row.nutrient));
  std::vector<double> ratioMisses;
  for (const auto& wish : request.ratios) {
    const auto feed = elementsOf(request, grams);
    ratioMisses.push_back(
        (ratioSide(wish.above, wish.basis, feed) - wish.value * ratioSide(wish.below, wish.basis, feed)) /
        *ratioDivisor(request.rows, wish));
  }
  for (std::size_t j = 0; j < grams.size(); ++j) {
    const auto& p = request.shelf[j];
    if (p.locked || isAcidOrBase(p)) continue;
    const double now = badnessAfter(request, results, ratioMisses, p, Mass{});
    for (const double sign : {-1.0, 1.0}) {
      const Mass nudge =
          sign * (grams[j] * 0.001 + Concentration::fromMilligramsPerLitre(1) * request.volume);
      Mass moved = std::max(grams[j] + nudge, p.least);
      if (p.most) moved = std::min(moved, *p.most);
      if (badnessAfter(request, results, ratioMisses, p, moved - grams[j]) >= now * (1 - 1e-9) - 1e-9)
        continue;
      auto all = grams;
      all[j] = moved;
      if (!overACap(request, guards, all)) return true;
    }
  }
  return false;
}

} // namespace

AnswerFault checkAnswer(const SolveRequest& request, const SolveAnswer& answer) {
  if (answer.status == SolveStatus::Impossible) return AnswerFault::None;
  if (answer.grams.size() != request.shelf.size()) return AnswerFault::WrongSize;
  for (std::size_t j = 0; j < answer.grams.size(); ++j) {
    const auto& p = request.shelf[j];
    const double grams = answer.grams[j].grams();
    if (!(grams >= 0)) return AnswerFault::BelowBound;
    if (p.locked) {
      if (answer.grams[j] != *p.locked) return AnswerFault::LockMoved;
      continue;
    }
    const bool mayBeLeftOut = isAcidOrBase(p);
    if (!mayBeLeftOut && grams < p.least.grams() * (1 - 1e-9) - 1e-9) return AnswerFault::BelowBound;
    if (p.most && grams > p.most->grams() * (1 + 1e-9) + 1e-9) return AnswerFault::AboveBound;
  }
  const auto guards = traceGuards(request);
  if (overACap(request, guards, answer.grams)) return AnswerFault::OverCap;
  bool met = true;
  for (const auto& row : request.rows)
    met = met && row.contains(resultOf(request, answer.grams, row.nutrient));
  met = met && ratiosKept(request, answer.grams);
  if (met != (answer.status == SolveStatus::Met)) return AnswerFault::StatusWrong;
  const bool plainFit = request.objective == Objective::Closest && request.require == Require::Best &&
                        !request.alkalinityLeftMeqPerL;
  if (plainFit && canBeBettered(request, guards, answer.grams)) return AnswerFault::NotOptimal;
  return AnswerFault::None;
}

} // namespace butte::core
