#include "readers.h"
#include "stream_readers.h"

#include "bench_run.h"
#include "book/book_json.h"
#include "book/open_book.h"
#include "book/open_store.h"
#include "book/owner.h"
#include "chem/formula.h"
#include "formula/formula_answer.h"
#include "formula_json.h"
#include "json_reader.h"
#include "label/label_text.h"
#include "memory/row_answers.h"
#include "page/agreed_label.h"
#include "page/agreed_report.h"
#include "pen/pen_line.h"
#include "port/line_buffer.h"
#include "port/port_address.h"
#include "quantity/typed_quantity.h"
#include "report/report_text.h"
#include "scale/scale_pattern.h"
#include "scale/weigh_watch.h"
#include "script_input.h"
#include "table/plain_table.h"
#include "tables/log_table.h"
#include "tables/tables.h"
#include "tank_line.h"
#include "tank_log_csv.h"
#include "verbs.h"
#include "water_script.h"
#include "words.h"

#include <QFile>
#include <QTemporaryDir>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <memory>

namespace butte::attack {

void broken(const std::string& promise, std::string_view input) {
  std::fprintf(stderr, "broken: %s\n%.*s\n", promise.c_str(), static_cast<int>(input.size()), input.data());
  std::abort();
}

bool refused(const core::Problem& problem, std::string_view input) {
  for (const unsigned char c : words::problemLine(problem))
    if (c < 0x20 || c == 0x7f) broken("a message carries control characters", input);
  return false;
}

namespace {

QTemporaryDir& folder() {
  static QTemporaryDir one;
  return one;
}

std::string freshPath(const char* name) {
  const auto path = folder().filePath(name);
  for (const auto* ending : {"", "-wal", "-shm", "-journal", ".owner"})
    QFile::remove(path + ending);
  return path.toStdString();
}

bool takeFormula(std::string_view text) {
  const auto formula = core::parseFormula(text);
  if (!formula) return refused(formula.problem(), text);
  if (!(formula->molarMassGPerMol > 0)) broken("a formula weighs something", text);
  return true;
}

bool takeDocument(std::string_view text) {
  const auto json = exchange::parseFormulaText(text);
  if (!json) return refused(json.problem(), text);
  const auto document = exchange::readFormulaDocument(*json);
  if (!document) return refused(document.problem(), text);
  const auto answer = core::compute(document->given);
  if (!answer) return refused(answer.problem(), text);
  for (const auto grams : answer->solution.grams)
    if (!std::isfinite(grams.grams()) || grams.grams() < 0) broken("a weight is a figure", text);
  return true;
}

bool takeScript(std::string_view text) {
  const auto input = exchange::readScriptInput(text);
  if (!input) return refused(input.problem(), text);
  for (auto* verb : {&cli::mix, &cli::solve, &cli::stock, &cli::dose, &cli::equilibrium, &cli::acid,
                     &cli::run, &cli::weigh}) {
    const auto outcome = verb(*input);
    if (!outcome) refused(outcome.problem(), text);
  }
  return true;
}

bool takeReport(std::string_view text) {
  const auto read = reading::readReportText(text);
  for (const auto& row : read.read) {
    if (!std::isfinite(row.row.value) || row.row.value < 0)
      broken("what was read of a report is a figure", text);
  }
  for (const auto& row : read.unplaced)
    if (row.place.to < row.place.from) broken("what was not placed stands somewhere", text);
  return !read.read.empty();
}

bool takeLabel(std::string_view text) {
  const auto read = reading::readLabelText(text);
  for (const auto& [key, percent] : read.rows)
    if (!(percent > 0) || !std::isfinite(percent)) broken("what was read of a label is a figure", text);
  return !read.rows.empty();
}

bool takeTyped(std::string_view text) {
  bool any = false;
  for (const char* unit : {"g", "L", "mL/L", "mg/L", "mS/cm", "C", "percent", "mg/L_CaCO3", ""}) {
    const auto read = reading::typedQuantity(text, unit);
    if (!read) {
      refused(read.problem(), text);
      continue;
    }
    if (!std::isfinite(read->value)) broken("a typed quantity is a figure", text);
    any = true;
  }
  return any;
}

bool takeWater(std::string_view text) {
  const auto script = exchange::readWaterScript(text);
  if (!script) return refused(script.problem(), text);
  const auto outcome = cli::water(*script);
  if (!outcome) refused(outcome.problem(), text);
  return true;
}

bool takeTable(std::string_view text) {
  static auto& book = *new std::unique_ptr<book::Book>; // Qt is gone before what is static ends
  static int inputs = 0;
  if (inputs++ % 300 == 0) { // what is taken back stays in the bin, and a full bin makes each input slow
    book.reset();
    auto made = book::createBook(freshPath("table.butte"), "fuzz");
    if (!made) broken("an empty book can be made", text);
    book = std::move(made).value();
  }
  const auto plan = book::planImport(book->store(), std::string(text));
  if (!plan) return refused(plan.problem(), text);
  if (const auto trouble = book::import(*book, *plan, "fuzz")) broken("what a plan takes is taken", text);
  if ((!plan->changes.empty() || !plan->readings.empty()) && !book->undo())
    broken("an import is taken back", text);
  return true;
}

/// Taken for each sort of table in turn, whatever it asks: what is wrong with a row is said of the row.
bool takeForeign(std::string_view text) {
  const auto table = reading::readForeignTable(text);
  if (!table) return refused(table.problem(), text);
  for (int i = 0; i < reading::tableOfCount; ++i) {
    auto mapping = reading::proposedMapping(*table, static_cast<reading::TableOf>(i));
    if (mapping.columns.size() != table->header.size()) broken("every column has a meaning", text);
    reading::openQuestions(*table, mapping);
    mapping.nameForAll = "all";
    mapping.dates = reading::DateOrder::DayFirst;
    mapping.mark = reading::DecimalMark::Comma;
    const auto plain = reading::plainTable(*table, mapping);
    for (const auto& row : plain.rows)
      if (row.cells.size() < plain.header.size()) broken("every row has its cells", text);
  }
  return true;
}

/// Readings of a picture that err at will.
bool takeReadings(std::string_view text) {
  std::vector<reading::LaidOut> readings(3);
  const auto third = text.size() / 3;
  for (std::size_t i = 0; i < 3; ++i)
    readings[i].text = text.substr(i * third, third);
  readings[2].text += readings[0].text;
  const auto report = reading::agreedReport(readings);
  for (const auto& row : report.read)
    if (!std::isfinite(row.row.value)) broken("what was read of a picture is a figure", text);
  const auto known = reading::recalled(report, reading::answersToKeep(report, reading::recalled(report, {})));
  if (known.rows.size() != report.unplaced.size()) broken("answers are parallel to what asks", text);
  reading::agreedLabel(readings);
  return !report.read.empty();
}

bool takeBook(std::string_view text) {
  const auto path = freshPath("book.butte");
  if (const auto trouble = book::readBookJson(std::string(text), path)) {
    if (QFile::exists(QString::fromStdString(path))) broken("nothing is half imported", text);
    return refused(*trouble, text);
  }
  auto opened = book::openBook(path, folder().filePath("snapshots").toStdString());
  if (!opened || (*opened)->store().checkWhole()) broken("a book that was made is sound", text);
  // Back and forth: an answer each time, whatever the steps hold.
  for (int i = 0; i < 3; ++i)
    if (const auto back = (*opened)->undo(); !back) refused(back.problem(), text);
  for (int i = 0; i < 3; ++i)
    if (const auto again = (*opened)->redo(); !again) refused(again.problem(), text);
  if ((*opened)->store().checkWhole()) broken("it stays sound", text);
  return true;
}

bool takeMark(std::string_view text) {
  const auto path = freshPath("marked.butte");
  QFile mark(QString::fromStdString(path) + ".owner");
  if (!mark.open(QIODevice::WriteOnly)) broken("a mark can be written", text);
  mark.write(text.data(), static_cast<qint64>(text.size()));
  mark.close();
  const auto taken = book::OwnerMark::take(path);
  if (const auto* other = std::get_if<book::Owner>(&taken)) {
    for (const auto* name : {&other->host, &other->user})
      for (const unsigned char c : *name)
        if (c < 0x20 || c == 0x7f) broken("a mark's names are harmless", text);
  }
  return true;
}

/// What a scale or a pen sends, with a pattern in the first line: whatever comes, in whatever pieces.
bool takeDevice(std::string_view text) {
  devices::LineBuffer whole, pieces;
  const auto lines = whole.take(text);
  std::vector<std::string> again;
  for (const char c : text)
    for (auto& line : pieces.take({&c, 1}))
      again.push_back(std::move(line));
  if (lines != again) broken("lines are the same in whatever pieces they come", text);
  if (lines.empty()) return false;
  const auto pattern = devices::ScalePattern::parse(lines.front());
  if (!pattern) refused(pattern.problem(), text);
  const auto address = devices::PortAddress::parse(lines.front());
  if (!address) refused(address.problem(), text);
  if (address && devices::PortAddress::parse(address->text()).value() != *address)
    broken("an address is written as it is read", text);
  devices::WeighWatch watch;
  const core::Mass wanted = core::Mass::fromGrams(100), tolerance = core::Mass::fromGrams(1);
  watch.setTask({wanted, tolerance, core::Mass::fromGrams(0.1)});
  std::int64_t at = 0;
  for (const auto& line : lines) {
    const auto reading = pattern ? pattern->read(line) : devices::readScaleLine(line);
    const bool weight = reading.status == devices::ScaleStatus::Weight;
    if (weight != reading.mass.has_value() || weight == reading.unit.empty())
      broken("a weight has a mass and a unit", text);
    if (weight && !std::isfinite(reading.mass->grams())) broken("a weight is a figure", text);
    watch.take(reading, at += 50);
    const auto now = watch.now(at);
    if (now.mayCapture && (!now.still || std::abs((now.fresh - wanted).grams()) > tolerance.grams()))
      broken("what is taken by itself is still and right", text);
    const auto pen = devices::readPenLine(line);
    if (pen.ph && !(*pen.ph >= 0 && *pen.ph <= 14)) broken("a pH is one", text);
    if (pen.conductivity && !(pen.conductivity->milliSiemensPerCm() >= 0))
      broken("a conductivity is one", text);
  }
  return true;
}

/// A tank's log as a table: what is taken stands in the order of its days.
bool takeTankLog(std::string_view text) {
  core::ShelfProduct salt;
  salt.id = "kno3";
  const auto log = exchange::readTankLog(text, {{}, {}, {salt}});
  if (!log) return refused(log.problem(), text);
  if (!std::is_sorted(log->begin(), log->end(), [](const auto& a, const auto& b) { return a.day < b.day; }))
    broken("a log stands in the order of its days", text);
  return true;
}

/// A line of a log in the book.
bool takeTankLine(std::string_view text) {
  const auto json = exchange::parseJsonObject(text);
  if (!json) return refused(json.problem(), text);
  const auto line = book::tankLineFromJson(*json);
  if (!line) return refused(line.problem(), text);
  const auto again = book::tankLineFromJson(toJson(*line));
  if (!again || toJson(*again) != toJson(*line)) broken("a line is read as it was written", text);
  const auto table = book::readLogTable(book::logTable({*line}), line->vesselUid);
  if (!table) return refused(table.problem(), text); // an odd line of an older book may not fit a table
  return true;
}

/// A log as a table: what is taken goes out and comes back alike.
bool takeLogTable(std::string_view text) {
  const auto lines = book::readLogTable(text, "v1");
  if (!lines) return refused(lines.problem(), text);
  const auto again = book::readLogTable(book::logTable(*lines), "v1");
  if (!again || again->size() != lines->size()) broken("a log is read as it was written", text);
  for (std::size_t i = 0; i < lines->size(); ++i)
    if (toJson((*again)[i]) != toJson((*lines)[i])) broken("a line is read as it was written", text);
  return true;
}

bool takeRun(std::string_view text) {
  const auto json = exchange::parseJsonObject(text);
  if (!json) return refused(json.problem(), text);
  const auto run = book::benchRunFromJson(*json);
  if (!run) return refused(run.problem(), text);
  const auto again = book::benchRunFromJson(toJson(*run));
  if (!again || again->events != run->events) broken("a run is read as it was written", text);
  const bool practised = run->practice.has_value();
  if (practised != again->practice.has_value() ||
      (practised && run->practice->truth != again->practice->truth))
    broken("what truly happened is read as it was written", text);
  return true;
}

} // namespace

const std::vector<Reader>& readers() {
  static const std::vector<Reader> all{
      {"formula", {"formula.txt"}, takeFormula},
      {"document", {"demo:ormsey.json"}, takeDocument},
      {"script", {"script.json"}, takeScript},
      {"water", {"water.json", "report.txt"}, takeWater},
      {"table", {"waters.csv", "readings.csv"}, takeTable},
      {"book", {"book.json"}, takeBook},
      {"mark", {"owner.json"}, takeMark},
      {"report", {"report.txt"}, takeReport},
      {"foreign", {"prices.csv", "log.tsv", "waters.csv"}, takeForeign},
      {"readings", {"report.txt"}, takeReadings},
      {"label", {"label.txt"}, takeLabel},
      {"typed", {"typed.txt"}, takeTyped},
      {"device", {"device.txt"}, takeDevice},
      {"run", {"run.json", "run_held.json"}, takeRun},
      {"tank_log", {"tank_log.csv"}, takeTankLog},
      {"tank_line", {"tank_line.json"}, takeTankLine},
      {"log_table", {"log_table.csv"}, takeLogTable},
      {"stream_file", {"stream.csv"}, takeStreamFile},
      {"stream_line", {"stream.txt"}, takeStreamLines},
      {"stream", {"stream.json"}, takeStream},
  };
  return all;
}

const Reader& readerNamed(std::string_view name) {
  for (const auto& reader : readers())
    if (reader.name == name) return reader;
  broken("there is such a reader", name);
}

} // namespace butte::attack
