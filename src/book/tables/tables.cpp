#include "tables/tables.h"

#include "kinds/kind_info.h"
#include "tables/table_columns.h"
#include "tables/table_import.h"
#include "tables/table_writer.h"

#include <algorithm>

namespace butte::book {

using core::problemAt;
using core::ProblemCode;

std::string columnOf(const std::string& key, const std::string& unit) {
  auto out = key + " (" + unit + ")";
  std::transform(out.begin(), out.end(), out.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  return out;
}

std::string aboutTable(const ImportPlan& plan) {
  return words::tableText(infoOf(plan.kind).table->name, plan.delimiter, plan.decimalComma);
}

core::Result<ImportPlan> planImport(Store& store, const std::string& bytes) {
  auto table = readTable(bytes);
  if (!table) return table.problem();
  const auto first = table->header.front();
  std::string known;
  for (const auto kind : allKinds()) {
    const auto* how = infoOf(kind).table;
    if (!how) continue;
    if (how->firstColumn == first || (!how->firstColumnToo.empty() && how->firstColumnToo == first))
      return TableImport(store, std::move(table).value(), kind).plan();
    known += (known.empty() ? "" : ", ") + std::string(how->firstColumn);
  }
  return problemAt(ProblemCode::NotOneOf, "header", {first, known});
}

Trouble import(Book& book, const ImportPlan& plan, const std::string& fileName) {
  const core::Deed deed{core::DeedCode::RowsBroughtIn, {std::to_string(plan.taken), fileName}};
  if (plan.readings.empty())
    return plan.changes.empty() ? Trouble() : book.apply({0, {}, {}, deed, {}, plan.changes});
  if (auto refused = book.refusal()) return refused;
  // Many readings are one thing to take back: the import they came with, which comes out of the bin at the
  // end, with the vessels that they are the first to name.
  auto& store = book.store();
  const auto ref = freshRef(Kind::ReadingImport);
  const auto now = Moment::now();
  const Json body{{"name", fileName}, {"rows", plan.readings.size()}};
  auto readings = plan.readings;
  for (auto& reading : readings)
    reading.importUid = ref.uid;
  if (auto trouble = store.begin()) return trouble;
  auto trouble = store.write({ref, body, now}, now);
  std::vector<RecordChange> outOfBin{{ref, "/binned_at", Json(now.seconds), Json()}};
  for (const auto& change : plan.changes) {
    if (!trouble) trouble = store.write({change.ref, change.after["body"], now}, now);
    outOfBin.push_back({change.ref, "/binned_at", Json(now.seconds), Json()});
  }
  if (!trouble) trouble = store.addReadings(readings);
  if (!trouble) trouble = store.commit();
  if (trouble) {
    store.rollback();
    return trouble;
  }
  return book.apply({0, {}, {}, deed, {}, std::move(outOfBin)});
}

Trouble writeTable(Store& store, Kind kind, const std::string& path, bool decimalComma) {
  QSaveFile file(QString::fromStdString(path));
  const auto failed = [&] {
    return problemAt(ProblemCode::CantBeWritten, path, {file.errorString().toStdString()});
  };
  const auto* how = infoOf(kind).table;
  if (!how) return problemAt(ProblemCode::NotOneOf, "kind", {std::string(code(kind)), "a kind with a table"});
  if (!file.open(QIODevice::WriteOnly)) return failed();
  TableWriter out(file, decimalComma);
  if (auto trouble = how->write(store, out)) return trouble;
  if (file.error() != QFileDevice::NoError || !file.commit()) return failed();
  return std::nullopt;
}

} // namespace butte::book
