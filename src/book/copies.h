#pragma once
#include "book.h"

#include <QObject>
#include <string>
#include <vector>

/// Copies of a whole book: made every day by themselves, thinned as they grow old, taken back with a look
/// first.
namespace butte::book {

struct CopyOfBook {
  std::string path;
  Moment at;
  std::int64_t bytes = 0;
  std::string why; ///< "daily", "by hand", "before going back"
};

/// The folder beside the book where its copies lie.
std::string copiesFolder(const std::string& bookPath);
/// The newest first.
std::vector<CopyOfBook> copiesOf(const std::string& bookPath);

/// Makes a copy now; its path, or what stood in the way.
core::Result<std::string> makeCopy(Book& book, const std::string& why);

/// Which daily copies may go: every one of the last 7 days stays, then the newest of each of the last 8
/// weeks, of each of the last 24 months, and of each year. Only daily copies are ever thinned.
std::vector<CopyOfBook> tooMany(const std::vector<CopyOfBook>& copies, Moment now);

/// Today's copy, if there is none yet, in a thread of its own; then thins. `owner` outlives nothing: the
/// thread is waited for when it goes.
void copyDailyBehind(Book& book, QObject* owner);
/// The same, here and now (for tests and the thread).
Trouble copyDaily(const std::string& bookPath, Moment now);

/// What would be different of one kind: the names of what was made since, stands otherwise then, comes back;
/// of readings how many there are.
struct GoingBack {
  Kind kind = Kind::Formula;
  std::vector<std::string> gone, otherwise, back;
  std::int64_t countNow = 0, countThen = 0;
};

/// What would be different after going back to a copy; kinds where nothing would be are left out.
core::Result<std::vector<GoingBack>> whatGoingBackChanges(Book& book, const std::string& copyPath);

/// Puts a copy in the book's place. The book must be closed; it is kept as a copy "before going back" first.
Trouble goBackTo(const std::string& bookPath, const std::string& copyPath);

} // namespace butte::book
