#pragma once
#include "json_fwd.h"
#include "water/water.h"

#include <QString>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace butte::app {

class BookDesk;

/// A water that can be taken into a formula, as it stands in files.
struct WaterOffer {
  QString name;
  std::shared_ptr<const exchange::Json> water;
};

/// Reports of one source in the book, oldest first.
struct SourceReports {
  struct Report {
    std::string date;
    std::shared_ptr<const exchange::Json> water;
  };
  QString name;
  std::string uid;
  std::vector<Report> reports;
};

/// The waters of the book that have a report.
std::vector<SourceReports> watersOf(BookDesk& desk);
std::optional<SourceReports> waterInBook(BookDesk& desk, const std::string& uid);
/// A report's water in normal form; nothing where it does not read.
std::optional<core::Water> readReport(const SourceReports::Report& report);

/// A source for a formula, from the report of a date or, with "worst", the worst of each figure of all.
exchange::Json sourceFrom(const SourceReports& source, const std::string& date);

/// A water in normal form as a report in mg/L.
exchange::Json reportOf(const core::Water& water);

/// What a person may choose from: pure, unknown, the book's, and made-up ones that ship, to try things with.
std::vector<WaterOffer> waterOffers(BookDesk& desk);

} // namespace butte::app
