#include "document/vessel_readings.h"

#include "book/open_store.h"
#include "book/reading.h"

#include <algorithm>

namespace butte::app {

namespace {
/// More readings of one quantity are told by one for some hours: a filter learns no more from a reading a
/// minute. A true one, since a mean over a refill would be of no moment.
constexpr int mostReadings = 2000, mostDoubted = 200;
constexpr std::int64_t thinnedSeconds = 4 * 3600;
} // namespace

core::Result<VesselReadings> vesselReadings(book::Store& store, const std::string& uid) {
  VesselReadings out;
  for (const auto& quantity : book::quantities()) {
    book::ReadingFilter filter{uid, std::string(quantity.code), {}, {}, false};
    auto found = store.readings(std::nullopt, mostReadings + 1, filter);
    if (found && found->size() > static_cast<std::size_t>(mostReadings)) {
      found = store.lastOfEach(filter, thinnedSeconds);
      out.thinned = true;
    }
    if (!found) return found.problem();
    out.readings.insert(out.readings.end(), found->begin(), found->end());
    filter.doubted = true;
    const auto doubted = store.readings(std::nullopt, mostDoubted, filter);
    if (!doubted) return doubted.problem();
    out.doubted.insert(out.doubted.end(), doubted->begin(), doubted->end());
  }
  for (auto* list : {&out.readings, &out.doubted})
    std::stable_sort(list->begin(), list->end(), [](const auto& a, const auto& b) { return a.at < b.at; });
  return out;
}

core::Result<VesselReadings> vesselReadingsBeside(const std::string& bookPath, const std::string& uid) {
  const auto store = book::openBeside(bookPath);
  if (!store) return store.problem();
  return vesselReadings(**store, uid);
}

CloseReadings closeReadingsBeside(const std::string& bookPath, const std::string& uid, std::int64_t from,
                                  std::int64_t to, std::int64_t widthSeconds) {
  CloseReadings out{from, to, widthSeconds, {}};
  const auto store = book::openBeside(bookPath);
  if (!store) return out; // the picture keeps what it has
  for (const auto* quantity : {"ec", "ph", "level", "temperature"}) {
    auto buckets =
        (*store)->readingBuckets({uid, quantity, book::Moment{from}, book::Moment{to}}, widthSeconds);
    if (buckets) out.byQuantity[quantity] = std::move(buckets).value();
  }
  return out;
}

} // namespace butte::app
