#pragma once
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::core {

/// What differs between two states of a thing: name, key in files (for good), and what the values are. The
/// sentences stand in words/change_words.cpp. Figures are digits with a decimal point; a figure that was not
/// there is empty.
#define BUTTE_CHANGES(X)                                                                                     \
  X(Told, "told")                    /* a sentence kept by an older version: the sentence */                 \
  X(FirstVersion, "first_version")   /* there was none before */                                             \
  X(Renamed, "renamed")              /* name before, after */                                                \
  X(Text, "text")                    /* place, whose, text before, after */                                  \
  X(Figure, "figure")                /* place, whose, figure and unit before, figure and unit after */       \
  X(RowNew, "row_new")               /* table, whose, row, figure, unit */                                   \
  X(RowGone, "row_gone")             /* table, whose, row, figure and unit that it had */                    \
  X(RowChanged, "row_changed")       /* table, whose, row, figure and unit before, figure and unit after */  \
  X(ProductNew, "product_new")       /* name, grams, then pairs of element and mg/L more */                  \
  X(ProductWeight, "product_weight") /* name, grams before, after, then pairs as above */                    \
  X(ProductLeftOut, "product_left_out")   /* name, grams before, then pairs as above */                      \
  X(TankAdded, "tank_added")              /* name */                                                         \
  X(TankTakenAway, "tank_taken_away")     /* name */                                                         \
  X(SaltsMovedByHand, "salts_moved")      /* between tanks */                                                \
  X(Conductivity, "conductivity")         /* mS/cm before, after */                                          \
  X(ReportAdded, "report_added")          /* date */                                                         \
  X(ReportsTakenOut, "reports_taken_out") /* count */

enum class ChangeCode {
#define BUTTE_CHANGE_NAME(name, key) name,
  BUTTE_CHANGES(BUTTE_CHANGE_NAME)
#undef BUTTE_CHANGE_NAME
};
inline constexpr int changeCount = 0
#define BUTTE_CHANGE_ONE(name, key) +1
    BUTTE_CHANGES(BUTTE_CHANGE_ONE)
#undef BUTTE_CHANGE_ONE
    ;

std::string_view changeKey(ChangeCode code);

/// One difference, not yet in words: so that a trail reads in the language and with the decimal mark of
/// whoever looks at it.
struct Change {
  ChangeCode code = ChangeCode::Told;
  std::vector<std::string> values;
  bool operator==(const Change&) const = default;
};

/// Differences as they stand in a file: a JSON list each, a line each. A sentence of an older version stays
/// as it is.
std::string changeLines(const std::vector<Change>& changes);
std::vector<Change> changesFromLines(std::string_view lines);

} // namespace butte::core
