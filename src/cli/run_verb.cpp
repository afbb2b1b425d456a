/// `butte-cli run`: a run at the bench, replayed from its events.
#include "run/run_advice.h"
#include "run/run_result.h"
#include "run/substitute.h"
#include "verb_json.h"

namespace butte::cli {

using namespace core;

namespace {

const char* code(RunPhase phase) {
  switch (phase) {
  case RunPhase::Pour:
    return "pour";
  case RunPhase::Weigh:
    return "weigh";
  case RunPhase::Decide:
    return "decide";
  case RunPhase::Tip:
    return "tip";
  case RunPhase::Dissolve:
    return "dissolve";
  case RunPhase::TopUp:
    return "top_up";
  case RunPhase::Measure:
    return "measure";
  case RunPhase::Prepare:
    return "prepare";
  case RunPhase::Done:
    break;
  }
  return "done";
}

Json nextObject(const RunPlan& plan, const RunState& state) {
  Json out{{"phase", code(state.next.phase)}};
  if (state.next.phase == RunPhase::Done || state.next.phase == RunPhase::Prepare) return out;
  const auto& vessel = plan.vessels[state.next.vessel];
  out["vessel"] = vessel.name;
  const bool product = state.next.phase == RunPhase::Weigh || state.next.phase == RunPhase::Decide ||
                       state.next.phase == RunPhase::Tip || state.next.phase == RunPhase::Dissolve;
  if (product) out["product"] = plan.shelf[vessel.steps[state.next.step].product].id;
  if (state.next.phase == RunPhase::Weigh)
    out["g"] = stillToWeigh(state, plan, state.next.vessel, state.next.step).grams();
  return out;
}

Json weightsOfVessel(const RunPlan& plan, const VesselState& vessel) {
  Json out = Json::object();
  for (std::size_t p = 0; p < plan.shelf.size(); ++p)
    if (vessel.of[p].in > Mass{}) out[plan.shelf[p].id] = vessel.of[p].in.grams();
  return out;
}

Json deviationsArray(const RunPlan& plan, const RunResult& result) {
  Json out = Json::array();
  for (const auto& line : result.deviations)
    out.push_back({{"vessel", plan.vessels[line.vessel].name},
                   {"product", plan.shelf[line.product].id},
                   {"wanted_g", line.wanted.grams()},
                   {"actual_g", line.actual.grams()},
                   {"percent", optionalNumber(line.percent)}});
  return out;
}

Json overshootsArray(const RunPlan& plan, const RunState& state) {
  Json out = Json::array();
  for (std::size_t v = 0; v < plan.vessels.size(); ++v)
    for (std::size_t s = 0; s < plan.vessels[v].steps.size(); ++s) {
      const auto over = overshootOf(plan, state, v, s);
      if (!over) continue;
      Json shifts = Json::object();
      for (const auto& [nutrient, percent] : over->shiftsPercent)
        shifts[std::string(nutrientKey(nutrient))] = percent;
      out.push_back({{"vessel", plan.vessels[v].name},
                     {"product", plan.shelf[plan.vessels[v].steps[s].product].id},
                     {"over_g", over->over.grams()},
                     {"take_out_g", over->takeOut.grams()},
                     {"accepted_shifts_percent", shifts},
                     {"accepted_ec_ms_per_cm_25c", over->accepted.milliSiemensPerCm()},
                     {"rescale_ratio", over->rescale.ratio}});
    }
  return out;
}

const char* code(RunVerdict verdict) {
  switch (verdict) {
  case RunVerdict::AsPlanned:
    return "as_planned";
  case RunVerdict::Close:
    return "close";
  case RunVerdict::Off:
    return "off";
  case RunVerdict::FallsOut:
    return "falls_out";
  case RunVerdict::ReadsOtherwise:
    break;
  }
  return "reads_otherwise";
}

Json plusMinusObject(const RunResult& result) {
  Json out = Json::object();
  for (const auto& one : result.elements)
    out[std::string(nutrientKey(one.nutrient))] = one.plusMinusMgPerLitre;
  return out;
}

/// The elements that are off, with the weight that moved each most.
Json checkArray(const RunPlan& plan, const RunResult& result, const RunJudgement& judgement) {
  Json out = Json::array();
  for (const auto e : judgement.check) {
    const auto& one = result.elements[e];
    Json line{{"element", nutrientKey(one.nutrient)}, {"off_percent", one.offPercent}, {"moved_by", nullptr}};
    if (one.movedBy) line["moved_by"] = plan.shelf[result.deviations[*one.movedBy].product].id;
    out.push_back(std::move(line));
  }
  return out;
}

} // namespace

Result<Outcome> run(const exchange::ScriptInput& input) {
  if (!input.run) return problemAt(ProblemCode::MissingKey, "run", {"the run's vessels and events"});
  auto first = input.run->plan;
  setTolerances(first, input.scale ? input.scale->readability : Mass{});
  const auto plan = withSubstitutes(first, input.run->events);
  const auto state = runState(plan, input.run->events);
  if (!state) {
    auto problem = state.problem();
    problem.where = "run." + problem.where;
    return problem;
  }
  const auto result = runResult(plan, *state, first);
  const auto judgement = judged(plan, *state, result);
  Json vessels = Json::object(), lots = Json::array();
  for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
    const auto& vessel = state->vessels[v];
    vessels[plan.vessels[v].name] = {{"water_l", vessel.water.litres()},
                                     {"full_l", vessel.full ? Json(vessel.full->litres()) : Json(nullptr)},
                                     {"weights_g", weightsOfVessel(plan, vessel)}};
  }
  for (const auto& lot : state->lots)
    lots.push_back({{"product", plan.shelf[lot.product].id},
                    {"lot", lot.lot},
                    {"g", lot.mass.grams()},
                    {"vessel", lot.vessel ? Json(plan.vessels[*lot.vessel].name) : Json(nullptr)},
                    {"discarded", lot.discarded}});
  Outcome out;
  out.json = {{"next", nextObject(plan, *state)},
              {"ratio", state->ratio},
              {"who", state->who},
              {"paused", state->paused},
              {"finished", state->finished},
              {"vessels", vessels},
              {"lots", lots},
              {"elements_mg_per_l", nutrientObject(result.actualMgPerLitre)},
              {"planned_mg_per_l", nutrientObject(result.plannedMgPerLitre)},
              {"ec_ms_per_cm_25c", result.actual.milliSiemensPerCm()},
              {"planned_ec_ms_per_cm_25c", result.planned.milliSiemensPerCm()},
              {"plus_minus_mg_per_l", plusMinusObject(result)},
              {"verdict", code(judgement.verdict)},
              {"check_first", checkArray(plan, result, judgement)},
              {"deviations", deviationsArray(plan, result)},
              {"overshoots", overshootsArray(plan, *state)},
              {"warnings", inputWarnings(input)}};
  return out;
}

} // namespace butte::cli
