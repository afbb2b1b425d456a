#pragma once
#include "run/run_plan.h"
#include "stock/stock.h"

#include <array>
#include <optional>
#include <string_view>
#include <vector>

namespace butte::core {

/// In which order salts go into a vessel. Schools differ (common practice); the chemistry demands only that
/// strong calcium and sulfate or phosphate do not meet.
enum class OrderSchool {
  Chemistry,      ///< mixingOrder(): blends and phosphates, big salts, traces, chelates; calcium last in feed
  CalciumFirst,   ///< calcium nitrate alone, before all others
  CalciumLast,    ///< calcium after all others
  MagnesiumFirst, ///< magnesium sulfate before all others
  MagnesiumLast,  ///< magnesium sulfate after all others
  TracesFirst,    ///< the smallest weights while the water is still clear enough to see them dissolve
  HeaviestFirst,  ///< the most of all first
  AcidFirst,      ///< acid before the salts, so that the carbonate is gone
};
inline constexpr std::array<OrderSchool, 8> allOrderSchools{
    OrderSchool::Chemistry,      OrderSchool::CalciumFirst,  OrderSchool::CalciumLast,
    OrderSchool::MagnesiumFirst, OrderSchool::MagnesiumLast, OrderSchool::TracesFirst,
    OrderSchool::HeaviestFirst,  OrderSchool::AcidFirst};

/// "chemistry", "calcium_first" ...: how the book names one.
std::string_view orderSchoolKey(OrderSchool school);
std::optional<OrderSchool> orderSchoolFromKey(std::string_view key);

/// A vessel's steps as a school would have them.
std::vector<RunStep> orderedBy(OrderSchool school, const RunPlan& plan, std::size_t vessel);

/// Why a product stands where it does in the order of chemistry.
enum class OrderReason {
  AcidLast,       ///< the meter then shows what is missing; acid into water
  PhosphateFirst, ///< phosphates and blends: they dissolve slowly and want the most water
  CalciumLeads,   ///< calcium nitrate leads its own tank: it dissolves at once, and cools the water
  CalciumLast,    ///< in thin feed it meets phosphate and sulfate only once they are spread
  BigSalt,
  Trace,       ///< small weights once the big ones are clear
  ChelateLast, ///< never into what is still sour or hot
};
OrderReason orderReasonOf(const RunPlan& plan, std::size_t vessel, std::size_t step);

/// What lies on the floor after one of a vessel's products went in, in the water that is there by then.
struct OrderFall {
  std::size_t step = 0; ///< of the order that is asked about
  std::vector<Fallen> fallen;
};

/// What an order costs: where something falls on the way. The vessel holds its first water until the last
/// product is in; then it is made up to its mark.
struct OrderCost {
  std::vector<OrderFall> onTheWay;
  std::vector<Fallen> atTheMark;
  bool known = true;
  bool isHarmless() const { return onTheWay.empty() && atTheMark.empty(); }
};
OrderCost costOfOrder(const RunPlan& plan, std::size_t vessel, const std::vector<RunStep>& order);

} // namespace butte::core
