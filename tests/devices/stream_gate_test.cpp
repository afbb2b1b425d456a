// What is kept of a stream: thinned, wild ones marked, nothing lost without a count.
#include "stream/stream_gate.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace butte::devices {
namespace {

using testing::ElementsAre;
using testing::IsEmpty;

constexpr std::int64_t start = 1772608500, quarter = 900;

class Gate {
public:
  explicit Gate(const char* quantity) : m_gate(gateRulesFor(quantity, quarter)) {}
  void say(double value, std::int64_t apart = 60) { sayAt(m_at += apart, value); }
  void sayAt(std::int64_t at, double value) {
    for (const auto& kept : m_gate.take(at, value, m_now.value_or(at)))
      all.push_back(kept);
  }
  std::vector<KeptSample> marked(SampleMark mark) const {
    std::vector<KeptSample> out;
    for (const auto& kept : all)
      if (kept.mark == mark) out.push_back(kept);
    return out;
  }
  std::vector<KeptSample> all;
  StreamGate& gate() { return m_gate; }
  std::int64_t m_at = start;
  std::optional<std::int64_t> m_now;

private:
  StreamGate m_gate;
};

TEST(TheGate, KeepsTheMedianOfEachQuarterOfAnHour) {
  Gate gate("ec");
  std::mt19937 random(7);
  std::normal_distribution<> flicker(0, 0.01);
  for (int minute = 0; minute < 24 * 60; ++minute)
    gate.say(1.6 + flicker(random));
  EXPECT_NEAR(gate.all.size(), 96, 1);
  for (std::size_t i = 1; i < gate.all.size(); ++i)
    EXPECT_NEAR(gate.all[i].value, 1.6, 0.012) << "the median of fifteen is steadier than one";
  EXPECT_EQ(gate.gate().heard(), 24 * 60);
  EXPECT_EQ(gate.gate().wild(), 0);
}

TEST(TheGate, ALastingChangeIsKeptAtOnce) {
  Gate gate("level");
  for (int i = 0; i < 10; ++i)
    gate.say(200);
  for (int i = 0; i < 5; ++i)
    gate.say(400); // a refill
  ASSERT_EQ(gate.all.size(), 2U);
  EXPECT_EQ(gate.all[1], (KeptSample{start + 11 * 60, 400, SampleMark::Sound})) << "from its first minute on";
}

TEST(TheGate, ALeapThatIsTakenBackIsWildAndSaidSo) {
  Gate gate("ec");
  for (int i = 0; i < 5; ++i)
    gate.say(1.6);
  gate.say(0); // the pen was lifted out
  gate.say(0.01);
  for (int i = 0; i < 5; ++i)
    gate.say(1.6);
  EXPECT_THAT(gate.marked(SampleMark::Wild), ElementsAre(KeptSample{start + 6 * 60, 0, SampleMark::Wild}));
  EXPECT_EQ(gate.gate().wild(), 2);
  for (const auto& kept : gate.all)
    EXPECT_TRUE(kept.mark == SampleMark::Wild || kept.value == 1.6);
}

TEST(TheGate, WhatCannotBeIsMarkedOnceAStretch) {
  Gate gate("temperature");
  gate.say(21);
  for (int i = 0; i < 30; ++i)
    gate.say(i % 2 ? 85 : -127); // a sensor that is not there: common practice
  gate.say(std::nan(""));
  EXPECT_EQ(gate.gate().wild(), 31);
  EXPECT_NEAR(gate.marked(SampleMark::Wild).size(), 2, 1);
  EXPECT_THAT(gate.marked(SampleMark::Sound), testing::SizeIs(1));
}

TEST(TheGate, AFloatThatHangsIsMarkedAfterADay) {
  Gate gate("level");
  for (int i = 0; i < 4 * 24 * 2; ++i)
    gate.say(312, quarter);
  EXPECT_TRUE(gate.gate().isStuck());
  EXPECT_NEAR(gate.marked(SampleMark::Stuck).size(), 4 * 24, 2);
  gate.say(311.5, quarter);
  EXPECT_FALSE(gate.gate().isStuck());
  EXPECT_EQ(gate.all.back().mark, SampleMark::Sound);
}

TEST(TheGate, AClockPutBackBeginsAStretchOfItsOwn) {
  Gate gate("ph");
  for (int i = 0; i < 20; ++i)
    gate.say(5.9);
  const auto before = gate.all.size();
  gate.m_at -= 3600;
  for (int i = 0; i < 20; ++i)
    gate.say(5.9);
  EXPECT_GE(gate.all.size(), before + 2) << "readings go on, by the clock as it is now";
  EXPECT_EQ(gate.gate().wild(), 0);
}

TEST(TheGate, TimesThatCannotBeAreMarked) {
  Gate gate("ph");
  gate.m_now = start;
  gate.sayAt(86400, 5.9);         // 1970: the logger's battery is dead
  gate.sayAt(start + 90000, 5.9); // tomorrow
  gate.sayAt(start, 5.9);
  EXPECT_EQ(gate.marked(SampleMark::Clock).size(), 2U);
  EXPECT_EQ(gate.marked(SampleMark::Sound).size(), 1U);
}

TEST(TheGate, ALoggerThatSpeaksSeldomIsBelievedSooner) {
  Gate gate("level");
  for (int i = 0; i < 5; ++i)
    gate.say(200, 3600);
  gate.say(400, 3600);
  gate.say(398, 3600);
  EXPECT_THAT(gate.all.back(), (KeptSample{start + 6 * 3600, 399, SampleMark::Sound}));
}

TEST(TheGate, WhatWaitsAtTheEndIsKept) {
  Gate gate("ec");
  for (int i = 0; i < 6; ++i)
    gate.say(1.6);
  EXPECT_THAT(gate.gate().close(), ElementsAre(KeptSample{start + 6 * 60, 1.6, SampleMark::Sound}));
  EXPECT_THAT(gate.gate().close(), IsEmpty());
}

TEST(TheGate, NothingIsLostWithoutACount) {
  std::mt19937 random(11);
  std::uniform_real_distribution<> any(-5, 20);
  Gate gate("ph");
  for (int i = 0; i < 2000; ++i)
    gate.say(any(random), 7);
  EXPECT_EQ(gate.gate().heard(), 2000);
  std::size_t outside = 0;
  for (const auto& kept : gate.all)
    if (kept.mark == SampleMark::Sound && (kept.value < 0.5 || kept.value > 13.5)) ++outside;
  EXPECT_EQ(outside, 0U);
  EXPECT_GT(gate.gate().wild(), 500);
}

} // namespace
} // namespace butte::devices
