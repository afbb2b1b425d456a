#include "document/shelf_story.h"

#include "book/open_store.h"
#include "document/local_day.h"
#include "repeats.h"

#include <algorithm>

namespace butte::app {

const book::ProductOutlook* ShelfStory::of(const std::string& product) const {
  const auto found =
      std::find_if(products.begin(), products.end(), [&](const auto& one) { return one.id == product; });
  return found == products.end() ? nullptr : &*found;
}

std::vector<const std::pair<std::string, book::ShelfLine>*>
ShelfStory::linesOf(const std::string& lot) const {
  std::vector<const std::pair<std::string, book::ShelfLine>*> out;
  for (auto line = shelf.lines.rbegin(); line != shelf.lines.rend(); ++line)
    if (line->second.lotUid == lot) out.push_back(&*line);
  return out;
}

ShelfStory shelfStoryBeside(const std::string& path, int weeks) {
  ShelfStory out;
  out.now = book::Moment::now();
  auto store = book::openBeside(path);
  if (!store) {
    out.trouble = store.problem();
    return out;
  }
  auto shelf = book::shelfBook(**store);
  const auto plan = book::plannedFeed(**store);
  if (!shelf || !plan) {
    out.trouble = shelf ? plan.problem() : shelf.problem();
    return out;
  }
  out.shelf = std::move(shelf).value();
  out.account = out.shelf.account();
  out.currency = book::currencyOf(out.shelf);
  out.products = book::shelfOutlook(out.shelf, out.account, *plan, {out.now, weeks, out.currency});
  book::AgendaAsked asked;
  out.today = asked.today = localDay(out.now);
  asked.to = mondayOf(out.today) + std::chrono::days(agendaDays - 1);
  asked.dayOf = localDay;
  asked.repeats = ics::repeatDays;
  asked.shelf = &out.shelf;
  asked.account = &out.account;
  asked.products = &out.products;
  asked.plan = &*plan;
  auto agenda = book::agendaBook(**store, asked);
  if (!agenda)
    out.trouble = agenda.problem();
  else
    out.agenda = std::move(agenda).value();
  return out;
}

core::Day mondayOf(core::Day day) {
  const std::chrono::weekday weekday(day);
  return day - (weekday - std::chrono::Monday);
}

} // namespace butte::app
