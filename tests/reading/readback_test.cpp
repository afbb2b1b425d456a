// What the program itself shows, prints and writes is read back as the same: its names, units and figures,
// for every key and unit that it knows and figures of every size.
#include "base/decimal.h"
#include "deed_words.h"
#include "label/label_text.h"
#include "product/product.h"
#include "quantity/typed_quantity.h"
#include "report/report_text.h"
#include "units/convert.h"
#include "water/report_row.h"
#include "water/water.h"
#include "water_words.h"

#include <cmath>
#include <gmock/gmock.h>
#include <random>

namespace butte::reading {
namespace {

/// Figures of three to five digits, from thousandths to thousands.
std::vector<double> figures() {
  std::mt19937 random(20261130);
  std::vector<double> out;
  for (int i = 0; i < 12; ++i) {
    const int digits = std::uniform_int_distribution(100, 99999)(random);
    out.push_back(digits / std::pow(10.0, std::uniform_int_distribution(1, 5)(random)));
  }
  return out;
}

double inOne(const core::ReportRow& row) {
  const auto milligrams = core::milligramsPerLitre(row);
  return milligrams ? *milligrams : row.value;
}

/// What a text is read as, where that is not the row; empty where it is.
std::string misread(const core::ReportRow& row, const std::string& text) {
  const auto read = readReportText(text);
  if (read.read.empty()) return text + (read.unplaced.empty() ? ": nothing\n" : ": asked\n");
  const auto& found = read.read.front().row;
  // A bicarbonate stated as CaCO3 is an alkalinity. An alkalinity in mmol counts the acid that it takes, as
  // every paper does (common practice), where mmol of CaCO3 would be half as many.
  if (row.key == "HCO3" && found.key == "alkalinity_as_CaCO3" && found.value == row.value) return {};
  if (row.key == "alkalinity_as_CaCO3" && row.unit == "mmol/L" && found.unit == "meq/L") return {};
  if (std::abs(inOne(found) - inOne(row)) <= 1e-9 * inOne(row)) return {};
  return text + ": " + found.key + " " + core::decimalText(found.value) + " " + found.unit + "\n";
}

TEST(ReadBack, EveryRowOfAReportAsItIsShown) {
  int rows = 0;
  std::string faults;
  for (const auto& key : core::waterKeys()) {
    for (const auto& unit : core::reportUnits()) {
      for (const double value : figures()) {
        const core::ReportRow row{key, value, unit, false};
        if (!core::milligramsPerLitre(row)) continue;
        ++rows;
        const auto fault = misread(row, words::reportKeyName(key) + " " + core::decimalText(value) + " " +
                                            words::reportUnitName(unit));
        faults += fault;
        if (!fault.empty()) break;
      }
    }
  }
  EXPECT_GT(rows, 1000);
  EXPECT_EQ(faults, "");
}

TEST(ReadBack, EveryQuantityWithTheUnitAsItIsShown) {
  std::string faults;
  for (const auto& unit : core::unitNames()) {
    for (const double value : figures()) {
      const auto text = core::decimalText(value) + " " + words::unitName(std::string(unit));
      const auto read = typedQuantity(text, unit);
      if (read && std::abs(read->value - value) <= 1e-9 * value) continue;
      faults += text + " as " + std::string(unit) + "\n";
      break;
    }
  }
  EXPECT_EQ(faults, "");
}

TEST(ReadBack, EveryRowOfALabelByItsKey) {
  for (const auto& key : core::labelKeys()) {
    for (const auto* digits : {"0.05", "12.5", "46"}) {
      const auto read = readLabelText(key + " " + digits + " %");
      ASSERT_EQ(read.rows.size(), 1u) << key;
      EXPECT_EQ(read.rows.front().first, key);
      EXPECT_DOUBLE_EQ(read.rows.front().second, std::stod(digits)) << key;
    }
  }
}

} // namespace
} // namespace butte::reading
