#include "page/agreed_report.h"

#include "base/decimal.h"
#include "base/encoding.h"
#include "page/page_places.h"
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
/// torn off: "0, 314", "8,6 7", "0;386". So are those of a figure that begins with a nought, "01", or that a
/// letter runs into.
bool isTorn(const std::string& text, const Place& place) {
  const auto isDigit = [](char c) { return c >= '0' && c <= '9'; };
  const auto isBetween = [](char c) { return std::string_view(" .,;:'").find(c) != std::string_view::npos; };
  constexpr std::size_t farthest = 2;
  // "S.6": a letter stands where a digit was.
  auto glued = place.from;
  while (glued > 0 && (text[glued - 1] == '.' || text[glued - 1] == ','))
    --glued;
  if (glued > 0 && std::isalpha(static_cast<unsigned char>(text[glued - 1]))) return true;
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
      m_places.emplace_back(one);
      m_readings.push_back(readReportText(text));
      auto& reading = m_readings.back();
      addWithoutUnit(reading);
      auto& torn = m_torn.emplace_back();
      for (const auto& row : reading.read)
        if (isTorn(text, row.place)) torn.push_back(row);
      // It is no witness for or against; where no other reading has it, it is asked about.
      std::erase_if(reading.read, [&](const ReadRow& row) { return isTorn(text, row.place); });
    }
  }

  ReportText find() {
    for (std::size_t i = 0; i < m_readings.size(); ++i) {
      for (const auto& row : m_readings[i].read)
        if (!isDone(row.row.key)) take(i, row);
    }
    for (std::size_t i = 0; i < m_readings.size(); ++i) {
      for (const auto& row : m_torn[i])
        list(i, {row.place, row.name, valueText(row.row), row.row.unit, WhyUnplaced::Blurred, {row.row}});
    }
    for (std::size_t i = 0; i < m_readings.size(); ++i) {
      for (const auto& row : m_readings[i].unplaced)
        list(i, row);
    }
    for (std::size_t i = 0; i < m_readings.size(); ++i)
      listBare(i);
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
    return std::any_of(m_taken.begin(), m_taken.end(), [&](const Taken& t) { return t.key == key; });
  }

  /// Readings vote on the figure; on its unit those vote that could read one. A unit that a reading could not
  /// make out says nothing, another unit says no.
  void take(std::size_t reading, const ReadRow& row) {
    std::vector<const ReadRow*> found;
    for (std::size_t i = 0; i < m_readings.size(); ++i) {
      const auto* same = rowOf(m_readings[i], row.row.key);
      if (!same) continue;
      found.push_back(same);
      m_taken.push_back({row.row.key, m_places[i].roomOf(same->place)});
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
    const auto place = placeInFirst(reading, row.place);
    if (stated != found.end() && differ.size() == 1 && votes >= agreeing)
      return put({place, row.name, best.row, true});
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

  Place placeInFirst(std::size_t reading, const Place& place) const {
    const auto room = reading == 0 ? std::nullopt : m_places[reading].roomOf(place);
    return room ? m_places.front().placeIn(*room) : place;
  }

  /// What one reading left open is settled, or asked about, by what all have there: the same ink, or the same
  /// thing in the same line. A second figure of one thing, elsewhere, is not.
  bool isCovered(const UnplacedRow& row, const std::optional<PageRoom>& room) const {
    const auto isOfKey = [&](const Taken& taken) {
      return !row.couldBe.empty() && std::all_of(row.couldBe.begin(), row.couldBe.end(),
                                                 [&](const auto& c) { return c.key == taken.key; });
    };
    return std::any_of(m_taken.begin(), m_taken.end(), [&](const Taken& taken) {
      if (!room || !taken.room) return isOfKey(taken);
      if (isSameRoom(*room, *taken.room)) return true;
      return row.why != WhyUnplaced::Twice && isOfKey(taken) && isSameHeight(*room, *taken.room);
    });
  }

  /// What a reading left open stands in the list once, with what any reading knows of it: a figure whose name
  /// only one of them has a line for is not lost.
  void list(std::size_t reading, UnplacedRow row) {
    const auto room = m_places[reading].roomOf(row.place);
    if (isCovered(row, room)) return;
    const auto listed = std::find_if(m_out.unplaced.begin(), m_out.unplaced.end(), [&](const auto& other) {
      const auto there = m_places.front().roomOf(other.place);
      return room && there ? isSameRoom(*room, *there)
                           : other.place.line == row.place.line && other.value == row.value;
    });
    row.place = placeInFirst(reading, row.place);
    if (listed == m_out.unplaced.end()) return m_out.unplaced.push_back(std::move(row));
    const bool knowsMore = listed->why == WhyUnplaced::UnknownName && row.why != WhyUnplaced::UnknownName;
    if (knowsMore) *listed = std::move(row);
  }

  static bool couldBe(const UnplacedRow& row, const std::string& key) {
    return std::any_of(row.couldBe.begin(), row.couldBe.end(), [&](const auto& c) { return c.key == key; });
  }

  /// A name with its unit whose figure no reading saw.
  void listBare(std::size_t reading) {
    for (const auto& bare : m_readings[reading].bare) {
      if (isDone(bare.key)) continue;
      const auto room = m_places[reading].roomOf(bare.place);
      const bool listed =
          std::any_of(m_out.unplaced.begin(), m_out.unplaced.end(), [&](const UnplacedRow& row) {
            const auto there = m_places.front().roomOf(row.place);
            const bool beside =
                room && there ? isSameHeight(*room, *there) : row.place.line == bare.place.line;
            return beside && (row.couldBe.empty() || couldBe(row, bare.key));
          });
      if (!listed)
        m_out.unplaced.push_back(
            {placeInFirst(reading, bare.place), bare.name, {}, bare.unit, WhyUnplaced::NoFigure, {}});
    }
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

  /// Where any reading has a figure for something that is settled or asked about.
  struct Taken {
    std::string key;
    std::optional<PageRoom> room;
  };

  std::vector<PagePlaces> m_places;
  std::vector<ReportText> m_readings;
  std::vector<std::vector<ReadRow>> m_torn; ///< of each reading
  std::vector<Taken> m_taken;
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
