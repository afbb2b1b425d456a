#include "paper_layouts.h"

#include "kinds/kind_info.h"

#include <algorithm>
#include <array>
#include <functional>

namespace butte::book {

using core::ProblemCode;
using exchange::ObjectReader;
using reading::DateOrder;
using reading::DecimalMark;
using reading::RowAnswer;
using reading::TableMapping;
using reading::TableOf;

namespace {

template <class T> struct Named {
  T value;
  std::string_view key;
};
constexpr std::array<Named<TableOf>, reading::tableOfCount> tables{{{TableOf::Products, "products"},
                                                                    {TableOf::Waters, "waters"},
                                                                    {TableOf::Targets, "targets"},
                                                                    {TableOf::Batches, "batches"},
                                                                    {TableOf::Readings, "readings"}}};
constexpr std::array<Named<DateOrder>, 3> orders{{{DateOrder::Unknown, "unknown"},
                                                  {DateOrder::DayFirst, "day_first"},
                                                  {DateOrder::MonthFirst, "month_first"}}};
constexpr std::array<Named<DecimalMark>, 3> marks{
    {{DecimalMark::Unknown, "unknown"}, {DecimalMark::Point, "point"}, {DecimalMark::Comma, "comma"}}};

template <class T, std::size_t n> std::string keyOf(const std::array<Named<T>, n>& list, T value) {
  return std::string(
      std::find_if(list.begin(), list.end(), [&](const auto& one) { return one.value == value; })->key);
}
template <class T, std::size_t n>
std::optional<T> valueOf(const std::array<Named<T>, n>& list, std::string_view key) {
  const auto* it = std::find_if(list.begin(), list.end(), [&](const auto& one) { return one.key == key; });
  return it == list.end() ? std::nullopt : std::optional(it->value);
}
template <class T, std::size_t n>
T read(ObjectReader& reader, const char* key, const std::array<Named<T>, n>& list) {
  const auto text = reader.text(key).value_or("");
  const auto value = valueOf(list, text);
  std::string known;
  for (const auto& one : list)
    known += (known.empty() ? "" : ", ") + std::string(one.key);
  if (!value) reader.fail(ProblemCode::NotOneOf, key, {text, known});
  return value.value_or(list.front().value);
}

constexpr std::size_t mostNames = 2000;

std::vector<std::string> namesIn(ObjectReader& reader) {
  std::vector<std::string> out;
  const auto* list = reader.array("names");
  if (!list) reader.fail(ProblemCode::MissingKey, "names", {"a layout is known by its names"});
  reader.mostIn("names", mostNames);
  for (std::size_t i = 0; list && i < list->size(); ++i) {
    if (!(*list)[i].is_string()) {
      reader.fail(ProblemCode::WrongType, "names", {exchange::typeName((*list)[i]), "texts"});
      break;
    }
    out.push_back((*list)[i].get<std::string>());
  }
  return out;
}

std::vector<std::string> namesOf(const reading::ForeignTable& table) {
  std::vector<std::string> out;
  const auto all = table.layout();
  for (std::size_t from = 0; from < all.size();) {
    const auto end = std::min(all.find_first_of("\x1e\x1f", from), all.size());
    out.push_back(all.substr(from, end - from));
    from = end + 1;
  }
  return out;
}

TableLayout readTableLayout(ObjectReader& reader) {
  TableLayout out;
  out.names = namesIn(reader);
  out.mapping.table = read(reader, "table", tables);
  out.mapping.dates = read(reader, "dates", orders);
  out.mapping.mark = read(reader, "mark", marks);
  out.mapping.nameForAll = reader.text("name_for_all").value_or("");
  const auto* columns = reader.array("columns");
  if (!columns) reader.fail(ProblemCode::MissingKey, "columns", {"what each column holds"});
  for (std::size_t i = 0; columns && i < columns->size() && !reader.failed(); ++i) {
    ObjectReader column((*columns)[i], reader.pathOf("columns[" + std::to_string(i) + "]"), reader.sink());
    reading::ColumnMeaning meaning;
    meaning.field = column.text("field").value_or("");
    meaning.unit = column.text("unit").value_or("");
    meaning.per = column.number("per").value_or(1);
    if (!(meaning.per > 0)) column.fail(ProblemCode::OutOfRange, "per", {"", "more than 0"});
    column.finish();
    out.mapping.columns.push_back(std::move(meaning));
  }
  return out;
}

ReportLayout readReportLayout(ObjectReader& reader) {
  ReportLayout out;
  out.names = namesIn(reader);
  const auto* answers = reader.array("answers");
  if (!answers) reader.fail(ProblemCode::MissingKey, "answers", {"what was said of its lines"});
  for (std::size_t i = 0; answers && i < answers->size() && !reader.failed(); ++i) {
    ObjectReader row((*answers)[i], reader.pathOf("answers[" + std::to_string(i) + "]"), reader.sink());
    RowAnswer answer;
    answer.name = row.text("name").value_or("");
    answer.unit = row.text("unit").value_or("");
    const auto why = row.text("why").value_or("");
    if (const auto known = reading::whyFromKey(why))
      answer.why = *known;
    else
      row.fail(ProblemCode::NotOneOf, "why", {why, "why a line was left open"});
    answer.of = static_cast<std::size_t>(std::clamp(row.number("of").value_or(0), 0.0, 1000.0));
    if (const auto choice = row.number("choice"))
      answer.choice = static_cast<std::size_t>(std::clamp(*choice, 0.0, 1000.0));
    answer.key = row.text("key").value_or("");
    answer.leftOut = row.flag("left_out").value_or(false);
    row.finish();
    out.answers.push_back(std::move(answer));
  }
  return out;
}

template <class Layout>
std::optional<Layout> layoutIn(const Json& body, std::string_view paper, Layout (*readIt)(ObjectReader&)) {
  if (body.value("paper", std::string()) != paper) return std::nullopt;
  Trouble problem;
  ObjectReader reader(body, "", problem);
  auto out = readIt(reader);
  return problem ? std::nullopt : std::optional(std::move(out));
}

/// The layouts that are not in the bin.
void eachLayout(Store& store, const std::function<void(const Record&)>& see) {
  // A layout that can't be read is asked about again, no more.
  static_cast<void>(store.eachRecord(Kind::PaperLayout, [&](const Record& record, Moment) {
    if (!record.binnedAt) see(record);
    return true;
  }));
}

bool stillFits(const TableMapping& mapping, const reading::ForeignTable& table) {
  return mapping.columns.size() == table.header.size() &&
         std::all_of(mapping.columns.begin(), mapping.columns.end(), [&](const auto& column) {
           return column.field.empty() || reading::fieldNamed(mapping.table, column.field);
         });
}

} // namespace

std::optional<TableLayout> mappingIn(const Json& body) {
  return layoutIn(body, "table", readTableLayout);
}

std::optional<ReportLayout> answersIn(const Json& body) {
  return layoutIn(body, "water_report", readReportLayout);
}

Json layoutBody(const std::string& name, const reading::ForeignTable& table, const TableMapping& mapping) {
  Json columns = Json::array();
  for (const auto& column : mapping.columns)
    columns.push_back({{"field", column.field}, {"unit", column.unit}, {"per", column.per}});
  return {{"name", name},
          {"paper", "table"},
          {"names", namesOf(table)},
          {"table", keyOf(tables, mapping.table)},
          {"columns", columns},
          {"dates", keyOf(orders, mapping.dates)},
          {"mark", keyOf(marks, mapping.mark)},
          {"name_for_all", mapping.nameForAll}};
}

Json layoutBody(const std::string& name, const std::vector<std::string>& names,
                const std::vector<RowAnswer>& answers) {
  Json list = Json::array();
  for (const auto& answer : answers) {
    Json row{{"name", answer.name},
             {"unit", answer.unit},
             {"why", std::string(reading::whyKey(answer.why))},
             {"of", answer.of}};
    if (answer.choice) row["choice"] = *answer.choice;
    if (!answer.key.empty()) row["key"] = answer.key;
    if (answer.leftOut) row["left_out"] = true;
    list.push_back(std::move(row));
  }
  return {{"name", name}, {"paper", "water_report"}, {"names", names}, {"answers", list}};
}

Trouble checkLayout(const Json& body) {
  Trouble problem;
  ObjectReader reader(body, "", problem);
  reader.text("name");
  const auto paper = reader.text("paper").value_or("");
  if (paper == "table")
    readTableLayout(reader);
  else if (paper == "water_report")
    readReportLayout(reader);
  else
    reader.fail(ProblemCode::NotOneOf, "paper", {paper, "table, water_report"});
  reader.text("note");
  reader.finish();
  return problem;
}

std::optional<KnownLayout<TableMapping>> knownMapping(Store& store, const reading::ForeignTable& table) {
  std::optional<KnownLayout<TableMapping>> out;
  const auto names = namesOf(table);
  eachLayout(store, [&](const Record& record) {
    auto layout = mappingIn(record.body);
    if (layout && layout->names == names && stillFits(layout->mapping, table))
      out = {record, std::move(layout->mapping)};
  });
  return out;
}

std::vector<KnownLayout<ReportLayout>> reportLayouts(Store& store) {
  std::vector<KnownLayout<ReportLayout>> out;
  eachLayout(store, [&](const Record& record) {
    if (auto layout = answersIn(record.body)) out.push_back({record, std::move(*layout)});
  });
  return out;
}

const KnownLayout<ReportLayout>* likeliestOf(const std::vector<KnownLayout<ReportLayout>>& layouts,
                                             const std::vector<std::string>& names) {
  const KnownLayout<ReportLayout>* out = nullptr;
  double best = reading::sameLayout;
  for (const auto& layout : layouts) {
    const double like = reading::likeness(layout.answer.names, names);
    if (like < best) continue;
    best = like;
    out = &layout;
  }
  return out;
}

} // namespace butte::book
