#include "edits/water_sources.h"

#include "base/decimal.h"
#include "document/book_desk.h"
#include "typed_numbers.h"
#include "water/blend.h"
#include "water_json.h"
#include "wording/tr.h"

#include <QFile>
#include <algorithm>
#include <cmath>

namespace butte::app {

using exchange::Json;

namespace {

SourceReports reportsOf(const book::Record& record) {
  SourceReports out{QString::fromStdString(record.body.value("name", std::string())), record.ref.uid, {}};
  if (record.body.contains("reports")) {
    for (const auto& report : record.body["reports"])
      out.reports.push_back(
          {report.value("date", std::string()), std::make_shared<const Json>(report["water"])});
  }
  std::stable_sort(out.reports.begin(), out.reports.end(),
                   [](const auto& a, const auto& b) { return a.date < b.date; });
  return out;
}

std::string digitsOf(double value) {
  return core::decimalText(std::round(value * 1e6) / 1e6);
}

/// The worst of each figure, as a report in mg/L.
Json worstReport(const SourceReports& source) {
  std::vector<core::Water> waters;
  for (const auto& report : source.reports) {
    if (const auto water = readReport(report)) waters.push_back(*water);
  }
  return reportOf(core::worstOf(waters));
}

} // namespace

std::optional<core::Water> readReport(const SourceReports::Report& report) {
  std::optional<core::Problem> problem;
  const auto read = exchange::readWaterDocument(*report.water, "water", problem);
  if (problem) return std::nullopt;
  const auto planned = core::planWater(read.plan);
  return planned ? std::optional(planned->water) : std::nullopt;
}

Json reportOf(const core::Water& water) {
  Json out{{"rows", Json::array()}};
  for (const auto n : core::allNutrients) {
    if (water.measured[static_cast<std::size_t>(n)])
      out["rows"].push_back(exchange::waterRowJson(std::string(core::nutrientKey(n)),
                                                   digitsOf(water.milligramsPerLitre.of(n)), "mg/L", false));
  }
  if (water.alkalinityMeqPerL)
    out["rows"].push_back(
        exchange::waterRowJson("alkalinity_as_CaCO3", digitsOf(*water.alkalinityMeqPerL), "meq/L", false));
  if (water.conductivityMsPerCm)
    out["ec"] = Json{{"amount", digitsOf(*water.conductivityMsPerCm)}, {"unit", "mS/cm"}};
  if (water.ph) out["ph"] = digitsOf(*water.ph);
  return out;
}

std::vector<SourceReports> watersOf(BookDesk& desk) {
  std::vector<SourceReports> out;
  if (!desk.isOpen()) return out;
  const auto heads = desk.book().store().list(book::Kind::Water, false);
  if (!heads) return out;
  for (const auto& head : *heads) {
    const auto record = desk.book().record(head.ref);
    if (!record || !*record) continue;
    auto reports = reportsOf(**record);
    if (!reports.reports.empty()) out.push_back(std::move(reports));
  }
  return out;
}

std::optional<SourceReports> waterInBook(BookDesk& desk, const std::string& uid) {
  if (uid.empty() || !desk.isOpen()) return std::nullopt;
  const auto record = desk.book().record({book::Kind::Water, uid});
  if (!record || !*record || (*record)->binnedAt) return std::nullopt;
  return reportsOf(**record);
}

Json sourceFrom(const SourceReports& source, const std::string& date) {
  Json out;
  if (date == "worst") {
    out = worstReport(source);
  } else {
    const auto it = std::find_if(source.reports.begin(), source.reports.end(),
                                 [&](const auto& report) { return report.date == date; });
    out = it == source.reports.end() ? *source.reports.back().water : *it->water;
  }
  out["name"] = source.name.toStdString();
  out["source"] = source.uid;
  out["report"] = date;
  return out;
}

namespace {

std::vector<Json> sampleWaters() {
  QFile file(":/demo/waters.json");
  if (!file.open(QIODevice::ReadOnly)) return {};
  const auto text = file.readAll();
  const auto waters = Json::parse(text.begin(), text.end(), nullptr, false);
  return waters.is_array() ? std::vector<Json>(waters.begin(), waters.end()) : std::vector<Json>();
}

WaterOffer offered(const QString& name, Json water) {
  return {name, std::make_shared<const Json>(std::move(water))};
}

} // namespace

std::vector<WaterOffer> waterOffers(BookDesk& desk) {
  std::vector<WaterOffer> out;
  out.push_back(offered(tr("Pure water (RO, distilled)"), {{"rows", Json::array()}}));
  out.push_back(offered(tr("Unknown tap (guess it)"), {{"rows", Json::array()}, {"estimate", true}}));
  for (const auto& source : watersOf(desk))
    out.push_back(offered(source.name, sourceFrom(source, source.reports.back().date)));
  for (auto& water : sampleWaters()) {
    const auto name = QString::fromStdString(water.value("name", std::string()));
    const bool known =
        std::any_of(out.begin(), out.end(), [&](const WaterOffer& offer) { return offer.name == name; });
    if (!known) out.push_back(offered(name, std::move(water)));
  }
  return out;
}

} // namespace butte::app
