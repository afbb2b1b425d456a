// Readings that came in together: one thing to take back.
#include "kinds/kind_info.h"

namespace butte::book {

namespace {

Trouble checkImport(const Json& body) {
  Trouble problem;
  exchange::ObjectReader reader(body, "", problem);
  reader.text("name");
  reader.number("rows");
  // Of a logger's day: which it was, and what became of all that it said.
  for (const auto* key : {"stream", "day", "unread_sample"})
    reader.text(key);
  for (const auto* key : {"heard", "wild", "unread"})
    reader.number(key);
  if (const auto* until = reader.object("until"))
    for (const auto& [key, at] : until->items())
      if (!at.is_string() || !Moment::fromIso(at.get<std::string>()))
        reader.fail(core::ProblemCode::WrongType, "until",
                    {"a date and time by each name", exchange::typeName(at)});
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
