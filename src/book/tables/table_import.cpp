#include "tables/table_import.h"

#include "base/decimal.h"
#include "kinds/kind_info.h"
#include "words.h"

#include <algorithm>

namespace butte::book {

using core::CsvRow;
using words::RowCode;

RowSaid faulty(const core::Problem& problem) {
  return no(RowCode::Faulty, {words::problemLine(problem)});
}

TableImport::TableImport(Store& store, reading::PlainTable table, Kind kind, bool decimalComma)
    : m_store(store), m_table(std::move(table)), m_decimalComma(decimalComma), m_how(*infoOf(kind).table),
      m_kind(kind) {
  m_plan.kind = kind;
}

std::string TableImport::cell(const CsvRow& row, std::string_view column) const {
  const auto it = std::find(m_table.header.begin(), m_table.header.end(), column);
  const auto at = static_cast<std::size_t>(it - m_table.header.begin());
  return it != m_table.header.end() && at < row.cells.size() ? row.cells[at] : std::string();
}

core::Result<ImportPlan> TableImport::plan() {
  if (auto trouble = look(m_table.rows.size())) return *trouble;
  return takePlan();
}

Trouble TableImport::look(std::size_t rows) {
  if (!m_begun) {
    if (auto trouble = readKnown()) return trouble;
  }
  m_begun = true;
  for (const auto end = std::min(m_table.rows.size(), m_seenRows + rows); m_seenRows < end; ++m_seenRows) {
    const auto& row = m_table.rows[m_seenRows];
    auto said = row.cells.size() > m_table.header.size() ? no(RowCode::TooManyCells) : m_how.take(*this, row);
    m_plan.taken += said.taken;
    m_plan.rows.push_back({row.line, said.taken, std::move(said.saying)});
  }
  return std::nullopt;
}

Trouble TableImport::readKnown() {
  if (infoOf(m_kind).home != Home::Things) return std::nullopt;
  return m_store.eachRecord(m_kind, [&](const Record& record, Moment) {
    if (!record.binnedAt) m_known[nameIn(m_kind, record.body)] = {record.ref, record.body, record.body};
    return true;
  });
}

std::optional<TableImport::Number> TableImport::number(const CsvRow& row, const std::string& column,
                                                       RowSaid& wrong, bool mayBeBelow) const {
  auto cell = this->cell(row, column);
  Number out;
  if (cell.empty()) return out;
  if (mayBeBelow && cell.front() == '<') {
    out.below = true;
    cell.erase(0, cell.find_first_not_of("< "));
  }
  if (cell.find(',') != std::string::npos || !core::parseDecimal(cell)) {
    wrong = no(RowCode::NotANumber, {cell, column, m_decimalComma ? "12,5" : "12.5"});
    return std::nullopt;
  }
  out.digits = cell;
  return out;
}

std::optional<Json> TableImport::known(const std::string& name) const {
  const auto it = m_known.find(name);
  return it == m_known.end() ? std::nullopt : std::optional(it->second.now);
}

RowSaid TableImport::put(const std::string& name, Json body, const RowSaid& changed) {
  if (const auto trouble = checkRecord(m_kind, body)) return faulty(*trouble);
  const auto it = m_known.find(name);
  if (it == m_known.end()) {
    m_known[name] = {freshRef(m_kind), std::nullopt, std::move(body)};
    return changed.saying.code == RowCode::Changed ? yes(RowCode::New, {name}) : changed;
  }
  if (it->second.now == body) return no(RowCode::JustSo, {name});
  it->second.now = std::move(body);
  return changed;
}

void TableImport::noteDates(const std::string& name) {
  const auto [dates, first] = m_dates.try_emplace(name);
  const auto known = m_known.find(name);
  if (!first || known == m_known.end()) return;
  for (const auto& report : known->second.now.value("reports", Json::array()))
    dates->second.insert(report.value("date", std::string()));
}

RowSaid TableImport::addReport(const std::string& name, Json report, const RowSaid& added,
                               const RowSaid& there) {
  noteDates(name);
  if (m_dates[name].contains(report.value("date", std::string()))) return there;
  const Json alone{{"name", name}, {"reports", Json::array({report})}};
  if (const auto trouble = checkRecord(m_kind, alone)) return faulty(*trouble);
  m_dates[name].insert(report.value("date", std::string()));
  if (const auto known = m_known.find(name); known != m_known.end())
    known->second.now["reports"].push_back(std::move(report));
  else
    m_known[name] = {freshRef(m_kind), std::nullopt, alone};
  return added;
}

ImportPlan TableImport::takePlan() {
  for (const auto& [name, known] : m_known) {
    if (!known.before)
      m_plan.changes.push_back({known.ref, "", Json(), Json{{"body", known.now}}});
    else if (*known.before != known.now)
      m_plan.changes.push_back({known.ref, "/body", *known.before, known.now});
  }
  return std::move(m_plan);
}

} // namespace butte::book
