// Calendar files, written for others and read from others; python3-icalendar reads what we write.
#include "ics_file.h"

#include <cstdio>
#include <ctime>
#include <fstream>
#include <gmock/gmock.h>
#include <iterator>
#include <unistd.h>

namespace butte::ics {
namespace {

using core::Day;
using std::chrono::days;
using ::testing::HasSubstr;

const Day monday = Day(std::chrono::year(2026) / 3 / 2);

Day utcDay(std::int64_t seconds) {
  return std::chrono::floor<days>(std::chrono::sys_seconds(std::chrono::seconds(seconds)));
}

Entry entry(const char* uid, const std::string& summary) {
  Entry out;
  out.uid = uid;
  out.summary = summary;
  out.starts = monday;
  return out;
}

std::vector<Entry> some() {
  auto pens = entry("pens@farm", "Calibrate the pens; pH 7, then 4 \\ rinse");
  pens.rule = "FREQ=WEEKLY;BYDAY=MO";
  pens.without = {monday + days(7), monday + days(21)};
  pens.description = "line one\nline two, with a comma";
  auto moved = entry("pens@farm", "Calibrate the pens");
  moved.instead = monday + days(14);
  moved.starts = monday + days(15);
  return {pens, moved, entry("once@farm", "Größe prüfen — " + std::string(200, 'x'))};
}

TEST(IcsFile, AnIndependentReaderFindsEveryEntry) {
  const auto path = "/tmp/butte-ics-" + std::to_string(getpid());
  const auto text = icsText(some(), 1'772'000'000);
  std::ofstream(path + ".ics", std::ios::binary) << text;
  ASSERT_EQ(std::system(("/usr/bin/python3 " + std::string(BUTTE_TEST_DATA) + "/oracle/read_ics.py " + path +
                         ".ics > " + path + ".out 2>&1")
                            .c_str()),
            0);
  std::ifstream file(path + ".out");
  const std::string found{std::istreambuf_iterator<char>(file), {}};
  EXPECT_THAT(found,
              HasSubstr("pens@farm|2026-03-02|FREQ=WEEKLY;BYDAY=MO|2026-03-09,2026-03-23|-|Calibrate the "
                        "pens; pH 7, then 4 \\ rinse\n"));
  EXPECT_THAT(found, HasSubstr("pens@farm|2026-03-17|-|-|2026-03-16|Calibrate the pens\n"));
  EXPECT_THAT(found, HasSubstr("once@farm|2026-03-02|-|-|-|Größe prüfen — xxx"));
  EXPECT_THAT(text, HasSubstr("\r\n")) << "lines end as the standard wants";
  for (std::size_t at = 0, end; (end = text.find("\r\n", at)) != std::string::npos; at = end + 2)
    EXPECT_LE(end - at, 75u) << "and are folded";
  for (const char* end : {".ics", ".out"})
    std::remove((path + end).c_str());
}

TEST(IcsFile, ReadsBackWhatItWrote) {
  const auto read = readIcs(icsText(some(), 1'772'000'000), utcDay);
  ASSERT_TRUE(read);
  ASSERT_EQ(read->entries.size(), 3u);
  EXPECT_EQ(read->passedOver, 0);
  const auto& pens = read->entries[0];
  EXPECT_EQ(pens.summary, some()[0].summary);
  EXPECT_EQ(pens.description, some()[0].description);
  EXPECT_EQ(pens.rule, "FREQ=WEEKLY;BYDAY=MO");
  EXPECT_EQ(pens.without, some()[0].without);
  EXPECT_EQ(read->entries[1].instead, monday + days(14));
}

// The zone's clock goes forward on 2026-03-29: the same hour is another day in UTC before and after.
TEST(IcsFile, ATimeInAZoneBecomesTheFarmsDay) {
  const std::string head = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//x//EN\r\n";
  const auto event = [](const char* start) {
    return std::string("BEGIN:VEVENT\r\nUID:a\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:mix\r\nDTSTART") +
           start + "\r\nEND:VEVENT\r\n";
  };
  const auto read = readIcs(head + event(";TZID=Europe/Amsterdam:20260328T003000") +
                                event(";TZID=Europe/Amsterdam:20260330T003000") + event(":20260330T233000Z") +
                                event(":20260330T233000") + "END:VCALENDAR\r\n",
                            utcDay);
  ASSERT_TRUE(read);
  ASSERT_EQ(read->entries.size(), 4u);
  EXPECT_EQ(read->entries[0].starts, Day(std::chrono::year(2026) / 3 / 27)) << "23:30 UTC the evening before";
  EXPECT_EQ(read->entries[1].starts, Day(std::chrono::year(2026) / 3 / 29)) << "22:30 UTC";
  EXPECT_EQ(read->entries[2].starts, Day(std::chrono::year(2026) / 3 / 30));
  EXPECT_EQ(read->entries[3].starts, Day(std::chrono::year(2026) / 3 / 30)) << "as it stands";
}

TEST(IcsFile, RubbishIsPassedOverOrRefused) {
  EXPECT_FALSE(readIcs("", utcDay));
  EXPECT_FALSE(readIcs("Dear grower", utcDay));
  EXPECT_FALSE(readIcs(std::string(5 << 20, 'x'), utcDay));
  const std::string head = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\n";
  for (const std::string body : {"BEGIN:VEVENT\r\nSUMMARY:no day\r\nEND:VEVENT\r\n",
                                 "BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20269999\r\nSUMMARY:x\r\nEND:VEVENT\r\n",
                                 "BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20260101\r\nEND:VEVENT\r\n",
                                 "BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20260101\r\nRRULE:FREQ="
                                 "SECONDLY\r\nSUMMARY:x\r\nEND:VEVENT\r\n"}) {
    const auto read = readIcs(head + body + "END:VCALENDAR\r\n", utcDay);
    ASSERT_TRUE(read) << body;
    EXPECT_TRUE(read->entries.empty()) << body;
    EXPECT_EQ(read->passedOver, 1) << body;
  }
  EXPECT_FALSE(readIcs(icsText(some(), 1).substr(0, 300), utcDay)) << "torn off";
  const auto bytes =
      readIcs(head + "BEGIN:VEVENT\r\nSUMMARY:a\x01z\r\nDTSTART;VALUE=DATE:20260101\r\nEND:VEVENT\r\n"
                     "END:VCALENDAR\r\n",
              utcDay);
  ASSERT_TRUE(bytes);
  ASSERT_EQ(bytes->entries.size(), 1u);
  EXPECT_EQ(bytes->entries[0].summary, "az") << "no control characters come in";
}

} // namespace
} // namespace butte::ics
