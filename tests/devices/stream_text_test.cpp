// What loggers write: times, lines, tables that grow, registers, addresses. Shapes: common practice.
#include "stream/growing_csv.h"
#include "stream/line_samples.h"
#include "stream/modbus_register.h"
#include "stream/stream_address.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

namespace butte::devices {
namespace {

using testing::ElementsAre;
using testing::IsEmpty;

LoggedTime read(const char* text, DateOrder order = DateOrder::DayFirst, bool mayCount = false) {
  return parseLoggedTime(text, order, mayCount);
}

TEST(LoggedTimes, AreReadInTheShapesThatLoggersHave) {
  const LoggedTime morning = CivilTime{2026, 3, 4, 7, 15, 30};
  EXPECT_EQ(read("2026-03-04 07:15:30"), morning);
  EXPECT_EQ(read("2026-03-04T07:15:30.250"), morning);
  EXPECT_EQ(read("2026/03/04 7:15:30"), morning);
  EXPECT_EQ(read("04.03.2026 07:15:30"), morning);
  EXPECT_EQ(read("4/3/2026 7:15:30"), morning);
  EXPECT_EQ(read("3/4/2026 7:15:30 AM", DateOrder::MonthFirst), morning);
  EXPECT_EQ(read("4/3/26, 07:15:30"), morning);
  EXPECT_EQ(read("3/4/2026 12:05 PM", DateOrder::MonthFirst), LoggedTime(CivilTime{2026, 3, 4, 12, 5, 0}));
  EXPECT_EQ(read("3/4/2026 12:05 am", DateOrder::MonthFirst), LoggedTime(CivilTime{2026, 3, 4, 0, 5, 0}));
  // GNU date: date -u -d '2026-03-04T07:15:30Z' +%s
  EXPECT_EQ(read("2026-03-04T07:15:30Z"), LoggedTime(std::int64_t{1772608530}));
  EXPECT_EQ(read("2026-03-04T08:15:30+01:00"), LoggedTime(std::int64_t{1772608530}));
  EXPECT_EQ(read("2026-03-04 02:45:30-0430"), LoggedTime(std::int64_t{1772608530}));
  EXPECT_EQ(read("1772608530", DateOrder::DayFirst, true), LoggedTime(std::int64_t{1772608530}));
  EXPECT_EQ(read("1772608530250", DateOrder::DayFirst, true), LoggedTime(std::int64_t{1772608530}));
}

TEST(LoggedTimes, ThatNoCalendarHasAreNone) {
  for (const char* text :
       {"", "1772608530", "2026-02-30 07:15", "2026-13-01 07:15", "13/13/2026 07:15", "2026-03-04",
        "2026-03-04 24:00", "2026-03-04 07:60", "2026-03-04 07", "07:15", "2026-03-04 07:15 x", "1.62",
        "2026-03.04 07:15", "2026-03-04 13:00 PM", "2026-03-04 07:15+99:00", "99999-01-01 00:00"})
    EXPECT_EQ(read(text).index(), 0U) << text;
}

TEST(Lines, AreReadByTheirWordsAsPensOrByPlace) {
  EXPECT_THAT(lineSamples("EC=1.62 mS/cm; pH=5.9; T:21,4"),
              ElementsAre(StreamSample{"EC", "1.62", "mS/cm"}, StreamSample{"pH", "5.9", ""},
                          StreamSample{"T", "21.4", ""}));
  EXPECT_THAT(lineSamples("pond ec=1.62 ph=5.9"),
              ElementsAre(StreamSample{"ec", "1.62", ""}, StreamSample{"ph", "5.9", ""}));
  EXPECT_THAT(lineSamples("EC 1450 uS/cm pH 5.82 21.3 C"),
              ElementsAre(StreamSample{"EC", "1.45", "mS/cm"}, StreamSample{"pH", "5.82", ""},
                          StreamSample{"temperature", "21.3", "C"}));
  EXPECT_THAT(lineSamples("1.62,5.9,21.4"),
              ElementsAre(StreamSample{"#1", "1.62", ""}, StreamSample{"#2", "5.9", ""},
                          StreamSample{"#3", "21.4", ""}));
  EXPECT_THAT(lineSamples("1,62;5,9"),
              ElementsAre(StreamSample{"#1", "1.62", ""}, StreamSample{"#2", "5.9", ""}));
}

TEST(Lines, ThatAreDamagedAreUnread) {
  for (const char* line : {"", "   ", "ERR 17", "EC=", "EC=1.6;pH=", "EC=1.6;5.9", "1.6,,5.9", "1.6;x", "=5",
                           "\xff\xfe\x00", "EC=1.6.2", "12:30:05"})
    EXPECT_THAT(lineSamples(line), IsEmpty()) << line;
}

GrowingCsv::Taken whole(const char* text, DateOrder order = DateOrder::DayFirst) {
  return GrowingCsv(order).take(text);
}

TEST(GrowingTables, FindTheirSeparatorHeadUnitsAndTime) {
  const auto found = whole("Time;EC (mS/cm);pH;Level\n;;;L\n04.03.2026 07:15;1,62;5,9;412\n");
  ASSERT_EQ(found.rows.size(), 1U);
  EXPECT_EQ(found.rows[0].at, LoggedTime(CivilTime{2026, 3, 4, 7, 15, 0}));
  EXPECT_THAT(found.rows[0].samples,
              ElementsAre(StreamSample{"EC", "1,62", "mS/cm"}, StreamSample{"pH", "5,9", ""},
                          StreamSample{"Level", "412", "L"}));
  EXPECT_THAT(found.unread, IsEmpty());
  const auto two = whole("Date,Time of day,ph\r\n3/4/2026,7:15 PM,5.9\r\n", DateOrder::MonthFirst);
  ASSERT_EQ(two.rows.size(), 1U);
  EXPECT_EQ(two.rows[0].at, LoggedTime(CivilTime{2026, 3, 4, 19, 15, 0}));
  const auto bare = whole("2026-03-04 07:15\t1.62\t5.9\n");
  ASSERT_EQ(bare.rows.size(), 1U);
  EXPECT_EQ(bare.rows[0].samples[0].key, "#2");
  const auto counted = whole("timestamp,ec\n1772608530,1.62\n");
  EXPECT_EQ(counted.rows[0].at, LoggedTime(std::int64_t{1772608530}));
  // A number of ten digits under another head is no time.
  EXPECT_EQ(whole("serial,ec\n1772608530,1.62\n").rows[0].at.index(), 0U);
}

TEST(GrowingTables, ComeInAnyPieces) {
  const std::string text = "time,ec\n2026-03-04 07:15,1.62\n2026-03-04 07:16,1.63\n2026-03-04 07:17,1.6";
  GrowingCsv table(DateOrder::DayFirst);
  std::size_t rows = 0;
  for (const char c : text)
    rows += table.take(std::string(1, c)).rows.size();
  EXPECT_EQ(rows, 2U) << "the last line has not ended yet";
  EXPECT_EQ(table.take("4\n").rows.at(0).samples.at(0).text, "1.64");
}

TEST(GrowingTables, ALoggerThatStartsAnewWritesItsHeadAgain) {
  const auto found = whole("time,ec\n2026-03-04 07:15,1.62\ntime,ph,ec\n2026-03-04 07:20,5.9,1.6\n");
  ASSERT_EQ(found.rows.size(), 2U);
  EXPECT_EQ(found.rows[1].samples[0].key, "ph");
  EXPECT_EQ(found.rows[1].samples[1].text, "1.6");
}

TEST(GrowingTables, DamagedLinesAreUnreadAndSaidSo) {
  const auto found = whole("time,ec,ph\n2026-03-04 07:15,1.62\n2026-03-04 07:16,1.62,5.9\n"
                           "nonsense,1.6,5.9\n2026-03-04 07:17,,5.9\n2026-03-04 07:18,NaN,5.9\n");
  EXPECT_THAT(found.unread, ElementsAre("2026-03-04 07:15,1.62", "nonsense,1.6,5.9"));
  ASSERT_EQ(found.rows.size(), 3U);
  EXPECT_EQ(found.rows[1].samples.size(), 1U) << "an empty cell says nothing";
  EXPECT_EQ(found.rows[2].samples.size(), 1U);
  const std::string endless(20000, '7');
  const auto after =
      GrowingCsv(DateOrder::DayFirst).take("time,ec\n" + endless + "\n2026-03-04 07:15,1.62\n");
  EXPECT_EQ(after.unread.size(), 1U);
  EXPECT_EQ(after.rows.size(), 1U);
}

TEST(ModbusRegisters, HoldFiguresOfEveryKind) {
  const auto decoded = [](const char* what, std::vector<std::uint16_t> words) {
    const auto place = ModbusRegister::parse(what);
    return place ? place->decode(words) : std::nullopt;
  };
  EXPECT_EQ(decoded("holding 0", {162}), 162.0);
  EXPECT_EQ(decoded("holding 0 s16", {0xFFFF}), -1.0);
  EXPECT_EQ(decoded("input 7 u32", {1, 0}), 65536.0);
  EXPECT_EQ(decoded("input 7 u32 swapped", {1, 0}), 1.0);
  EXPECT_EQ(decoded("input 7 s32", {0xFFFF, 0xFFFE}), -2.0);
  // IEEE 754: 1.625 is 0x3FD00000.
  EXPECT_EQ(decoded("holding 100 f32", {0x3FD0, 0x0000}), 1.625);
  EXPECT_EQ(decoded("holding 100 f32 swapped", {0x0000, 0x3FD0}), 1.625);
  EXPECT_EQ(decoded("holding 100 f32", {0x3FD0}), std::nullopt);
  for (const auto* text : {"holding 100 f32 swapped", "input 0 u16", "holding 65535 s32"}) {
    const auto place = ModbusRegister::parse(text);
    ASSERT_TRUE(place) << text;
    EXPECT_EQ(place->text(), text);
    EXPECT_EQ(place->decode(place->encode(1)), 1.0);
  }
  for (const auto* text :
       {"", "holding", "coil 1", "holding -1", "holding 65536", "holding 1 f64", "holding x",
        "holding 1 u16 u16", "holding 1 swapped u16", "holding 1 u16 swapped more"})
    EXPECT_FALSE(ModbusRegister::parse(text)) << text;
}

TEST(StreamAddresses, AreReadAndWrittenAlike) {
  for (const auto* text :
       {"file:/home/anna/my logger.csv", "tcp:192.168.1.20:4001", "serial:/dev/ttyUSB0,9600,8N1",
        "modbus:tcp:192.168.1.30:502 unit 1", "modbus:serial:/dev/ttyUSB1,19200,8E1 unit 17",
        "mqtt:broker:1883/glass/+/ec", "mqtt:anna@broker:8883/#"}) {
    const auto address = StreamAddress::parse(text);
    ASSERT_TRUE(address) << text;
    EXPECT_EQ(address->text(), text);
  }
  EXPECT_EQ(StreamAddress::parse("mqtt:broker")->text(), "mqtt:broker:1883/#");
  EXPECT_EQ(StreamAddress::parse(" modbus:tcp:plc:502 ")->modbusUnit, 1);
  for (const auto* text :
       {"", "file:", "file:log.csv", "/home/x.csv", "http://x", "modbus:plc:502", "modbus:tcp:plc:502 unit 0",
        "modbus:tcp:plc:502 unit 300", "mqtt:", "mqtt:host:99999", "mqtt:host/a#", "mqtt:host/#/a",
        "mqtt:host/a+/b", "mqtt:host/", "file:/a\nb"}) {
    const auto address = StreamAddress::parse(text);
    ASSERT_FALSE(address) << text;
    EXPECT_EQ(address.problem().where, "address");
  }
}

} // namespace
} // namespace butte::devices
