#pragma once
#include "book/agenda_book.h"
#include "book/chore_record.h"

#include <QString>
#include <string>

namespace butte::app {

class BookDesk;

/// Chores in the book: made, done, left out, moved; calendars of others.
class ChoreEdits {
public:
  explicit ChoreEdits(BookDesk& desk) : m_desk(desk) {}

  core::Result<std::string> keep(const book::Chore& chore);
  book::Trouble strike(const std::string& uid, const QString& name);
  /// One occurrence is done, left out, or moved to another day.
  book::Trouble tell(const book::AgendaItem& item, core::Day due, core::ChoreDid did, const QString& name,
                     core::Day to = {});
  /// Every chore as a calendar file; `names` are what each item is called, parallel to them.
  std::string calendar(const book::AgendaBook& agenda, const std::vector<QString>& names) const;
  /// Entries of a calendar become chores; those that came before are left as they are. Gives how many came,
  /// and how many were passed over.
  struct BroughtIn {
    int came = 0, passedOver = 0;
  };
  core::Result<BroughtIn> bringIn(const std::string& ics);

private:
  BookDesk& m_desk;
};

} // namespace butte::app
