// Repeats as in RFC 5545, against python3-dateutil.
#include "repeats.h"

#include <cstdio>
#include <fstream>
#include <gtest/gtest.h>
#include <random>
#include <sstream>
#include <unistd.h>

namespace butte::ics {
namespace {

using core::Day;
using std::chrono::days;

std::string iso(Day day) {
  const std::chrono::year_month_day date(day);
  char out[32];
  std::snprintf(out, sizeof out, "%04d-%02u-%02u", int(date.year()), unsigned(date.month()),
                unsigned(date.day()));
  return out;
}

std::string joined(const std::vector<Day>& list) {
  std::string out;
  for (const auto day : list)
    out += (out.empty() ? "" : " ") + iso(day);
  return out;
}

const Day monday = Day(std::chrono::year(2026) / 3 / 2);

TEST(Repeats, EverySecondMondayFromTheDayItBegan) {
  const auto found =
      repeatDays("FREQ=WEEKLY;INTERVAL=2;BYDAY=MO", monday, monday + days(10), monday + days(45));
  EXPECT_EQ(joined(found), "2026-03-16 2026-03-30 2026-04-13");
}

TEST(Repeats, WhatIsNoRuleOrRepeatsWithinADayIsRefused) {
  for (const auto* rule : {"", "weekly", "FREQ=HOURLY", "FREQ=DAILY;BYHOUR=3", "FREQ=WEEKLY;INTERVAL=0",
                           "FREQ=DAILY;INTERVAL=-1", "FREQ=SECONDLY;COUNT=5"}) {
    EXPECT_FALSE(checkedRule(rule)) << rule;
    EXPECT_TRUE(repeatDays(rule, monday, monday, monday + days(10)).empty()) << rule;
  }
  EXPECT_FALSE(checkedRule("FREQ=DAILY;" + std::string(100000, 'X')));
  EXPECT_TRUE(checkedRule("FREQ=MONTHLY;BYDAY=-1FR"));
}

TEST(Repeats, ARuleThatNeverFallsEnds) {
  EXPECT_TRUE(repeatDays("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", monday, monday, monday + days(3650)).empty());
}

// python3-dateutil is what says which days a rule falls on.
TEST(Repeats, FallOnTheDaysThatDateutilFinds) {
  std::mt19937 random(5545);
  const auto below = [&](int most) { return static_cast<int>(random() % static_cast<unsigned>(most)); };
  const char* weekdays[] = {"MO", "TU", "WE", "TH", "FR", "SA", "SU"};
  const auto base = "/tmp/butte-repeats-" + std::to_string(getpid());
  std::vector<std::string> ours;
  {
    std::ofstream file(base + ".in");
    for (int i = 0; i < 600; ++i) {
      const auto start = monday + days(below(1500) - 700);
      std::string rule = "FREQ=";
      const int kind = below(4);
      rule += kind == 0 ? "DAILY" : kind == 1 ? "WEEKLY" : kind == 2 ? "MONTHLY" : "YEARLY";
      if (below(2)) rule += ";INTERVAL=" + std::to_string(1 + below(5));
      if (kind == 1 && below(2))
        rule += std::string(";BYDAY=") + weekdays[below(3)] + "," + weekdays[3 + below(4)];
      if (kind == 2 && below(2))
        rule += below(2) ? ";BYMONTHDAY=" + std::to_string(1 + below(31))
                         : ";BYDAY=" + std::to_string(below(2) ? 1 + below(4) : -1) + weekdays[below(7)];
      if (kind == 3 && below(2)) rule += ";BYMONTH=" + std::to_string(1 + below(12)) + ";BYMONTHDAY=15";
      if (below(4) == 0) rule += ";COUNT=" + std::to_string(1 + below(20));
      const auto from = start + days(below(400) - 100), to = from + days(below(500));
      file << iso(start) << ' ' << iso(from) << ' ' << iso(to) << ' ' << rule << '\n';
      ours.push_back(joined(repeatDays(rule, start, from, to)) + "   " + rule + " from " + iso(start));
    }
  }
  ASSERT_EQ(std::system(("/usr/bin/python3 " + std::string(BUTTE_TEST_DATA) + "/oracle/repeats.py < " + base +
                         ".in > " + base + ".out")
                            .c_str()),
            0);
  std::ifstream theirs(base + ".out");
  std::string line;
  for (const auto& own : ours) {
    ASSERT_TRUE(std::getline(theirs, line));
    EXPECT_EQ(own.substr(0, own.find("   ")), line) << own;
  }
  for (const char* end : {".in", ".out"})
    std::remove((base + end).c_str());
}

} // namespace
} // namespace butte::ics
