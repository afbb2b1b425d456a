// A practice run: what truly happened beside what was told, and how it is judged. Amounts by hand.
#include "practice/debrief.h"

#include "run/run_result.h"
#include "support/two_tanks.h"

#include <gmock/gmock.h>
#include <random>
#include <set>

namespace butte::core {
namespace {

using test::grams;

/// Plays a hand that does all as it should, each truth just before it is told.
struct Hand {
  RunPlan plan = test::twoTanks();
  std::vector<RunEvent> told;
  std::vector<TrueEvent> truth;

  void tell(const RunDeed& deed) {
    told.push_back({static_cast<std::int64_t>(1000 * told.size()), "K.T.", deed});
  }
  void truly(const TrueDeed& deed) { truth.push_back({0, told.size(), deed}); }
  void gear() {
    for (const auto piece : {Gear::Goggles, Gear::Gloves, Gear::Mask})
      truly(truly::Wore{piece});
  }
  /// What is told to be `mass` and is truly `real` of `product`.
  void salt(std::size_t vessel, std::size_t product, Mass mass, Mass real, std::size_t realProduct,
            int stirs = 2) {
    truly(truly::Filled{realProduct, real});
    tell(did::Weighed{product, mass, "", false});
    truly(truly::Tipped{vessel});
    tell(did::Tipped{product, vessel});
    for (int i = 0; i < stirs; ++i)
      truly(truly::Stirred{vessel});
    tell(did::Clear{product, vessel});
  }
  void all() {
    gear();
    tell(did::Prepared{});
    for (std::size_t v = 0; v < plan.vessels.size(); ++v) {
      truly(truly::Poured{v, waterFirst(plan.vessels[v])});
      tell(did::Poured{v, waterFirst(plan.vessels[v])});
      for (const auto& step : plan.vessels[v].steps)
        salt(v, step.product, step.planned, step.planned, step.product);
      truly(truly::Stirred{v});
      truly(truly::Stirred{v});
      tell(did::ToppedUp{v, plan.vessels[v].volume});
    }
    truly(truly::Mended{Mishap::DriftingPen}); // the pens were looked at
    for (std::size_t v = 0; v < plan.vessels.size(); ++v)
      tell(did::Read{v, {}, 5.8});
  }
  Debrief debrief() const { return debriefOf(plan, told, truth); }
};

const Moment* momentOf(const Debrief& debrief, MomentKind kind) {
  for (const auto& moment : debrief.moments)
    if (moment.kind == kind) return &moment;
  return nullptr;
}

TEST(Practice, AllDoneRightIsAHundredPoints) {
  Hand hand;
  hand.all();
  const auto debrief = hand.debrief();
  EXPECT_NEAR(debrief.points(), 100, 0.1) << debrief.meanOffPercent;
  for (const auto& moment : debrief.moments)
    EXPECT_TRUE(moment.well);
  EXPECT_EQ(momentOf(debrief, MomentKind::WaterBeforeAcid), nullptr) << "there is no acid";
}

TEST(Practice, TheSafetyStepsAreCountedOneByOne) {
  Hand bare;
  bare.all();
  std::erase_if(bare.truth, [](const TrueEvent& e) { return std::holds_alternative<truly::Wore>(e.deed); });
  const auto debrief = bare.debrief();
  EXPECT_FALSE(momentOf(debrief, MomentKind::GearBeforeSalt)->well);
  EXPECT_NEAR(debrief.safety, 20, 1e-9) << "one of three is missing";
  EXPECT_NEAR(debrief.chemistry, 70, 0.1);
}

TEST(Practice, WhatWasTakenForAnotherSaltIsInTheFeed) {
  Hand hand;
  hand.all();
  // The magnesium sulfate's tub held potassium nitrate.
  const PlannedMishap tub{Mishap::MislabelledCup, 1, test::magnesiumSulfate, test::potassiumNitrate};
  for (std::size_t i = 0; i < hand.truth.size(); ++i)
    if (auto* filled = std::get_if<truly::Filled>(&hand.truth[i].deed);
        filled && filled->product == test::magnesiumSulfate) {
      filled->product = test::potassiumNitrate;
      hand.truth.insert(hand.truth.begin() + static_cast<std::ptrdiff_t>(i),
                        {0, hand.truth[i].afterTold, truly::Happened{tub}});
      break;
    }
  const auto debrief = hand.debrief();
  EXPECT_NEAR(debrief.trueMgPerLitre.of(Nutrient::Mg), 0, 1e-9);
  EXPECT_GT(debrief.toldMgPerLitre.of(Nutrient::Mg), 30) << "it was told to be in";
  const auto* moment = momentOf(debrief, MomentKind::Mishap);
  ASSERT_NE(moment, nullptr);
  EXPECT_FALSE(moment->well);
  ASSERT_TRUE(moment->trueMass);
  EXPECT_NEAR(moment->trueMass->grams(), 400, 1e-9);
  EXPECT_LT(debrief.chemistry, 35);
}

TEST(Practice, ASaltThatDissolvesBadlyMustBeWaitedFor) {
  for (const int stirs : {2, 9}) {
    Hand hand;
    const auto& step = hand.plan.vessels[0].steps[0];
    hand.gear();
    hand.tell(did::Prepared{});
    hand.truly(truly::Poured{0, waterFirst(hand.plan.vessels[0])});
    hand.tell(did::Poured{0, waterFirst(hand.plan.vessels[0])});
    hand.truly(truly::Happened{{Mishap::WontDissolve, 0, step.product, step.product}});
    hand.salt(0, step.product, step.planned, step.planned, step.product, stirs);
    const auto debrief = hand.debrief();
    EXPECT_EQ(momentOf(debrief, MomentKind::Mishap)->well, stirs == 9) << stirs;
    EXPECT_EQ(momentOf(debrief, MomentKind::ClearBeforeNext)->well, stirs == 9) << stirs;
    const auto state = trueState(hand.plan, hand.truth);
    EXPECT_NEAR(state.vessels[0].undissolved[step.product] / step.planned,
                std::pow(stubbornStirLeaves, stirs), 1e-9);
  }
}

TEST(Practice, APenThatIsBelievedWithoutAStandardIsAMoment) {
  for (const bool checks : {false, true}) {
    Hand hand;
    hand.all();
    const auto tank = trueState(hand.plan, hand.truth).vessels[1];
    const auto real = trueReading(hand.plan, tank, hand.plan.vessels[1].volume).conductivity;
    std::erase_if(hand.truth, [&](const TrueEvent& e) {
      return std::holds_alternative<truly::Mended>(e.deed) && !checks;
    });
    hand.truth.insert(hand.truth.end() - (checks ? 1 : 0),
                      {0, hand.told.size() - 2, truly::Happened{{Mishap::DriftingPen, 1, 0, 0}}});
    hand.tell(did::Read{1, real * (checks ? 1.0 : 0.86), 6.2});
    const auto debrief = hand.debrief();
    EXPECT_EQ(momentOf(debrief, MomentKind::PenChecked)->well, checks);
    const auto* moment = momentOf(debrief, MomentKind::Mishap);
    ASSERT_NE(moment, nullptr);
    ASSERT_TRUE(moment->toldReading);
    EXPECT_EQ(moment->well, checks);
  }
}

TEST(Practice, AWeightToldOtherwiseThanItLiesIsAMoment) {
  Hand hand;
  hand.all();
  for (auto& event : hand.truth)
    if (auto* filled = std::get_if<truly::Filled>(&event.deed);
        filled && filled->product == test::calciumNitrate)
      filled->mass = filled->mass - grams(60); // the tare was forgotten
  const auto debrief = hand.debrief();
  const auto* moment = momentOf(debrief, MomentKind::Weighed);
  ASSERT_NE(moment, nullptr);
  EXPECT_NEAR(moment->toldMass->grams(), 800, 1e-9);
  EXPECT_NEAR(moment->trueMass->grams(), 740, 1e-9);
  EXPECT_NEAR(debrief.offPercent.front().second, -7.5, 0.01) << "calcium";
}

TEST(Practice, MishapsFollowTheirSeedAndTheirPlan) {
  const auto plan = test::twoTanks();
  std::set<Mishap> seen;
  std::set<std::size_t> counts;
  for (std::uint64_t seed = 0; seed < 200; ++seed) {
    const auto mishaps = seedMishaps(plan, seed);
    EXPECT_EQ(mishaps, seedMishaps(plan, seed));
    counts.insert(mishaps.size());
    std::set<std::pair<std::size_t, std::size_t>> places;
    for (const auto& one : mishaps) {
      seen.insert(one.mishap);
      if (one.mishap == Mishap::DriftingPen) continue;
      EXPECT_TRUE(places.insert({one.vessel, one.product}).second) << "two at one step";
      const auto& steps = plan.vessels[one.vessel].steps;
      EXPECT_TRUE(
          std::any_of(steps.begin(), steps.end(), [&](const auto& s) { return s.product == one.product; }));
      const bool another = one.mishap == Mishap::MislabelledCup || one.mishap == Mishap::SwappedCups;
      EXPECT_EQ(one.other != one.product, another);
    }
  }
  EXPECT_EQ(seen.size(), allMishaps.size());
  EXPECT_EQ(counts, (std::set<std::size_t>{3, 4, 5}));
}

TEST(Practice, NoGramIsLostBetweenCupAndVessel) {
  const auto plan = test::twoTanks();
  std::mt19937_64 random(3);
  for (int run = 0; run < 100; ++run) {
    std::vector<TrueEvent> truth;
    double poured = 0;
    for (int i = 0; i < 40; ++i) {
      const auto product = random() % plan.shelf.size(), vessel = random() % plan.vessels.size();
      switch (random() % 4) {
      case 0: {
        const double mass = static_cast<double>(random() % 1000);
        poured += mass;
        truth.push_back({0, 0, truly::Filled{product, grams(mass)}});
        break;
      }
      case 1:
        truth.push_back({0, 0, truly::Tipped{vessel}});
        break;
      case 2:
        truth.push_back({0, 0, truly::Stirred{vessel}});
        break;
      default:
        truth.push_back({0, 0, truly::Poured{vessel, Volume::fromLitres(1)}});
      }
    }
    const auto state = trueState(plan, truth);
    double there = 0;
    for (const auto mass : state.cup)
      there += mass.grams();
    for (const auto& vessel : state.vessels)
      for (std::size_t p = 0; p < vessel.in.size(); ++p) {
        there += vessel.in[p].grams();
        EXPECT_LE(vessel.undissolved[p], vessel.in[p]);
      }
    EXPECT_NEAR(there, poured, 1e-6);
  }
}

} // namespace
} // namespace butte::core
