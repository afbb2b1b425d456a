#include "solve/check.h"

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

double badness(const SolveRequest& request, const std::vector<Mass>& grams) {
  double sum = 0;
  for (const auto& row : request.rows) {
    const double miss = (resultOf(request, grams, row.nutrient) - row.milligramsPerLitre) / row.divisor();
    sum += row.weight * miss * miss;
  }
  return sum;
}

bool overACap(const SolveRequest& request, const std::vector<Mass>& grams) {
  for (const auto& cap : request.caps) {
    if (resultOf(request, grams, cap.nutrient) > cap.milligramsPerLitre * (1 + 1e-7) + 1e-7) return true;
  }
  return false;
}

/// Whether nudging a weight by one part in a thousand (or 1 mg/L) either way gives a clearly better fit.
bool canBeBettered(const SolveRequest& request, const std::vector<Mass>& grams) {
  const double now = badness(request, grams);
  for (std::size_t j = 0; j < grams.size(); ++j) {
    const auto& p = request.shelf[j];
    if (p.locked || isAcidOrBase(p)) continue;
    for (const double sign : {-1.0, 1.0}) {
      const Mass nudge =
          sign * (grams[j] * 0.001 + Concentration::fromMilligramsPerLitre(1) * request.volume);
      auto moved = grams;
      moved[j] = std::max(grams[j] + nudge, p.least);
      if (p.most) moved[j] = std::min(moved[j], *p.most);
      if (overACap(request, moved)) continue;
      if (badness(request, moved) < now * (1 - 1e-9) - 1e-9) return true;
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
  if (overACap(request, answer.grams)) return AnswerFault::OverCap;
  bool met = true;
  for (const auto& row : request.rows)
    met = met && row.contains(resultOf(request, answer.grams, row.nutrient));
  if (met != (answer.status == SolveStatus::Met)) return AnswerFault::StatusWrong;
  const bool plainFit = request.objective == Objective::Closest && request.require == Require::Best &&
                        !request.alkalinityLeftMeqPerL;
  if (plainFit && canBeBettered(request, answer.grams)) return AnswerFault::NotOptimal;
  return AnswerFault::None;
}

} // namespace butte::core
