#pragma once
#include "book/agenda_book.h"
#include "book/cost_report.h"
#include "book/record.h"
#include "book/shelf_outlook.h"

#include <memory>
#include <string>
#include <vector>

namespace butte::app {

/// What stands on the shelf and what follows from it: plain values that may go to another thread.
struct ShelfStory {
  book::ShelfBook shelf;
  core::ShelfAccount account;
  std::vector<book::ProductOutlook> products; ///< the first to run out in front
  book::AgendaBook agenda;                    ///< late, and of this week and those after it
  core::Day today;
  std::string currency; ///< that orders are compared in
  book::Moment now;
  book::Trouble trouble;

  const book::ProductOutlook* of(const std::string& product) const;
  /// The lines of a lot, the newest first.
  std::vector<const std::pair<std::string, book::ShelfLine>*> linesOf(const std::string& lot) const;
};

/// One for all that show it: years of uses are not copied for each of them.
using SharedShelfStory = std::shared_ptr<const ShelfStory>;

/// Reads it from a book that this program has open, by another of its threads; tenths of a second for years.
ShelfStory shelfStoryBeside(const std::string& path, int weeks);

/// So many days ahead the calendar is told, from the Monday of this week on.
inline constexpr int agendaDays = 28;
core::Day mondayOf(core::Day day);

} // namespace butte::app
