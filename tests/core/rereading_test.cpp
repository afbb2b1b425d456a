// Ways to read a report that does not balance: each mix-up of the trade (common practice) done to a balanced
// report is found again. Molar masses: IUPAC.
#include "water/rereading.h"

#include <gmock/gmock.h>

namespace butte::core {
namespace {

/// A hard bore water that balances to a hundredth of a milliequivalent.
TypedReport bore() {
  TypedReport report;
  report.rows = {{"Ca", 80.16}, {"Mg", 12.15},  {"Na", 22.99}, {"K", 3.91},
                 {"Cl", 35.45}, {"SO4", 48.03}, {"NO3", 31.0}, {"HCO3", 219.7}};
  return report;
}

ReportRow& row(TypedReport& report, const char* key) {
  for (auto& r : report.rows)
    if (r.key == key) return r;
  ADD_FAILURE() << key;
  return report.rows.front();
}

const Rereading* found(const std::vector<Rereading>& ways, RereadingKind kind, const std::string& from,
                       const std::string& to) {
  for (const auto& way : ways)
    if (way.kind == kind && way.from == from && way.to == to) return &way;
  return nullptr;
}

double valueIn(const Rereading& way, const std::string& key) {
  for (const auto& r : way.rows)
    if (r.key == key) return r.value;
  return -1;
}

TEST(Rereading, AFormMixedUpIsReadAsTheOther) {
  // As the sheet says it, with the figure that the true row would have in the other form.
  const struct {
    const char *typed, *means;
    double factor; ///< of the true figure
  } mixUps[] = {{"HCO3", "alkalinity_as_CaCO3", 50.04 / 61.02},
                {"NO3", "N_NO3", 14.007 / 62.004},
                {"SO4", "S", 32.06 / 96.06}};
  for (const auto& [typed, means, factor] : mixUps) {
    auto report = bore();
    // Enough of the ion that its misreading can't pass unseen.
    if (std::string(typed) == "NO3") {
      row(report, "NO3").value = 124;
      row(report, "Na").value += 1.5 * 22.99;
    }
    if (std::string(typed) == "SO4") {
      row(report, "SO4").value = 192.12;
      row(report, "Ca").value += 1.5 * 40.08;
    }
    const double meant = row(report, typed).value;
    row(report, typed).value *= factor;
    const auto ways = rereadingsOf(report);
    const auto* way = found(ways, RereadingKind::OtherForm, typed, means);
    ASSERT_TRUE(way) << typed << " read as " << means;
    EXPECT_NEAR(way->value, meant * factor, 1e-9) << "the figure stays, its meaning changes";
    EXPECT_LT(std::abs(way->differenceMeqPerL), 0.25) << typed;
  }
}

TEST(Rereading, AWholeReportInAnotherUnit) {
  TypedReport report;
  for (const auto& [key, value] :
       {std::pair{"Ca", 4.0}, {"Mg", 1.0}, {"Na", 1.0}, {"Cl", 1.0}, {"SO4", 1.0}, {"HCO3", 4.0}})
    report.rows.push_back({key, value, "mg/L"});
  report.conductivityMsPerCm = 0.56;
  const auto ways = rereadingsOf(report);
  ASSERT_FALSE(ways.empty());
  EXPECT_TRUE(found(ways, RereadingKind::OtherUnit, "", "meq/L"))
      << "4 mg/L of calcium never read 0.56 mS/cm";
}

TEST(Rereading, ASlippedDecimalPointIsMovedBackEitherWay) {
  for (const double slip : {0.1, 10.0}) {
    for (const char* key : {"Ca", "Cl", "SO4", "Mg"}) {
      auto report = bore();
      const double right = row(report, key).value;
      row(report, key).value *= slip;
      const auto ways = rereadingsOf(report);
      const auto* way = found(ways, RereadingKind::Slipped, key, key);
      const bool large = std::abs(right - right * slip) / right > 0.5;
      if (!way) {
        EXPECT_FALSE(large && std::string(key) == "Ca") << key << " times " << slip;
        continue;
      }
      EXPECT_NEAR(way->value, right, 1e-9) << key << " times " << slip;
      EXPECT_NEAR(valueIn(*way, key), right, 1e-9);
    }
  }
}

TEST(Rereading, TwoFiguresInEachOthersRows) {
  auto report = bore();
  std::swap(row(report, "Ca").value, row(report, "Mg").value);
  const auto ways = rereadingsOf(report);
  const auto* way = found(ways, RereadingKind::Swapped, "Ca", "Mg");
  ASSERT_TRUE(way);
  EXPECT_NEAR(valueIn(*way, "Ca"), 80.16, 1e-9);
  EXPECT_NEAR(valueIn(*way, "Mg"), 12.15, 1e-9);
}

TEST(Rereading, WhatWasLeftOutClosesTheGap) {
  const struct {
    const char* key;
    double molarMass;
    int charge;
  } ions[] = {{"Na", 22.99, 1}, {"Cl", 35.45, 1}, {"SO4", 96.06, 2}};
  for (const auto& [key, molarMass, charge] : ions) {
    auto report = bore();
    double missing = 0;
    std::erase_if(report.rows, [&](const ReportRow& r) {
      if (r.key == key) missing = r.value;
      return r.key == key;
    });
    const auto ways = rereadingsOf(report);
    const auto* way = found(ways, RereadingKind::Missing, "", key);
    ASSERT_TRUE(way) << key;
    EXPECT_NEAR(way->value, missing, 0.02 * molarMass / charge) << key;
    EXPECT_NEAR(valueIn(*way, key), way->value, 1e-9);
    EXPECT_NEAR(way->differenceMeqPerL, 0, 1e-6) << key;
  }
}

TEST(Rereading, NoneIsOfferedTwiceNoneThatOffendsTheMeterAndFourAtMost) {
  auto report = bore();
  row(report, "HCO3").value *= 50.04 / 61.02;
  report.conductivityMsPerCm = 0.59;
  const auto ways = rereadingsOf(report);
  EXPECT_LE(ways.size(), 4u);
  for (std::size_t i = 0; i < ways.size(); ++i)
    for (std::size_t j = 0; j < i; ++j)
      EXPECT_FALSE(ways[i].kind == ways[j].kind && ways[i].from == ways[j].from && ways[i].to == ways[j].to);
  report.conductivityMsPerCm = 3.2;
  EXPECT_TRUE(rereadingsOf(report).empty()) << "no reading of these rows gives that conductivity";
}

} // namespace
} // namespace butte::core
