/// `butte-cli dose`: from a reading to mL, from draws to a verdict, from a vessel to a line.
#include "dose/dose_answer.h"

namespace butte::cli {

using namespace core;

Result<Outcome> dose(const exchange::ScriptInput& input) {
  DoseAnswer answer(input);
  if (answer.problem) return *answer.problem;
  if (answer.unsolved) return *answer.unsolved;
  for (const auto part : {answerReservoir, answerReadings, answerCompare, answerDrawDown, answerVessel,
                          answerRatio, answerInjector, answerPump}) {
    part(answer);
    if (answer.problem) return *answer.problem;
  }
  if (answer.out.json.empty())
    return problemAt(
        ProblemCode::MissingKey, "reservoir",
        {"dose needs one of reservoir, readings, compare, draw_down, vessel, ratio, injector, pump"});
  answer.out.json["warnings"] = answer.formula ? answer.warnings : Json::array();
  return answer.out;
}

} // namespace butte::cli
