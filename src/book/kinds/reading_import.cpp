// Readings that came in together: one thing to take back.
#include "kinds/kind_info.h"

namespace butte::book {

namespace {

Trouble checkImport(const Json& body) {
  Trouble problem;
  exchange::ObjectReader reader(body, "", problem);
  reader.text("name");
  reader.number("rows");
  reader.finish();
  return problem;
}

} // namespace

const KindInfo kinds::readingImport{.kind = Kind::ReadingImport,
                                    .code = "reading_import",
                                    .one = "import of readings",
                                    .many = "imports of readings",
                                    .check = checkImport,
                                    .isListed = false};

} // namespace butte::book
