/// `butte-cli solve` in all its modes.
#include "formula/candidates.h"
#include "formula/uncertainty.h"
#include "formula_words.h"
#include "solve/audit.h"
#include "solve/choose_products.h"
#include "solve/joint_rounding.h"
#include "solve/mends.h"
#include "verb_json.h"
#include "water/blend.h"
#include "water/treatment.h"

namespace butte::cli {

using namespace core;
using exchange::ScriptInput;

namespace {

NutrientAmounts feedOf(const SolveRequest& request, const std::vector<Mass>& grams) {
  return mix(request.water, request.shelf, grams, request.volume).milligramsPerLitre;
}

void addDeviations(Json& out, const SolveRequest& request, const NutrientAmounts& feed) {
  Json deviation = Json::object();
  for (const auto& row : request.rows)
    deviation[std::string(nutrientKey(row.nutrient))] = row.deviationPercent(feed.of(row.nutrient));
  out["deviation_percent"] = deviation;
  Json ratios = Json::array();
  for (const auto& wish : request.ratios)
    ratios.push_back(optionalNumber(ratioOf(wish, feed)));
  out["ratios"] = ratios;
}

std::string limitName(LimitKind kind) {
  switch (kind) {
  case LimitKind::Band:
    return "band";
  case LimitKind::Ratio:
    return "ratio";
  case LimitKind::Cap:
    return "cap";
  case LimitKind::Most:
    return "most";
  case LimitKind::Least:
    return "least";
  case LimitKind::Held:
    return "held";
  case LimitKind::Alkalinity:
    return "alkalinity";
  case LimitKind::SafeCeiling:
    return "safe_ceiling";
  case LimitKind::ChelateInstead:
    return "chelate_instead";
  }
  return {};
}

/// The limits behind each reason, for machines.
Json bindingLimits(const SolveAnswer& answer) {
  Json out = Json::array();
  for (const auto& reason : answer.reasons) {
    Json limits = Json::array();
    for (const auto& limit : reason.limits) {
      Json row{{"kind", limitName(limit.kind)}};
      if (limit.kind == LimitKind::Band || limit.kind == LimitKind::Cap ||
          limit.kind == LimitKind::SafeCeiling)
        row["element"] = nutrientKey(limit.nutrient);
      if (limit.kind == LimitKind::Band || limit.kind == LimitKind::Ratio)
        row["edge"] = limit.upper ? "upper" : "lower";
      if (limit.kind == LimitKind::Ratio) row["ratio"] = limit.ratio;
      if (!limit.product.empty()) row["product"] = limit.product;
      row["carriers"] = limit.carriers;
      limits.push_back(row);
    }
    out.push_back({{"element", nutrientKey(reason.nutrient)},
                   {"over", reason.over},
                   {"reachable_mg_per_l", reason.reachable},
                   {"limits", limits}});
  }
  return out;
}

Json mendArray(const SolveRequest& request, const SolveAnswer& answer) {
  Json out = Json::array();
  WaterOption purer{"a membrane before the water, share", 0, 1, [&](double share) {
                      return blended({{request.water, 1 - share},
                                      {throughMembrane(request.water, ReverseOsmosis{}).water, share}});
                    }};
  std::vector<WaterOption> waters;
  if (request.water.compositionKnown) waters.push_back(purer);
  for (const auto& mend : mendsFor(request, answer, catalogueCandidates(request.shelf), waters)) {
    Json row{{"kind", words::code(mend.kind)}, {"text", words::mendText(mend, words::nameAsIs, waters)}};
    if (!mend.product.empty()) row["product"] = mend.product;
    if (mend.kind == MendKind::WidenBand || mend.kind == MendKind::LiftCap)
      row["element"] = nutrientKey(mend.nutrient);
    if (mend.value > 0) row["value"] = mend.value;
    row["off_band_before"] = mend.offBefore;
    row["off_band_after"] = mend.offAfter;
    row["weights_g"] = weightsObject(mend.request, mend.answer.grams);
    out.push_back(row);
  }
  return out;
}

ErrorLimits limitsFrom(const exchange::ScriptErrors& given, const SolveRequest& request) {
  ErrorLimits limits;
  for (const auto& p : request.shelf) {
    limits.contentPercent.push_back(given.contentPercent.forId(p.id).value_or(usualContentPercent(p)));
    limits.moisturePercent.push_back(given.moisturePercent.forId(p.id).value_or(usualMoisturePercent(p)));
    limits.weighing.push_back(Mass::fromGrams(given.weighingGrams.forId(p.id).value_or(0)));
  }
  limits.volumePercent = given.volumePercent.value_or(limits.volumePercent);
  limits.dosingPercent = given.dosingPercent.value_or(limits.dosingPercent);
  limits.waterPercent = given.waterPercent.value_or(limits.waterPercent);
  return limits;
}

Json spreadObject(const Spread& spread, const std::vector<ShelfProduct>& shelf) {
  Json parts = Json::array();
  for (std::size_t i = 0; i < spread.parts.size() && i < 3; ++i) {
    const auto& part = spread.parts[i];
    Json row{{"source", words::code(part.source)}};
    if (part.product) row["product"] = shelf[*part.product].id;
    row["plus_minus"] = part.plusMinus;
    row["with_this_halved"] = withHalved(spread, i);
    parts.push_back(row);
  }
  return Json{{"plus_minus", spread.plusMinus}, {"largest", parts}};
}

void addSpread(Json& out, const exchange::ScriptErrors& errors, const SolveRequest& request,
               const std::vector<Mass>& grams) {
  const auto spread =
      feedSpread(request.water, request.shelf, grams, request.volume, limitsFrom(errors, request));
  Json elements = Json::object();
  for (const auto n : allNutrients)
    elements[std::string(nutrientKey(n))] = spreadObject(spread.of(n), request.shelf);
  out["plus_minus"] = Json{{"elements_mg_per_l", elements},
                           {"ec_ms_per_cm_25c", spreadObject(spread.conductivity, request.shelf)}};
}

Json roundedObject(const exchange::PerProduct& steps, const SolveRequest& request,
                   const std::vector<Mass>& grams) {
  std::vector<Mass> stepOf;
  for (const auto& p : request.shelf)
    stepOf.push_back(Mass::fromGrams(steps.forId(p.id).value_or(0)));
  const auto rounded = roundTogether(request, grams, stepOf);
  Json out{{"weights_g", weightsObject(request, rounded.grams)},
           {"misfit", rounded.misfit},
           {"misfit_one_by_one", rounded.oneByOne},
           {"proven", rounded.proven}};
  addDeviations(out, request, feedOf(request, rounded.grams));
  return out;
}

Result<Outcome> audit(const ScriptInput& input) {
  const auto& request = input.given.request;
  if (!input.weights)
    return problemAt(ProblemCode::MissingKey, "weights_g", {"an audit needs the sheet's weights"});
  const auto grams = weightsOf(input);
  Outcome outcome;
  addMix(outcome.json, mix(request.water, request.shelf, grams, request.volume));
  addDeviations(outcome.json, request, feedOf(request, grams));
  Json suspects = Json::array();
  for (const auto& line : suspectLines(request, grams)) {
    Json off = Json::array();
    for (const auto n : line.thrownOff)
      off.push_back(nutrientKey(n));
    suspects.push_back({{"product", line.product},
                        {"stands_g", line.stands.grams()},
                        {"fits_g", line.fits.grams()},
                        {"slip", words::code(line.slip)},
                        {"mended_share", line.mendedShare},
                        {"throws_off", off},
                        {"text", words::suspectText(line)}});
  }
  outcome.json["suspects"] = suspects;
  outcome.json["warnings"] = inputWarnings(input);
  return outcome;
}

Result<Outcome> sharedStocks(const ScriptInput& input) {
  const auto& request = input.given.request;
  const auto answer = manyCrops({request.water, request.shelf, input.modes.crops, input.modes.corrections});
  if (!answer) return answer.problem();
  Outcome outcome;
  Json common = Json::object(), crops = Json::array();
  for (std::size_t j = 0; j < request.shelf.size(); ++j)
    common[request.shelf[j].id] = answer->gramsPerLitre[j] * request.volume.litres();
  for (std::size_t k = 0; k < answer->crops.size(); ++k) {
    const auto& share = answer->crops[k];
    const auto& wish = input.modes.crops[k];
    Json deviation = Json::object();
    for (std::size_t i = 0; i < wish.rows.size(); ++i)
      deviation[std::string(nutrientKey(wish.rows[i].nutrient))] = share.deviationPercent[i];
    Json correction = nullptr;
    if (share.correction)
      correction = Json{{"product", request.shelf[*share.correction].id},
                        {"g", share.correctionGramsPerLitre * request.volume.litres()}};
    crops.push_back({{"name", wish.name},
                     {"strength", share.strength},
                     {"correction", correction},
                     {"elements_mg_per_l", nutrientObject(share.milligramsPerLitre)},
                     {"deviation_percent", deviation},
                     {"misfit", share.misfit},
                     {"own_misfit", share.ownMisfit}});
  }
  outcome.json["weights_g"] = common;
  outcome.json["crops"] = crops;
  outcome.json["warnings"] = inputWarnings(input);
  return outcome;
}

} // namespace

Result<Outcome> solve(const ScriptInput& input) {
  if (!input.modes.crops.empty()) return sharedStocks(input);
  if (!input.hasTarget)
    return problemAt(ProblemCode::MissingKey, "target_mg_per_l",
                     {"solve needs a target per element in mg/L"});
  if (input.modes.audit) return audit(input);
  ProductChoice choice{input.modes.atMostProducts, input.modes.fewestProducts, {}};
  if (input.modes.fromCatalogue) choice.toBuy = catalogueCandidates(input.given.request.shelf);
  const bool search = choice.atMost || choice.fewest || input.modes.fromCatalogue;
  Result<ChosenFormula> chosen = [&]() -> Result<ChosenFormula> {
    if (search) return chooseProducts(input.given.request, choice);
    auto answer = core::solve(input.given.request);
    if (!answer) return answer.problem();
    return ChosenFormula{input.given.request, std::move(answer).value(), {}, {}, true};
  }();
  if (!chosen) return chosen.problem();
  const auto& request = chosen->request;
  const auto& answer = chosen->answer;
  if (answer.status == SolveStatus::Impossible) return impossible(input, answer);
  Outcome outcome;
  outcome.json["status"] = statusName(answer.status);
  outcome.json["weights_g"] = weightsObject(request, answer.grams);
  const auto feed = core::mix(request.water, request.shelf, answer.grams, request.volume);
  addMix(outcome.json, feed);
  addDeviations(outcome.json, request, feedOf(request, answer.grams));
  if (const auto problem = addDirect(outcome.json, input.given, request, answer.grams)) return *problem;
  outcome.json["violation"] = answer.violation;
  outcome.json["reasons"] = reasonTexts(answer);
  outcome.json["limits"] = bindingLimits(answer);
  outcome.json["warnings"] = solveWarnings(input, request, answer);
  addFeedWarnings(outcome.json["warnings"], feed);
  if (search) {
    outcome.json["buy"] = chosen->buy;
    outcome.json["proven"] = chosen->proven;
  }
  if (input.modes.mends) outcome.json["mends"] = mendArray(request, answer);
  if (input.modes.roundToGrams)
    outcome.json["rounded"] = roundedObject(*input.modes.roundToGrams, request, answer.grams);
  if (input.modes.errors) addSpread(outcome.json, *input.modes.errors, request, answer.grams);
  return outcome;
}

} // namespace butte::cli
