#include "target/scale_target.h"

#include "base/csv.h"
#include "base/decimal.h"
#include "base/embedded.h"
#include "target/electroneutrality.h"
#include "water/water_solutes.h"

#include <algorithm>
#include <cctype>
#include <cmath>

namespace butte::core {
namespace {

bool isMajor(Nutrient n) {
  return !isTraceElement(n) && n != Nutrient::Si;
}

std::string lowered(std::string text) {
  for (auto& c : text)
    c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  return text;
}

} // namespace

std::optional<double> conductivityOfTarget(const std::vector<TargetRow>& rows, double alkalinityLeftMeqPerL) {
  Water feed = pureWater();
  feed.remarks.clear();
  const auto put = [&](Nutrient n, double milligramsPerLitre) {
    feed.milligramsPerLitre.add(n, milligramsPerLitre);
    feed.measured[static_cast<std::size_t>(n)] = true;
  };
  double forms = 0;
  for (const auto& row : rows) {
    if (row.nutrient == Nutrient::N) continue;
    put(row.nutrient, row.milligramsPerLitre);
    if (row.nutrient == Nutrient::NNitrate || row.nutrient == Nutrient::NAmmonium)
      forms += row.milligramsPerLitre;
  }
  for (const auto& row : rows) {
    if (row.nutrient == Nutrient::N && row.milligramsPerLitre > forms)
      put(Nutrient::NNitrate, row.milligramsPerLitre - forms);
  }
  const auto balance = balanceOf(rows, alkalinityLeftMeqPerL);
  if (balance.closes) put(balance.closes->nutrient, balance.closes->to);
  feed.alkalinityMeqPerL = alkalinityLeftMeqPerL;
  feed.ph = 5.8; // common practice: the middle of the usual band
  return computedConductivityMsPerCm(feed);
}

std::vector<TargetRow> scaled(std::vector<TargetRow> rows, double factor, bool tracesToo) {
  for (auto& row : rows) {
    if (isMajor(row.nutrient) || tracesToo) row.milligramsPerLitre *= factor;
  }
  return rows;
}

Result<double> factorForConductivity(const std::vector<TargetRow>& rows, double alkalinityLeftMeqPerL,
                                     double milliSiemensPerCm, bool tracesToo) {
  const bool any = std::any_of(rows.begin(), rows.end(), [](const TargetRow& r) {
    return isMajor(r.nutrient) && r.milligramsPerLitre > 0;
  });
  if (!any) return problemAt(ProblemCode::MissingKey, "target", {"a target with N, P, K, Ca or Mg"});
  const auto at = [&](double factor) {
    return conductivityOfTarget(scaled(rows, factor, tracesToo), alkalinityLeftMeqPerL).value_or(-1);
  };
  const auto unreachable =
      problemAt(ProblemCode::OutOfRange, "target.ec",
                {decimalText(milliSiemensPerCm), "an EC that these elements can make, in mS/cm"});
  double low = 0.01, high = 1;
  if (!(at(low) < milliSiemensPerCm)) return unreachable;
  while (at(high) < milliSiemensPerCm) {
    if (at(high) < 0 || high > 64) return unreachable;
    high *= 2;
  }
  // The curve is smooth and rises: false position with a halving guard.
  for (int i = 0; i < 60 && high - low > 1e-9 * high; ++i) {
    const double atLow = at(low), atHigh = at(high);
    double middle = low + (milliSiemensPerCm - atLow) / (atHigh - atLow) * (high - low);
    if (!(middle > low && middle < high) || i % 3 == 2) middle = (low + high) / 2;
    const double value = at(middle);
    if (std::abs(value - milliSiemensPerCm) < 1e-7) return middle;
    (value < milliSiemensPerCm ? low : high) = middle;
  }
  return (low + high) / 2;
}

const std::vector<CropRange>& cropRanges() {
  static const std::vector<CropRange> ranges = [] {
    const CsvTable table(embedded::crop_ranges());
    std::vector<CropRange> out;
    for (std::size_t row = 0; row < table.rowCount(); ++row)
      out.push_back({table.cell(row, "crop"), table.cell(row, "stage"), table.cell(row, "season"),
                     table.number(row, "ec_low"), table.number(row, "ec_high"), table.number(row, "ph_low"),
                     table.number(row, "ph_high"), table.cell(row, "note"), table.cell(row, "source"),
                     table.cell(row, "confidence")});
    return out;
  }();
  return ranges;
}

std::vector<SeasonRule> seasonRules(const std::string& crop) {
  std::vector<SeasonRule> out;
  const auto wanted = lowered(crop);
  for (const bool seasonal : {true, false}) {
    for (const auto& range : cropRanges()) {
      const bool found = !wanted.empty() && !range.crop.empty() &&
                         (wanted.starts_with(range.crop) || range.crop.find(wanted) != std::string::npos);
      if (!found || (range.season != "any") != seasonal || !range.ecLow || !range.ecHigh) continue;
      if (range.stage.find("root zone") != std::string::npos) continue; // not a feed
      const auto season = range.season == "any" ? std::string() : range.season + ": ";
      out.push_back({season + range.crop + ", " + range.stage, (*range.ecLow + *range.ecHigh) / 2, &range});
    }
  }
  return out;
}

} // namespace butte::core
