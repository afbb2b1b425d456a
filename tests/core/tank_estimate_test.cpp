// What the filter says of tanks whose truth is known: 200 of them, with pens that are off, days that are
// missing, plants unlike the published ones.
#include "simulated_tank.h"
#include "tank/tank_forecast.h"

#include <gmock/gmock.h>
#include <map>

namespace butte::core {
namespace {

constexpr int tanks = 200, weeks = 3;

struct Held {
  int held = 0, of = 0;
  void add(const Band& band, double truth) {
    ++of;
    held += truth >= band.low - 1e-12 && truth <= band.high + 1e-12;
  }
  double percent() const { return 100.0 * held / of; }
};

/// Takes in the log up to a day, that day's entries left out.
class Follower {
public:
  explicit Follower(const SimulatedTank& tank)
      : filter(tank.believed.priors, tank.believed.content, tank.believed.relativeSd), m_tank(tank) {}
  void upTo(int day) {
    for (; m_next < m_tank.log.size() && m_tank.log[m_next].day < day; ++m_next) {
      filter.advanceTo(m_tank.log[m_next].day);
      for (const auto& check : filter.take(m_tank.log[m_next].deed))
        checks.push_back(check);
    }
    filter.advanceTo(day);
  }
  TankFilter filter;
  std::vector<ReadingCheck> checks;

private:
  const SimulatedTank& m_tank;
  std::size_t m_next = 0;
};

TEST(TankEstimate, NineInTenBandsHoldTheTruthOfEveryElement) {
  std::map<std::string, Held> of;
  int doubted = 0, readings = 0;
  for (int seed = 1; seed <= tanks; ++seed) {
    SimulatedManner manner;
    manner.days = 7 * weeks;
    const auto tank = simulatedTank(static_cast<std::uint64_t>(seed), manner);
    Follower follower(tank);
    for (int week = 1; week <= weeks; ++week) {
      follower.upTo(7 * week);
      const auto told = follower.filter.estimate();
      const auto& truth = tank.truthOfDay[static_cast<std::size_t>(7 * week)];
      for (const auto n : keptNutrients)
        if (tank.feed.milligramsPerLitre.of(n) > 0)
          of[std::string(nutrientKey(n))].add(told.of(n), truth.milligramsPerLitre(n));
      of["litres"].add(told.litres, truth.volume.litres());
      of["alkalinity"].add(told.alkalinityMeqPerL, truth.perLitre()->alkalinityMeqPerL);
    }
    for (const auto& check : follower.checks) {
      ++readings;
      doubted += !check.fits;
    }
  }
  for (const auto& [what, held] : of) {
    EXPECT_GE(held.percent(), 85) << what << " of " << held.of;
    EXPECT_LE(held.percent(), 95) << what << " of " << held.of;
  }
  EXPECT_LT(doubted, readings / 100) << "honest readings are believed";
}

TEST(TankEstimate, SevenDaysAheadItErrsLessThanTheLastReadingCarriedForward) {
  double told[2] = {}, carried[2] = {};
  int compared = 0;
  for (int seed = 1; seed <= 40; ++seed) {
    SimulatedManner manner;
    manner.dosesUntilDay = 21; // nobody doses in the week that is foretold
    const auto tank = simulatedTank(static_cast<std::uint64_t>(seed), manner);
    Follower follower(tank);
    follower.upTo(22);
    const TankPlan plan{
        {RefillRule::When::Below, tank.believed.priors.full * 0.7}, tank.feed, tank.believed.priors.full};
    const auto ahead = forecastOf(follower.filter, plan, 6).back();
    const auto& truth = tank.readsOfDay[28];
    double last[2] = {};
    for (const auto& check : follower.checks) {
      if (check.kind == ReadingKind::Conductivity) last[0] = check.read;
      if (check.kind == ReadingKind::Ph) last[1] = check.read;
    }
    if (!ahead.at25 || !ahead.ph || !truth || last[0] == 0 || last[1] == 0) continue;
    ++compared;
    told[0] += std::abs(ahead.at25->value - truth->at25.milliSiemensPerCm());
    told[1] += std::abs(ahead.ph->value - truth->ph);
    carried[0] += std::abs(last[0] - truth->at25.milliSiemensPerCm());
    carried[1] += std::abs(last[1] - truth->ph);
  }
  EXPECT_GT(compared, 30);
  EXPECT_LT(told[0], 0.8 * carried[0]) << "EC, mS/cm in all";
  EXPECT_LT(told[1], carried[1]) << "pH in all";
}

TEST(TankEstimate, BandsWidenWithTimeAndShrinkAtARefillAnAnalysisAndADump) {
  const auto tank = simulatedTank(5);
  TankFilter filter(tank.believed.priors, tank.believed.content, 0.03);
  const auto width = [&](Nutrient n) {
    const auto band = filter.estimate().of(n);
    return band.high - band.low;
  };
  const double fresh = width(Nutrient::Mg);
  filter.advanceTo(10);
  const double later = width(Nutrient::Mg);
  EXPECT_GT(later, 2 * fresh);
  filter.take(logged::FilledTo{tank.feed, tank.believed.priors.full});
  const double refilled = width(Nutrient::Mg);
  EXPECT_LT(refilled, later);
  logged::Analysed analysis;
  analysis.named = {Nutrient::Mg};
  analysis.milligramsPerLitre.add(Nutrient::Mg, filter.estimate().of(Nutrient::Mg).value * 1.1);
  analysis.relativeSd = 0.03;
  filter.take(analysis);
  EXPECT_LT(width(Nutrient::Mg), 0.5 * refilled);
  EXPECT_NEAR(filter.estimate().of(Nutrient::Mg).value, analysis.milligramsPerLitre.of(Nutrient::Mg),
              0.04 * analysis.milligramsPerLitre.of(Nutrient::Mg));
  filter.take(logged::Emptied{});
  filter.take(logged::FilledTo{tank.feed, tank.believed.priors.full});
  EXPECT_LT(width(Nutrient::Mg), 2 * fresh);
  EXPECT_NEAR(filter.estimate().of(Nutrient::Mg).value, tank.feed.milligramsPerLitre.of(Nutrient::Mg), 1e-3);
}

// Meters see a strength and an alkalinity: an element that is neither stays as unknown as it was.
TEST(TankEstimate, ReadingsClaimNoElementThatTheyCantSee) {
  const auto tank = simulatedTank(9);
  TankFilter read(tank.believed.priors, tank.believed.content, 0.03), blind = read;
  for (int day = 1; day <= 20; ++day) {
    read.advanceTo(day);
    blind.advanceTo(day);
    const logged::FilledTo refill{tank.feed, tank.believed.priors.full};
    read.take(refill);
    blind.take(refill);
    logged::Read reading;
    const auto told = read.estimate();
    ASSERT_TRUE(told.at25);
    reading.at25 = Conductivity::fromMilliSiemensPerCm(told.at25->value);
    reading.level = read.content().volume;
    read.take(reading);
  }
  const auto relative = [](const TankFilter& filter, Nutrient n) {
    const auto band = filter.estimate().of(n);
    return (band.high - band.low) / band.value;
  };
  EXPECT_GT(relative(read, Nutrient::B), 0.3) << "EC never sees boron";
  EXPECT_LT(relative(read, Nutrient::NNitrate), 0.75 * relative(blind, Nutrient::NNitrate));
}

TEST(TankEstimate, AForgottenRefillIsADoubtAndNoLearning) {
  SimulatedManner manner;
  manner.forgetsRefill = true;
  int forgotten = 0, doubted = 0;
  for (std::uint64_t seed = 1; seed <= 20; ++seed) {
    const auto tank = simulatedTank(seed, manner);
    Follower follower(tank);
    follower.upTo(28);
    bool refilled = false;
    for (std::size_t d = 1; d < tank.truthOfDay.size(); ++d)
      refilled |= tank.truthOfDay[d].volume.litres() > tank.truthOfDay[d - 1].volume.litres() * 1.1;
    if (!refilled) continue;
    ++forgotten;
    const bool doubt = std::any_of(follower.checks.begin(), follower.checks.end(), [](const auto& check) {
      return !check.fits && check.kind == ReadingKind::Level;
    });
    doubted += doubt;
    EXPECT_LT(follower.filter.estimate().uptakeLevel.value, 2) << "plants did not change";
  }
  EXPECT_GE(forgotten, 10);
  EXPECT_GE(doubted, forgotten - 2);
}

TEST(TankEstimate, APenThatJumpsIsADoubtBeforeItIsBelieved) {
  const auto tank = simulatedTank(12);
  TankFilter filter(tank.believed.priors, tank.believed.content, 0.03);
  filter.advanceTo(1);
  const auto before = filter.estimate();
  logged::Read wrong;
  wrong.at25 = Conductivity::fromMilliSiemensPerCm(before.at25->value * 1.6);
  const auto checks = filter.take(wrong);
  ASSERT_EQ(checks.size(), 1u);
  EXPECT_FALSE(checks[0].fits);
  const auto after = filter.estimate();
  EXPECT_NEAR(after.at25->value, before.at25->value, 1e-9) << "not absorbed";
  EXPECT_GT(after.at25->high, before.at25->value * 1.5) << "but no longer sure";
}

TEST(TankEstimate, AnEmptyTankAndWildReadingsAreBorne) {
  const auto tank = simulatedTank(3);
  TankFilter filter(tank.believed.priors, tank.believed.content, 0.03);
  filter.take(logged::Emptied{});
  filter.advanceTo(3);
  for (const double ph : {0.0, 14.0, 7.0}) {
    logged::Read read;
    read.ph = ph;
    read.at25 = Conductivity::fromMilliSiemensPerCm(0);
    read.level = Volume{};
    filter.take(read);
  }
  filter.take(logged::Drained{Volume::fromLitres(1e6)});
  filter.take(logged::FilledTo{tank.feed, tank.believed.priors.full});
  const auto told = filter.estimate();
  EXPECT_TRUE(std::isfinite(told.litres.high));
  for (const auto n : keptNutrients)
    EXPECT_TRUE(std::isfinite(told.of(n).low) && std::isfinite(told.of(n).high)) << nutrientKey(n);
  EXPECT_TRUE(told.at25);
}

} // namespace
} // namespace butte::core
