#include "batch_plan.h"

#include "stock_words.h"

namespace butte::book {

Batch plannedBatch(const exchange::FormulaDocument& document, const core::Answer& answer) {
  Batch batch;
  batch.formulaName = document.name;
  batch.crop = document.crop;
  batch.waterName = document.waterName;
  const auto& request = document.given.request;
  batch.litres = answer.stock.feedMade ? answer.stock.feedMade->litres() : request.volume.litres();
  batch.ecPlanned = answer.feed.conductivity.milliSiemensPerCm();
  batch.phPlanned = answer.feed.ph;
  const auto line = [&](std::size_t product, double grams, const std::string& tank) {
    const auto& entry = request.shelf[product];
    batch.weights.push_back({entry.id, entry.name, tank, grams, std::nullopt, {}});
  };
  if (answer.direct) {
    for (const auto& step : *answer.direct ? (*answer.direct)->steps : std::vector<core::DirectStep>())
      line(step.product, step.mass.grams(), words::vesselTitle());
    return batch;
  }
  for (const auto& tank : answer.stock.tanks) {
    for (const auto& item : tank.items)
      line(item.product, item.mass.grams(),
           words::tankTitle(request.shelf, tank)); // a letter alone differs by school
  }
  // What goes into no tank is given to the feed; its share is that of the feed which the tanks make.
  for (const auto product : answer.stock.notPlaced)
    line(product, answer.solution.grams[product].grams() * batch.litres / request.volume.litres(), "");
  return batch;
}

} // namespace butte::book
