// Loggers in the book: read strictly, turned into kept units, kept by the day and taken back with it.
#include "book/book_json.h"
#include "book/stream.h"
#include "book/stream_day.h"
#include "book_fixture.h"
#include "kinds/kind_info.h"
#include "support/told.h"

#include <gmock/gmock.h>

namespace butte::book {
namespace {

Json pumpHouse() {
  return Json::parse(
      R"({"name": "pump house", "address": "mqtt:anna@broker:1883/glass/#", "every_minutes": 15,
    "month_first": true, "channels": [{"key": "glass/pond ec", "vessel": "v1", "quantity": "ec", "unit": "uS/cm", "factor": "0.98"},
    {"key": "depth", "vessel": "v1", "quantity": "level", "unit": "cm"}, {"key": "p", "quantity": "ph", "unit": ""}]})");
}

TEST(StreamRecord, ReadsAndWritesWhatItHolds) {
  const auto stream = streamFromJson(pumpHouse());
  ASSERT_TRUE(stream);
  EXPECT_EQ(toJson(*stream), pumpHouse());
}

TEST(StreamRecord, RefusesByName) {
  const auto refused = [](const char* key, const Json& value, const char* where) {
    auto body = pumpHouse();
    body[Json::json_pointer(key)] = value;
    const auto problem = checkRecord(Kind::Stream, body);
    ASSERT_TRUE(problem) << key << value;
    EXPECT_EQ(problem->where, where) << key << value;
  };
  refused("/name", "", "name");
  refused("/address", "htp:x", "address");
  refused("/every_minutes", 0, "every_minutes");
  refused("/every_minutes", 1.5, "every_minutes");
  refused("/every_minutes", 100000, "every_minutes");
  refused("/channels/0/key", "", "channels[0].key");
  refused("/channels/0/quantity", "salt", "channels[0].quantity");
  refused("/channels/0/unit", "cm", "channels[0].unit");
  refused("/channels/1/factor", "0", "channels[1].factor");
  refused("/channels/1/factor", "much", "channels[1].factor");
  refused("/nonsense", 1, "nonsense");
}

TEST(StreamChannels, TurnWhatIsSentIntoWhatIsKept) {
  const auto stream = streamFromJson(pumpHouse());
  VesselFacts pond;
  EXPECT_NEAR(*keptOf(stream->channels[0], pond, 1650), 1.617, 1e-9) << "microsiemens, and a factor";
  EXPECT_EQ(keptOf(stream->channels[1], pond, 50).problem().where, "measures");
  pond.measures = core::Vessel{core::VesselShape::Rectangular, 100, 200, 60};
  EXPECT_NEAR(*keptOf(stream->channels[1], pond, 50), 1000, 1e-9);
  EXPECT_EQ(*keptOf(stream->channels[2], pond, 5.9), 5.9);
  const StreamChannel share{"x", "v1", "level", "%", ""}, fahrenheit{"t", "v1", "temperature", "F", ""};
  EXPECT_EQ(keptOf(share, pond, 50).problem().where, "volume");
  pond.full = {"1200", "L"};
  EXPECT_NEAR(*keptOf(share, pond, 50), 600, 1e-9);
  EXPECT_NEAR(*keptOf(fahrenheit, pond, 68), 20, 1e-9);
}

class StreamDayTest : public BookTest {
protected:
  void SetUp() override {
    book = make("farm.butte");
    vessel = book->create(Kind::Vessel, Json{{"name", "pond"}}, told("pond")).value();
    stream = book->create(Kind::Stream, pumpHouse(), told("logger")).value();
  }
  Trouble keep(std::int64_t at, double value, const char* mark = "") {
    Reading reading{0, vessel.uid, "ph", {at}, value, "", {}, {}};
    reading.mark = mark;
    StreamTally tally{1, 0, 0, {}, {{"ph", at}}};
    return keepStreamed(*book, stream, "pump house", {reading}, tally);
  }
  QByteArray bytesOf(const QString& name) const {
    QFile file(folder.filePath(name));
    return file.open(QIODevice::ReadOnly) ? file.readAll() : QByteArray();
  }
  std::size_t count() { return book->store().readings(std::nullopt, 100)->size(); }

  std::unique_ptr<Book> book;
  Ref vessel, stream;
};

TEST_F(StreamDayTest, GoesIntoTheBinWithItsReadingsAndComesBack) {
  ASSERT_FALSE(keep(1772608500, 5.9));
  ASSERT_FALSE(keep(1772609400, 14, "wild"));
  auto days = *streamDays(book->store());
  ASSERT_EQ(days.size(), 1u);
  EXPECT_EQ(days.front().kept, 2);
  EXPECT_EQ(days.front().tally.heard, 2);
  EXPECT_EQ(count(), 2u);
  ASSERT_FALSE(book->moveToBin(days.front().ref, "a bad day"));
  EXPECT_EQ(count(), 0u);
  EXPECT_EQ(streamUntil(book->store(), stream.uid).at("ph"), 1772609400) << "nor is it read again";
  ASSERT_FALSE(keep(1772610300, 6.0));
  EXPECT_EQ(count(), 1u) << "what comes after begins another";
  ASSERT_FALSE(book->takeFromBin(days.front().ref, "a bad day"));
  EXPECT_EQ(count(), 3u);
}

TEST_F(StreamDayTest, IsKeptWholeOrNotAtAll) {
  ASSERT_FALSE(keep(1772608500, 5.9));
  Reading sound{0, vessel.uid, "ph", {1772609400}, 5.9, "", {}, {}}, stray = sound;
  stray.vesselUid = "no such vessel";
  EXPECT_TRUE(keepStreamed(*book, stream, "pump house", {sound, stray}, {2, 0, 0, {}, {{"ph", 1772609400}}}));
  EXPECT_EQ(count(), 1u);
  EXPECT_EQ(streamUntil(book->store(), stream.uid).at("ph"), 1772608500) << "it is read again";
  EXPECT_EQ(streamDays(book->store())->front().tally.heard, 1);
}

TEST_F(StreamDayTest, IsNoStepOfUndo) {
  const auto before = book->undoable();
  ASSERT_FALSE(keep(1772608500, 5.9));
  EXPECT_EQ(book->undoable(), before);
}

TEST_F(StreamDayTest, GoesOutAsJsonAndComesBack) {
  ASSERT_FALSE(keep(1772608500, 5.9));
  ASSERT_FALSE(keep(1772609400, 14, "wild"));
  ASSERT_FALSE(writeBookJson(book->store(), pathOf("out.json")));
  const auto first = bytesOf("out.json");
  ASSERT_FALSE(readBookJson(first.toStdString(), pathOf("again.butte")));
  auto again = reopen("again.butte");
  ASSERT_FALSE(writeBookJson(again->store(), pathOf("out2.json")));
  EXPECT_EQ(bytesOf("out2.json"), first);
  const auto doubted = again->store().readings(std::nullopt, 5, {vessel.uid, "ph", {}, {}, true});
  ASSERT_EQ(doubted->size(), 1u);
  EXPECT_EQ(doubted->front().mark, "wild");
  EXPECT_EQ(again->store().lastOfEach({vessel.uid, "ph", {}, {}}, 3600)->size(), 1u) << "those that count";
  EXPECT_EQ(again->store().readingBuckets({vessel.uid, "ph", {}, {}}, 3600)->front().most, 5.9);
}

} // namespace
} // namespace butte::book
