#pragma once
#include "solve/solve.h"

namespace butte::core {

/// What an answer violates, if anything.
enum class AnswerFault {
  None,
  WrongSize,
  BelowBound,
  AboveBound,
  LockMoved,
  OverCap,
  StatusWrong,
  NotOptimal
};

/// Checks an answer by plain sums that share nothing with the solver: bounds, locks, caps, the status, and
/// (for the closest fit) that no single weight can be moved to a better fit.
AnswerFault checkAnswer(const SolveRequest& request, const SolveAnswer& answer);

} // namespace butte::core
