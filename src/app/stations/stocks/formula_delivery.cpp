#include "stations/stocks/formula_delivery.h"

#include "document/formula_editor.h"
#include "dose/reading_line.h"

namespace butte::app {

core::Delivery deliveryOf(const FormulaEditor& editor) {
  const auto& request = editor.document().given.request;
  auto grams = editor.answer().solution.grams;
  grams.resize(request.shelf.size()); // impossible: the water alone
  return {request.shelf, grams, request.volume, editor.answer().stock, editor.answer().water};
}

core::Conductivity expectedAt(const core::Delivery& delivery, const FormulaEditor& editor,
                              double mlPerLitre) {
  const double ofDue = mlPerLitre / editor.answer().stock.doseMlPerLitre;
  return delivery.conductivity(std::vector<double>(delivery.tankCount(), ofDue), ofDue);
}

std::optional<double> stockStrengthByReadings(const FormulaEditor& editor) {
  constexpr double least = 0.3, most = 2; // beyond that it is another stock, or a slip of the pen
  const auto delivery = deliveryOf(editor);
  const auto water = expectedAt(delivery, editor, 0);
  std::vector<core::DosedReading> against;
  for (const auto& r : editor.document().dosing.readings)
    against.push_back({(expectedAt(delivery, editor, r.x) - water).milliSiemensPerCm(), r.reading});
  const auto line = core::fitReadings(against);
  if (!line || line->slope < least || line->slope > most) return std::nullopt;
  return line->slope;
}

} // namespace butte::app
