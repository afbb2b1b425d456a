#include "page/agreed_report.h"

#include "base/decimal.h"
#include "base/encoding.h"
#include "water/report_row.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <optional>

namespace butte::reading {
namespace {

using core::ReportRow;

/// Two readings of one row have the same figure: in whatever unit they have it.
bool isAlike(const ReportRow& a, const ReportRow& b) {
  const auto inOne = [](const ReportRow& row) {
    const auto milligrams = core::milligramsPerLitre(row);
    return milligrams ? *milligrams : row.value;
  };
  const double p = inOne(a), q = inOne(b);
  return a.below == b.below && std::abs(p - q) <= 1e-6 * std::max(std::abs(p), std::abs(q));
}

bool needsUnit(const ReportRow& row) {
  return row.key != "pH";
}

/// Digits that stand beside the figure with no more than a mark or a blank between are most likely its own,
/// torn off: "0, 314", "8,6 7", "0;386". So are those of a figure that begins with a nought: "01".
bool isTorn(const std::string& text, const Place& place) {
  const auto isDigit = [](char c) { return c >= '0' && c <= '9'; };
  const auto isBetween = [](char c) { return std::string_view(" .,;:'").find(c) != std::string_view::npos; };
  constexpr std::size_t farthest = 2;
  auto before = place.from;
  while (before > 0 && place.from - before < farthest && isBetween(text[before - 1]))
    --before;
  auto number = before;
  while (number > 0 && isDigit(text[number - 1]))
    --number;
  // "NO3 54.1": the digit is the name's.
  if (number < before && (number == 0 || !std::isalpha(static_cast<unsigned char>(text[number - 1]))))
    return true;
  auto behind = place.to;
  while (behind < text.size() && behind - place.to < farthest && isBetween(text[behind]))
    ++behind;
  if (behind < text.size() && behind > place.to && isDigit(text[behind])) return true;
  auto first = std::string_view(text).substr(place.from, place.to - place.from);
  while (!first.empty() && (first.front() == '<' || first.front() == ' '))
    first.remove_prefix(1);
  return first.size() > 1 && first[0] == '0' && isDigit(first[1]);
}

const ReadRow* rowOf(const ReportText& reading, const std::string& key) {
  const auto it = std::find_if(reading.read.begin(), reading.read.end(),
                               [&](const ReadRow& row) { return row.row.key == key; });
  return it == reading.read.end() ? nullptr : &*it;
}

constexpr std::size_t agreeing = 2;

class Agreement {
public:
  explicit Agreement(std::span<const LaidOut> readings) {
    for (const auto& one : readings) {
      const auto text = core::utf8From(one.text); // places are of what was read
      m_readings.push_back(readReportText(text));
      auto& reading = m_readings.back();
      addWithoutUnit(reading);
      for (const auto& row : reading.read)
        if (isTorn(text, row.place)) m_torn.push_back(row);
      // It is no witness for or against; where no other reading has it, it is asked about.
      std::erase_if(reading.read, [&](const ReadRow& row) { return isTorn(text, row.place); });
    }
  }

  ReportText find() {
    if (m_readings.empty()) return {};
    m_out.unplaced = m_readings.front().unplaced;
    for (std::size_t i = 0; i < m_readings.size(); ++i) {
      for (const auto& row : m_readings[i].read)
        if (!isDone(row.row.key)) take(i, row);
    }
    for (const auto& row : m_torn) {
      if (isDone(row.row.key)) continue;
      dropUnplaced(row.place);
      m_out.unplaced.push_back(
          {row.place, row.name, valueText(row.row), row.row.unit, WhyUnplaced::Blurred, {row.row}});
    }
    // What the first reading left open and all together have settled, or ask about, is said once.
    std::erase_if(m_out.unplaced, [&](const UnplacedRow& row) {
      return row.why != WhyUnplaced::Blurred && !row.couldBe.empty() &&
             std::all_of(row.couldBe.begin(), row.couldBe.end(), [&](const auto& c) {
               return std::find(m_done.begin(), m_done.end(), c.key) != m_done.end();
             });
    });
    std::stable_sort(m_out.unplaced.begin(), m_out.unplaced.end(),
                     [](const auto& a, const auto& b) { return a.place.from < b.place.from; });
    return std::move(m_out);
  }

private:
  /// A row whose unit is no unit was read all the same, but for that: its digits count.
  static void addWithoutUnit(ReportText& reading) {
    for (const auto& row : reading.unplaced) {
      if (row.why != WhyUnplaced::BadUnit || row.couldBe.empty()) continue;
      if (!rowOf(reading, row.couldBe.front().key))
        reading.read.push_back({row.place, row.name, row.couldBe.front(), false});
    }
  }

  bool isDone(const std::string& key) {
    if (std::find(m_done.begin(), m_done.end(), key) != m_done.end()) return true;
    m_done.push_back(key);
    return false;
  }

  /// Readings vote on the figure; on its unit those vote that could read one. A unit that a reading could not
  /// make out says nothing, another unit says no.
  void take(std::size_t reading, const ReadRow& row) {
    std::vector<const ReadRow*> found;
    for (const auto& other : m_readings) {
      if (const auto* same = rowOf(other, row.row.key)) found.push_back(same);
    }
    const auto stated = std::find_if(found.begin(), found.end(),
                                     [](const ReadRow* r) { return r->unitStated || !needsUnit(r->row); });
    const auto& best = stated == found.end() ? row : **stated;
    std::vector<ReportRow> differ{best.row};
    std::size_t votes = 0;
    for (const auto* one : found) {
      const bool alike = one->unitStated || !needsUnit(one->row) ? isAlike(one->row, best.row)
                                                                 : sameDigits(one->row, best.row);
      votes += alike;
      if (!alike) differ.push_back(one->row);
    }
    const auto place = reading == 0 ? row.place : placeIn(row);
    if (stated != found.end() && differ.size() == 1 && votes >= agreeing)
      return put({place, row.name, best.row, true});
    dropUnplaced(place);
    std::vector<ReportRow> couldBe;
    for (const auto& one : differ) {
      if (std::find(couldBe.begin(), couldBe.end(), one) == couldBe.end()) couldBe.push_back(one);
    }
    m_out.unplaced.push_back(
        {place, row.name, valueText(best.row), best.row.unit, WhyUnplaced::Blurred, std::move(couldBe)});
  }

  static bool sameDigits(const ReportRow& a, const ReportRow& b) {
    return a.below == b.below && std::abs(a.value - b.value) <= 1e-9 * std::max(a.value, b.value);
  }

  static std::string valueText(const ReportRow& row);

  /// A row that only another reading has: the line of the first whose number is the same.
  Place placeIn(const ReadRow& row) const {
    Place out{row.place.line, 0, 0};
    for (const auto& one : m_readings.front().read) {
      if (one.place.line <= row.place.line) out.from = out.to = one.place.to;
    }
    return out;
  }

  /// What the first reading could not place there is asked by this row.
  void dropUnplaced(const Place& place) {
    std::erase_if(m_out.unplaced,
                  [&](const auto& row) { return row.place.line == place.line && row.couldBe.empty(); });
  }

  void put(ReadRow row) {
    auto& report = m_out.report;
    if (row.row.key == "EC")
      report.conductivityMsPerCm = row.row.value;
    else if (row.row.key == "pH")
      report.ph = row.row.value;
    else if (row.row.key == "temperature")
      report.temperatureCelsius = row.row.value;
    else
      report.rows.push_back(row.row);
    m_out.read.push_back(std::move(row));
  }

  std::vector<ReportText> m_readings;
  std::vector<ReadRow> m_torn;
  std::vector<std::string> m_done;
  ReportText m_out;
};

std::string Agreement::valueText(const ReportRow& row) {
  auto digits = core::decimalText(row.value);
  return row.below ? "<" + digits : digits;
}

} // namespace

ReportText agreedReport(std::span<const LaidOut> readings) {
  return Agreement(readings).find();
}

} // namespace butte::reading
