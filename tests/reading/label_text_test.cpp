// Labels of fertilizers: 40 invented ones from outside (tests/data/truth/labels), and manners of our own in
// tests/reading/labels, as bags and bottles carry them (common practice).
#include "label/label_text.h"
#include "papers.h"
#include "product/product.h"

#include <gmock/gmock.h>
#include <nlohmann/json.hpp>
#include <sstream>

using namespace butte;
using namespace butte::core;
using namespace butte::reading;
using ::testing::Contains;
using ::testing::Pair;

namespace {

std::map<std::string, double> elementsOf(const LabelText& read) {
  std::map<std::string, double> out;
  const auto composition = compositionFromLabel(read.rows);
  EXPECT_TRUE(static_cast<bool>(composition));
  if (!composition) return out;
  for (const auto n : allNutrients) {
    const double percent = composition->composition.massFraction.of(n) * 100;
    if (n != Nutrient::N && percent > 0) out[std::string(nutrientKey(n))] = percent;
  }
  return out;
}

void expectSame(const std::map<std::string, double>& got, const std::map<std::string, double>& wanted) {
  for (const auto& [key, value] : wanted) {
    const auto it = got.find(key);
    EXPECT_NEAR(it == got.end() ? 0 : it->second, value, std::max(0.005 * value, 2e-4)) << key;
  }
  for (const auto& [key, value] : got)
    EXPECT_TRUE(wanted.contains(key)) << key << " " << value << " stands nowhere on the label";
}

bool hasDoubt(const LabelText& read, LabelDoubt doubt) {
  return std::any_of(read.doubts.begin(), read.doubts.end(), [&](const auto& d) { return d.doubt == doubt; });
}

} // namespace

TEST(LabelText, EveryFigureOfTheLabelsFromOutsideIsRead) {
  std::size_t figures = 0;
  for (const auto& path : test::textsIn("/data/truth/labels")) {
    SCOPED_TRACE(path.filename().string());
    const std::map<std::string, double> wanted =
        nlohmann::json::parse(test::contentsOf(std::filesystem::path(path).replace_extension(".json")));
    figures += wanted.size();
    expectSame(elementsOf(readLabelText(test::contentsOf(path))), wanted);
  }
  EXPECT_EQ(figures, 294u);
}

TEST(LabelText, OurOwnMannersAreReadAndNothingElse) {
  for (const auto& path : test::textsIn("/reading/labels")) {
    SCOPED_TRACE(path.filename().string());
    auto wanted = test::expectedBeside(path);
    const auto read = readLabelText(test::contentsOf(path));
    auto got = elementsOf(read);
    if (read.densityKgPerL) got["density"] = *read.densityKgPerL;
    expectSame(got, wanted);
    EXPECT_TRUE(read.doubts.empty());
    EXPECT_TRUE(read.unplaced.empty());
  }
}

TEST(LabelText, TheKindOfChelateIsKept) {
  const auto read =
      readLabelText("Iron (Fe) 6.0%\n  4.8% chelated by EDDHA\n0.5 % manganese (Mn) chelated by EDTA\n");
  EXPECT_THAT(read.chelates, Contains(Pair("Fe", "EDDHA")));
  EXPECT_THAT(read.chelates, Contains(Pair("Mn", "EDTA")));
  EXPECT_THAT(readLabelText("Iron (Fe) 0.3%\n  0.3% Chelated Iron (Fe)\nDerived from: Iron DTPA\n").chelates,
              Contains(Pair("Fe", "DTPA")));
}

TEST(LabelText, WhatDoesNotFitIsSaid) {
  EXPECT_TRUE(hasDoubt(readLabelText("Total nitrogen 10%\n8% nitrate nitrogen\n4% ammoniacal nitrogen\n"),
                       LabelDoubt::SumsDoNotFit));
  EXPECT_TRUE(
      hasDoubt(readLabelText("Potassium oxide (K2O) 30 %\nPotassium (K) 30 %\n"), LabelDoubt::TwoFigures));
  EXPECT_TRUE(hasDoubt(readLabelText("Iron chelated by EDTA 0.03 %\nIron chelated by DTPA 0.02 %\n"),
                       LabelDoubt::PartWithoutTotal));
  EXPECT_TRUE(hasDoubt(readLabelText("Phosphate (P2O5) 61 %\nPotash (K2O) 52 %\n"), LabelDoubt::OverHundred));
  const auto volume = readLabelText("Soluble Potash (K2O) 12 % w/v\n");
  EXPECT_TRUE(hasDoubt(volume, LabelDoubt::NeedsDensity));
  EXPECT_TRUE(volume.rows.empty()) << "no weight follows from a volume alone";
}

TEST(LabelText, AnyBytesAreReadToTheEnd) {
  std::string text;
  unsigned state = 1;
  for (int i = 0; i < 20000; ++i) {
    state = state * 1664525 + 1013904223;
    text += static_cast<char>(state >> 24);
    if (state % 97 == 0) text += "Iron (Fe) 5 %\n";
  }
  EXPECT_LE(readLabelText(text).rows.size(), 30u);
  EXPECT_TRUE(readLabelText("").rows.empty());
}
