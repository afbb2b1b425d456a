// Whole papers: 60 invented reports from outside (tests/data/truth, its README), and 36 manners of our own in
// tests/reading/papers, each laid out as such papers are (common practice).
#include "papers.h"
#include "report/report_text.h"
#include "water/examine.h"

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

using namespace butte;
using namespace butte::core;
using namespace butte::reading;

namespace {

/// Keys as the tables name them, to what was read; nothing for what was not.
std::map<std::string, double> figuresOf(const ReportText& read) {
  std::map<std::string, double> out;
  const auto water = waterOf(read.report);
  EXPECT_TRUE(static_cast<bool>(water));
  if (!water) return out;
  for (const auto n : allNutrients) {
    if (water->measured[static_cast<std::size_t>(n)])
      out[std::string(nutrientKey(n))] = water->milligramsPerLitre.of(n);
  }
  if (water->alkalinityMeqPerL) out["alkalinity"] = *water->alkalinityMeqPerL;
  if (water->conductivityMsPerCm) out["EC"] = *water->conductivityMsPerCm;
  if (water->ph) out["pH"] = *water->ph;
  return out;
}

void expectFigures(const std::string& paper, const std::map<std::string, double>& wanted, double tolerance) {
  const auto got = figuresOf(readReportText(paper));
  for (const auto& [key, value] : wanted) {
    const auto it = got.find(key);
    if (it == got.end()) {
      ADD_FAILURE() << key << " was not read; it is " << value;
      continue;
    }
    EXPECT_NEAR(it->second, value, tolerance * value + 1e-4) << key;
  }
}

} // namespace

TEST(Papers, EveryFigureOfTheReportsFromOutsideIsRead) {
  std::size_t figures = 0;
  for (const auto& path : test::textsIn("/data/truth/reports")) {
    SCOPED_TRACE(path.filename().string());
    const auto json =
        nlohmann::json::parse(test::contentsOf(std::filesystem::path(path).replace_extension(".json")));
    std::map<std::string, double> wanted = json.at("elements_mg_per_l");
    for (const auto& [key, name] : {std::pair("ph", "pH"), std::pair("ec_ms_per_cm", "EC"),
                                    std::pair("alkalinity_meq_per_l", "alkalinity")}) {
      if (json.contains(key)) wanted[name] = json.at(key);
    }
    figures += wanted.size();
    expectFigures(test::contentsOf(path), wanted, 0.015); // the table's own tolerance
  }
  EXPECT_EQ(figures, 788u);
}

TEST(Papers, OurOwnMannersAreReadAndNothingElse) {
  std::size_t papers = 0;
  for (const auto& path : test::textsIn("/reading/papers")) {
    SCOPED_TRACE(path.filename().string());
    const auto wanted = test::expectedBeside(path);
    expectFigures(test::contentsOf(path), wanted, 0.01);
    // What is below a limit stands in the water as half of it; nothing else may be there that was not wanted.
    const auto read = readReportText(test::contentsOf(path));
    for (const auto& row : read.read) {
      if (row.row.below || row.row.key.find("hardness") != std::string::npos || row.row.key == "TDS")
        continue;
      ++papers;
    }
    EXPECT_EQ(std::count_if(read.unplaced.begin(), read.unplaced.end(),
                            [](const UnplacedRow& row) {
                              return row.why != WhyUnplaced::NotNeeded && row.why != WhyUnplaced::UnknownName;
                            }),
              0);
  }
  EXPECT_EQ(papers, 322u) << "as many as the files want";
}
