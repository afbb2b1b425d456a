/// The independent check must find what is wrong with an answer: each fault is planted and must be seen.
#include "solve/check.h"
#include "support/shelf_builder.h"

using namespace butte;
using namespace butte::core;

namespace {

SolveRequest request() {
  SolveRequest r;
  r.water = pureWater();
  r.shelf = {test::salt("KNO3"), test::salt("K2SO4")};
  r.rows = {{Nutrient::K, 200}, {Nutrient::N, 40}};
  return r;
}

} // namespace

TEST(Check, AGoodAnswerPasses) {
  const auto r = request();
  EXPECT_EQ(checkAnswer(r, *solve(r)), AnswerFault::None);
}

TEST(Check, AWrongNumberOfWeightsIsSeen) {
  const auto r = request();
  auto answer = *solve(r);
  answer.grams.pop_back();
  EXPECT_EQ(checkAnswer(r, answer), AnswerFault::WrongSize);
}

TEST(Check, ANegativeWeightAndOneOutOfBoundsAreSeen) {
  auto r = request();
  auto answer = *solve(r);
  answer.grams[0] = test::grams(-0.1);
  EXPECT_EQ(checkAnswer(r, answer), AnswerFault::BelowBound);
  r.shelf[0].most = test::grams(0.1);
  answer.grams[0] = test::grams(0.2);
  EXPECT_EQ(checkAnswer(r, answer), AnswerFault::AboveBound);
}

TEST(Check, AMovedLockIsSeen) {
  auto r = request();
  r.shelf[0].locked = test::grams(0.2);
  auto answer = *solve(r);
  answer.grams[0] = test::grams(0.2000001);
  EXPECT_EQ(checkAnswer(r, answer), AnswerFault::LockMoved);
}

TEST(Check, APassedCapIsSeen) {
  auto r = request();
  const auto answer = *solve(r);
  r.caps = {{Nutrient::S, 1}};
  EXPECT_EQ(checkAnswer(r, answer), AnswerFault::OverCap);
}

TEST(Check, AWrongStatusIsSeen) {
  const auto r = request();
  auto answer = *solve(r);
  answer.status = answer.status == SolveStatus::Met ? SolveStatus::Best : SolveStatus::Met;
  EXPECT_EQ(checkAnswer(r, answer), AnswerFault::StatusWrong);
}

TEST(Check, AnAnswerThatCanBeBetteredIsSeen) {
  const auto r = request();
  auto answer = *solve(r);
  answer.grams[1] = answer.grams[1] * 1.02;
  EXPECT_EQ(checkAnswer(r, answer), AnswerFault::NotOptimal);
}
