#include "page/agreed_label.h"

#include "text/trimmed.h"

#include <algorithm>
#include <cmath>

namespace butte::reading {
namespace {

constexpr std::size_t votesWanted = 2;

bool isSamePercent(double a, double b) {
  return std::abs(a - b) <= 1e-9 * std::max(std::abs(a), std::abs(b));
}

/// Digits that a mark and a blank part, or a mark that parts cells, are most likely of one number, torn:
/// "0, 05", "1;5". A point or a comma alone is a number's own.
bool isTornLine(const std::string& text) {
  const auto isDigit = [](char c) { return c >= '0' && c <= '9'; };
  for (std::size_t i = 0; i + 2 < text.size(); ++i) {
    if (!isDigit(text[i])) continue;
    const bool cells = (text[i + 1] == ';' || text[i + 1] == ':') && isDigit(text[i + 2]);
    const bool cut = (text[i + 1] == '.' || text[i + 1] == ',') && text[i + 2] == ' ' &&
                     i + 3 < text.size() && isDigit(text[i + 3]);
    if (cells || cut) return true;
  }
  return false;
}

/// Without the figures whose lines are torn: such a reading is no witness for them.
void dropTorn(LabelText& label) {
  for (const auto& line : label.read) {
    if (line.key.empty() || !isTornLine(line.text)) continue;
    std::erase_if(label.rows, [&](const auto& row) { return row.first == line.key; });
  }
}

int lineOfKey(const LabelText& label, const std::string& key) {
  const auto it =
      std::find_if(label.read.begin(), label.read.end(), [&](const LabelLine& l) { return l.key == key; });
  return it == label.read.end() ? 0 : it->line;
}

/// What the readings have a density as.
std::optional<double> agreedDensity(const std::vector<LabelText>& all) {
  std::optional<double> out;
  std::size_t votes = 0;
  for (const auto& one : all) {
    if (!one.densityKgPerL) continue;
    if (out && !isSamePercent(*out, *one.densityKgPerL)) return std::nullopt;
    out = one.densityKgPerL;
    ++votes;
  }
  return votes >= votesWanted ? out : std::nullopt;
}

bool hasLineThere(const LaidOut& reading, const LineStrip& strip) {
  return std::any_of(reading.strips.begin(), reading.strips.end(), [&](const LineStrip& other) {
    const double shared = std::min(strip.bottom, other.bottom) - std::max(strip.top, other.top);
    const double lower = std::min(strip.bottom - strip.top, other.bottom - other.top);
    return other.page == strip.page && lower > 0 && shared >= 0.5 * lower;
  });
}

/// Lines of figures of which nothing was taken, and that readings before this one did not see at all.
void addUnseen(LabelText& label, std::span<const LaidOut> readings, std::size_t of, const LabelText& read) {
  const auto& laid = readings[of];
  std::size_t from = 0;
  for (const auto& strip : laid.strips) {
    const auto end = std::min(laid.text.find('\n', from), laid.text.size());
    const auto text = trimmed(laid.text.substr(from, end - from));
    from = std::min(end + 1, laid.text.size());
    const bool unplaced = std::find(read.unplaced.begin(), read.unplaced.end(), text) != read.unplaced.end();
    const bool seen = std::any_of(readings.begin(), readings.begin() + static_cast<std::ptrdiff_t>(of),
                                  [&](const LaidOut& before) { return hasLineThere(before, strip); });
    if (unplaced && !seen) label.unplaced.push_back(text);
  }
}

} // namespace

AgreedLabel agreedLabel(std::span<const LaidOut> readings) {
  std::vector<LabelText> all;
  std::vector<std::string> keys;
  for (const auto& one : readings) {
    all.push_back(readLabelText(one.text));
    for (const auto& [key, percent] : all.back().rows) { // torn ones too: they are to be asked about
      if (std::find(keys.begin(), keys.end(), key) == keys.end()) keys.push_back(key);
    }
  }
  for (auto& one : all)
    dropTorn(one);
  AgreedLabel out;
  if (all.empty()) return out;
  out.label = all.front();
  out.label.rows.clear();
  out.label.densityKgPerL = agreedDensity(all);
  for (std::size_t i = 1; i < all.size(); ++i)
    addUnseen(out.label, readings, i, all[i]);
  for (const auto& key : keys) {
    std::vector<double> found;
    std::size_t votes = 0;
    for (const auto& one : all) {
      const auto row =
          std::find_if(one.rows.begin(), one.rows.end(), [&](const auto& r) { return r.first == key; });
      if (row == one.rows.end()) continue;
      ++votes;
      const bool there =
          std::any_of(found.begin(), found.end(), [&](double f) { return isSamePercent(f, row->second); });
      if (!there) found.push_back(row->second);
    }
    if (found.size() == 1 && votes >= votesWanted)
      out.label.rows.emplace_back(key, found.front());
    else
      out.blurred.push_back({key, std::move(found), lineOfKey(all.front(), key)});
  }
  return out;
}

} // namespace butte::reading
