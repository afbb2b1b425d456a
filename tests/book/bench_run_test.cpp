// A run at the bench in the book: read strictly, written back the same, never a state that can't be.
#include "book/bench_run.h"

#include "book_fixture.h"
#include "support/told.h"

namespace butte::book {
namespace {

class BenchRunTest : public BookTest {};

Json wholeRun() {
  return Json::parse(R"({
    "name": "berries", "formula": "f-1", "formula_version": 2,
    "vessels": [
      {"name": "A", "volume_l": 200.0, "factor": 100.0,
       "steps": [{"product": "cn", "g": 800.0, "tolerance_g": 8.0}, {"product": "kno3", "g": 100.0, "tolerance_g": 2.0}]},
      {"name": "B", "volume_l": 200.0, "factor": 100.0, "steps": [{"product": "kno3", "g": 200.0, "tolerance_g": 4.0}]}],
    "other_products": ["epsom"],
    "events": [
      {"did": "poured", "vessel": "A", "volume_l": 100.0, "at_s": 1.5, "by": "K.T."},
      {"did": "weighed", "product": "cn", "g": 801.0, "lot": "L1", "typed": true, "at_s": 2.25, "by": "K.T."},
      {"did": "tipped", "product": "cn", "vessel": "A", "at_s": 3.0},
      {"did": "weighed", "product": "epsom", "g": 5.0, "at_s": 4.0}]})");
}

TEST_F(BenchRunTest, IsReadAndWrittenBackTheSame) {
  const auto run = benchRunFromJson(wholeRun());
  ASSERT_TRUE(static_cast<bool>(run)) << run.problem().where;
  EXPECT_EQ(run->products, (std::vector<std::string>{"cn", "kno3", "epsom"}));
  EXPECT_EQ(run->vessels[1].steps[0].product, 1u) << "one salt in two tanks is one product";
  EXPECT_EQ(run->events[0].atMilliseconds, 1500);
  EXPECT_FALSE(run->isFinished());
  EXPECT_EQ(toJson(*run), wholeRun());
}

TEST_F(BenchRunTest, WhatCanNotBeIsRefusedByItsPlace) {
  const auto refused = [](const char* pointer, const Json& value, const char* named) {
    auto body = wholeRun();
    body[Json::json_pointer(pointer)] = value;
    const auto problem = checkRecord(Kind::BenchRun, body);
    ASSERT_TRUE(problem) << pointer;
    EXPECT_THAT(problem->where, ::testing::HasSubstr(named)) << pointer;
  };
  EXPECT_FALSE(checkRecord(Kind::BenchRun, wholeRun()));
  refused("/vessels", Json::array(), "vessels");
  refused("/vessels/0/volume_l", 0, "vessels[0].volume_l");
  refused("/vessels/0/factor", 0.5, "vessels[0].factor");
  refused("/vessels/0/steps/0/g", "much", "vessels[0].steps[0].g");
  refused("/vessels/0/steps/0/tolerance_g", -1, "tolerance_g");
  refused("/vessels/1/ponies", 3, "ponies");
  refused("/events/1/product", "sugar", "events[1].product");
  refused("/events/2/did", "eaten", "events[2].did");
  refused("/events/2/product", "kno3", "events[2]"); // nothing of it lies in the cup
  refused("/formula_version", 0, "formula_version");
}

TEST_F(BenchRunTest, AnEventIsAddedAndAllOfItGoesOutAndIn) {
  auto book = make();
  const auto ref = *book->create(Kind::BenchRun, wholeRun(), told("run"));
  const Json event{{"did", "taken_out"}, {"product", "epsom"}, {"g", 5.0}, {"at_s", 5.0}};
  ASSERT_FALSE(book->apply({0, {}, {}, told("step"), {}, {{ref, "/body/events/4", Json(), event}}}));
  ASSERT_FALSE(book->flush());
  EXPECT_EQ((*book->record(ref))->body["events"].size(), 5u);
  const Json impossible{{"did", "tipped"}, {"product", "epsom"}, {"vessel", "A"}, {"at_s", 6.0}};
  EXPECT_TRUE(book->apply({0, {}, {}, told("step"), {}, {{ref, "/body/events/5", Json(), impossible}}}))
      << "the cup is empty: refused, nothing is written";
  EXPECT_EQ((*book->record(ref))->body["events"].size(), 5u);
  ASSERT_TRUE(static_cast<bool>(book->undo()));
  EXPECT_EQ((*book->record(ref))->body["events"].size(), 4u);
}

} // namespace
} // namespace butte::book
