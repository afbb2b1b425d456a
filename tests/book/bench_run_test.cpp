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

/// A practice run of a vessel that holds feed, in an order of its own.
Json practiceRun() {
  auto body = wholeRun();
  body["order"] = "traces_first";
  body["vessels"][1]["had"] = Json::parse(R"({"volume_l": 20.0, "g": {"kno3": 20.0, "epsom": 1.5}})");
  body["vessels"][0]["steps"][0]["readability_g"] = 0.5;
  body["practice"] = Json::parse(R"({"seed": 42, "truth": [
    {"did": "wore", "piece": "mask", "at_s": 1.0, "after": 0},
    {"did": "happened", "mishap": "mislabelled_cup", "vessel": "A", "product": "cn", "other": "kno3", "at_s": 1.5, "after": 1},
    {"did": "filled", "product": "kno3", "g": 800.0, "at_s": 2.0, "after": 1},
    {"did": "filled", "product": "kno3", "g": -12.5, "at_s": 2.5, "after": 1},
    {"did": "took_other_cup", "product": "epsom", "g": 5.0, "at_s": 2.6, "after": 2},
    {"did": "tipped", "vessel": "A", "at_s": 3.0, "after": 2},
    {"did": "stirred", "vessel": "A", "at_s": 4.0, "after": 3},
    {"did": "poured", "vessel": "B", "volume_l": 100.0, "at_s": 5.0, "after": 3},
    {"did": "mended", "mishap": "mislabelled_cup", "at_s": 6.0, "after": 4}]})");
  return body;
}

TEST_F(BenchRunTest, APracticeRunIsReadAndWrittenBackTheSame) {
  const auto run = benchRunFromJson(practiceRun());
  ASSERT_TRUE(static_cast<bool>(run)) << run.problem().where;
  const auto anyOrder = [](const Json& json) { return nlohmann::json::parse(json.dump()); };
  EXPECT_EQ(anyOrder(toJson(*run)), anyOrder(practiceRun()));
  ASSERT_TRUE(run->practice);
  EXPECT_EQ(run->practice->truth.size(), 9u);
  EXPECT_EQ(run->vessels[1].had.of(1), core::Mass::fromGrams(20));
  EXPECT_TRUE(benchRunHead(practiceRun()).isPractice);
  EXPECT_FALSE(benchRunHead(practiceRun()).isFinished);
  auto over = practiceRun();
  over["events"].push_back(Json::parse(R"({"did": "finished", "at_s": 9.0})"));
  EXPECT_TRUE(benchRunHead(over).isFinished);
  EXPECT_TRUE(benchRunFromJson(over)->isFinished());
}

TEST_F(BenchRunTest, WhatCanNotBeOfAPracticeIsRefusedByItsPlace) {
  const std::pair<const char*, Json> bad[] = {{"/order", "by colour"},
                                              {"/vessels/1/had/volume_l", 0},
                                              {"/vessels/1/had/g/kno3", -1},
                                              {"/practice/seed", -1},
                                              {"/practice/seed", 1.5},
                                              {"/practice/truth/0/piece", "hat"},
                                              {"/practice/truth/1/mishap", "earthquake"},
                                              {"/practice/truth/1/other", "sugar"},
                                              {"/practice/truth/2/g", "much"},
                                              {"/practice/truth/4/g", -5},
                                              {"/practice/truth/5/vessel", "Z"},
                                              {"/practice/truth/7/volume_l", -1},
                                              {"/practice/truth/8/did", "sung"},
                                              {"/practice/truth/8/after", -1},
                                              {"/practice/truth/8/ponies", 3}};
  for (const auto& [pointer, value] : bad) {
    auto body = practiceRun();
    body[Json::json_pointer(pointer)] = value;
    const auto problem = checkRecord(Kind::BenchRun, body);
    ASSERT_TRUE(problem) << pointer;
    const std::string last = std::string(pointer).substr(std::string(pointer).rfind('/') + 1);
    EXPECT_THAT(problem->where, ::testing::HasSubstr(last)) << pointer;
  }
}

TEST_F(BenchRunTest, AListKnowsARunByItsBodyAlone) {
  auto bags = wholeRun();
  bags["vessels"][0]["bag"] = true;
  EXPECT_TRUE(benchRunHead(bags).isOfBags);
  for (const auto& odd :
       {Json::object(), Json{{"events", 3}, {"vessels", "x"}}, Json{{"events", {1}}, {"vessels", {2}}}})
    EXPECT_FALSE(benchRunHead(odd).isFinished) << odd;
  auto made = wholeRun();
  made["batch"] = "b-1";
  EXPECT_TRUE(benchRunHead(made).isFinished);
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
