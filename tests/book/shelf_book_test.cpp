// Lots, counts and waste as the book keeps them, and what batches took from them.
#include "book_fixture.h"

#include "book/lot_marks.h"
#include "book/shelf_book.h"

#include <random>

namespace butte::book {
namespace {

constexpr core::Deed told{core::DeedCode::Told, {}};

Json lotJson(const std::string& mark, const std::string& bought, int bags = 2) {
  return Json{{"product", "kno3"},
              {"name", "potassium nitrate"},
              {"mark", mark},
              {"bought", bought},
              {"bags", bags},
              {"bag", {{"amount", "25"}, {"unit", "kg"}}},
              {"bag_price", "48.50"},
              {"currency", "EUR"},
              {"supplier", "the depot"},
              {"place", "north shed"}};
}

class ShelfBookTest : public BookTest {
protected:
  void SetUp() override { m_book = make(); }
  std::string add(Kind kind, const Json& body) {
    const auto made = m_book->create(kind, body, told);
    EXPECT_TRUE(static_cast<bool>(made)) << (made ? "" : words::problemLine(made.problem()));
    return made ? made->uid : std::string();
  }
  ShelfBook shelf() {
    auto out = shelfBook(m_book->store());
    EXPECT_TRUE(static_cast<bool>(out));
    return std::move(out).value();
  }
  double leftKg() { return shelf().account().leftOf(shelf().coreLots, "kno3").kilograms(); }
  std::unique_ptr<Book> m_book;
};

TEST_F(ShelfBookTest, ABatchTakesItsSaltsAndUndoGivesThemBack) {
  add(Kind::Lot, lotJson("KN-77", "2026-01-05T00:00:00Z"));
  EXPECT_DOUBLE_EQ(leftKg(), 50);
  add(Kind::Batch, smallBatch());
  EXPECT_NEAR(leftKg(), 50 - 0.402, 1e-12) << "as the scale showed, not as planned";
  const auto undone = m_book->undo();
  ASSERT_TRUE(undone && *undone);
  EXPECT_DOUBLE_EQ(leftKg(), 50);
  ASSERT_TRUE(m_book->redo());
  EXPECT_NEAR(leftKg(), 50 - 0.402, 1e-12);
}

TEST_F(ShelfBookTest, AWeightFromTwoLotsTakesFromBoth) {
  const auto first = add(Kind::Lot, lotJson("KN-77", "2026-01-05T00:00:00Z", 1));
  const auto second = add(Kind::Lot, lotJson("KN-81", "2026-01-09T00:00:00Z", 1));
  auto batch = smallBatch();
  batch["weights"][0]["lot"] = "KN-81 (0.3 kg), KN-77 (102 g)";
  add(Kind::Batch, batch);
  const auto account = shelf().account();
  EXPECT_NEAR(account.lots[0].used.grams(), 102, 1e-9);
  EXPECT_NEAR(account.lots[1].used.grams(), 300, 1e-9);
  BatchFilter either;
  either.lot = "KN-77";
  EXPECT_EQ(m_book->store().batches(either, std::nullopt, 5)->size(), 1u) << "found by either";
}

TEST_F(ShelfBookTest, CountsAndWasteCorrectALotAndWhatIsBinnedCountsNoMore) {
  const auto lot = add(Kind::Lot, lotJson("KN-77", "2026-01-05T00:00:00Z"));
  const auto line = [&](const char* did, const char* amount, const char* unit, const char* at) {
    return add(
        Kind::ShelfLine,
        Json{{"lot", lot}, {"at", at}, {"did", did}, {"amount", {{"amount", amount}, {"unit", unit}}}});
  };
  line("counted", "40", "kg", "2026-02-01T00:00:00Z");
  const auto waste = line("wasted", "2.2046226", "lb", "2026-02-02T00:00:00Z");
  EXPECT_NEAR(leftKg(), 39, 1e-6);
  EXPECT_NEAR(shelf().account().lots[0].corrected.kilograms(), -10, 1e-9);
  EXPECT_FALSE(m_book->moveToBin({Kind::ShelfLine, waste}, "waste"));
  EXPECT_NEAR(leftKg(), 40, 1e-9);
  EXPECT_FALSE(m_book->moveToBin({Kind::Lot, lot}, "lot"));
  EXPECT_EQ(shelf().lots.size(), 0u);
  EXPECT_EQ(shelf().lines.size(), 0u) << "its lines went with it";
}

TEST_F(ShelfBookTest, AProductOfTheSameNameUnderAnotherIdIsTheSame) {
  add(Kind::Lot, lotJson("KN-77", "2026-01-05T00:00:00Z"));
  auto batch = smallBatch();
  batch["weights"][0]["product"] = "Potassium Nitrate";
  batch["weights"][0]["name"] = "Potassium Nitrate"; // as a table brought it in
  add(Kind::Batch, batch);
  EXPECT_NEAR(leftKg(), 50 - 0.402, 1e-12);
  EXPECT_EQ(shelf().names.at("epsom"), "magnesium sulfate") << "used and never bought";
}

TEST_F(ShelfBookTest, SaltsInATanksLogLeaveTheShelfUnlessARunWeighedThem) {
  add(Kind::Lot, lotJson("KN-77", "2026-01-05T00:00:00Z"));
  Json line{{"vessel", "v"},
            {"at", "2026-02-01T00:00:00Z"},
            {"did", "salts"},
            {"formula", "f1"},
            {"formula_version", 1},
            {"liquid", "feed"},
            {"weighed", {{{"product", "kno3"}, {"weight", {{"amount", "120"}, {"unit", "g"}}}}}}};
  add(Kind::TankLine, line);
  EXPECT_NEAR(leftKg(), 50 - 0.12, 1e-12);
  line["run"] = "r1"; // its batch has them
  add(Kind::TankLine, line);
  EXPECT_NEAR(leftKg(), 50 - 0.12, 1e-12);
}

TEST_F(ShelfBookTest, WhatCanNotBeIsRefusedByName) {
  const auto refused = [](Kind kind, Json body, const char* where) {
    const auto trouble = checkRecord(kind, body);
    ASSERT_TRUE(trouble) << body.dump();
    EXPECT_EQ(trouble->where, where) << words::problemLine(*trouble);
  };
  const auto with = [](const char* key, const Json& value) {
    auto lot = lotJson("KN-77", "2026-01-05T00:00:00Z");
    lot[key] = value;
    return lot;
  };
  EXPECT_FALSE(checkRecord(Kind::Lot, lotJson("", "2026-01-05")));
  refused(Kind::Lot, with("bag_price", "0"), "bag_price");
  refused(Kind::Lot, with("bag_price", "-3"), "bag_price");
  refused(Kind::Lot, with("bags", -1), "bags");
  refused(Kind::Lot, with("bags", 1.5), "bags");
  refused(Kind::Lot, with("bag", Json{{"amount", "-25"}, {"unit", "kg"}}), "bag.amount");
  refused(Kind::Lot, with("bag", Json{{"amount", "20"}, {"unit", "L"}}), "density_kg_per_l");
  refused(Kind::Lot, with("bag", Json{{"amount", "20"}, {"unit", "mS/cm"}}), "bag.unit");
  refused(Kind::Lot, with("bought", "yesterday"), "bought");
  refused(Kind::Lot, with("product", ""), "product");
  const auto line = [](const char* did, Json more) {
    Json out{{"lot", "x"}, {"at", "2026-02-01"}, {"did", did}};
    out.update(more);
    return out;
  };
  const Json none{{"amount", {{"amount", "0"}, {"unit", "kg"}}}};
  EXPECT_FALSE(checkRecord(Kind::ShelfLine, line("counted", none))) << "nothing left is a count";
  refused(Kind::ShelfLine, line("wasted", none), "amount.amount");
  refused(Kind::ShelfLine, line("counted", Json::object()), "amount");
  refused(Kind::ShelfLine, line("lost", none), "did");
  refused(Kind::ShelfLine,
          line("dried", Json{{"amount", {{"amount", "20"}, {"unit", "g"}}},
                             {"dried", {{"amount", "21"}, {"unit", "g"}}}}),
          "dried");
}

TEST_F(ShelfBookTest, ALiquidIsBoughtByVolumeAndCountedByEither) {
  auto lot = lotJson("PA-1", "2026-01-05T00:00:00Z", 1);
  lot["bag"] = Json{{"amount", "20"}, {"unit", "L"}};
  lot["density_kg_per_l"] = "1.58";
  const auto uid = add(Kind::Lot, lot);
  EXPECT_NEAR(leftKg(), 31.6, 1e-9);
  add(Kind::ShelfLine, Json{{"lot", uid},
                            {"at", "2026-02-01T00:00:00Z"},
                            {"did", "counted"},
                            {"amount", {{"amount", "5"}, {"unit", "L"}}}});
  EXPECT_NEAR(leftKg(), 7.9, 1e-9);
}

TEST(DryShare, IsHeldAgainstASealedBagWhereThereIsOne) {
  ShelfLine line;
  line.amount = {"20", "g"};
  line.dried = {"17", "g"};
  EXPECT_NEAR(dryShare(line), 0.85, 1e-12);
  line.sealed = {"10", "g"};
  line.sealedDried = {"8.5", "g"}; // all of it was water of the crystals
  EXPECT_NEAR(dryShare(line), 1, 1e-12);
}

TEST(LotMarks, ReadWhatAHandTypesAndWriteItBack) {
  const auto two = lotsIn("KN-77 (400 g), KN 81 (1.2 kg)");
  ASSERT_EQ(two.size(), 2u);
  EXPECT_EQ(two[1].mark, "KN 81");
  EXPECT_NEAR(two[1].mass->grams(), 1200, 1e-9);
  EXPECT_EQ(lotsIn(lotsText(two))[0].mark, "KN-77");
  EXPECT_EQ(lotsText(two), "KN-77 (400 g), KN 81 (1200 g)");
  EXPECT_EQ(lotsText({{"KN-77", core::Mass::fromGrams(3)}}), "KN-77") << "alone: all of it";
  EXPECT_EQ(lotsIn("KN-77 (old)")[0].mark, "KN-77 (old)") << "no weight: part of the mark";
  EXPECT_EQ(lotsIn("(3 g)")[0].mark, "(3 g)");
  EXPECT_TRUE(lotsIn(" , ,").empty());
}

TEST_F(ShelfBookTest, NothingIsLostOverManyBatchesCountsAndLots) {
  std::mt19937 random(25);
  const auto number = [&](int most) { return static_cast<int>(random() % static_cast<unsigned>(most)); };
  double used = 0;
  for (int i = 0; i < 60; ++i) {
    const auto at = Moment{1'767'225'600 + i * 40'000}.iso();
    if (i % 12 == 0) add(Kind::Lot, lotJson("L" + std::to_string(i), at, 1 + number(3)));
    auto batch = smallBatch("f1", at);
    const double grams = 1 + number(3000);
    batch["weights"][0]["actual"] = Json{{"amount", std::to_string(grams)}, {"unit", "g"}};
    batch["weights"][0]["lot"] = number(2) ? "L0" : "";
    add(Kind::Batch, batch);
    used += grams;
  }
  const auto kept = shelf();
  const auto account = kept.account();
  core::Mass bought, left, taken, missing;
  double paid = 0, cost = 0;
  for (std::size_t i = 0; i < kept.coreLots.size(); ++i) {
    bought = bought + kept.coreLots[i].bought();
    left = left + account.lots[i].left;
    taken = taken + account.lots[i].used;
    paid += kept.coreLots[i].bags * *kept.coreLots[i].pricePerBag;
    cost += account.lots[i].left.kilograms() * *kept.coreLots[i].pricePerKg();
  }
  for (const auto& use : account.uses) {
    const auto& what = std::get<core::shelved::Used>(kept.events[use.event].what);
    if (what.product == "kno3") missing = missing + use.notCovered;
    for (const auto& money : core::costOf(use, kept.coreLots).money)
      cost += money.amount;
  }
  EXPECT_NEAR((taken + missing).grams(), used, 1e-6);
  EXPECT_NEAR((left + taken).grams(), bought.grams(), 1e-6);
  EXPECT_NEAR(cost, paid, 1e-6) << "what batches cost and what is left is worth add up to what was paid";
}

} // namespace
} // namespace butte::book
