#include "memory/row_answers.h"

#include "base/decimal.h"
#include "text/atoms.h"

#include <algorithm>
#include <array>
#include <set>

namespace butte::reading {
namespace {

struct WhyName {
  WhyUnplaced why;
  std::string_view key;
};
constexpr std::array<WhyName, 10> whyNames{{{WhyUnplaced::UnknownName, "unknown_name"},
                                            {WhyUnplaced::Formula, "formula"},
                                            {WhyUnplaced::NoFigure, "no_figure"},
                                            {WhyUnplaced::Twice, "twice"},
                                            {WhyUnplaced::BadUnit, "bad_unit"},
                                            {WhyUnplaced::UnclearName, "unclear_name"},
                                            {WhyUnplaced::UnclearNumber, "unclear_number"},
                                            {WhyUnplaced::WhichFigure, "which_figure"},
                                            {WhyUnplaced::NotNeeded, "not_needed"},
                                            {WhyUnplaced::Blurred, "blurred"}}};

/// Which line it is, and what it asks.
RowAnswer questionOf(const UnplacedRow& row) {
  return {folded(row.name), row.unit, row.why, row.couldBe.size(), {}, {}, false};
}

bool asksTheSame(const RowAnswer& one, const RowAnswer& other) {
  return one.name == other.name && one.unit == other.unit && one.why == other.why && one.of == other.of;
}

} // namespace

std::string_view whyKey(WhyUnplaced why) {
  return std::find_if(whyNames.begin(), whyNames.end(), [&](const auto& n) { return n.why == why; })->key;
}

std::optional<WhyUnplaced> whyFromKey(std::string_view key) {
  const auto* it =
      std::find_if(whyNames.begin(), whyNames.end(), [&](const auto& n) { return n.key == key; });
  return it == whyNames.end() ? std::nullopt : std::optional(it->why);
}

std::vector<std::string> layoutNames(const ReportText& read) {
  std::vector<std::pair<std::size_t, std::string>> found;
  for (const auto& row : read.read)
    found.emplace_back(row.place.from, folded(row.name));
  for (const auto& row : read.unplaced)
    found.emplace_back(row.place.from, folded(row.name));
  std::stable_sort(found.begin(), found.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  std::vector<std::string> out;
  std::set<std::string> seen;
  for (auto& [at, name] : found) {
    if (!name.empty() && seen.insert(name).second) out.push_back(std::move(name));
  }
  return out;
}

double likeness(const std::vector<std::string>& one, const std::vector<std::string>& other) {
  const std::set<std::string> a(one.begin(), one.end()), b(other.begin(), other.end());
  if (a.empty() || b.empty()) return 0;
  const auto shared = static_cast<double>(
      std::count_if(a.begin(), a.end(), [&](const auto& name) { return b.contains(name); }));
  return shared / (static_cast<double>(a.size() + b.size()) - shared);
}

std::optional<core::ReportRow> placedAs(const UnplacedRow& row, const std::string& key) {
  const bool below = row.value.starts_with('<');
  const auto value = core::parseDecimal(below ? row.value.substr(1) : row.value);
  if (!value) return std::nullopt;
  return core::ReportRow{key, *value, row.unit.empty() ? "mg/L" : row.unit, below};
}

std::vector<RowAnswer> answersToKeep(const ReportText& read, const RowsAnswered& answered) {
  std::vector<RowAnswer> out;
  for (std::size_t i = 0; i < read.unplaced.size() && i < answered.rows.size(); ++i) {
    if (!answered.said[i]) continue;
    const auto& row = read.unplaced[i];
    auto answer = questionOf(row);
    if (!answered.rows[i]) {
      answer.leftOut = true;
    } else {
      const auto it = std::find(row.couldBe.begin(), row.couldBe.end(), *answered.rows[i]);
      if (it == row.couldBe.end() && !row.couldBe.empty()) continue; // typed: it is of this paper alone
      if (it != row.couldBe.end()) answer.choice = static_cast<std::size_t>(it - row.couldBe.begin());
      answer.key = answered.rows[i]->key;
    }
    out.push_back(std::move(answer));
  }
  return out;
}

RowsAnswered recalled(const ReportText& read, std::vector<RowAnswer> kept) {
  RowsAnswered out{std::vector<std::optional<core::ReportRow>>(read.unplaced.size()),
                   std::vector<bool>(read.unplaced.size())};
  for (std::size_t i = 0; i < read.unplaced.size(); ++i) {
    const auto& row = read.unplaced[i];
    const auto question = questionOf(row);
    const auto it = std::find_if(kept.begin(), kept.end(),
                                 [&](const auto& answer) { return asksTheSame(answer, question); });
    if (it == kept.end()) continue;
    if (it->choice && *it->choice < row.couldBe.size())
      out.rows[i] = row.couldBe[*it->choice];
    else if (!it->choice && !it->key.empty())
      out.rows[i] = placedAs(row, it->key);
    out.said[i] = it->leftOut || out.rows[i].has_value();
    kept.erase(it); // lines of one name are answered in their order
  }
  return out;
}

} // namespace butte::reading
