#include "stream_day.h"

#include "kinds/kind_info.h"

#include <algorithm>
#include <tuple>

namespace butte::book {

namespace {

constexpr std::size_t dayLetters = 10;

/// The record of a day that is not in the bin, or the next one that may be made.
core::Result<Record> dayRecord(Store& store, const Ref& stream, const std::string& name,
                               const std::string& day) {
  constexpr int mostOfDay = 1000;
  for (int i = 0; i < mostOfDay; ++i) {
    const Ref ref{Kind::ReadingImport,
                  "stream-" + stream.uid + "-" + day + (i == 0 ? "" : "-" + std::to_string(i))};
    const auto found = store.read(ref);
    if (!found) return found.problem();
    if (!*found)
      return Record{ref, Json{{"name", name}, {"rows", 0}, {"stream", stream.uid}, {"day", day}}, {}};
    if (!(*found)->binnedAt) return **found;
  }
  return core::problemAt(core::ProblemCode::BadFile, "stream", {"too many days of it lie in the bin"});
}

StreamTally tallyOf(const Json& body) {
  const auto count = [&](const char* key) { return static_cast<std::int64_t>(body.value(key, 0.0)); };
  StreamTally out{
      count("heard"), count("wild"), count("unread"), body.value("unread_sample", std::string()), {}};
  if (const auto until = body.find("until"); until != body.end() && until->is_object())
    for (const auto& [key, at] : until->items())
      if (const auto moment = at.is_string() ? Moment::fromIso(at.get<std::string>()) : std::nullopt)
        out.until[key] = moment->seconds;
  return out;
}

void putTally(Json& body, const StreamTally& tally) {
  body["heard"] = tally.heard;
  if (tally.wild > 0) body["wild"] = tally.wild;
  if (tally.unread > 0) body["unread"] = tally.unread;
  if (!tally.unreadSample.empty()) body["unread_sample"] = tally.unreadSample;
  for (const auto& [key, at] : tally.until)
    body["until"][key] = Moment{at}.iso();
}

} // namespace

void StreamTally::add(const StreamTally& other) {
  heard += other.heard;
  wild += other.wild;
  unread += other.unread;
  for (const auto& [key, at] : other.until)
    until[key] = std::max(until[key], at);
  if (unreadSample.empty()) unreadSample = other.unreadSample;
}

Trouble keepStreamed(Book& book, const Ref& stream, const std::string& name, std::vector<Reading> readings,
                     const StreamTally& tally) {
  const auto now = Moment::now();
  const bool hasReadings = !readings.empty();
  const auto trouble = book.writeBeside([&](Store& store) -> Trouble {
    auto record = dayRecord(store, stream, name, now.iso().substr(0, dayLetters));
    if (!record) return record.problem();
    auto body = record->body;
    auto sum = tallyOf(body);
    sum.add(tally);
    putTally(body, sum);
    body["rows"] =
        static_cast<std::int64_t>(body.value("rows", 0.0)) + static_cast<std::int64_t>(readings.size());
    if (auto fault = checkRecord(Kind::ReadingImport, body)) return fault;
    if (auto fault = store.write({record->ref, body, {}}, now)) return fault;
    for (auto& reading : readings) {
      reading.number = 0;
      reading.importUid = record->ref.uid;
    }
    return store.addReadings(readings);
  });
  if (trouble) return trouble;
  std::vector<Ref> touched{{Kind::ReadingImport, stream.uid}};
  if (hasReadings) touched.push_back({Kind::Reading, std::string()});
  emit book.changed(touched);
  return std::nullopt;
}

core::Result<std::vector<StreamDay>> streamDays(Store& store) {
  std::vector<StreamDay> out;
  const auto trouble = store.eachRecord(Kind::ReadingImport, [&](const Record& record, Moment) {
    const auto& body = record.body;
    if (record.binnedAt || !body.contains("stream")) return true;
    out.push_back({record.ref, body.value("stream", std::string()), body.value("name", std::string()),
                   body.value("day", std::string()), static_cast<std::int64_t>(body.value("rows", 0.0)),
                   tallyOf(body)});
    return true;
  });
  if (trouble) return *trouble;
  std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.day > b.day; });
  return out;
}

ReadUntil streamUntil(Store& store, const std::string& streamUid) {
  StreamTally out;
  std::ignore = store.eachRecord(Kind::ReadingImport, [&](const Record& record, Moment) {
    if (record.body.value("stream", std::string()) == streamUid) out.add(tallyOf(record.body));
    return true;
  });
  return out.until;
}

} // namespace butte::book
