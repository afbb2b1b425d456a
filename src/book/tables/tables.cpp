#include "tables/tables.h"

#include "kinds/kind_info.h"
#include "tables/readings_in.h"
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

namespace {

std::string firstColumns() {
  std::string out;
  for (const auto kind : allKinds()) {
    if (const auto* how = infoOf(kind).table)
      out += (out.empty() ? "" : ", ") + std::string(how->firstColumn);
  }
  return out;
}

} // namespace

Kind kindOf(reading::TableOf table) {
  using reading::TableOf;
  switch (table) {
  case TableOf::Products:
    return Kind::Product;
  case TableOf::Waters:
    return Kind::Water;
  case TableOf::Targets:
    return Kind::Target;
  case TableOf::Batches:
    return Kind::Batch;
  case TableOf::Readings:
    break;
  }
  return Kind::Reading;
}

std::string aboutTable(const reading::ForeignTable& table, const reading::TableMapping& mapping) {
  return words::tableText(infoOf(kindOf(mapping.table)).table->name, table.delimiter,
                          mapping.mark == reading::DecimalMark::Comma);
}

core::Result<ImportPlan> planImport(Store& store, const reading::ForeignTable& table,
                                    const reading::TableMapping& mapping) {
  const bool comma = mapping.mark == reading::DecimalMark::Comma;
  return TableImport(store, reading::plainTable(table, mapping), kindOf(mapping.table), comma).plan();
}

core::Result<ImportPlan> planImport(Store& store, const std::string& bytes) {
  auto table = reading::readForeignTable(bytes);
  if (!table) return table.problem();
  const auto mapping = reading::proposedMapping(*table);
  if (!reading::openQuestions(*table, mapping).empty())
    return problemAt(ProblemCode::NotOneOf, "header", {table->header.front(), firstColumns()});
  return planImport(store, *table, mapping);
}

Trouble import(Book& book, const ImportPlan& plan, const std::string& fileName) {
  const core::Deed deed{core::DeedCode::RowsBroughtIn, {std::to_string(plan.taken), fileName}};
  if (plan.readings.empty())
    return plan.changes.empty() ? Trouble() : book.apply({0, {}, {}, deed, {}, plan.changes});
  ReadingsIn readings(book, plan, fileName);
  while (!readings.isDone()) {
    if (auto trouble = readings.write(plan.readings.size())) return trouble;
  }
  return std::nullopt;
}

Trouble writeTable(Store& store, Kind kind, const std::string& path, bool decimalComma,
                   const words::Measures& measures) {
  QSaveFile file(QString::fromStdString(path));
  const auto failed = [&] {
    return problemAt(ProblemCode::CantBeWritten, path, {file.errorString().toStdString()});
  };
  const auto* how = infoOf(kind).table;
  if (!how) return problemAt(ProblemCode::NotOneOf, "kind", {std::string(code(kind)), "a kind with a table"});
  if (!file.open(QIODevice::WriteOnly)) return failed();
  TableWriter out(file, decimalComma, measures);
  if (auto trouble = how->write(store, out)) return trouble;
  if (file.error() != QFileDevice::NoError || !file.commit()) return failed();
  return std::nullopt;
}

} // namespace butte::book
