#include "edits/run_plans.h"

#include "document/formula_editor.h"
#include "stock_words.h"
#include "wording/tr.h"

#include <algorithm>

namespace butte::app {

namespace {

/// What is in the vessel already is as much of the feed as its strength says; the plan is what is in it in
/// the end.
std::vector<core::RunVessel> directVessel(const core::DirectMix& mix) {
  core::RunVessel vessel{words::vesselTitle(), mix.vessel, 1, {}};
  const auto stays = mix.present - mix.drain;
  const double share = mix.presentStrength * (stays / mix.vessel);
  if (mix.steps.empty() || share >= 1) return {};
  if (stays > core::Volume{}) {
    vessel.had.volume = stays;
    for (const auto mass : mix.grams)
      vessel.had.grams.push_back(mass * (share / (1 - share)));
  }
  for (const auto& step : mix.steps)
    vessel.steps.push_back({step.product, step.mass * (1 / (1 - share)), {}});
  return {vessel};
}

/// Tanks in the order of the plan, each salt in the order of mixing.
std::vector<core::RunVessel> tanksOf(const std::vector<core::ShelfProduct>& shelf,
                                     const core::StockAnswer& stock) {
  std::vector<core::RunVessel> out;
  for (const auto& tank : stock.tanks) {
    std::vector<core::Mass> weights(shelf.size());
    for (const auto& item : tank.items)
      weights[item.product] = weights[item.product] + item.mass;
    auto name = words::tankTitle(shelf, tank);
    const auto same = std::count_if(out.begin(), out.end(), [&](const auto& v) { return v.name == name; });
    if (same > 0) name += " " + std::to_string(same + 1);
    auto vessel = core::runVessel(name, tank.tank.volume, tank.factor, shelf, weights);
    if (!vessel.steps.empty()) out.push_back(std::move(vessel));
  }
  return out;
}

std::vector<core::RunVessel> vesselsOf(const FormulaEditor& editor) {
  const auto& answer = editor.answer();
  const auto& shelf = editor.document().given.request.shelf;
  if (!answer.direct) return tanksOf(shelf, answer.stock);
  return *answer.direct ? directVessel(**answer.direct) : std::vector<core::RunVessel>();
}

} // namespace

core::RunPlan runPlanOf(const FormulaEditor& editor) {
  core::RunPlan plan{editor.document().given.request.shelf, editor.answer().waters.water, vesselsOf(editor)};
  core::fitScales(plan, editor.document().scales);
  return plan;
}

core::RunPlan bagsOf(const FormulaEditor& editor, std::size_t count) {
  const auto vessels = runPlanOf(editor);
  const bool one = vessels.vessels.size() == 1;
  return core::bagPlan(vessels, count, [&](std::size_t vessel, std::size_t product, std::size_t bag) {
    const auto name = QString::fromStdString(editor.nameOf(vessels.shelf[product].id));
    const auto text = one ? tr("%1, bag %2").arg(name).arg(bag + 1)
                          : tr("%1 for %2, bag %3")
                                .arg(name, QString::fromStdString(vessels.vessels[vessel].name))
                                .arg(bag + 1);
    return text.toStdString();
  });
}

core::RunPlan weightsFor(const FormulaEditor& editor, const std::string& vessel, core::Volume holds,
                         std::vector<core::Mass> grams) {
  const auto& shelf = editor.document().given.request.shelf;
  grams.resize(shelf.size());
  core::RunPlan plan{shelf, editor.answer().waters.water, {core::runVessel(vessel, holds, 1, shelf, grams)}};
  core::fitScales(plan, editor.document().scales);
  return core::bagPlan(plan, 1, [&](std::size_t, std::size_t product, std::size_t) {
    return tr("%1 for %2")
        .arg(QString::fromStdString(editor.nameOf(shelf[product].id)), QString::fromStdString(vessel))
        .toStdString();
  });
}

} // namespace butte::app
