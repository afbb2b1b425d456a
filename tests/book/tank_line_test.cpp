// A tank's log in the book: what is read strictly, what is refused by name.
#include "book/tables/log_table.h"
#include "book/tank_line.h"
#include "book/vessel_facts.h"
#include "kinds/kind_info.h"

#include <gmock/gmock.h>

namespace butte::book {
namespace {

Json filled() {
  return Json::parse(R"({"vessel": "v1", "at": "2026-11-20T07:30:00Z", "did": "filled", "who": "K.T.",
    "volume": {"amount": "800", "unit": "L"}, "liquid": "feed", "strength_percent": "75", "formula": "f1",
    "formula_version": 3})");
}

Json analysed() {
  return Json::parse(R"({"vessel": "v1", "at": "2026-11-20T07:30:00Z", "did": "analysed",
    "figures": [{"element": "K", "found": {"amount": "5.2", "unit": "mmol/L"}}], "text": "county laboratory"})");
}

TEST(TankLine, ReadsAndWritesWhatItHolds) {
  const auto line = tankLineFromJson(filled());
  ASSERT_TRUE(line);
  EXPECT_EQ(line->did, TankDid::Filled);
  EXPECT_EQ(line->strengthPercent.digits, "75");
  EXPECT_EQ(toJson(*line), filled());
  const auto figures = tankLineFromJson(analysed());
  ASSERT_TRUE(figures);
  EXPECT_EQ(toJson(*figures), analysed());
  const auto salts = Json::parse(R"({"vessel": "v1", "at": "2026-11-20T07:30:00Z", "did": "salts",
    "liquid": "feed", "formula": "f1", "formula_version": 3,
    "weighed": [{"product": "kno3", "weight": {"amount": "120", "unit": "g"}},
                {"product": "acid", "volume": {"amount": "2", "unit": "floz_us"}}]})");
  const auto read = tankLineFromJson(salts);
  ASSERT_TRUE(read);
  EXPECT_EQ(toJson(*read), salts);
}

TEST(TankLine, WhatIsLetOffDailyAndWhatAMediumBringsAreLines) {
  for (
      const char* text :
      {R"({"vessel": "v1", "at": "2026-11-20T07:30:00Z", "did": "bleeds", "volume": {"amount": "12", "unit": "L"}})",
       R"({"vessel": "v1", "at": "2026-11-20T07:30:00Z", "did": "medium", "volume": {"amount": "5", "unit": "gal_us"},
            "figures": [{"element": "K", "found": {"amount": "60", "unit": "mg/L"}}]})",
       R"({"vessel": "v1", "at": "2026-11-20T07:30:00Z", "did": "filled", "volume": {"amount": "12", "unit": "L"},
            "liquid": "feed", "formula": "f1", "batch": "b7"})"}) {
    const auto line = tankLineFromJson(Json::parse(text));
    ASSERT_TRUE(line) << text;
    EXPECT_EQ(toJson(*line), Json::parse(text));
    const auto again = readLogTable(logTable({*line}), "v1");
    ASSERT_TRUE(again) << again.problem().where;
    EXPECT_EQ(toJson(again->front()), Json::parse(text));
  }
  const auto refused = [](const char* text) {
    const auto problem = checkRecord(Kind::TankLine, Json::parse(text));
    return problem ? problem->where : std::string("taken");
  };
  EXPECT_EQ(refused(R"({"vessel": "v1", "at": "2026-11-20T07:30:00Z", "did": "bleeds"})"), "volume");
  EXPECT_EQ(
      refused(R"({"vessel": "v1", "at": "2026-11-20T07:30:00Z", "did": "medium", "volume": {"amount": "1",
    "unit": "L"}})"),
      "figures");
}

TEST(VesselFacts, AFloatStickGoesEvenlyBetweenTheMarks) {
  auto json = Json::parse(R"({"name": "pond", "volume": {"amount": "500", "unit": "L"},
    "low": {"amount": "300", "unit": "L"}, "stick_full": "12", "stick_low": "2", "plants": "40",
    "shot": {"amount": "2", "unit": "gal_us"}, "first_hour": "7", "last_hour": "16.5", "drain_percent": "25",
    "root_percent": "130", "southern": true, "batch": "b1"})");
  const auto facts = vesselFactsFromJson(json);
  ASSERT_TRUE(facts) << facts.problem().where;
  EXPECT_NEAR(facts->volumeAtStick(12)->litres(), 500, 1e-9);
  EXPECT_NEAR(facts->volumeAtStick(2)->litres(), 300, 1e-9);
  EXPECT_NEAR(facts->volumeAtStick(7)->litres(), 400, 1e-9);
  EXPECT_NEAR(facts->volumeAtStick(-100)->litres(), 0, 1e-9) << "never less than nothing";
  EXPECT_EQ(facts->plantCount(), 40);
  EXPECT_TRUE(facts->southern);
  json["stick_low"] = "12";
  EXPECT_FALSE(vesselFactsFromJson(json)->volumeAtStick(7)) << "a stick that shows the same at both";
  json.erase("stick_low");
  EXPECT_FALSE(vesselFactsFromJson(json)->volumeAtStick(7));
  const auto refused = [&](const char* key, const Json& value) {
    auto wrong = json;
    wrong[key] = value;
    const auto problem = checkRecord(Kind::Vessel, wrong);
    return problem ? problem->where : std::string("taken");
  };
  EXPECT_EQ(refused("plants", "-1"), "plants");
  EXPECT_EQ(refused("first_hour", "25"), "first_hour");
  EXPECT_EQ(refused("drain_percent", "101"), "drain_percent");
  EXPECT_EQ(refused("stick_full", "many"), "stick_full");
}

TEST(TankLine, RefusesByName) {
  const auto refused = [](Json body, const char* key, const Json& value, const char* where) {
    body[Json::json_pointer(key)] = value;
    const auto problem = checkRecord(Kind::TankLine, body);
    ASSERT_TRUE(problem) << key << value;
    EXPECT_EQ(problem->where, where) << key << value;
  };
  refused(filled(), "/vessel", "", "vessel");
  refused(filled(), "/at", "yesterday", "at");
  refused(filled(), "/did", "drunk", "did");
  refused(filled(), "/liquid", "beer", "liquid");
  refused(filled(), "/volume/unit", "lb", "volume.unit");
  refused(filled(), "/volume/amount", "-1", "volume.amount");
  refused(filled(), "/formula", "", "formula");
  refused(filled(), "/strength_percent", "5000", "strength_percent");
  refused(filled(), "/weighed", Json::array({Json::object()}), "weighed[0].weight");
  refused(filled(), "/nonsense", 1, "nonsense");
  refused(analysed(), "/figures/0/element", "N", "figures[0].element");
  refused(analysed(), "/figures/0/found/unit", "L", "figures[0].found.unit");
  refused(analysed(), "/figures", Json::array(), "figures");
}

TEST(VesselFacts, AreReadInAnyUnit) {
  const auto facts = vesselFactsFromJson(Json::parse(R"({"name": "raft pond",
    "volume": {"amount": "100", "unit": "gal_us"}, "low": {"amount": "60", "unit": "gal_us"},
    "ground": {"amount": "100", "unit": "ft2"}, "drunk_per_day": {"amount": "5", "unit": "gal_us"},
    "crop": "lettuce", "climate": "warm", "open_to_rain": true,
    "measures": {"shape": "rectangular", "across_cm": "100", "along_cm": "200", "height_cm": "40"}})"));
  ASSERT_TRUE(facts);
  EXPECT_NEAR(facts->fullVolume().litres(), 378.5411784, 1e-9);
  EXPECT_NEAR(facts->groundM2(), 9.290304, 1e-9);
  EXPECT_NEAR(facts->drunkLPerDay(), 18.92705892, 1e-9);
  EXPECT_NEAR(facts->volumeAt(10)->litres(), 200, 1e-9);
  EXPECT_TRUE(checkRecord(Kind::Vessel, Json{{"name", "x"}, {"climate", "tropical"}}));
  EXPECT_TRUE(checkRecord(Kind::Vessel, Json{{"name", ""}}));
  EXPECT_FALSE(checkRecord(Kind::Vessel, Json{{"name", "an older book's"}}));
}

TEST(LogTable, ComesBackAsItWentOut) {
  const auto salts = Json::parse(R"({"vessel": "v1", "at": "2026-11-21T07:30:00Z", "did": "salts",
    "liquid": "feed", "formula": "f1", "formula_version": 3,
    "weighed": [{"product": "kno3", "weight": {"amount": "120", "unit": "g"}},
                {"product": "acid", "volume": {"amount": "2", "unit": "floz_us"}}]})");
  const auto noted =
      Json::parse(R"({"vessel": "v1", "at": "2026-11-22T07:30:00Z", "did": "noted", "about": "roots",
    "who": "K.T.", "text": "=brown, \"soft\"\nat the tips"})");
  std::vector<TankLine> lines;
  for (const auto& body : {filled(), salts, analysed(), noted})
    lines.push_back(tankLineFromJson(body).value());
  const auto csv = logTable(lines);
  EXPECT_THAT(csv, ::testing::HasSubstr("'=brown")) << "no spreadsheet takes it for a formula";
  const auto again = readLogTable(csv, "v2");
  ASSERT_TRUE(again) << again.problem().where;
  ASSERT_EQ(again->size(), lines.size());
  for (std::size_t i = 0; i < lines.size(); ++i) {
    auto expected = toJson(lines[i]);
    expected["vessel"] = "v2";
    EXPECT_EQ(toJson((*again)[i]), expected);
  }
  // Columns in any order, and only those that are needed.
  const auto few = readLogTable("did,at,volume,volume_unit\ndrained,2026-11-22T07:30:00Z,12,gal_us\n", "v1");
  ASSERT_TRUE(few);
  EXPECT_EQ(few->front().volume, (exchange::Amount{"12", "gal_us"}));
}

TEST(LogTable, ARowThatIsWrongIsNamed) {
  const auto where = [](const char* csv) {
    const auto read = readLogTable(csv, "v1");
    return read ? std::string("taken") : read.problem().where;
  };
  EXPECT_EQ(where(""), "log");
  EXPECT_EQ(where("at,did,colour\n"), "row 1");
  EXPECT_EQ(where("at,did,did\n"), "row 1");
  EXPECT_EQ(where("did\nnoted\n"), "row 1");
  EXPECT_EQ(where("at,did\nyesterday,noted\n"), "row 2, at");
  EXPECT_EQ(where("at,did\n2026-11-22,noted\n2026-11-22,drunk\n"), "row 3, did");
  EXPECT_EQ(where("at,did,volume,volume_unit\n2026-11-22,drained,-1,L\n"), "row 2, volume.amount");
  EXPECT_EQ(where("at,did,formula_version\n2026-11-22,noted,many\n"), "row 2, formula_version");
  EXPECT_EQ(where("at,did,item,amount,unit\n2026-11-22,analysed,Kx,5,mg/L\n"), "row 2, figures[0].element");
}

} // namespace
} // namespace butte::book
