#include "stream/growing_csv.h"

#include "base/csv.h"

#include <algorithm>
#include <array>
#include <cctype>

namespace butte::devices {

namespace {

/// The one that a line has most of; a comma where it has none of the others, since it may be a decimal mark.
char separatorOf(std::string_view line) {
  for (const char c : {';', '\t', '|'})
    if (line.find(c) != std::string_view::npos) return c;
  return ',';
}

/// "EC (mS/cm)", "EC [mS/cm]": the name and its unit.
void splitHead(std::string_view head, std::string& key, std::string& unit) {
  head = trimmed(head);
  key = head;
  for (const auto* marks : {"()", "[]"}) {
    const auto open = head.rfind(marks[0]);
    if (open == std::string_view::npos || open == 0 || head.back() != marks[1]) continue;
    key = trimmed(head.substr(0, open));
    unit = trimmed(head.substr(open + 1, head.size() - open - 2));
  }
}

bool speaksOfTime(std::string_view head) {
  std::string low(head);
  std::transform(low.begin(), low.end(), low.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  static constexpr std::array words{"time", "stamp", "unix", "epoch", "zeit", "fecha", "heure", "tijd"};
  return std::any_of(words.begin(), words.end(),
                     [&](const char* word) { return low.find(word) != std::string::npos; });
}

/// What stands in a cell where nothing was measured.
bool isBlank(std::string_view cell) {
  static constexpr std::array blanks{"", "-", "--", "---", "NaN", "nan", "NA", "N/A", "n/a", "null"};
  return std::find(blanks.begin(), blanks.end(), cell) != blanks.end();
}

} // namespace

void GrowingCsv::restart() {
  *this = GrowingCsv(m_order);
}

GrowingCsv::Taken GrowingCsv::take(std::string_view bytes) {
  Taken out;
  for (const char c : bytes) {
    if (c != '\n' && c != '\r') {
      if (m_open.size() < longestLine)
        m_open += c;
      else
        m_tooLong = true;
      continue;
    }
    if (m_tooLong)
      out.unread.push_back(m_open.substr(0, 80));
    else
      takeLine(m_open, out);
    m_open.clear();
    m_tooLong = false;
  }
  return out;
}

std::vector<std::string> GrowingCsv::cellsOf(std::string_view line) const {
  auto rows = core::parseCsv(line, m_separator);
  if (rows.size() != 1) return {};
  for (auto& cell : rows.front().cells)
    cell = trimmed(cell);
  return std::move(rows.front().cells);
}

bool GrowingCsv::hasFigures(const std::vector<std::string>& cells) const {
  return std::any_of(cells.begin(), cells.end(), [&](const std::string& cell) {
    return saidFigure(cell) || parseLoggedTime(cell, m_order).index() != 0 || parseLoggedDay(cell, m_order) ||
           parseTimeOfDay(cell);
  });
}

void GrowingCsv::takeHead(const std::vector<std::string>& cells) {
  m_columns.clear();
  m_timeKnown = false;
  const bool named = !hasFigures(cells);
  for (std::size_t i = 0; i < cells.size(); ++i) {
    Column column;
    if (named) splitHead(cells[i], column.key, column.unit);
    if (column.key.empty()) column.key = "#" + std::to_string(i + 1);
    m_columns.push_back(std::move(column));
  }
  m_unitsMayFollow = named;
}

/// By the first row with figures: a cell that is a whole time, else one that is a day beside a time of day.
void GrowingCsv::findTime(const std::vector<std::string>& cells) {
  m_time = m_timeOfDay = -1;
  m_timeKnown = true;
  for (std::size_t i = 0; i < cells.size() && m_time < 0; ++i)
    if (parseLoggedTime(cells[i], m_order, speaksOfTime(m_columns[i].key)).index() != 0)
      m_time = static_cast<int>(i);
  if (m_time >= 0) return;
  for (std::size_t i = 0; i < cells.size(); ++i) {
    if (m_time < 0 && parseLoggedDay(cells[i], m_order)) m_time = static_cast<int>(i);
    if (m_timeOfDay < 0 && parseTimeOfDay(cells[i])) m_timeOfDay = static_cast<int>(i);
  }
  if (m_time < 0 || m_timeOfDay < 0) m_time = m_timeOfDay = -1;
}

LoggedTime GrowingCsv::timeIn(const std::vector<std::string>& cells) const {
  if (m_time < 0) return {};
  const auto& cell = cells[static_cast<std::size_t>(m_time)];
  if (m_timeOfDay < 0)
    return parseLoggedTime(cell, m_order, speaksOfTime(m_columns[static_cast<std::size_t>(m_time)].key));
  auto day = parseLoggedDay(cell, m_order);
  const auto time = parseTimeOfDay(cells[static_cast<std::size_t>(m_timeOfDay)]);
  if (!day || !time) return {};
  day->hour = time->hour, day->minute = time->minute, day->second = time->second;
  return *day;
}

void GrowingCsv::takeLine(std::string_view line, Taken& out) {
  constexpr std::string_view byteOrderMark = "\xEF\xBB\xBF";
  if (line.substr(0, byteOrderMark.size()) == byteOrderMark) line.remove_prefix(byteOrderMark.size());
  if (trimmed(line).empty() || line.front() == '#') return;
  if (m_separator == '\0') m_separator = separatorOf(line);
  auto cells = cellsOf(line);
  const auto unread = [&] { out.unread.emplace_back(line.substr(0, 80)); };
  if (cells.empty() || cells.size() > mostColumns) return unread();
  if (m_columns.empty()) {
    takeHead(cells);
    if (m_unitsMayFollow) return;
  }
  while (cells.size() > m_columns.size() && cells.back().empty())
    cells.pop_back();
  const bool figures = hasFigures(cells);
  if (!figures && m_unitsMayFollow && cells.size() == m_columns.size()) {
    for (std::size_t i = 0; i < cells.size(); ++i)
      if (m_columns[i].unit.empty()) m_columns[i].unit = cells[i];
    m_unitsMayFollow = false;
    return;
  }
  m_unitsMayFollow = false;
  constexpr std::size_t leastOfHead = 2;
  if (!figures && cells.size() >= leastOfHead && std::none_of(cells.begin(), cells.end(), isBlank))
    return takeHead(cells);
  if (cells.size() != m_columns.size()) return unread();
  if (!m_timeKnown) findTime(cells);
  StreamRow row;
  row.at = timeIn(cells);
  if (m_time >= 0 && row.at.index() == 0) return unread();
  for (std::size_t i = 0; i < cells.size(); ++i)
    if (const int place = static_cast<int>(i); place != m_time && place != m_timeOfDay && !isBlank(cells[i]))
      row.samples.push_back({m_columns[i].key, cells[i], m_columns[i].unit});
  out.rows.push_back(std::move(row));
}

} // namespace butte::devices
