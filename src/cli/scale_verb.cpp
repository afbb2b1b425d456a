/// `butte-cli scale-lines`: what a scale's lines say. `butte-cli weigh`: weights in a scale's steps.
#include "bench/weigh_plan.h"
#include "scale/scale_pattern.h"
#include "verb_json.h"

#include <algorithm>

namespace butte::cli {

using namespace core;
using devices::ScaleReading;
using devices::ScaleStatus;

namespace {

const char* code(ScaleStatus status) {
  switch (status) {
  case ScaleStatus::Weight:
    return "weight";
  case ScaleStatus::Overload:
    return "overload";
  case ScaleStatus::Underload:
    return "underload";
  case ScaleStatus::Busy:
    return "busy";
  case ScaleStatus::Fault:
    return "fault";
  case ScaleStatus::Nothing:
    break;
  }
  return "nothing";
}

Json readingObject(const ScaleReading& reading) {
  return Json{{"grams", reading.mass ? Json(reading.mass->grams()) : Json(nullptr)},
              {"unit", reading.unit.empty() ? Json(nullptr) : Json(reading.unit)},
              {"stable", reading.stable ? Json(*reading.stable) : Json(nullptr)},
              {"status", code(reading.status)}};
}

} // namespace

Result<Outcome> scaleLines(const std::string& text, const std::string& pattern) {
  std::optional<devices::ScalePattern> own;
  if (!pattern.empty()) {
    auto parsed = devices::ScalePattern::parse(pattern);
    if (!parsed) return parsed.problem();
    own = std::move(parsed).value();
  }
  Outcome out;
  out.json["readings"] = Json::array();
  for (std::size_t at = 0; at < text.size();) {
    const auto end = std::min(text.find('\n', at), text.size());
    const auto line = std::string_view(text).substr(at, end - at);
    out.json["readings"].push_back(readingObject(own ? own->read(line) : devices::readScaleLine(line)));
    at = end + 1;
  }
  return out;
}

Result<Outcome> weigh(const exchange::ScriptInput& input) {
  if (!input.weights)
    return problemAt(ProblemCode::MissingKey, "weights_g", {"weigh needs the grams of each product"});
  if (!input.scale)
    return problemAt(ProblemCode::MissingKey, "scale", {"weigh needs the scale's readability_g"});
  const auto& request = input.given.request;
  const auto plan = weighPlan(request.shelf, weightsOf(input), {*input.scale}, {}, MixingInto::Vessel);
  std::vector<Mass> weighed(request.shelf.size());
  Outcome out;
  Json steps = Json::array(), errors = Json::object();
  for (const auto& step : plan) {
    const auto& id = request.shelf[step.product].id;
    weighed[step.product] = step.shown;
    steps.push_back({{"product", id}, {"g", step.shown.grams()}, {"loads", step.loads}});
    errors[id] = step.errorPercent;
  }
  const auto feed = mix(request.water, request.shelf, weighed, request.volume);
  out.json = {{"steps", steps},
              {"elements_mg_per_l", nutrientObject(feed.milligramsPerLitre)},
              {"error_percent", errors},
              {"warnings", inputWarnings(input)}};
  return out;
}

} // namespace butte::cli
