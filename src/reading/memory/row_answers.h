#pragma once
#include "report/report_text.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace butte::reading {

/// What a person said of a line that a report left open, so that the next paper of the same layout need not
/// ask again: which line it was, by what stands in it, and what was said. Never a figure.
struct RowAnswer {
  std::string name, unit; ///< as the paper has them, folded
  WhyUnplaced why = WhyUnplaced::UnknownName;
  std::size_t of = 0;                ///< so many things it could have been
  std::optional<std::size_t> choice; ///< which of them, from 0
  std::string key; ///< what it was taken for; where nothing was offered, where a hand put it
  bool leftOut = false;
  bool operator==(const RowAnswer&) const = default;
};

/// "which_figure": as it stands in files.
std::string_view whyKey(WhyUnplaced why);
std::optional<WhyUnplaced> whyFromKey(std::string_view key);

/// The names that a paper's lines have, folded, each once, in order: what makes its layout.
std::vector<std::string> layoutNames(const ReportText& read);
/// How much two layouts have in common, 0 to 1: next year's sheet has a line more or less.
double likeness(const std::vector<std::string>& one, const std::vector<std::string>& other);
inline constexpr double sameLayout = 0.8; ///< chosen: 4 names in 5; a year's sheet has a few more or fewer

/// What a person has said of the unplaced rows so far: parallel to them.
struct RowsAnswered {
  std::vector<std::optional<core::ReportRow>> rows;
  std::vector<bool> said; ///< answered, also with "leave it out"
};

/// What of it is worth keeping.
std::vector<RowAnswer> answersToKeep(const ReportText& read, const RowsAnswered& answered);
/// The answers of before for a paper of the same layout. A line that asks something else than it did then,
/// or offers another number of things, stays open.
RowsAnswered recalled(const ReportText& read, std::vector<RowAnswer> kept);

/// The figure of a row as the paper has it, put where a hand says.
std::optional<core::ReportRow> placedAs(const UnplacedRow& row, const std::string& key);

} // namespace butte::reading
