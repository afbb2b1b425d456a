#pragma once
#include "json_reader.h"
#include "water/water.h"

#include <QString>
#include <optional>
#include <string>
#include <vector>

namespace butte::app {

class BookDesk;

/// Reports of one source in the book, oldest first.
struct SourceReports {
  QString name;
  std::string uid;
  std::vector<std::pair<std::string, exchange::Json>> reports; ///< date, water as in a formula
};

/// The waters of the book that have a report.
std::vector<SourceReports> watersOf(BookDesk& desk);
std::optional<SourceReports> waterInBook(BookDesk& desk, const std::string& uid);

/// A source for a formula, from the report of a date or, with "worst", the worst of each figure of all.
exchange::Json sourceFrom(const SourceReports& source, const std::string& date);

/// A water in normal form as a report in mg/L.
exchange::Json reportOf(const core::Water& water);

/// Made-up waters that ship, to try things with.
std::vector<exchange::Json> sampleWaters();

} // namespace butte::app
