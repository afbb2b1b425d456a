#include "edits/stage_edits.h"

#include "document/formula_editor.h"
#include "edit.h"
#include "formula_json.h"
#include "stages.h"

#include <algorithm>

namespace butte::app {

using exchange::Json;

std::vector<std::string> StageEdits::names() const {
  return exchange::stageNames(json());
}

std::size_t StageEdits::inHand() const {
  return exchange::stageInHand(json());
}

void StageEdits::apply(const Deed& deed, const Json& next) {
  std::vector<exchange::Change> changes;
  for (const auto* place : {"stages", "stage", "target", "aim", "shelf"}) {
    const auto before = json().value(place, Json()), after = next.value(place, Json());
    if (before != after) changes.push_back({std::string("/") + place, before, after});
  }
  m_editor.apply({deed, changes, {}});
}

void StageEdits::takeInHand(std::size_t stage) {
  const auto all = names();
  if (stage >= all.size() || stage == inHand()) return;
  apply({DeedCode::StageInHand, {all[stage]}}, exchange::withStageInHand(json(), stage));
}

bool StageEdits::add(const std::string& first, const std::string& name) {
  const auto all = names();
  const bool taken = std::find(all.begin(), all.end(), name) != all.end();
  if (name.empty() || taken || all.size() >= exchange::mostStages) return false;
  if (all.empty() && (first.empty() || first == name)) return false;
  apply({DeedCode::StageAdded, {name}}, exchange::withNewStage(json(), first, name));
  return true;
}

bool StageEdits::rename(std::size_t stage, const std::string& name) {
  const auto all = names();
  if (name.empty() || stage >= all.size() || std::find(all.begin(), all.end(), name) != all.end())
    return false;
  apply({DeedCode::StageNamed, {name}}, exchange::withStageRenamed(json(), stage, name));
  return true;
}

void StageEdits::remove(std::size_t stage) {
  const auto all = names();
  if (stage >= all.size() || stage == inHand()) return;
  apply({DeedCode::StageRemoved, {all[stage]}}, exchange::withoutStage(json(), stage));
}

std::vector<StageWorked> StageEdits::workedOut() const {
  std::vector<StageWorked> out;
  const auto all = names();
  for (std::size_t i = 0; i < all.size(); ++i) {
    auto document = exchange::readFormulaDocument(exchange::withStageInHand(json(), i));
    if (!document) continue;
    auto answer = core::compute(document->given);
    if (answer)
      out.push_back({QString::fromStdString(all[i]), std::move(document).value(), std::move(answer).value()});
  }
  return out;
}

} // namespace butte::app
