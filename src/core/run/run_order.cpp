#include "run/run_order.h"

#include "run/settled_vessel.h"

#include <algorithm>

namespace butte::core {

namespace {

constexpr double brings = 0.002, muchMagnesium = 0.02, mostlyTrace = 0.05;

struct SchoolName {
  OrderSchool school;
  std::string_view key;
};
constexpr SchoolName schoolNames[] = {
    {OrderSchool::Chemistry, "chemistry"},          {OrderSchool::CalciumFirst, "calcium_first"},
    {OrderSchool::CalciumLast, "calcium_last"},     {OrderSchool::MagnesiumFirst, "magnesium_first"},
    {OrderSchool::MagnesiumLast, "magnesium_last"}, {OrderSchool::TracesFirst, "traces_first"},
    {OrderSchool::HeaviestFirst, "heaviest_first"}, {OrderSchool::AcidFirst, "acid_first"}};

double tracesOf(const ShelfProduct& product) {
  double out = 0;
  for (const auto n : allNutrients)
    out += isTraceElement(n) ? product.composition.massFraction.of(n) : 0;
  return out;
}

bool isCalcium(const ShelfProduct& p) {
  return p.composition.massFraction.of(Nutrient::Ca) > brings && !isAcidOrBase(p);
}
bool isMagnesiumSalt(const ShelfProduct& p) {
  return p.composition.formula && p.composition.massFraction.of(Nutrient::Mg) > muchMagnesium;
}
bool isTrace(const ShelfProduct& p) {
  return p.composition.role == ProductRole::Chelate || tracesOf(p) > mostlyTrace;
}

std::vector<RunStep> byChemistry(const RunPlan& plan, std::size_t vessel) {
  const auto& planned = plan.vessels[vessel];
  std::vector<Mass> weights(plan.shelf.size());
  for (const auto& step : planned.steps)
    weights[step.product] = step.planned;
  std::vector<RunStep> out;
  for (const auto product :
       mixingOrder(plan.shelf, weights, planned.factor > 1 ? MixingInto::Tank : MixingInto::Vessel))
    out.push_back(*std::find_if(planned.steps.begin(), planned.steps.end(),
                                [&](const RunStep& step) { return step.product == product; }));
  return out;
}

} // namespace

std::string_view orderSchoolKey(OrderSchool school) {
  return schoolNames[static_cast<std::size_t>(school)].key;
}

std::optional<OrderSchool> orderSchoolFromKey(std::string_view key) {
  for (const auto& one : schoolNames)
    if (one.key == key) return one.school;
  return std::nullopt;
}

std::vector<RunStep> orderedBy(OrderSchool school, const RunPlan& plan, std::size_t vessel) {
  auto out = byChemistry(plan, vessel);
  const auto first = [&](auto is) {
    std::stable_partition(out.begin(), out.end(),
                          [&](const RunStep& step) { return is(plan.shelf[step.product]); });
  };
  const auto last = [&](auto is) { first([&](const ShelfProduct& p) { return !is(p); }); };
  switch (school) {
  case OrderSchool::Chemistry:
    break;
  case OrderSchool::CalciumFirst:
    first(isCalcium);
    break;
  case OrderSchool::CalciumLast:
    last(isCalcium);
    break;
  case OrderSchool::MagnesiumFirst:
    first(isMagnesiumSalt);
    break;
  case OrderSchool::MagnesiumLast:
    last(isMagnesiumSalt);
    break;
  case OrderSchool::TracesFirst:
    first(isTrace);
    break;
  case OrderSchool::HeaviestFirst: // acids keep their place: a heavy one is no salt that wants the water
    std::stable_sort(out.begin(), out.end(), [&](const RunStep& a, const RunStep& b) {
      const bool left = isAcidOrBase(plan.shelf[a.product]), right = isAcidOrBase(plan.shelf[b.product]);
      return left != right ? right : !left && a.planned > b.planned;
    });
    break;
  case OrderSchool::AcidFirst:
    first(isAcidOrBase);
    break;
  }
  return out;
}

OrderReason orderReasonOf(const RunPlan& plan, std::size_t vessel, std::size_t step) {
  const auto& product = plan.shelf[plan.vessels[vessel].steps[step].product];
  if (isAcidOrBase(product)) return OrderReason::AcidLast;
  if (product.composition.role == ProductRole::Chelate) return OrderReason::ChelateLast;
  if (isTrace(product)) return OrderReason::Trace;
  if (product.composition.massFraction.of(Nutrient::P) > brings || !product.composition.formula)
    return OrderReason::PhosphateFirst;
  if (isCalcium(product))
    return plan.vessels[vessel].factor > 1 ? OrderReason::CalciumLeads : OrderReason::CalciumLast;
  return OrderReason::BigSalt;
}

OrderCost costOfOrder(const RunPlan& plan, std::size_t vessel, const std::vector<RunStep>& order) {
  OrderCost out;
  std::vector<Mass> content(plan.shelf.size());
  const auto fallenIn = [&](Volume volume) {
    const auto tank = settledVessel(plan, vessel, content, volume);
    out.known = out.known && std::none_of(tank.notices.begin(), tank.notices.end(), [](const auto& notice) {
                  return notice.kind == StockWarning::PartlyUnknown;
                });
    return tank.tanks.front().fallen;
  };
  for (std::size_t s = 0; s < order.size(); ++s) {
    content[order[s].product] = content[order[s].product] + order[s].planned;
    auto fallen = fallenIn(waterFirst(plan.vessels[vessel]));
    if (!fallen.empty()) out.onTheWay.push_back({s, std::move(fallen)});
  }
  out.atTheMark = fallenIn(plan.vessels[vessel].volume);
  return out;
}

} // namespace butte::core
