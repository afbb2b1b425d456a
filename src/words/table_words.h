#pragma once
#include <string>
#include <vector>

namespace butte::words {

/// What became of a row of a table that was brought in: name, then what the values are.
#define BUTTE_ROW_SAYINGS(X)                                                                                 \
  X(New, "{}: new")                        /* name */                                                        \
  X(Changed, "{}: changed")                /* name */                                                        \
  X(ReportAdded, "{}: report of {} added") /* water, date */                                                 \
  X(BatchTaken, "batch {}")                /* batch */                                                       \
  X(BatchLineTaken, "batch {}: {}")        /* batch, product */                                              \
  X(ReadingTaken, "{} {} {}, {}")          /* vessel, quantity, as typed, time */                            \
  X(TooManyCells, "it has more cells than the header")                                                       \
  X(NoName, "it has no name")                                                                                \
  X(NoBatch, "it has no batch")                                                                              \
  X(NoVessel, "it has no vessel")                                                                            \
  X(NoElement, "it has no element")                                                                          \
  X(NoValue, "it has no value")                                                                              \
  X(NotANumber, "“{}” in “{}” is not a number such as {}")            /* cell, column, example */            \
  X(NotADate, "“{}” in “{}” is no date such as 2026-03-02")           /* cell, column */                     \
  X(NotATime, "“{}” in “{}” is no time such as 2026-03-02T07:15:00Z") /* cell, column */                     \
  X(NotAQuantity, "“{}” is no quantity; one of {}")                   /* cell, quantities */                 \
  X(JustSo, "{} is in the book just so already")                      /* name */                             \
  X(ReportThere, "{} has a report of {} already")                     /* water, date */                      \
  X(BatchThere, "batch {} is in the book already")                    /* batch */                            \
  X(TimeTwice, "the same time of {} stands above already")            /* vessel */                           \
  X(ReadingThere, "{} has this reading already")                      /* vessel */                           \
  X(Faulty, "{}")                                                     /* a problem, in words */

enum class RowCode {
#define BUTTE_ROW_NAME(name, english) name,
  BUTTE_ROW_SAYINGS(BUTTE_ROW_NAME)
#undef BUTTE_ROW_NAME
};
inline constexpr int rowCodeCount = 0
#define BUTTE_ROW_ONE(name, english) +1
    BUTTE_ROW_SAYINGS(BUTTE_ROW_ONE)
#undef BUTTE_ROW_ONE
    ;

/// Not yet in words.
struct RowSaying {
  RowCode code = RowCode::New;
  std::vector<std::string> values;
};

std::string rowText(const RowSaying& saying);

/// How a table is written, in words: "waters, cells parted by ';', decimal comma".
std::string tableText(const std::string& tableName, char delimiter, bool decimalComma);

} // namespace butte::words
