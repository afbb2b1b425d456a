#include "tables/import_work.h"

#include "tables/readings_in.h"
#include "tables/table_import.h"

namespace butte::book {

ImportWork::ImportWork(Book& book, reading::PlainTable table, const reading::TableMapping& mapping,
                       std::string fileName)
    : m_book(book), m_fileName(std::move(fileName)),
      m_import(std::make_unique<TableImport>(book.store(), std::move(table), kindOf(mapping.table),
                                             mapping.mark == reading::DecimalMark::Comma)) {}

ImportWork::~ImportWork() = default;

Trouble ImportWork::go(std::size_t rows) {
  if (m_at == At::Looking) return look(rows);
  if (m_at == At::Done) return std::nullopt;
  if (!m_readings) {
    m_at = At::Done;
    return import(m_book, m_plan, m_fileName);
  }
  auto trouble = m_readings->write(rows);
  if (m_readings->isDone()) m_at = At::Done;
  return trouble;
}

Trouble ImportWork::look(std::size_t rows) {
  if (auto trouble = m_import->look(rows)) return trouble;
  if (!m_import->hasSeenAll()) return std::nullopt;
  m_plan = m_import->takePlan();
  if (!m_plan.readings.empty()) m_readings = std::make_unique<ReadingsIn>(m_book, m_plan, m_fileName);
  m_at = m_plan.taken > 0 ? At::Writing : At::Done;
  return std::nullopt;
}

int ImportWork::percent() const {
  const auto part = [](std::size_t done, std::size_t all) {
    return all == 0 ? 100 : static_cast<int>(100 * done / all);
  };
  if (m_at == At::Looking) return part(m_import->seen(), m_import->rowCount());
  return m_readings && m_at == At::Writing ? part(m_readings->written(), m_plan.readings.size()) : 100;
}

} // namespace butte::book
