#pragma once
#include "book/tables/tables.h"

#include <string>

namespace butte::book {

/// Many readings on their way into the book. They are one thing to take back: the import they came with,
/// which comes out of the bin at the end, with the vessels that they are the first to name. So they are
/// written in pieces, and none of them shows before all are there.
class ReadingsIn {
public:
  ReadingsIn(Book& book, const ImportPlan& plan, std::string fileName);

  /// Writes so many more, whole or not at all.
  Trouble write(std::size_t most);
  bool isDone() const { return m_done; }
  std::size_t written() const { return m_written; }

private:
  Trouble writeVessels(Store& store);
  Trouble writeSome(Store& store, std::size_t most);
  Trouble finish();

  Book& m_book;
  const ImportPlan& m_plan;
  std::string m_fileName;
  Ref m_import;
  Moment m_binnedAt;
  std::size_t m_written = 0;
  bool m_done = false;
};

} // namespace butte::book
