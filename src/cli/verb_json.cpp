#include "verb_json.h"

#include "solve/check.h"

namespace butte::cli {

using namespace core;
using exchange::ScriptInput;

Json optionalNumber(const std::optional<double>& value) {
  return value ? Json(*value) : Json(nullptr);
}

Json warning(std::string_view code, const std::string& text) {
  return Json{{"code", code}, {"text", text}};
}

Json nutrientObject(const NutrientAmounts& amounts) {
  Json out = Json::object();
  for (const auto n : allNutrients)
    out[std::string(nutrientKey(n))] = amounts.of(n);
  return out;
}

Json inputWarnings(const ScriptInput& input) {
  Json out = Json::array();
  for (const auto remark : input.given.request.water.remarks)
    out.push_back(warning(words::code(remark), words::waterRemarkText(remark)));
  for (const auto& [remark, id] : input.labelRemarks)
    out.push_back(warning(words::code(remark), words::labelRemarkText(remark, id)));
  return out;
}

std::vector<Mass> weightsOf(const ScriptInput& input) {
  using Weights = std::map<std::string, Mass>;
  std::vector<Mass> grams;
  for (const auto& p : input.given.request.shelf) {
    const auto it = input.weights ? input.weights->find(p.id) : Weights::const_iterator{};
    grams.push_back(!input.weights || it == input.weights->end() ? Mass{} : it->second);
  }
  return grams;
}

void addMix(Json& out, const MixResult& feed) {
  out["elements_mg_per_l"] = nutrientObject(feed.milligramsPerLitre);
  Json ions = Json::object();
  for (const auto ion : allIons)
    ions[std::string(ionKey(ion))] = feed.ions.of(ion);
  out["ions_meq_per_l"] = ions;
  out["cations_meq_per_l"] = feed.ions.cationsMeqPerL();
  out["anions_meq_per_l"] = feed.ions.anionsMeqPerL();
  out["ec_ms_per_cm_25c"] = feed.conductivity.milliSiemensPerCm();
  out["ph"] = optionalNumber(feed.ph);
  out["ph_in_air"] = optionalNumber(feed.phInAir);
  out["cost"] = optionalNumber(feed.cost);
}

std::optional<Problem> addDirect(Json& out, const Given& given, const SolveRequest& request,
                                 const std::vector<Mass>& grams) {
  if (!given.direct) return std::nullopt;
  const auto water = core::mix(request.water, {}, {}, request.volume);
  const auto mix = mixDirectly(water, request.shelf, grams, request.volume, *given.direct);
  if (!mix) return mix.problem();
  Json steps = Json::array();
  for (const auto& step : mix->steps)
    steps.push_back({{"product", request.shelf[step.product].id},
                     {"g", step.mass.grams()},
                     {"ec_after_ms_per_cm_25c", step.after.milliSiemensPerCm()}});
  out["direct"] = {{"drain_l", mix->drain.litres()},
                   {"present_strength", mix->presentStrength},
                   {"pour_l", mix->pour.litres()},
                   {"mixing_volume_l", mix->mixingVolume.litres()},
                   {"ec_before_salts_ms_per_cm_25c", mix->beforeSalts.milliSiemensPerCm()},
                   {"steps", steps},
                   {"to_mark_l", mix->toMark.litres()}};
  return std::nullopt;
}

Json weightsObject(const SolveRequest& request, const std::vector<Mass>& grams) {
  Json out = Json::object();
  for (std::size_t j = 0; j < grams.size(); ++j)
    out[request.shelf[j].id] = grams[j].grams();
  return out;
}

void addUnknownAcidity(Json& warnings, const MixResult& feed) {
  if (!feed.acidityKnown)
    warnings.push_back(warning("acidity_unknown",
                               "a product holds an acid that the chemistry does not know, so no pH follows"));
}

void addFeedWarnings(Json& warnings, const MixResult& feed) {
  addUnknownAcidity(warnings, feed);
  for (const auto& level : harmfulLevels(feed.milligramsPerLitre, "")) {
    auto row = warning("harmful_level", words::harmfulText(level));
    row["element"] = nutrientKey(level.nutrient);
    row["harmful_above_mg_per_l"] = level.harmfulAbove;
    warnings.push_back(std::move(row));
  }
}

std::string statusName(SolveStatus status) {
  switch (status) {
  case SolveStatus::Met:
    return "met";
  case SolveStatus::Best:
    return "best";
  case SolveStatus::Impossible:
    return "impossible";
  }
  return {};
}

Json solveWarnings(const ScriptInput& input, const SolveRequest& request, const SolveAnswer& answer) {
  Json out = inputWarnings(input);
  for (const auto& [kind, product] : answer.warnings)
    out.push_back(warning(words::code(kind), words::solveWarningText(kind, product)));
  for (const auto& id : input.weightsIgnored)
    out.push_back(
        warning("weight_not_locked", "the weight of '" + id + "' is not locked, so it is solved anew"));
  if (checkAnswer(request, answer) != AnswerFault::None)
    out.push_back(
        warning("check_failed", "an independent check of this answer did not agree: do not use it"));
  return out;
}

Json reasonTexts(const SolveAnswer& answer) {
  Json out = Json::array();
  for (const auto& reason : answer.reasons)
    out.push_back(words::reasonText(reason));
  return out;
}

Result<std::vector<Mass>> weightsForTanks(const ScriptInput& input, Json& warnings,
                                          std::optional<Outcome>& unsolved) {
  if (input.hasTarget) {
    const auto answer = core::solve(input.given.request);
    if (!answer) return answer.problem();
    warnings = solveWarnings(input, input.given.request, *answer);
    if (answer->status == SolveStatus::Impossible) unsolved = impossible(input, *answer);
    return answer->grams;
  }
  if (!input.weights)
    return problemAt(ProblemCode::MissingKey, "weights_g",
                     {"weights_g is needed, or target_mg_per_l to solve"});
  warnings = inputWarnings(input);
  return weightsOf(input);
}

Outcome impossible(const ScriptInput& input, const SolveAnswer& answer) {
  Outcome outcome;
  outcome.exitCode = 3;
  outcome.json["status"] = statusName(answer.status);
  outcome.json["reasons"] = reasonTexts(answer);
  outcome.json["warnings"] = solveWarnings(input, input.given.request, answer);
  return outcome;
}

} // namespace butte::cli
