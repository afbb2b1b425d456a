#pragma once
#include "book/store.h"

#include <map>
#include <string>
#include <vector>

namespace butte::app {

/// What was read of a vessel, as much of it as an estimate learns from.
struct VesselReadings {
  std::vector<book::Reading> readings; ///< in the order of time
  std::vector<book::Reading>
      doubted;          ///< the newest of those with a mark: they count for nothing, but are shown
  bool thinned = false; ///< there are more: one stands for some hours
};
core::Result<VesselReadings> vesselReadings(book::Store& store, const std::string& uid);
/// The same from another thread than the window's.
core::Result<VesselReadings> vesselReadingsBeside(const std::string& bookPath, const std::string& uid);

/// A stretch of time as closely as a picture can show it, by quantity.
struct CloseReadings {
  std::int64_t from = 0, to = 0, widthSeconds = 1;
  std::map<std::string, std::vector<book::ReadingBucket>> byQuantity;
};
CloseReadings closeReadingsBeside(const std::string& bookPath, const std::string& uid, std::int64_t from,
                                  std::int64_t to, std::int64_t widthSeconds);

} // namespace butte::app
