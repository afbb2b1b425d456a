#include "tables/readings_in.h"

#include "kinds/kind_info.h"

#include <algorithm>

namespace butte::book {

ReadingsIn::ReadingsIn(Book& book, const ImportPlan& plan, std::string fileName)
    : m_book(book), m_plan(plan), m_fileName(std::move(fileName)), m_import(freshRef(Kind::ReadingImport)),
      m_binnedAt(Moment::now()) {}

Trouble ReadingsIn::write(std::size_t most) {
  if (auto refused = m_book.refusal()) return refused;
  auto& store = m_book.store();
  if (auto trouble = store.begin()) return trouble;
  auto trouble = m_written == 0 ? writeVessels(store) : Trouble();
  if (!trouble) trouble = writeSome(store, most);
  if (!trouble) trouble = store.commit();
  if (trouble) {
    store.rollback();
    return trouble;
  }
  m_written = std::min(m_plan.readings.size(), m_written + most);
  return m_written == m_plan.readings.size() ? finish() : std::nullopt;
}

Trouble ReadingsIn::writeVessels(Store& store) {
  for (const auto& change : m_plan.changes) {
    if (auto trouble = store.write({change.ref, change.after["body"], m_binnedAt}, m_binnedAt))
      return trouble;
  }
  return std::nullopt;
}

/// The import says at any time how many of its readings are there.
Trouble ReadingsIn::writeSome(Store& store, std::size_t most) {
  const auto end = std::min(m_plan.readings.size(), m_written + most);
  std::vector<Reading> some(m_plan.readings.begin() + static_cast<std::ptrdiff_t>(m_written),
                            m_plan.readings.begin() + static_cast<std::ptrdiff_t>(end));
  for (auto& reading : some)
    reading.importUid = m_import.uid;
  const Json body{{"name", m_fileName}, {"rows", end}};
  if (auto trouble = store.write({m_import, body, m_binnedAt}, m_binnedAt)) return trouble;
  return store.addReadings(some);
}

Trouble ReadingsIn::finish() {
  std::vector<RecordChange> outOfBin{{m_import, "/binned_at", Json(m_binnedAt.seconds), Json()}};
  for (const auto& change : m_plan.changes)
    outOfBin.push_back({change.ref, "/binned_at", Json(m_binnedAt.seconds), Json()});
  const core::Deed deed{core::DeedCode::RowsBroughtIn, {std::to_string(m_plan.taken), m_fileName}};
  auto trouble = m_book.apply({0, {}, {}, deed, {}, std::move(outOfBin)});
  m_done = !trouble;
  return trouble;
}

} // namespace butte::book
