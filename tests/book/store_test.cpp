#include "book_fixture.h"

#include "book/batch.h"

namespace butte::book {

using ::testing::HasSubstr;

class StoreTest : public BookTest {
protected:
  void SetUp() override {
    auto made = createStore(pathOf("s.butte"));
    ASSERT_TRUE(static_cast<bool>(made)) << words::problemLine(made.problem());
    store = std::move(made).value();
  }
  void addBatch(const std::string& uid, const std::string& at, const std::string& crop, const char* actual,
                const std::string& lot) {
    auto body = smallBatch("f1", at);
    body["crop"] = crop;
    body["weights"][0]["actual"] = actual ? exchange::amountJson(actual, "g") : Json();
    body["weights"][0]["lot"] = lot;
    const auto trouble = store->write({{Kind::Batch, uid}, body, {}}, Moment{1});
    ASSERT_FALSE(trouble) << said(trouble);
  }
  std::vector<std::string> found(const BatchFilter& filter) {
    const auto page = store->batches(filter, std::nullopt, 100);
    EXPECT_TRUE(static_cast<bool>(page)) << (page ? "" : words::problemLine(page.problem()));
    std::vector<std::string> out;
    for (const auto& head : *page)
      out.push_back(head.uid);
    EXPECT_EQ(*store->batchCount(filter), static_cast<std::int64_t>(out.size()));
    return out;
  }
  std::unique_ptr<Store> store;
};

TEST_F(StoreTest, AThingComesBackAsWritten) {
  const Record record{{Kind::Water, "w1"}, smallWater("Bóre ü 水"), {}};
  ASSERT_FALSE(store->write(record, Moment{5}));
  const auto read = store->read(record.ref);
  ASSERT_TRUE(read && *read);
  EXPECT_EQ((*read)->body, record.body);
  EXPECT_FALSE((*read)->binnedAt);
  EXPECT_FALSE(*store->read({Kind::Water, "w2"})) << "nothing of that name";
  EXPECT_FALSE(*store->read({Kind::Target, "w1"})) << "another kind";
}

TEST_F(StoreTest, ABatchComesBackAsWritten) {
  const auto sheet = store->keepSheet("<p>sheet</p>");
  ASSERT_TRUE(static_cast<bool>(sheet));
  auto body = smallBatch();
  body["sheet"] = *sheet;
  body["ec_read"] = exchange::amountJson("1580", "uS/cm");
  body["ph_read"] = "5.80";
  const auto full = toJson(*batchFromJson(body));
  ASSERT_FALSE(store->write({{Kind::Batch, "b1"}, body, {}}, Moment{5}));
  const auto read = store->read({Kind::Batch, "b1"});
  ASSERT_TRUE(read && *read);
  EXPECT_EQ((*read)->body, full);
  EXPECT_EQ(**store->sheet(*sheet), "<p>sheet</p>");
}

TEST_F(StoreTest, BatchesAreFilteredByAnything) {
  addBatch("b1", "2026-01-10T08:00:00Z", "lettuce", "400", "KN-77");
  addBatch("b2", "2026-02-10T08:00:00Z", "tomato", "440", "KN-78");
  addBatch("b3", "2026-03-10T08:00:00Z", "lettuce", nullptr, "");
  EXPECT_THAT(found({}), ::testing::ElementsAre("b3", "b2", "b1")) << "the newest first";
  BatchFilter filter;
  filter.crop = "lettuce";
  EXPECT_THAT(found(filter), ::testing::ElementsAre("b3", "b1"));
  filter = {};
  filter.lot = "kn-78";
  EXPECT_THAT(found(filter), ::testing::ElementsAre("b2"));
  filter.lot = "%"; // a percent sign is no wild card
  EXPECT_THAT(found(filter), ::testing::IsEmpty());
  filter = {};
  filter.deviationAtLeast = 5;
  EXPECT_THAT(found(filter), ::testing::ElementsAre("b2"));
  filter = {};
  filter.from = Moment::fromIso("2026-02-01");
  filter.before = Moment::fromIso("2026-03-01");
  EXPECT_THAT(found(filter), ::testing::ElementsAre("b2"));
  filter = {};
  filter.product = "magnesium";
  EXPECT_THAT(found(filter), ::testing::SizeIs(3));
  filter.product = "urea";
  EXPECT_THAT(found(filter), ::testing::IsEmpty());
}

TEST_F(StoreTest, PagesFollowEachOtherWithoutGapOrDouble) {
  for (int i = 0; i < 25; ++i)
    addBatch("b" + std::to_string(i), "2026-01-10T08:00:00Z", "lettuce", nullptr, ""); // all at one moment
  std::set<std::string> seen;
  std::optional<BatchHead> last;
  for (int page = 0; page < 3; ++page) {
    const auto heads = store->batches({}, last, 10);
    ASSERT_TRUE(static_cast<bool>(heads));
    for (const auto& head : *heads)
      EXPECT_TRUE(seen.insert(head.uid).second) << head.uid;
    last = heads->back();
  }
  EXPECT_EQ(seen.size(), 25u);
  EXPECT_TRUE(store->batches({}, last, 10)->empty());
}

TEST_F(StoreTest, BucketsCountAndKeepTheWorst) {
  addBatch("b1", "2026-01-10T08:00:00Z", "lettuce", "404", "");
  addBatch("b2", "2026-01-10T20:00:00Z", "lettuce", "380", "");
  addBatch("b3", "2026-01-11T08:00:00Z", "lettuce", nullptr, "");
  const auto buckets = store->batchBuckets({}, 86400);
  ASSERT_TRUE(static_cast<bool>(buckets));
  ASSERT_EQ(buckets->size(), 2u);
  EXPECT_EQ((*buckets)[0].count, 2);
  EXPECT_NEAR(*(*buckets)[0].worstPercent, 5, 1e-9);
  EXPECT_FALSE((*buckets)[1].worstPercent);
}

TEST_F(StoreTest, FindsByTheBeginningsOfWords) {
  ASSERT_FALSE(store->write({{Kind::Water, "w1"}, smallWater("Côte spring"), {}}, Moment{5}));
  addBatch("b1", "2026-01-10T08:00:00Z", "lettuce", "400", "KN-77");
  const auto first = [&](const char* words) {
    const auto hits = store->search(words, 10);
    EXPECT_TRUE(static_cast<bool>(hits)) << words << (hits ? "" : ": " + words::problemLine(hits.problem()));
    return hits && !hits->empty() ? (*hits)[0].ref.uid : std::string();
  };
  EXPECT_EQ(first("cot spr"), "w1") << "accents do not matter";
  EXPECT_EQ(first("kn-77"), "b1");
  EXPECT_EQ(first("2026-01-10"), "b1");
  EXPECT_EQ(first("cold morn"), "b1") << "the note";
  EXPECT_EQ(first("zzz"), "");
  for (const auto* hostile :
       {"\"", "'; DROP TABLE thing; --", "NEAR(", "a OR", "*", "^", "-", ":", "{}", "", "AND AND"})
    first(hostile); // no error whatever is typed
  EXPECT_EQ(first("spring"), "w1") << "the table is still there";
}

TEST_F(StoreTest, WhatIsInTheBinIsNotFound) {
  ASSERT_FALSE(store->write({{Kind::Water, "w1"}, smallWater("Spring"), Moment{9}}, Moment{9}));
  EXPECT_TRUE(store->search("spring", 10)->empty());
  EXPECT_TRUE(store->list(Kind::Water, false)->empty());
  EXPECT_EQ(store->list(Kind::Water, true)->size(), 1u);
  EXPECT_EQ(store->bin()->size(), 1u);
}

TEST_F(StoreTest, RollingBackLeavesNothing) {
  ASSERT_FALSE(store->begin());
  ASSERT_FALSE(store->write({{Kind::Water, "w1"}, smallWater(), {}}, Moment{5}));
  store->rollback();
  EXPECT_FALSE(*store->read({Kind::Water, "w1"}));
  EXPECT_EQ(store->counts()->things, 0);
}

TEST_F(StoreTest, VersionsAreNumberedAndStay) {
  ASSERT_FALSE(store->write({{Kind::Water, "w1"}, smallWater(), {}}, Moment{5}));
  for (int i = 1; i <= 3; ++i) {
    const auto number =
        store->addVersion({"w1", 0, Moment{i}, "oa", "named", "n" + std::to_string(i), {}, smallWater()});
    ASSERT_TRUE(static_cast<bool>(number)) << words::problemLine(number.problem());
    EXPECT_EQ(*number, i);
  }
  EXPECT_EQ(store->versions("w1")->front().name, "n3");
  EXPECT_EQ((*store->version("w1", 2))->name, "n2");
  EXPECT_FALSE(static_cast<bool>(store->addVersion({"nobody", 0, {}, "", "named", "", {}, Json::object()})))
      << "of a thing that is not there";
  EXPECT_FALSE(static_cast<bool>(store->addVersion({"w1", 0, {}, "", "whim", "", {}, Json::object()})))
      << "CHECK refuses an unknown reason";
}

TEST_F(StoreTest, ReadingsAreFilteredAndGatheredForThePicture) {
  ASSERT_FALSE(store->write({{Kind::Vessel, "v1"}, Json{{"name", "north"}}, {}}, Moment{1}));
  ASSERT_FALSE(store->write({{Kind::Vessel, "v2"}, Json{{"name", "south"}}, {}}, Moment{1}));
  ASSERT_FALSE(store->addReadings({{0, "v1", "ec", Moment{100}, 1.5, "", "", ""},
                                   {0, "v1", "ec", Moment{190}, 1.9, "", "", ""},
                                   {0, "v1", "ec", Moment{250}, 2.5, "", "", ""},
                                   {0, "v1", "ph", Moment{120}, 5.8, "", "", ""},
                                   {0, "v2", "ec", Moment{130}, 1.1, "", "", ""}}));
  const auto count = [&](const ReadingFilter& filter) {
    return store->readings(std::nullopt, 10, filter)->size();
  };
  EXPECT_EQ(count({}), 5u);
  EXPECT_EQ(count({"v1", "", {}, {}}), 4u);
  EXPECT_EQ(count({"v1", "ec", {}, {}}), 3u);
  EXPECT_EQ(count({"", "ec", Moment{130}, Moment{250}}), 2u) << "from the first to before the second";
  const auto newest = store->readings(std::nullopt, 1, {"v1", "ec", {}, {}});
  EXPECT_EQ(store->readings(newest->front(), 9, {"v1", "ec", {}, {}})->size(), 2u) << "page by page";

  const auto buckets = store->readingBuckets({"", "ec", {}, {}}, 100);
  ASSERT_TRUE(static_cast<bool>(buckets));
  ASSERT_EQ(buckets->size(), 3u);
  const auto& first = (*buckets)[0];
  EXPECT_EQ(first.vesselUid, "v1");
  EXPECT_EQ(first.index, 1);
  EXPECT_EQ(first.count, 2);
  EXPECT_NEAR(first.least, 1.5, 1e-12);
  EXPECT_NEAR(first.most, 1.9, 1e-12);
  EXPECT_NEAR(first.mean, 1.7, 1e-12);
  EXPECT_EQ((*buckets)[1].index, 2);
  EXPECT_EQ((*buckets)[2].vesselUid, "v2");
  // What lies in the bin is in neither.
  auto body = *store->read({Kind::Reading, "1"});
  ASSERT_TRUE(body);
  body->binnedAt = Moment{300};
  ASSERT_FALSE(store->write(*body, Moment{300}));
  EXPECT_EQ(count({}), 4u);
  EXPECT_EQ(store->readingBuckets({"v1", "ec", {}, {}}, 100)->front().count, 1);
}

TEST_F(StoreTest, ReadingsNewestFirstWithoutThoseOfABinnedImport) {
  ASSERT_FALSE(store->write({{Kind::ReadingImport, "i1"}, Json{{"name", "log.csv"}}, {}}, Moment{1}));
  ASSERT_FALSE(store->write(smallVessel("v1", "north"), Moment{1}));
  ASSERT_FALSE(store->addReadings({{0, "v1", "ec", Moment{100}, 1.5, "1.5 mS/cm", "", ""},
                                   {0, "v1", "ec", Moment{200}, 1.6, "1.6 mS/cm", "i1", ""}}));
  EXPECT_EQ(store->readings(std::nullopt, 10)->front().vesselName, "north");
  ASSERT_EQ(store->readings(std::nullopt, 10)->size(), 2u);
  EXPECT_EQ(store->readings(std::nullopt, 10)->front().at.seconds, 200);
  ASSERT_FALSE(store->write({{Kind::ReadingImport, "i1"}, Json{{"name", "log.csv"}}, Moment{2}}, Moment{2}));
  EXPECT_EQ(store->readings(std::nullopt, 10)->size(), 1u);
  EXPECT_FALSE(store->addReadings({{0, "v1", "oxygen", Moment{1}, 8.1, "8.1 mg/L", "", ""}}))
      << "quantities can grow without another schema";
  EXPECT_TRUE(store->addReadings({{0, "v2", "ec", Moment{1}, 1, "", "", ""}})) << "of a vessel that is none";
}

TEST_F(StoreTest, ACopyIsWholeAndRefusesToOverwrite) {
  ASSERT_FALSE(store->write({{Kind::Water, "w1"}, smallWater(), {}}, Moment{5}));
  const auto trouble = store->copyTo(pathOf("copy.butte"));
  ASSERT_FALSE(trouble) << said(trouble);
  auto copy = openStore(pathOf("copy.butte"), OpenFor::Reading);
  ASSERT_TRUE(static_cast<bool>(copy));
  EXPECT_TRUE(static_cast<bool>((*copy)->read({Kind::Water, "w1"})->has_value()));
  EXPECT_TRUE((*copy)->write({{Kind::Water, "w2"}, smallWater(), {}}, Moment{5})) << "opened to read";
  EXPECT_TRUE(store->copyTo(pathOf("copy.butte"))) << "the file is there already";
}

} // namespace butte::book
