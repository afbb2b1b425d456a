#pragma once
#include <QKeySequence>
#include <QString>
#include <array>

namespace butte::app {

/// The stations of the line, in the order of the work.
enum class Station { Water, Target, Formula, Stocks, Bench, Tank, Shelf, Book };

/// What stands beside a station.
enum class StationSide { Shelf, Acid, Book, None };

struct StationInfo {
  Station station;
  const char* key;  ///< for the command line
  const char* name; ///< on its card; tr() it
  const char* menu; ///< with its mnemonic; tr() it
  StationSide side;
};

/// Everything else that is counted by stations (cards, menu, shortcuts, pages) follows from this list.
inline constexpr std::array stations{
    StationInfo{Station::Water, "water", QT_TRANSLATE_NOOP("butte", "Water"),
                QT_TRANSLATE_NOOP("butte", "&Water"), StationSide::Acid},
    StationInfo{Station::Target, "target", QT_TRANSLATE_NOOP("butte", "Target"),
                QT_TRANSLATE_NOOP("butte", "&Target"), StationSide::Shelf},
    StationInfo{Station::Formula, "formula", QT_TRANSLATE_NOOP("butte", "Formula"),
                QT_TRANSLATE_NOOP("butte", "&Formula"), StationSide::Shelf},
    StationInfo{Station::Stocks, "stocks", QT_TRANSLATE_NOOP("butte", "Stocks"),
                QT_TRANSLATE_NOOP("butte", "&Stocks"), StationSide::None},
    StationInfo{Station::Bench, "bench", QT_TRANSLATE_NOOP("butte", "Bench"),
                QT_TRANSLATE_NOOP("butte", "&Bench sheet"), StationSide::Shelf},
    StationInfo{Station::Tank, "tank", QT_TRANSLATE_NOOP("butte", "Tank"),
                QT_TRANSLATE_NOOP("butte", "Tan&k"), StationSide::None},
    StationInfo{Station::Shelf, "shelf", QT_TRANSLATE_NOOP("butte", "Shelf"),
                QT_TRANSLATE_NOOP("butte", "S&helf"), StationSide::None},
    StationInfo{Station::Book, "book", QT_TRANSLATE_NOOP("butte", "Book"),
                QT_TRANSLATE_NOOP("butte", "B&ook"), StationSide::Book}};
static_assert([] {
  for (std::size_t i = 0; i < stations.size(); ++i)
    if (static_cast<std::size_t>(stations[i].station) != i) return false;
  return true;
}());

inline const StationInfo& infoOf(Station station) {
  return stations[static_cast<std::size_t>(station)];
}

/// Ctrl+1 ...: its place on the line.
inline QKeySequence shortcutOf(Station station) {
  return QKeySequence(QString("Ctrl+%1").arg(static_cast<int>(station) + 1));
}

} // namespace butte::app
