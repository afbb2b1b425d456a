#include "bench_run.h"

#include "base/decimal.h"
#include "run/run_order.h"
#include "run/run_state.h"
#include "script_run.h"
#include "typed_numbers.h"

#include <algorithm>
#include <cmath>

namespace butte::book {

using core::decimalText;
using core::ProblemCode;
using exchange::item;
using exchange::ObjectReader;

namespace {

constexpr std::size_t mostSteps = 500, mostEvents = 100000;

/// The plan with its names alone: enough to read and write events.
core::RunPlan namesOf(const BenchRun& run) {
  core::RunPlan plan;
  for (const auto& id : run.products) {
    core::ShelfProduct product;
    product.id = id;
    plan.shelf.push_back(product);
  }
  plan.vessels = run.vessels;
  return plan;
}

double above(ObjectReader& reader, std::string_view key, double low, bool mayBe) {
  const auto value = reader.number(key);
  if (!value || !std::isfinite(*value) || !(mayBe ? *value >= low : *value > low))
    reader.fail(ProblemCode::NotAbove, key, {value ? decimalText(*value) : "", decimalText(low), ""});
  return value.value_or(1);
}

/// Each id stands once.
std::size_t indexOfProduct(BenchRun& run, const std::string& id) {
  auto known = std::find(run.products.begin(), run.products.end(), id);
  if (known == run.products.end()) known = run.products.insert(run.products.end(), id);
  return static_cast<std::size_t>(known - run.products.begin());
}

core::RunStep readStep(const Json& json, const std::string& path, BenchRun& run, Trouble& problem) {
  ObjectReader reader(json, path, problem);
  const auto id = reader.text("product").value_or("");
  if (id.empty()) reader.fail(ProblemCode::MissingKey, "product", {"the product's id"});
  core::RunStep step{indexOfProduct(run, id), core::Mass::fromGrams(above(reader, "g", 0, false)),
                     core::Mass::fromGrams(above(reader, "tolerance_g", 0, true))};
  if (json.contains("most_at_once_g"))
    step.mostAtOnce = core::Mass::fromGrams(above(reader, "most_at_once_g", 0, false));
  step.scale = reader.text("scale").value_or("");
  if (json.contains("readability_g"))
    step.readability = core::Mass::fromGrams(above(reader, "readability_g", 0, false));
  reader.finish();
  return step;
}

/// "had": {volume_l, g: {product: grams}}
core::AlreadyIn readHad(ObjectReader& vessel, BenchRun& run) {
  core::AlreadyIn out;
  const auto* object = vessel.object("had");
  if (!object) return out;
  ObjectReader reader(*object, vessel.pathOf("had"), vessel.sink());
  out.volume = core::Volume::fromLitres(above(reader, "volume_l", 0, false));
  if (const auto* grams = reader.object("g")) {
    ObjectReader weights(*grams, reader.pathOf("g"), vessel.sink());
    for (const auto& [id, value] : grams->items()) {
      const auto product = indexOfProduct(run, id);
      out.grams.resize(run.products.size());
      out.grams[product] = core::Mass::fromGrams(above(weights, id, 0, true));
    }
    weights.finish();
  }
  reader.finish();
  return out;
}

Json toJson(const core::AlreadyIn& had, const BenchRun& run) {
  Json grams = Json::object();
  for (std::size_t p = 0; p < run.products.size(); ++p)
    if (had.of(p) > core::Mass{}) grams[run.products[p]] = had.of(p).grams();
  return {{"volume_l", had.volume.litres()}, {"g", grams}};
}

core::RunVessel readVessel(const Json& json, const std::string& path, BenchRun& run, Trouble& problem) {
  ObjectReader reader(json, path, problem);
  core::RunVessel vessel{
      reader.text("name").value_or(""),   core::Volume::fromLitres(above(reader, "volume_l", 0, false)),
      above(reader, "factor", 1, true),   {},
      reader.flag("bag").value_or(false), {}};
  const auto* steps = reader.array("steps");
  if (!steps || steps->empty() || steps->size() > mostSteps)
    reader.fail(ProblemCode::MissingKey, "steps", {"what goes into the vessel, up to 500 products"});
  for (std::size_t i = 0; steps && i < steps->size() && !problem; ++i)
    vessel.steps.push_back(readStep((*steps)[i], item(path + ".steps", i), run, problem));
  vessel.had = readHad(reader, run);
  reader.finish();
  return vessel;
}

} // namespace

core::Result<BenchRun> benchRunFromJson(const Json& json) {
  Trouble problem;
  BenchRun run;
  ObjectReader reader(json, "", problem);
  run.name = reader.text("name").value_or("");
  run.formulaUid = reader.text("formula").value_or("");
  run.formulaVersion = static_cast<int>(above(reader, "formula_version", 1, true));
  run.batchUid = reader.text("batch").value_or("");
  run.order = reader.text("order").value_or("");
  if (!run.order.empty() && !core::orderSchoolFromKey(run.order))
    reader.fail(ProblemCode::NotOneOf, "order", {run.order, "the name of an order, such as chemistry"});
  const auto* vessels = reader.array("vessels");
  if (!vessels || vessels->empty() || vessels->size() > mostVesselsOfRun)
    reader.fail(ProblemCode::MissingKey, "vessels", {"the vessels of the run, up to 500"});
  for (std::size_t i = 0; vessels && i < vessels->size() && !problem; ++i)
    run.vessels.push_back(readVessel((*vessels)[i], item("vessels", i), run, problem));
  const auto* others = reader.array("other_products"); // that were not planned: a wrong bag
  for (std::size_t i = 0; others && i < others->size() && !problem; ++i)
    if ((*others)[i].is_string()) indexOfProduct(run, (*others)[i].get<std::string>());
  const auto* events = reader.array("events");
  if (events && events->size() > mostEvents) reader.mostIn("events", mostEvents);
  const auto plan = namesOf(run);
  for (std::size_t i = 0; events && i < events->size() && !problem; ++i) {
    const auto event = exchange::runEventFromJson((*events)[i], item("events", i), plan);
    if (!event)
      problem = event.problem();
    else
      run.events.push_back(*event);
  }
  if (const auto* practice = reader.object("practice"); practice && !problem) {
    auto read = practiceFromJson(*practice, "practice", plan);
    if (!read)
      problem = read.problem();
    else
      run.practice = std::move(*read);
  }
  if (const auto* tank = reader.object("for_tank"); tank && !problem) {
    ObjectReader inside(*tank, "for_tank", problem);
    run.forTank = ForTank{inside.text("vessel").value_or(""), above(inside, "water_litres", 0, true)};
    inside.finish();
  }
  reader.finish();
  if (problem) return *problem;
  if (const auto state = core::runState(plan, run.events); !state) return state.problem();
  return run;
}

Json toJson(const BenchRun& run, const core::RunEvent& event) {
  return exchange::toJson(event, namesOf(run));
}

Json toJson(const BenchRun& run, const core::TrueEvent& event) {
  return toJson(event, namesOf(run));
}

bool BenchRun::isFinished() const {
  return !batchUid.empty() ||
         (!events.empty() && std::holds_alternative<core::did::Finished>(events.back().deed));
}

BenchRunHead benchRunHead(const Json& body) {
  BenchRunHead out;
  const auto events = body.find("events");
  const bool told =
      events != body.end() && events->is_array() && !events->empty() && events->back().is_object();
  out.isFinished = body.contains("batch") || (told && events->back().value("did", "") == "finished");
  const auto vessels = body.find("vessels");
  const bool planned =
      vessels != body.end() && vessels->is_array() && !vessels->empty() && vessels->front().is_object();
  out.isOfBags = planned && vessels->front().value("bag", false);
  out.isPractice = body.contains("practice");
  return out;
}

Json vesselsToJson(const BenchRun& run) {
  Json vessels = Json::array();
  for (const auto& vessel : run.vessels) {
    Json steps = Json::array();
    for (const auto& step : vessel.steps) {
      Json one{{"product", run.products[step.product]},
               {"g", step.planned.grams()},
               {"tolerance_g", step.tolerance.grams()}};
      if (step.mostAtOnce > core::Mass{}) one["most_at_once_g"] = step.mostAtOnce.grams();
      if (!step.scale.empty()) one["scale"] = step.scale;
      if (step.readability > core::Mass{}) one["readability_g"] = step.readability.grams();
      steps.push_back(std::move(one));
    }
    Json one{{"name", vessel.name},
             {"volume_l", vessel.volume.litres()},
             {"factor", vessel.factor},
             {"steps", steps}};
    if (vessel.isBag) one["bag"] = true;
    if (vessel.had.volume > core::Volume{}) one["had"] = toJson(vessel.had, run);
    vessels.push_back(std::move(one));
  }
  return vessels;
}

Json toJson(const BenchRun& run) {
  Json events = Json::array(), others = Json::array();
  std::vector<bool> planned(run.products.size(), false);
  for (const auto& vessel : run.vessels)
    for (const auto& step : vessel.steps)
      planned[step.product] = true;
  for (const auto& event : run.events)
    events.push_back(toJson(run, event));
  for (std::size_t p = 0; p < planned.size(); ++p)
    if (!planned[p]) others.push_back(run.products[p]);
  Json out{{"name", run.name},
           {"formula", run.formulaUid},
           {"formula_version", run.formulaVersion},
           {"vessels", vesselsToJson(run)}};
  if (!run.order.empty()) out["order"] = run.order;
  if (!others.empty()) out["other_products"] = others;
  out["events"] = events;
  if (!run.batchUid.empty()) out["batch"] = run.batchUid;
  if (run.practice) out["practice"] = toJson(*run.practice, namesOf(run));
  if (run.forTank)
    out["for_tank"] = {{"vessel", run.forTank->vesselUid}, {"water_litres", run.forTank->waterLitres}};
  return out;
}

} // namespace butte::book
