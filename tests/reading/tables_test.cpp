// Tables as growers, laboratories, loggers and sellers write them, each invented for this test; what they say
// in the farm's own writing stands beside (.plain), reckoned by hand from the definitions of the units.
#include "papers.h"
#include "table/plain_table.h"

#include <filesystem>
#include <gmock/gmock.h>

namespace butte::reading {
namespace {

using ::testing::Contains;
using ::testing::ElementsAre;
using ::testing::IsEmpty;
using ::testing::Not;

ForeignTable tableOf(const std::string& text) {
  auto table = readForeignTable(text);
  EXPECT_TRUE(static_cast<bool>(table));
  return table ? std::move(table).value() : ForeignTable();
}

std::string asText(const PlainTable& table) {
  std::string out;
  const auto line = [&](const std::vector<std::string>& cells) {
    for (std::size_t i = 0; i < cells.size(); ++i)
      out += (i == 0 ? "" : ";") + cells[i];
    out += '\n';
  };
  line(table.header);
  for (const auto& row : table.rows)
    line(row.cells);
  return out;
}

std::vector<std::filesystem::path> tables() {
  std::vector<std::filesystem::path> out;
  for (const auto& entry :
       std::filesystem::directory_iterator(std::string(BUTTE_TEST_DATA) + "/reading/tables"))
    if (entry.path().extension() != ".plain") out.push_back(entry.path());
  std::sort(out.begin(), out.end());
  return out;
}

TEST(Tables, AreReadAsTheyAreWritten) {
  const auto files = tables();
  ASSERT_GE(files.size(), 17u);
  for (const auto& file : files) {
    auto plain = file;
    plain.replace_extension(".plain");
    const auto table = tableOf(test::contentsOf(file));
    EXPECT_EQ(asText(plainTable(table, proposedMapping(table))), test::contentsOf(plain)) << file;
  }
}

TEST(Tables, DaysAndMonthsThatCouldChangePlacesAreAsked) {
  const auto table = tableOf("Date,EC,pH\n3/4/2026,1.8,5.9\n3/5/2026,1.8,5.9\n");
  auto mapping = proposedMapping(table);
  mapping.nameForAll = "North";
  EXPECT_THAT(openQuestions(table, mapping), ElementsAre(MappingQuestion::DayOrMonth));
  mapping.dates = DateOrder::MonthFirst;
  EXPECT_THAT(openQuestions(table, mapping), IsEmpty());
  EXPECT_EQ(plainTable(table, mapping).rows.front().cells[1], "2026-03-04");
  mapping.dates = DateOrder::DayFirst;
  EXPECT_EQ(plainTable(table, mapping).rows.front().cells[1], "2026-04-03");
}

TEST(Tables, ADayAboveTwelveSaysTheOrderOfAll) {
  EXPECT_EQ(proposedMapping(tableOf("Date,EC\n3/4/2026,1.8\n3/14/2026,1.8\n")).dates, DateOrder::MonthFirst);
  EXPECT_EQ(proposedMapping(tableOf("Date,EC\n3/4/2026,1.8\n14/3/2026,1.8\n")).dates, DateOrder::DayFirst);
  EXPECT_EQ(proposedMapping(tableOf("Date,EC\n14/3/2026,1.8\n3/14/2026,1.8\n")).dates, DateOrder::Unknown)
      << "they contradict one another";
}

TEST(Tables, ACommaThatCouldBeEitherIsAsked) {
  const auto table = tableOf("Sump\tDate\tEC (uS/cm)\nA\t2026-03-04\t1,850\nA\t2026-03-05\t1,870\n");
  auto mapping = proposedMapping(table);
  EXPECT_THAT(openQuestions(table, mapping), Contains(MappingQuestion::WhatComma));
  EXPECT_EQ(plainTable(table, mapping).rows.front().cells[3], "1,850") << "not guessed";
  mapping.mark = DecimalMark::Point;
  EXPECT_THAT(openQuestions(table, mapping), Not(Contains(MappingQuestion::WhatComma)));
  EXPECT_EQ(plainTable(table, mapping).rows.front().cells[3], "1850");
}

TEST(Tables, APriceForNobodyKnowsWhatIsAsked) {
  const auto table = tableOf("Salt,Bag (kg),Price\nPotassium nitrate,25,38.50\n");
  auto mapping = proposedMapping(table, TableOf::Products);
  EXPECT_THAT(openQuestions(table, mapping), ElementsAre(MappingQuestion::PriceForWhat));
  mapping.columns[2] = {"price (per kg)", "bag", 1, true};
  EXPECT_THAT(openQuestions(table, mapping), IsEmpty());
  EXPECT_EQ(plainTable(table, mapping).rows.front().cells[2], "1.54");
  mapping.columns[1] = {};
  EXPECT_THAT(openQuestions(table, mapping), ElementsAre(MappingQuestion::BagNotKnown));
}

TEST(Tables, OurOwnNeedNoQuestionAndKeepTheirDigits) {
  const auto table = tableOf("water,date,pH,Ca (mg/L)\nBore,2026-03-02,7.40,62.50\n");
  const auto mapping = proposedMapping(table);
  EXPECT_TRUE(isOwnTable(table, mapping));
  EXPECT_THAT(plainTable(table, mapping).rows.front().cells,
              ElementsAre("Bore", "2026-03-02", "7.40", "62.50"));
  const auto foreign = tableOf("water,date,pH,Calcium\nBore,2026-03-02,7.40,62.50\n");
  EXPECT_FALSE(isOwnTable(foreign, proposedMapping(foreign)));
}

TEST(Tables, AColumnWrittenAsDatesIsADateWhateverItIsCalled) {
  const auto table = readForeignTable("Stamp;Tank;EC (mS/cm);Serial\n2026-03-04 07:15;Low;1.8;45200\n"
                                      "2026-03-05 07:20;Low;1.9;45300\n");
  ASSERT_TRUE(table);
  const auto mapping = proposedMapping(*table);
  EXPECT_EQ(mapping.table, TableOf::Readings);
  EXPECT_EQ(mapping.columns[0].field, "time");
  EXPECT_FALSE(mapping.columns[0].sure);   // it stands out above its column
  EXPECT_EQ(mapping.columns[3].field, ""); // numbers that could count days are none
  EXPECT_TRUE(openQuestions(*table, mapping).empty());
}

TEST(Tables, WhatIsNoTableIsRefusedOrAsksForEverything) {
  EXPECT_FALSE(static_cast<bool>(readForeignTable("")));
  EXPECT_FALSE(static_cast<bool>(readForeignTable("  \n\t\n")));
  EXPECT_FALSE(static_cast<bool>(readForeignTable(std::string("\0\1\2", 3))));
  const auto table = tableOf("pony,height\nStar,148\n");
  EXPECT_THAT(openQuestions(table, proposedMapping(table)), Contains(MappingQuestion::NothingToTake));
}

TEST(Tables, AHundredThousandLinesAndALineOfAMillionLettersAreRead) {
  std::string text = "tank,time,EC\n";
  for (int i = 0; i < 100000; ++i)
    text += "North,2026-03-04T07:15:00," + std::to_string(1.5 + i % 10 * 0.1) + "\n";
  const auto table = tableOf(text);
  EXPECT_EQ(plainTable(table, proposedMapping(table)).rows.size(), 100000u);
  text += "North,2026-03-05," + std::string(1000000, '9') + "\n";
  EXPECT_TRUE(static_cast<bool>(readForeignTable(text)));
  EXPECT_FALSE(static_cast<bool>(readForeignTable("a,b\n" + [] {
    std::string rows;
    for (int i = 0; i < 200001; ++i)
      rows += "1,2\n";
    return rows;
  }())));
}

struct DateCase {
  const char* text;
  DateOrder order;
  const char* iso; ///< empty: it is no date
};
TEST(Dates, AreReadInTheUsualManners) {
  const std::vector<DateCase> cases{
      {"2026-03-04", DateOrder::Unknown, "2026-03-04"},
      {"2026/3/4", DateOrder::Unknown, "2026-03-04"},
      {"4.3.2026", DateOrder::Unknown, "2026-03-04"},
      {"4.3.26 7:15", DateOrder::Unknown, "2026-03-04T07:15:00"},
      {"3/4/2026", DateOrder::MonthFirst, "2026-03-04"},
      {"3/4/2026", DateOrder::DayFirst, "2026-04-03"},
      {"3/14/26 7:15 PM", DateOrder::MonthFirst, "2026-03-14T19:15:00"},
      {"3/14/26 12:05 AM", DateOrder::MonthFirst, "2026-03-14T00:05:00"},
      {"14-Mar-2026", DateOrder::Unknown, "2026-03-14"},
      {"March 14, 2026", DateOrder::Unknown, "2026-03-14"},
      {"14. März 2026", DateOrder::Unknown, "2026-03-14"},
      {"14 août 2026", DateOrder::Unknown, "2026-08-14"},
      {"14 de marzo de 2026", DateOrder::Unknown, "2026-03-14"},
      {"Tue 14 Jul 2026 19h15", DateOrder::Unknown, "2026-07-14T19:15:00"},
      {"20260304", DateOrder::Unknown, "2026-03-04"},
      {"2026-03-04T07:15:30Z", DateOrder::Unknown, "2026-03-04T07:15:30Z"},
      {"2026-03-04 07:15:30+02:00", DateOrder::Unknown, "2026-03-04T07:15:30+02:00"},
      {"2026-03-04 07:15:30.250", DateOrder::Unknown, "2026-03-04T07:15:30"},
      {"46085.5", DateOrder::Unknown, "2026-03-04T12:00:00"},
      {"1772608500", DateOrder::Unknown, "2026-03-04T07:15:00"},
      {"31/2/2026", DateOrder::Unknown, ""},
      {"14/3/2026", DateOrder::MonthFirst, ""},
      {"yesterday", DateOrder::Unknown, ""},
      {"12.5", DateOrder::Unknown, ""},
      {"1.2.3.4", DateOrder::Unknown, ""},
      {"7:15", DateOrder::Unknown, ""},
      {"2026-03-04 25:00", DateOrder::Unknown, ""},
      {"", DateOrder::Unknown, ""}};
  for (const auto& one : cases) {
    const auto date = dateIn(one.text, one.order);
    EXPECT_EQ(date ? date->iso() : "", one.iso) << one.text;
  }
  EXPECT_EQ(clockIn("7:15"), 26100);
  EXPECT_EQ(clockIn("7:15 p.m."), 69300);
  EXPECT_EQ(clockIn("0.302"), 26093);
  EXPECT_EQ(clockIn("soon"), std::nullopt);
}

} // namespace
} // namespace butte::reading
