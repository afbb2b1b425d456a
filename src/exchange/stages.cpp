#include "stages.h"

#include "json_reader.h"

namespace butte::exchange {
namespace {

/// What a stage has of its own beside its weights.
constexpr const char* ownPlaces[] = {"target", "aim"};

/// Its weights: what is held, and which products it does without.
Json weightsOf(const Json& document) {
  Json out = Json::array();
  for (const auto& product : document.value("shelf", Json::array())) {
    Json weight{{"product", product.value("id", std::string())}, {"on", product.value("on", true)}};
    if (product.contains("held") && !product["held"].is_null()) weight["held"] = product["held"];
    out.push_back(std::move(weight));
  }
  return out;
}

/// Products that came onto the shelf since stand there free, as they came.
void putWeights(Json& document, const Json& weights) {
  for (auto& product : document["shelf"]) {
    product.erase("held");
    for (const auto& weight : weights) {
      if (weight.value("product", std::string()) != product.value("id", std::string())) continue;
      product["on"] = weight.value("on", true);
      if (weight.contains("held")) product["held"] = weight["held"];
    }
  }
}

Json setDown(const Json& document, const std::string& name) {
  Json out{{"name", name}, {"weights", weightsOf(document)}};
  for (const auto* place : ownPlaces) {
    if (document.contains(place)) out[place] = document[place];
  }
  return out;
}

} // namespace

std::vector<std::string> stageNames(const Json& document) {
  std::vector<std::string> out;
  for (const auto& stage : document.value("stages", Json::array()))
    out.push_back(stage.value("name", std::string()));
  return out;
}

std::size_t stageInHand(const Json& document) {
  const auto names = stageNames(document);
  const auto inHand = document.value("stage", std::string());
  for (std::size_t i = 0; i < names.size(); ++i) {
    if (names[i] == inHand) return i;
  }
  return 0;
}

Json withStageInHand(const Json& document, std::size_t stage) {
  const auto now = stageInHand(document);
  if (stage == now) return document;
  Json out = document;
  auto& stages = out["stages"];
  const Json taken = stages[stage];
  stages[now] = setDown(document, stages[now]["name"]);
  stages[stage] = {{"name", taken["name"]}};
  out["stage"] = taken["name"];
  for (const auto* place : ownPlaces) {
    if (taken.contains(place))
      out[place] = taken[place];
    else
      out.erase(place);
  }
  putWeights(out, taken.value("weights", Json::array()));
  return out;
}

Json withNewStage(const Json& document, const std::string& first, const std::string& name) {
  Json out = document;
  auto& stages = out["stages"];
  if (!stages.is_array() || stages.empty()) {
    stages = Json::array();
    stages.push_back({{"name", first}});
    out["stage"] = first;
  }
  const auto now = stageInHand(out);
  stages[now] = setDown(document, stages[now]["name"]);
  stages.push_back({{"name", name}});
  out["stage"] = name;
  return out;
}

Json withoutStage(const Json& document, std::size_t stage) {
  Json out = document;
  out["stages"].erase(stage);
  if (out["stages"].size() < 2) {
    out.erase("stages");
    out.erase("stage");
  }
  return out;
}

Json withStageRenamed(const Json& document, std::size_t stage, const std::string& name) {
  Json out = document;
  if (stageInHand(document) == stage) out["stage"] = name;
  out["stages"][stage]["name"] = name;
  return out;
}

} // namespace butte::exchange
