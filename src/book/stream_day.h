#pragma once
#include "book.h"
#include "reading.h"

#include <cstdint>
#include <map>
#include <string>
#include <vector>

namespace butte::book {

/// By the name of a figure: up to when its rows were read, seconds since 1970.
using ReadUntil = std::map<std::string, std::int64_t>;

/// What became of what a logger said, since it was last kept.
struct StreamTally {
  std::int64_t heard = 0;   ///< figures that are taken for something
  std::int64_t wild = 0;    ///< of these
  std::int64_t unread = 0;  ///< lines that are none, and figures that are none
  std::string unreadSample; ///< the first of them
  ReadUntil until;          ///< of figures that come with their own time

  bool isEmpty() const { return heard == 0 && unread == 0; }
  void add(const StreamTally& other);
};

/// Keeps what a logger said: its readings and, in a Kind::ReadingImport record for each logger and day, what
/// became of all of it. No step of undo each quarter of an hour: the day's record goes into the bin, and
/// with it the day's readings. A day that was put there stays there: what comes after begins another.
/// `readings` need no number and no import. Errors as Book::apply; nothing is kept then.
Trouble keepStreamed(Book& book, const Ref& stream, const std::string& name, std::vector<Reading> readings,
                     const StreamTally& tally);

/// The days of a logger that stand in the book, the newest first.
struct StreamDay {
  Ref ref;
  std::string streamUid, name, day; ///< "2026-12-01", UTC
  std::int64_t kept = 0;
  StreamTally tally;
};
core::Result<std::vector<StreamDay>> streamDays(Store& store);
/// Up to when each of its figures was ever read, on days in the bin too.
ReadUntil streamUntil(Store& store, const std::string& streamUid);

} // namespace butte::book
