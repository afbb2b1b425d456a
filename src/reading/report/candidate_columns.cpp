#include "report/raw_row.h"

#include "water/report_row.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace butte::reading {
namespace {

using Rows = std::vector<RawRow*>;

/// 0.5, 1, 2, 5, 10, 25, 50, 250: as limits are.
bool isRound(double value) {
  if (value <= 0) return true;
  double digits = value / std::pow(10, std::floor(std::log10(value)));
  digits = std::round(digits * 1000) / 1000;
  return digits == std::round(digits) || digits == 2.5 || digits == 1.5 || digits == 7.5;
}

/// How much a column looks like results, from 0 to 2.
double resultLike(const Rows& rows, std::size_t column) {
  std::set<double> seen;
  double crooked = 0;
  for (const auto* row : rows) {
    const double value = row->candidates[column].figure.value;
    seen.insert(value);
    crooked += !isRound(value);
  }
  const auto count = static_cast<double>(rows.size());
  return crooked / count + static_cast<double>(seen.size()) / count;
}

/// By how much the column's ions miss a balance, as a share of their sum; nothing where too few are there.
std::optional<double> imbalance(const Rows& rows, std::size_t column) {
  double cations = 0, anions = 0;
  for (const auto* row : rows) {
    const auto& key = row->analyte->key;
    const bool cation = key == "Ca" || key == "Mg" || key == "Na" || key == "K";
    const bool anion = key == "Cl" || key == "SO4" || key == "S" || key == "NO3" || key == "N_NO3" ||
                       key == "HCO3" || key == "alkalinity_as_CaCO3";
    if (!cation && !anion) continue;
    const auto milligrams = core::milligramsPerLitre(
        {key, row->candidates[column].figure.value, row->unit.empty() ? "mg/L" : row->unit});
    const auto perMillimole = core::milligramsPerMillimole(key);
    if (!milligrams || !perMillimole) continue;
    (cation ? cations : anions) += *milligrams / *perMillimole * core::reportCharge(key);
  }
  if (cations <= 0 || anions <= 0) return std::nullopt;
  return std::abs(cations - anions) / (cations + anions);
}

/// The column that is plainly the result; nothing where two could be.
std::optional<std::size_t> resultColumn(const Rows& rows, std::size_t columns) {
  constexpr std::size_t fewest = 4;
  if (rows.size() < fewest) return std::nullopt;
  std::vector<std::pair<double, std::size_t>> like;
  for (std::size_t c = 0; c < columns; ++c)
    like.emplace_back(resultLike(rows, c), c);
  std::sort(like.rbegin(), like.rend());
  if (like[0].first - like[1].first > 0.5) return like[0].second;
  std::optional<std::size_t> balanced;
  for (std::size_t c = 0; c < columns; ++c) {
    const auto misses = imbalance(rows, c);
    if (!misses || *misses > 0.05) continue;
    if (balanced) return std::nullopt;
    balanced = c;
  }
  return balanced;
}

void take(RawRow& row, std::size_t candidate) {
  const auto chosen = row.candidates[candidate];
  row.figure = chosen.figure;
  row.kind = chosen.kind;
  row.value = chosen.text;
  row.place = chosen.place;
  if (row.spot) row.spot = chosen.spot;
  row.candidates.clear();
}

/// What nearly all of some numbers are; nothing where they differ or are too few.
std::optional<int> mostly(const std::vector<int>& numbers) {
  std::map<int, std::size_t> counts;
  for (const int n : numbers)
    ++counts[n];
  for (const auto& [n, count] : counts) {
    if (numbers.size() >= 3 && count * 5 >= numbers.size() * 4) return n;
  }
  return std::nullopt;
}

/// Where nearly all of the plain rows have their figure.
struct UsualSpot {
  std::optional<int> cell, left, right;

  explicit UsualSpot(const std::vector<RawRow>& rows) {
    std::vector<int> cells, lefts, rights;
    for (const auto& row : rows) {
      if (!row.analyte || !row.candidates.empty() || !row.spot) continue;
      if (row.spot->cell) {
        cells.push_back(static_cast<int>(*row.spot->cell));
      } else {
        lefts.push_back(row.spot->left);
        rights.push_back(row.spot->right);
      }
    }
    cell = mostly(cells);
    left = mostly(lefts);
    right = mostly(rights);
  }

  bool is(const Spot& spot) const {
    if (spot.cell) return cell && static_cast<int>(*spot.cell) == *cell;
    return (right && spot.right == *right) || (left && spot.left == *left);
  }
};

/// A row that can be settled by itself or by where the others have theirs.
void settle(RawRow& row, const UsualSpot& usual) {
  std::vector<std::size_t> could;
  for (std::size_t i = 0; i < row.candidates.size(); ++i) {
    const auto& one = row.candidates[i];
    // A pH has no unit, and the dash in its place is no figure; nor is a method's number a pH.
    const bool sour = row.analyte->key != "pH" || (one.kind == Item::Kind::Figure && one.figure.value <= 14);
    if (sour) could.push_back(i);
  }
  if (could.size() == 1) return take(row, could.front());
  for (const auto i : could) {
    if (usual.is(row.candidates[i].spot)) return take(row, i);
  }
  // Not measured, and a limit behind it.
  if (!could.empty() && could.front() == 0 && row.candidates.front().kind == Item::Kind::NotMeasured)
    take(row, 0);
}

void settleAll(std::vector<RawRow>& rows) {
  const UsualSpot usual(rows);
  for (auto& row : rows) {
    if (!row.candidates.empty() && row.analyte && !row.severalSamples) settle(row, usual);
  }
}

} // namespace

void chooseAmongCandidates(std::vector<RawRow>& rows) {
  settleAll(rows);
  std::map<std::size_t, Rows> byCount;
  for (auto& row : rows) {
    if (row.candidates.size() > 1 && row.analyte && !row.severalSamples)
      byCount[row.candidates.size()].push_back(&row);
  }
  for (auto& [columns, some] : byCount) {
    const auto chosen = resultColumn(some, columns);
    if (!chosen) continue;
    for (auto* row : some)
      take(*row, *chosen);
  }
  settleAll(rows); // by where those have theirs that are plain by now
}

} // namespace butte::reading
