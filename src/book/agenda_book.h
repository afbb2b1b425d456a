#pragma once
#include "calendar/agenda.h"
#include "chore_record.h"
#include "shelf_outlook.h"
#include "store.h"

#include <functional>
#include <string>
#include <utility>
#include <vector>

namespace butte::book {

/// Why something is due. A person's own chore, or what the book finds by itself.
enum class Cause {
  Own,          ///< typed
  Mix,          ///< a tank's fill is used up: what, the formula
  CalibrateEc,  ///< of: the vessel
  CalibratePh,  ///< of: the vessel
  CheckScale,   ///< of: the scale
  AnalyseWater, ///< of: the water
  BestBefore,   ///< of: the product and the lot's mark
  Order         ///< of: the product
};

/// Something to do, and whose.
struct AgendaItem {
  core::Chore chore;
  Cause cause = Cause::Own;
  std::string name; ///< of an own chore, else of what it is about
  std::string uid;  ///< of the chore's own record, or of what it is about
  std::string note;
};

struct AgendaBook {
  std::vector<AgendaItem> items;
  std::vector<core::ChoreTold> told;
  std::vector<std::pair<std::string, ChoreLine>> lines; ///< by uid, in the order of time
  std::vector<core::Due> due;                           ///< up to the last day asked for
};

struct AgendaAsked {
  core::Day today, to;
  /// The farm's own day of a moment.
  std::function<core::Day(Moment)> dayOf;
  core::Repeats repeats;
  /// What the shelf asks for: bags past their date, orders. May be nothing.
  const ShelfBook* shelf = nullptr;
  const core::ShelfAccount* account = nullptr;
  const std::vector<ProductOutlook>* products = nullptr;
  const PlannedFeed* plan = nullptr; ///< when stocks are used up. May be nothing
};

/// Own chores, and what the book finds due: stocks to be mixed, pens and scales to be checked, water to be
/// analysed, bags to be used before their date, bags to be ordered.
core::Result<AgendaBook> agendaBook(Store& store, const AgendaAsked& asked);

/// Common practice: pens weekly, scales monthly, the water twice a year.
inline constexpr int calibrateAfterDays = 7, checkScaleAfterDays = 30, analyseAfterDays = 180;
/// Stocks that were used up so long ago are no longer mixed: the crop is over (our choice).
inline constexpr int forgottenAfterDays = 28;
/// Once it is ordered nobody is reminded for so long (our choice: a usual delivery).
inline constexpr int quietAfterOrderDays = 14;
/// A bag's date is told so long before it (our choice).
inline constexpr int bestBeforeWarnedDays = 30;

} // namespace butte::book
