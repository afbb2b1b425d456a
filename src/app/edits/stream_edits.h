#pragma once
#include "book/stream.h"
#include "book/stream_day.h"

#include <QString>
#include <utility>
#include <vector>

namespace butte::app {

class BookDesk;

/// The loggers in the book: where each is, whose its figures are.
class StreamEdits {
public:
  explicit StreamEdits(BookDesk& desk) : m_desk(desk) {}

  /// By name.
  std::vector<std::pair<book::Ref, book::Stream>> all() const;
  core::Result<book::Ref> make(const book::Stream& stream);
  /// As a whole; one step of undo. What does not read is refused.
  book::Trouble set(const book::Ref& ref, const book::Stream& stream);
  book::Trouble strike(const book::Ref& ref, const std::string& name);
  /// Its days, newest first.
  std::vector<book::StreamDay> days(const std::string& uid) const;
  /// A day and its readings go into the bin.
  book::Trouble strikeDay(const book::StreamDay& day, const QString& words);

private:
  BookDesk& m_desk;
};

/// The unit that a logger most likely means ("µS", "°C", "l"); the quantity's own where it says none that is
/// known.
std::string unitMeant(const std::string& quantity, const std::string& said);
/// What a name most likely stands for: "ec", "ph", "level", "temperature"; empty where it does not say.
std::string quantityMeant(const std::string& key);

} // namespace butte::app
