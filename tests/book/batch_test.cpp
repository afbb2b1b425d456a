#include "book_fixture.h"

#include "book/batch.h"

namespace butte::book {

TEST(Batch, ReadsAndWritesTheSame) {
  const auto json = smallBatch();
  const auto batch = batchFromJson(json);
  ASSERT_TRUE(static_cast<bool>(batch));
  const auto again = batchFromJson(toJson(*batch));
  ASSERT_TRUE(static_cast<bool>(again));
  EXPECT_EQ(toJson(*again), toJson(*batch));
  EXPECT_EQ(batch->at.iso(), "2026-03-02T07:15:00Z");
}

TEST(Batch, DeviationIsThatOfTheWorstWeighing) {
  const auto batch = batchFromJson(smallBatch());
  ASSERT_TRUE(static_cast<bool>(batch));
  EXPECT_DOUBLE_EQ(*batch->weights[0].actualGrams(), 402);
  EXPECT_NEAR(*batch->worstDeviationPercent(), 0.5, 1e-9);
  EXPECT_FALSE(batch->weights[1].deviationPercent()) << "nothing was weighed there";
}

TEST(Batch, ABadFigureIsNamed) {
  struct Case {
    const char *pointer, *value, *where;
  };
  for (const auto& c :
       {Case{"/at", "\"yesterday\"", "at"}, Case{"/litres", "0", "litres"},
        Case{"/litres", "\"1000\"", "litres"}, Case{"/ph_read", "\"19\"", "ph_read"},
        Case{"/ph_read", "\"5,8,\"", "ph_read"}, Case{"/weights/0/planned_g", "-4", "weights[0].planned_g"},
        Case{"/weights/0/actual", R"({"amount": "x", "unit": "g"})", "weights[0].actual.amount"},
        Case{"/weights/0/actual", R"({"amount": "4", "unit": "mL"})", "weights[0].actual.unit"},
        Case{"/weights/1/colour", "\"red\"", "weights[1].colour"}, Case{"/mood", "\"good\"", "mood"}}) {
    auto json = smallBatch();
    json[Json::json_pointer(c.pointer)] = Json::parse(c.value);
    const auto read = batchFromJson(json);
    ASSERT_FALSE(static_cast<bool>(read)) << c.pointer;
    EXPECT_EQ(read.problem().where, c.where);
  }
}

TEST(Moment, IsoThereAndBack) {
  EXPECT_EQ(Moment::fromIso("2026-03-02T07:15:00Z")->seconds,
            1772435700); // checked with `date -u -d ... +%s`
  EXPECT_EQ(Moment::fromIso("2026-03-02T09:15:00+02:00")->seconds, 1772435700);
  EXPECT_EQ(Moment::fromIso("2026-03-02")->iso(), "2026-03-02T00:00:00Z");
  EXPECT_FALSE(Moment::fromIso("02/03/26"));
  EXPECT_FALSE(Moment::fromIso(""));
}

} // namespace butte::book
