// The whole book as JSON, tables, copies.
#include "book_fixture.h"
#include "support/told.h"

#include "base/decimal.h"
#include "book/batch.h"
#include "book/book_json.h"
#include "book/copies.h"
#include "book/paper_layouts.h"
#include "book/sqlite/schema.h"
#include "book/tables/tables.h"
#include "water/report_row.h"
#include "water/water.h"
#include "water_json.h"

#include <QDir>
#include <fstream>
#include <sstream>

namespace butte::book {

using ::testing::Contains;
using ::testing::HasSubstr;

class TransferTest : public BookTest {
protected:
  std::string textOf(const std::string& path) {
    std::ifstream file(path, std::ios::binary);
    std::stringstream text;
    text << file.rdbuf();
    return text.str();
  }
  void writeText(const std::string& path, const std::string& text) {
    std::ofstream(path, std::ios::binary) << text;
  }
  Trouble read(const std::string& json, const QString& name = "in.butte") {
    return readBookJson(json, pathOf(name));
  }

  /// A bit of everything, with a step taken back, something in the bin, a version, a sheet.
  std::unique_ptr<Book> fullBook() {
    auto book = make("full.butte");
    const auto formula = *book->create(Kind::Formula, demoFormula(), told("new formula"));
    EXPECT_TRUE(static_cast<bool>(book->makeVersion(formula, "named", "first “ü”")));
    const auto water = *book->create(Kind::Water, smallWater("Côte\n\"spring\""), told("new water"));
    EXPECT_FALSE(book->moveToBin(water, "spring"));
    auto batch = smallBatch(formula.uid);
    batch["sheet"] = *book->store().keepSheet("<p>ümlaut</p>");
    EXPECT_TRUE(static_cast<bool>(book->create(Kind::Batch, batch, told("batch"))));
    const auto vessel = book->create(Kind::Vessel, Json{{"name", "north"}}, told("vessel"));
    EXPECT_TRUE(static_cast<bool>(vessel));
    EXPECT_FALSE(
        book->store().addReadings({{0, vessel->uid, "ec", Moment{100}, 0.1 + 0.2, "0.3 mS/cm", "", ""}}));
    const auto table = reading::readForeignTable("When,EC out\n2026-03-04,2.1\n");
    EXPECT_TRUE(static_cast<bool>(
        book->create(Kind::PaperLayout, layoutBody("drain.csv", *table, reading::proposedMapping(*table)),
                     told("layout"))));
    const auto reading = book->create(Kind::Reading,
                                      Json{{"vessel", vessel->uid},
                                           {"quantity", "ph"},
                                           {"at", "2026-03-02T07:15:00Z"},
                                           {"value", 5.8},
                                           {"typed", "5.8"}},
                                      told("pH"));
    EXPECT_TRUE(static_cast<bool>(reading));
    EXPECT_TRUE(static_cast<bool>(book->undo()));
    return book;
  }
};

TEST_F(TransferTest, ABookThroughJsonIsTheSame) {
  auto book = fullBook();
  const auto wrote = writeBookJson(book->store(), pathOf("one.json"));
  ASSERT_FALSE(wrote) << said(wrote);
  const auto one = textOf(pathOf("one.json"));
  const auto trouble = read(one);
  ASSERT_FALSE(trouble) << said(trouble);
  auto again = reopen("in.butte");
  ASSERT_FALSE(writeBookJson(again->store(), pathOf("two.json")));
  EXPECT_EQ(textOf(pathOf("two.json")), one);
  EXPECT_EQ(again->redoable(), book->redoable());
  ASSERT_TRUE(static_cast<bool>(again->redo()));
  EXPECT_EQ(again->store().readings(std::nullopt, 9)->size(), 2u);
}

TEST_F(TransferTest, AFaultNamesItsPlaceAndLeavesNothingBehind) {
  auto book = fullBook();
  ASSERT_FALSE(writeBookJson(book->store(), pathOf("one.json")));
  const auto good = Json::parse(textOf(pathOf("one.json")));
  struct Case {
    const char *pointer, *value, *where;
  };
  for (const auto& c :
       {Case{"/format", "\"butte-formula\"", "format"}, Case{"/version", "99", "version"},
        Case{"/records/0/kind", "\"pony\"", "records[0].kind"},
        Case{"/records/1/uid", "\"\"", "records[1].uid"},
        Case{"/records/1/body/batch/amount", "\"-4\"", "records[1].body.batch.amount"},
        Case{"/versions/0/at", "\"soon\"", "versions[0].at"}, Case{"/readings/0", "[1, 2]", "readings[0]"},
        Case{"/meta/farm", "7", "meta.farm"}, Case{"/sheets/0", "{}", "sheets[0]"},
        Case{"/steps/0/changes/0/kind", "\"x\"", "steps[0].changes[0].kind"},
        Case{"/ponies", "[1]", "ponies"}}) {
    auto bad = good;
    bad[Json::json_pointer(c.pointer)] = Json::parse(c.value);
    const auto trouble = read(bad.dump());
    ASSERT_TRUE(trouble) << c.pointer;
    EXPECT_EQ(trouble->where, c.where) << words::problemLine(*trouble);
    EXPECT_FALSE(QFile::exists(folder.filePath("in.butte"))) << "half imported: " << c.pointer;
  }
  EXPECT_TRUE(read("{\"format\": \"butte-book\", "));
  EXPECT_TRUE(read("[]"));
  EXPECT_TRUE(read(""));
  EXPECT_TRUE(read("{\"format\": \"butte-book\", \"version\": 1, \"records\": [5]}"))
      << "a record that is none";
}

TEST_F(TransferTest, AFileOfTheFirstVersionBringsItsTanksAsVessels) {
  const auto trouble = read(R"({"format": "butte-book", "version": 1, "meta": {"farm": "Old"}, "records": [],
    "versions": [], "steps": [{"number": 1, "at": "2026-03-02T07:15:00Z", "who": "oa", "words": "pH of north",
      "merge_key": "", "undone": true, "changes": [{"kind": "reading", "uid": "2", "pointer": "", "before": null,
        "after": {"body": {"tank": "north", "quantity": "ph", "at": "2026-03-02T07:15:00Z", "value": 5.8,
                           "typed": "5.8", "import": ""}}}]}],
    "readings": [[1, "north", "ec", "2026-03-02T07:00:00Z", 1.58, "1580 uS/cm", "", null],
                 [3, "south", "level", "2026-03-02T07:00:00Z", 400, "400 L", "", null]]})");
  ASSERT_FALSE(trouble) << said(trouble);
  auto book = reopen("in.butte");
  const auto vessels = book->store().list(Kind::Vessel, false);
  ASSERT_EQ(vessels->size(), 2u);
  EXPECT_EQ((*vessels)[0].name, "north");
  ASSERT_TRUE(static_cast<bool>(book->redo()));
  const auto readings = book->store().readings(std::nullopt, 9);
  ASSERT_EQ(readings->size(), 3u);
  EXPECT_EQ(readings->front().vesselName, "north");
  EXPECT_EQ(readings->front().vesselUid, (*vessels)[0].ref.uid);
}

TEST_F(TransferTest, AWritingThatFailsLeavesTheOldFile) {
  auto book = fullBook();
  EXPECT_TRUE(writeBookJson(book->store(), pathOf("no/such/folder/x.json")));
}

TEST_F(TransferTest, TablesGoOutAndComeBackTheSame) {
  auto book = fullBook();
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("Bore; \"old\""), told("water"))));
  ASSERT_TRUE(static_cast<bool>(book->create(
      Kind::Product,
      Json::parse(R"({"name": "mix, blue", "entry": {"id": "own", "name": "mix, blue", "price_per_kg": "2.50",
      "label": [{"key": "N_NO3", "percent": "8.5"}, {"key": "K2O", "percent": "30"}]}, "bag": {"amount": "25", "unit": "kg"}, "colour": "#5b7fa6",
      "hatch": "crossed", "hazards": ["H272", "H319"], "note": "two\nlines"})"),
      told("product"))));
  ASSERT_TRUE(static_cast<bool>(book->create(
      Kind::Target, Json{{"name", "Mine"}, {"crop", "basil"}, {"target", demoFormula()["target"]}},
      told("target"))));
  for (const auto comma : {false, true}) {
    auto empty = make(comma ? "comma.butte" : "point.butte");
    for (const auto kind : {Kind::Product, Kind::Water, Kind::Target, Kind::Batch, Kind::Reading}) {
      const auto path = pathOf("table.csv");
      ASSERT_FALSE(writeTable(book->store(), kind, path, comma));
      const auto first = textOf(path);
      auto plan = planImport(empty->store(), first);
      ASSERT_TRUE(static_cast<bool>(plan)) << words::problemLine(plan.problem());
      for (const auto& row : plan->rows)
        EXPECT_TRUE(row.taken) << first << words::rowText(row.saying);
      const auto trouble = import(*empty, *plan, "table.csv");
      ASSERT_FALSE(trouble) << said(trouble);
      ASSERT_FALSE(writeTable(empty->store(), kind, path, comma));
      EXPECT_EQ(textOf(path), first);
      auto twice = planImport(empty->store(), first);
      ASSERT_TRUE(static_cast<bool>(twice));
      EXPECT_EQ(twice->taken, 0u) << "all of it is there already: " << first;
    }
  }
}

// Whoever works in pounds, gallons and ppm gets them in the table too, and it comes back as it was.
TEST_F(TransferTest, BatchesAndReadingsGoOutInTheUnitsChosen) {
  auto book = fullBook(), empty = make("empty.butte");
  ASSERT_TRUE(static_cast<bool>(
      book->create(Kind::Reading,
                   Json{{"vessel", book->store().list(Kind::Vessel, false)->front().ref.uid},
                        {"quantity", "temperature"},
                        {"at", "2026-03-03T07:15:00Z"},
                        {"value", 20},
                        {"typed", "20 C"}},
                   told("warm"))));
  words::Measures states;
  states.mass = words::MassShown::Pounds;
  states.volume = words::VolumeShown::UsGallons;
  states.conductivity = words::ConductivityShown::Ppm500;
  states.temperature = words::TemperatureShown::Fahrenheit;
  std::string all;
  for (const auto kind : {Kind::Batch, Kind::Reading}) {
    const auto path = pathOf("states.csv");
    ASSERT_FALSE(writeTable(book->store(), kind, path, false, states));
    const auto text = textOf(path);
    all += text;
    const auto plan = planImport(empty->store(), text);
    ASSERT_TRUE(static_cast<bool>(plan)) << words::problemLine(plan.problem()) << text;
    for (const auto& row : plan->rows)
      EXPECT_TRUE(row.taken) << text << words::rowText(row.saying);
    const auto trouble = import(*empty, *plan, "states.csv");
    ASSERT_FALSE(trouble) << said(trouble);
    const auto numbersOf = [&](Store& store) {
      EXPECT_FALSE(writeTable(store, kind, pathOf("metric.csv")));
      std::vector<std::string> cells;
      for (const auto& row : core::parseCsv(textOf(pathOf("metric.csv"))))
        cells.insert(cells.end(), row.cells.begin(), row.cells.end());
      return cells;
    };
    const auto before = numbersOf(book->store()), after = numbersOf(empty->store());
    ASSERT_EQ(before.size(), after.size());
    for (std::size_t i = 0; i < before.size(); ++i) {
      const auto wanted = core::parseDecimal(before[i]), got = core::parseDecimal(after[i]);
      if (wanted && got)
        EXPECT_NEAR(*got, *wanted, 1e-5 * std::abs(*wanted)) << text;
      else
        EXPECT_EQ(after[i], before[i]);
    }
  }
  for (const auto* unit : {"(lb)", "(gal_us)", "(ppm500)", ",F,\r", ",ppm500,\r", "68,F"})
    EXPECT_THAT(all, ::testing::HasSubstr(unit)) << all;
  for (const auto* unit : {"(g)", "(L)", "mS/cm"})
    EXPECT_THAT(all, ::testing::Not(::testing::HasSubstr(unit))) << all;
}

// A property: whatever a report may hold comes back from our own table as it was; a report for each figure,
// since an element may be stated once only.
TEST_F(TransferTest, EveryFigureOfAReportComesBack) {
  auto book = make(), empty = make("empty.butte");
  const std::vector<std::string> units{"mg/L", "ug/L", "mmol/L", "mg/L_CaCO3", "dH"};
  Json reports = Json::array();
  std::map<std::string, std::pair<std::string, double>> wanted;
  int turn = 0;
  for (const auto& key : core::waterKeys()) {
    const double value = 0.0137 * ++turn;
    auto unit = units[static_cast<std::size_t>(turn) % units.size()];
    if (!core::milligramsPerLitre({key, value, unit, false})) unit = "mg/L";
    const auto date = QDate(2026, 1, 1).addDays(turn).toString(Qt::ISODate).toStdString();
    const Json report{{"date", date},
                      {"water",
                       {{"name", "Bore"},
                        {"rows", Json::array({exchange::waterRowJson(key, core::decimalText(value), unit,
                                                                     turn % 7 == 0)})}}}};
    if (checkRecord(Kind::Water, Json{{"name", "Bore"}, {"reports", Json::array({report})}})) continue;
    wanted[date] = {key, *core::milligramsPerLitre({key, value, unit, false})};
    reports.push_back(report);
  }
  ASSERT_GT(wanted.size(), 30u);
  ASSERT_TRUE(static_cast<bool>(
      book->create(Kind::Water, Json{{"name", "Bore"}, {"reports", reports}}, told("water"))));
  ASSERT_FALSE(writeTable(book->store(), Kind::Water, pathOf("all.csv"), true));
  const auto plan = planImport(empty->store(), textOf(pathOf("all.csv")));
  ASSERT_TRUE(static_cast<bool>(plan));
  ASSERT_FALSE(import(*empty, *plan, "all.csv"));
  const auto back = bodyOf(*empty, empty->store().list(Kind::Water, false)->front().ref);
  ASSERT_EQ(back["reports"].size(), wanted.size());
  for (const auto& report : back["reports"]) {
    const auto& [key, milligrams] = wanted[report["date"]];
    ASSERT_EQ(report["water"]["rows"].size(), 1u) << key;
    const auto& row = report["water"]["rows"][0];
    EXPECT_EQ(row["key"], key);
    EXPECT_NEAR(std::stod(row["mg_per_l"].get<std::string>()), milligrams, 1e-9 * milligrams) << key;
  }
}

TEST_F(TransferTest, ReportsOfOneSourceAreAddedByTheirDates) {
  auto book = make();
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater("Bore"), told("water"))));
  const auto plan = planImport(book->store(), "water,date,Ca (mg/L)\n"
                                              "Bore,2026-03-02,61\n"   // there already
                                              "Bore,2026-04-02,62\n"   // new
                                              "Bore,2026-04-02,63\n"   // the same date again
                                              "Well,2026-04-02,64\n"   // a new source
                                              "Well,2026-05-02,-64\n"  // faulty
                                              "Well,2026-05-02,65\n"); // the faulty one took no date
  ASSERT_TRUE(static_cast<bool>(plan));
  std::string taken;
  for (const auto& row : plan->rows)
    taken += row.taken ? '+' : '-';
  EXPECT_EQ(taken, "-+-+-+");
  ASSERT_FALSE(import(*book, *plan, "table.csv"));
  const auto waters = book->store().list(Kind::Water, false);
  ASSERT_EQ(waters->size(), 2u);
  for (const auto& water : *waters)
    EXPECT_EQ(bodyOf(*book, water.ref)["reports"].size(), 2u) << water.name;
}

// A supplier's twenty years of days: linear, so that it is read in a blink.
TEST_F(TransferTest, AThousandReportsOfOneSourceAreOneStep) {
  auto book = make();
  std::string text = "water,date,Ca (mg/L)\n";
  for (int day = 0; day < 1000; ++day)
    text += "Bore," + QDate(2020, 1, 1).addDays(day).toString(Qt::ISODate).toStdString() + ",62\n";
  const auto plan = planImport(book->store(), text);
  ASSERT_TRUE(static_cast<bool>(plan));
  EXPECT_EQ(plan->taken, 1000u);
  ASSERT_FALSE(import(*book, *plan, "table.csv"));
  EXPECT_EQ(bodyOf(*book, book->store().list(Kind::Water, false)->front().ref)["reports"].size(), 1000u);
}

TEST_F(TransferTest, NamesThatASpreadsheetWouldComputeComeBackUnchanged) {
  auto book = make(), empty = make("empty.butte");
  const std::vector<std::string> names{"=1+1", "+strong", "-weak", "@home", "'=quoted", "=cmd|' /C calc'!A0"};
  for (const auto& name : names)
    ASSERT_TRUE(static_cast<bool>(book->create(
        Kind::Target, Json{{"name", name}, {"crop", "=basil"}, {"target", demoFormula()["target"]}},
        told("target"))));
  const auto path = pathOf("table.csv");
  ASSERT_FALSE(writeTable(book->store(), Kind::Target, path, false));
  const auto text = textOf(path);
  for (const auto* formula : {"\n=", "\n+", "\n-", "\n@", ",=", ",@"})
    EXPECT_EQ(text.find(formula), std::string::npos) << formula;
  ASSERT_FALSE(import(*empty, *planImport(empty->store(), text), "table.csv"));
  std::vector<std::string> back;
  const auto targets = empty->store().list(Kind::Target, false);
  for (const auto& target : *targets)
    back.push_back(target.name);
  EXPECT_THAT(back, ::testing::UnorderedElementsAreArray(names));
}

TEST_F(TransferTest, ATableSaysOfEveryRowWhatIsWrong) {
  auto book = make();
  const auto rowsOf = [&](const std::string& text) {
    const auto plan = planImport(book->store(), text);
    EXPECT_TRUE(static_cast<bool>(plan)) << (plan ? "" : words::problemLine(plan.problem()));
    std::vector<std::string> out;
    for (const auto& row : plan->rows)
      out.push_back(std::to_string(row.line) + (row.taken ? "+" : "-") + words::rowText(row.saying));
    return out;
  };
  const auto readings = rowsOf("tank,time,quantity,value,unit\n"
                               "north,2026-03-02T07:00:00Z,ec,1580,uS/cm\n"
                               "north,yesterday,ec,1.5,\n"
                               "north,2026-03-02T08:00:00Z,mood,1,\n"
                               "north,2026-03-02T09:00:00Z,ph,\"5,8\",\n"
                               "north,2026-03-02T10:00:00Z,ph,,\n"
                               ",2026-03-02T11:00:00Z,ph,6,\n"
                               "north,2026-03-02T12:00:00Z,level,40,kg\n"
                               "north,2026-03-02T13:00:00Z,ph,6,,,,,\n"
                               "north,2026-03-02T07:00:00Z,ec,1.6,\n");
  ASSERT_EQ(readings.size(), 9u);
  EXPECT_THAT(readings[0], HasSubstr("2+north EC 1580 uS/cm"));
  EXPECT_THAT(readings[1], HasSubstr("3-“yesterday”"));
  EXPECT_THAT(readings[2], HasSubstr("no quantity"));
  EXPECT_THAT(readings[3], HasSubstr("not a number such as 12.5"));
  EXPECT_THAT(readings[4], HasSubstr("no value"));
  EXPECT_THAT(readings[5], HasSubstr("no vessel"));
  EXPECT_THAT(readings[6], HasSubstr("'kg' can't be turned into 'L'"));
  EXPECT_THAT(readings[7], HasSubstr("more cells than the header"));
  EXPECT_THAT(readings[8], HasSubstr("stands above already"));
  const auto products =
      rowsOf("product;formula;purity (%)\nsalt;KNO3;99,5\nbad;Kno;99\nnone;;\nover;KNO3;120\n");
  EXPECT_THAT(products[0], HasSubstr("salt: new"));
  for (int i = 1; i < 4; ++i)
    EXPECT_EQ(products[static_cast<std::size_t>(i)][1], '-') << products[static_cast<std::size_t>(i)];
}

TEST_F(TransferTest, EncodingsMarksAndLineEndsAreRecognised) {
  auto book = make();
  const auto name = [&](const std::string& bytes) {
    const auto plan = planImport(book->store(), bytes);
    if (!plan || plan->changes.empty()) return std::string("nothing");
    return plan->changes.front().after["body"]["name"].get<std::string>();
  };
  EXPECT_EQ(name("\xEF\xBB\xBFwater,date\r\nC\xC3\xB4te,2026-03-02\r\n"), "Côte");
  EXPECT_EQ(name("water\tdate\rC\xF4te\t2026-03-02\r"), "Côte") << "an old spreadsheet: Windows-1252, CR";
  EXPECT_EQ(name("water;date\n\"Two\nlines; \"\"q\"\"\";2026-03-02"), "Two\nlines; \"q\"");
  EXPECT_FALSE(static_cast<bool>(planImport(book->store(), "")));
  EXPECT_FALSE(static_cast<bool>(planImport(book->store(), std::string("\0\0\0\0", 4))));
  EXPECT_FALSE(static_cast<bool>(planImport(book->store(), "pony,colour\n1,2\n")));
  const auto twice = planImport(book->store(), "water,date,Date,Ca (mg/L)\n1,2026-03-02,2026-03-05,60\n");
  ASSERT_TRUE(static_cast<bool>(twice));
  EXPECT_EQ(twice->changes.front().after["body"]["reports"][0]["date"], "2026-03-02") << "the first counts";
}

TEST_F(TransferTest, AnImportIsOneStepOfUndo) {
  auto book = make();
  auto plan =
      planImport(book->store(),
                 "tank,time,quantity,value\nn,2026-03-02T07:00:00Z,ph,5.8\nn,2026-03-03T07:00:00Z,ph,5.9\n");
  ASSERT_FALSE(import(*book, *plan, "log.csv"));
  EXPECT_EQ(book->store().readings(std::nullopt, 9)->size(), 2u);
  EXPECT_EQ(book->store().list(Kind::Vessel, false)->size(), 1u) << "named for the first time, so it is made";
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ(book->store().readings(std::nullopt, 9)->size(), 0u);
  EXPECT_TRUE(book->store().list(Kind::Vessel, false)->empty());
  ASSERT_TRUE(static_cast<bool>(book->redo()));
  EXPECT_EQ(book->store().readings(std::nullopt, 9)->size(), 2u);
}

TEST_F(TransferTest, ATableNeverOverwritesAVesselThatWasRenamedOrBinned) {
  auto book = make();
  const std::string first = "vessel,time,quantity,value\nnorth,2026-03-02T07:00:00Z,ph,5.8\n";
  ASSERT_FALSE(import(*book, *planImport(book->store(), first), "log.csv"));
  const auto ref = book->store().list(Kind::Vessel, false)->front().ref;
  const Json renamed = Json::parse(R"({"name": "raft pond", "volume": {"amount": "800", "unit": "L"}})");
  ASSERT_FALSE(book->replaceBody(ref, renamed, told("renamed")));
  const std::string second = "vessel,time,quantity,value\nnorth,2026-03-03T07:00:00Z,ph,5.9\n";
  ASSERT_FALSE(import(*book, *planImport(book->store(), second), "log.csv"));
  EXPECT_EQ(bodyOf(*book, ref), renamed) << "another vessel is called north now";
  EXPECT_EQ(book->store().list(Kind::Vessel, false)->size(), 2u);
  ASSERT_FALSE(book->moveToBin(ref, "raft pond"));
  const std::string third = "vessel,time,quantity,value\nraft pond,2026-03-04T07:00:00Z,ph,5.9\n";
  ASSERT_FALSE(import(*book, *planImport(book->store(), third), "log.csv"));
  EXPECT_EQ(bodyOf(*book, ref), renamed) << "what lies in the bin stays as it is";
  EXPECT_EQ(book->store().readings(std::nullopt, 9)->size(), 3u);
}

TEST_F(TransferTest, DailyCopiesAreThinnedAsTheyAge) {
  constexpr std::int64_t day = 86400;
  const Moment now = *Moment::fromIso("2026-11-23T12:00:00Z");
  std::vector<CopyOfBook> copies;
  for (int age = 0; age < 1200; ++age)
    copies.push_back({"c" + std::to_string(age), {now.seconds - age * day}, 1, "daily"});
  copies.push_back({"mine", {now.seconds - 900 * day}, 1, "by hand"});
  const auto gone = tooMany(copies, now);
  const auto kept = copies.size() - gone.size();
  EXPECT_THAT(gone, ::testing::Not(Contains(::testing::Field(&CopyOfBook::path, "mine"))));
  for (int age = 0; age <= 7; ++age)
    EXPECT_THAT(gone,
                ::testing::Not(Contains(::testing::Field(&CopyOfBook::path, "c" + std::to_string(age)))))
        << age;
  EXPECT_GE(kept, 8u + 7 + 22 + 1 + 1);
  EXPECT_LE(kept, 8u + 9 + 25 + 3 + 1);
}

TEST_F(TransferTest, ACopyADayWhileInUse) {
  auto book = make();
  ASSERT_TRUE(static_cast<bool>(book->create(Kind::Water, smallWater(), told("water"))));
  const auto now = Moment::now();
  ASSERT_FALSE(copyDaily(book->place(), now));
  ASSERT_FALSE(copyDaily(book->place(), now));
  ASSERT_EQ(copiesOf(book->place()).size(), 1u);
  EXPECT_EQ(copiesOf(book->place())[0].why, "daily");
  auto copy = openStore(copiesOf(book->place())[0].path, OpenFor::Reading);
  ASSERT_TRUE(static_cast<bool>(copy));
  EXPECT_FALSE((*copy)->checkWhole());
  EXPECT_EQ((*copy)->counts()->things, 1);
}

TEST_F(TransferTest, GoingBackKeepsWhatStoodThere) {
  auto book = make();
  const auto ref = *book->create(Kind::Water, smallWater("One"), told("water"));
  const auto copy = makeCopy(*book, "by hand");
  ASSERT_TRUE(static_cast<bool>(copy));
  ASSERT_FALSE(book->apply({0, {}, {}, told("rename"), {}, {{ref, "/body/name", "One", "Two"}}}));
  const auto changes = whatGoingBackChanges(*book, *copy);
  ASSERT_EQ(changes->size(), 1u);
  EXPECT_EQ((*changes)[0].kind, Kind::Water);
  EXPECT_THAT((*changes)[0].otherwise, ::testing::ElementsAre("One"));
  const auto path = book->place();
  book.reset();
  const auto trouble = goBackTo(path, *copy);
  ASSERT_FALSE(trouble) << said(trouble);
  EXPECT_EQ(bodyOf(*reopen(), ref)["name"], "One");
  EXPECT_EQ(copiesOf(path).front().why, "before going back");
  ASSERT_FALSE(goBackTo(path, copiesOf(path).front().path)) << "and forward again";
  EXPECT_EQ(bodyOf(*reopen(), ref)["name"], "Two");
}

TEST_F(TransferTest, ACopyOfAnEarlierProgramCanBeGoneBackTo) {
  auto book = make();
  const auto old = pathOf("old.butte");
  {
    auto db = Database::open(QString::fromStdString(old), Database::Mode::Create);
    ASSERT_FALSE(migrate(**db, 0, 1));
    const auto body = QString::fromStdString(smallWater("Old spring").dump());
    ASSERT_FALSE((*db)->run("INSERT INTO thing (uid, kind, name, crop, body, changed_at) VALUES ('w1', "
                            "'water', 'Old spring', '', ?, 7)",
                            {body}));
  }
  const auto changes = whatGoingBackChanges(*book, old);
  ASSERT_TRUE(static_cast<bool>(changes)) << words::problemLine(changes.problem());
  ASSERT_EQ(changes->size(), 1u);
  EXPECT_THAT((*changes)[0].back, ::testing::ElementsAre("Old spring"));
  const auto path = book->place();
  book.reset();
  const auto trouble = goBackTo(path, old);
  ASSERT_FALSE(trouble) << said(trouble);
  EXPECT_EQ(bodyOf(*reopen(), {Kind::Water, "w1"})["name"], "Old spring");
}

} // namespace butte::book
