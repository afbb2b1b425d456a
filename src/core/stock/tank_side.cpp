#include "stock/tank_side.h"

namespace butte::core {
namespace {

struct Holds {
  bool calcium = false, sulfate = false, phosphate = false, silicate = false, acid = false, base = false;
  bool onlyTraces = true, onlyAcid = true;
};

Holds holdsOf(const std::vector<ShelfProduct>& shelf, const TankContent& content) {
  constexpr double meaningful = 0.002; // mass fraction: less is an impurity (common practice)
  Holds h;
  for (const auto& item : content.items) {
    const auto& c = shelf[item.product].composition;
    const auto& m = c.massFraction;
    const bool acid = c.role == ProductRole::Acid;
    double traces = 0;
    for (const auto n : allNutrients)
      traces += isTraceElement(n) ? m.of(n) : 0;
    const bool trace = traces > 0.02 && traces > m.of(Nutrient::N) + m.of(Nutrient::K);
    h.acid |= acid;
    h.base |= c.role == ProductRole::Base;
    h.silicate |= c.role == ProductRole::Silicate;
    h.onlyAcid &= acid;
    h.onlyTraces &= trace;
    if (trace || acid) continue; // a sulfate of zinc makes no sulfate side
    h.calcium |= m.of(Nutrient::Ca) > meaningful;
    h.sulfate |= m.of(Nutrient::S) > meaningful;
    h.phosphate |= m.of(Nutrient::P) > meaningful;
  }
  return h;
}

} // namespace

TankSide tankSide(const std::vector<ShelfProduct>& shelf, const TankContent& content) {
  if (content.items.empty()) return TankSide::Empty;
  const auto h = holdsOf(shelf, content);
  if (h.onlyAcid) return TankSide::Acid;
  if (h.silicate) return content.items.size() == 1 ? TankSide::Silicate : TankSide::SilicateAndMore;
  if (h.onlyTraces) return TankSide::Traces;
  if (h.calcium && (h.sulfate || h.phosphate)) return TankSide::AllInOne;
  if (h.calcium) return TankSide::Calcium;
  if (h.sulfate && h.phosphate) return TankSide::SulfateAndPhosphate;
  if (h.sulfate) return TankSide::Sulfate;
  if (h.phosphate) return TankSide::Phosphate;
  return h.base ? TankSide::Base : TankSide::Neutral;
}

KeepFrom keepFrom(TankSide side) {
  switch (side) {
  case TankSide::Calcium:
    return KeepFrom::SulfateOrPhosphate;
  case TankSide::SulfateAndPhosphate:
  case TankSide::Sulfate:
  case TankSide::Phosphate:
    return KeepFrom::Calcium;
  case TankSide::Empty:
    return KeepFrom::Nothing;
  default:
    return KeepFrom::AnyOther;
  }
}

} // namespace butte::core
