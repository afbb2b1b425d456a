#include "book_fixture.h"

#include "book/reading.h"
#include "book/tables/table_kind.h"
#include "deed_words.h"

#include <set>

namespace butte::book {

TEST(Kinds, EachIsWholeAndItsCodeIsItsOwn) {
  std::set<std::string_view> codes, columns;
  for (const auto kind : allKinds()) {
    const auto& info = infoOf(kind);
    EXPECT_EQ(info.kind, kind);
    EXPECT_TRUE(codes.insert(info.code).second) << info.code;
    EXPECT_EQ(kindFromCode(info.code), kind);
    EXPECT_STRNE(info.one, "") << info.code;
    EXPECT_STRNE(info.many, info.one) << info.code;
    ASSERT_NE(info.check, nullptr) << info.code;
    EXPECT_TRUE(info.check(Json{{"ponies", 3}})) << info.code << " takes a key that nobody knows";
    if (!info.table) continue;
    EXPECT_TRUE(columns.insert(info.table->firstColumn).second) << info.table->firstColumn;
    EXPECT_TRUE(info.table->write && info.table->take) << info.code;
  }
  EXPECT_EQ(codes.size(), static_cast<std::size_t>(Kind::ChoreLine) + 1) << "a kind is not on the list";
  EXPECT_FALSE(kindFromCode("pony"));
}

TEST(Kinds, ACodeOfAFileStaysForGood) {
  // What stands in books on farms' disks.
  for (const auto* code : {"water", "product", "target", "formula", "stock_plan", "batch", "reading",
                           "reading_import", "vessel"})
    EXPECT_TRUE(kindFromCode(code)) << code;
}

TEST(Kinds, EveryQuantityOfAMeterHasItsNameAndUnits) {
  for (const auto& quantity : quantities()) {
    EXPECT_NE(words::quantityName(std::string(quantity.code)), "");
    ASSERT_FALSE(quantity.typed.empty()) << quantity.code;
    EXPECT_EQ(quantity.typed.front(), quantity.unit) << quantity.code;
    EXPECT_LT(quantity.least, quantity.most);
  }
  EXPECT_EQ(quantityFrom("mood"), nullptr);
}

TEST(Kinds, AVesselNeedsItsNameAndAVolumeThatCanBe) {
  EXPECT_FALSE(checkRecord(Kind::Vessel, Json{{"name", "north pond"}}));
  EXPECT_FALSE(checkRecord(Kind::Vessel,
                           Json::parse(R"({"name": "n", "volume": {"amount": "55", "unit": "gal_us"}})")));
  const auto nameless = checkRecord(Kind::Vessel, Json::object());
  ASSERT_TRUE(nameless);
  EXPECT_EQ(nameless->where, "name");
  const auto heavy =
      checkRecord(Kind::Vessel, Json::parse(R"({"name": "n", "volume": {"amount": "55", "unit": "kg"}})"));
  ASSERT_TRUE(heavy);
  EXPECT_THAT(heavy->where, ::testing::HasSubstr("volume"));
}

} // namespace butte::book
