// What is to be done: by rules, by intervals after it was done, once; done, left out, moved.
#include "calendar/agenda.h"

#include <gtest/gtest.h>
#include <random>

namespace butte::core {
namespace {

using std::chrono::days;

const Day monday = Day(std::chrono::year(2026) / 3 / 2);

/// Every so many days.
std::vector<Day> everyFew(const std::string& rule, Day starts, Day from, Day to) {
  std::vector<Day> out;
  for (auto day = starts; day <= to; day += days(std::stoi(rule)))
    if (day >= from) out.push_back(day);
  return out;
}

std::int64_t noon(Day day) {
  return std::chrono::sys_seconds(day).time_since_epoch().count() + 43200;
}

ChoreTold told(Day due, ChoreDid did, Day on, Day to = {}) {
  return {"pens", due, did, to, noon(on)};
}

std::vector<Due> dueOf(const Chore& chore, const std::vector<ChoreTold>& lines, Day today, int ahead = 14) {
  return agenda({chore}, lines, today, today + days(ahead), everyFew);
}

const Chore weekly{"pens", monday, "7", {}};

TEST(Agenda, ARuleFallsOnItsDaysAndTheLateOneSaysHowManyWereMissed) {
  const auto due = dueOf(weekly, {}, monday + days(23));
  ASSERT_EQ(due.size(), 3u);
  EXPECT_EQ(due[0].on, monday + days(21)) << "the newest that is late";
  EXPECT_EQ(due[0].missed, 3);
  EXPECT_EQ(due[1].on, monday + days(28));
  EXPECT_EQ(due[2].missed, 0);
}

TEST(Agenda, WhatIsDoneOrLeftOutGoesAndWhoeverDidALaterOneHasCaughtUp) {
  const auto due =
      dueOf(weekly, {told(monday + days(21), ChoreDid::Done, monday + days(23))}, monday + days(24));
  ASSERT_EQ(due.size(), 2u);
  EXPECT_EQ(due[0].on, monday + days(28));
  const auto next =
      dueOf(weekly, {told(monday + days(28), ChoreDid::LeftOut, monday + days(24))}, monday + days(24), 7);
  EXPECT_EQ(next.size(), 1u) << "the late one alone";
}

TEST(Agenda, AMovedOneStandsWhereItWasPutAndTheOthersStay) {
  const auto to = monday + days(30);
  const auto due =
      dueOf(weekly, {told(monday + days(28), ChoreDid::Moved, monday + days(26), to)}, monday + days(27), 10);
  ASSERT_EQ(due.size(), 3u);
  EXPECT_EQ(due[1].due, monday + days(28));
  EXPECT_EQ(due[1].on, to);
  EXPECT_EQ(due[2].on, monday + days(35));
  const auto done = dueOf(weekly,
                          {told(monday + days(28), ChoreDid::Moved, monday + days(26), to),
                           told(monday + days(28), ChoreDid::Done, monday + days(29))},
                          monday + days(29), 5);
  EXPECT_TRUE(done.empty());
}

TEST(Agenda, AnIntervalCountsFromTheDayItWasDone) {
  const Chore filters{"pens", monday, "", 10};
  EXPECT_EQ(dueOf(filters, {}, monday - days(3))[0].on, monday);
  EXPECT_EQ(dueOf(filters, {told(monday, ChoreDid::Done, monday + days(4))}, monday + days(5))[0].on,
            monday + days(14));
  EXPECT_EQ(dueOf(filters, {}, monday + days(50))[0].on, monday) << "late, and once";
}

TEST(Agenda, OnceIsOnce) {
  const Chore start{"pens", monday, "", {}};
  EXPECT_EQ(dueOf(start, {}, monday + days(3)).size(), 1u);
  EXPECT_TRUE(dueOf(start, {told(monday, ChoreDid::Done, monday + days(3))}, monday + days(4)).empty());
}

// Whatever is told, nothing is due twice on one day, nothing that was ended comes back, late is one at most.
TEST(Agenda, HoldsTogetherWhateverIsTold) {
  std::mt19937 random(1);
  const auto below = [&](int most) { return static_cast<int>(random() % static_cast<unsigned>(most)); };
  for (int t = 0; t < 500; ++t) {
    std::vector<ChoreTold> lines;
    for (int i = below(12); i > 0; --i)
      lines.push_back(told(monday + days(7 * below(8)), static_cast<ChoreDid>(below(3)),
                           monday + days(below(60)), monday + days(below(70))));
    const auto today = monday + days(below(60));
    int late = 0;
    for (const auto& one : dueOf(weekly, lines, today, 20)) {
      late += one.on < today;
      EXPECT_LE(one.on, today + days(20));
      for (const auto& line : lines)
        EXPECT_FALSE(line.due == one.due && line.did != ChoreDid::Moved);
    }
    EXPECT_LE(late, 1);
  }
}

} // namespace
} // namespace butte::core
