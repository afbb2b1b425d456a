// Lines as scales send them. The shapes are common practice of serial scales; factors of pound and ounce are
// the international ones (1959).
#include "scale/line_tokens.h"
#include "scale/scale_line.h"

#include <cmath>
#include <gtest/gtest.h>
#include <random>

namespace butte::devices {
namespace {

constexpr double gramsPerPound = 453.59237, gramsPerOunce = 28.349523125;

struct Case {
  const char* line;
  double grams;
  const char* unit;
  std::optional<bool> stable;
};

class WeightLines : public ::testing::TestWithParam<Case> {};

TEST_P(WeightLines, AreRead) {
  const auto& want = GetParam();
  const auto read = readScaleLine(want.line);
  ASSERT_EQ(read.status, ScaleStatus::Weight) << want.line;
  EXPECT_NEAR(read.mass->grams(), want.grams, 1e-9 * std::abs(want.grams)) << want.line;
  EXPECT_EQ(read.unit, want.unit) << want.line;
  EXPECT_EQ(read.stable, want.stable) << want.line;
}

INSTANTIATE_TEST_SUITE_P(
    Shapes, WeightLines,
    ::testing::Values(Case{"ST,GS,+  12.345kg", 12345, "kg", true},
                      Case{"US,NT,-  0.50lb", -0.5 * gramsPerPound, "lb", false},
                      Case{"S S     346.86 oz", 346.86 * gramsPerOunce, "oz", true},
                      Case{"S D      91.05 g", 91.05, "g", false}, Case{"   2343.6 g", 2343.6, "g", {}},
                      Case{"+    11.317 kg ", 11317, "kg", {}},
                      Case{"  19.93 lb ?", 19.93 * gramsPerPound, "lb", false},
                      Case{"\x02 12.5 g\x03\r", 12.5, "g", {}}, Case{"G   12.5 g S", 12.5, "g", true},
                      Case{"Wt: 12.5 g", 12.5, "g", {}}, Case{"NET= -3 g M", -3, "g", false},
                      Case{"5 lb 3.5 oz", 5 * gramsPerPound + 3.5 * gramsPerOunce, "lb:oz", {}},
                      Case{"ST,GS,-  1 lb  8.0 oz", -(gramsPerPound + 8 * gramsPerOunce), "lb:oz", true},
                      Case{"12:03.5 lb:oz", 12 * gramsPerPound + 3.5 * gramsPerOunce, "lb:oz", {}},
                      Case{"ST,+  12,34 kg", 12340, "kg", true}, Case{"1,234.5 g", 1234.5, "g", {}},
                      Case{"0,123 kg", 123, "kg", {}}, Case{"250 mg", 0.25, "mg", {}}));

struct Other {
  const char* line;
  ScaleStatus status;
};
class OtherLines : public ::testing::TestWithParam<Other> {};

TEST_P(OtherLines, CarryNoWeight) {
  const auto read = readScaleLine(GetParam().line);
  EXPECT_EQ(read.status, GetParam().status) << GetParam().line;
  EXPECT_FALSE(read.mass) << GetParam().line;
  EXPECT_TRUE(read.unit.empty());
}

INSTANTIATE_TEST_SUITE_P(
    Shapes, OtherLines,
    ::testing::Values(
        Other{"OL,+9999999E+19", ScaleStatus::Overload}, Other{"OL,-9999999E+19", ScaleStatus::Underload},
        Other{"S +", ScaleStatus::Overload}, Other{"S -", ScaleStatus::Underload},
        Other{"S I", ScaleStatus::Busy}, Other{"S L", ScaleStatus::Fault}, Other{"Err 3", ScaleStatus::Fault},
        Other{"E02", ScaleStatus::Fault}, Other{"EC,E01", ScaleStatus::Fault},
        Other{"ES", ScaleStatus::Fault}, Other{"HHHHHH", ScaleStatus::Overload},
        Other{"", ScaleStatus::Nothing}, Other{"garbage \x01\xff", ScaleStatus::Nothing},
        // No unit; two weights; a tare; a held value; an unclear comma; a gross mark that could be grams; a
        // stranger.
        Other{"ST,GS,+  12.3", ScaleStatus::Nothing}, Other{"12.3 kg 12.4 kg", ScaleStatus::Nothing},
        Other{"ST,GS,+12.34kgST,GS,+12.35kg", ScaleStatus::Nothing},
        Other{"T S 10.0 g", ScaleStatus::Nothing}, Other{"HD,GS,+ 1.2kg", ScaleStatus::Nothing},
        Other{"1,234 kg", ScaleStatus::Nothing}, Other{"12.3 G", ScaleStatus::Nothing},
        Other{"12.3 pcs", ScaleStatus::Nothing}, Other{"ST,US,+ 1.2kg", ScaleStatus::Nothing},
        Other{"1.2.3 kg", ScaleStatus::Nothing}, Other{"5 lb 17 oz", ScaleStatus::Nothing},
        Other{"12.3 kg *", ScaleStatus::Nothing}, Other{"HI 12.3 kg", ScaleStatus::Nothing},
        Other{"9.9E+9 kg", ScaleStatus::Nothing}, Other{"2026-11-30 12:30 1.2 kg", ScaleStatus::Nothing}));

// Whatever part of a line arrives, it is no weight other than the whole one's.
TEST(ScaleLine, ALineCutAnywhereIsNeverAnotherWeight) {
  for (const std::string whole :
       {"ST,GS,+   12.345kg", "S S     346.86 oz", "5 lb 3.5 oz", "US,+0001703.5  g"})
    for (std::size_t cut = 1; cut < whole.size(); ++cut) {
      const auto head = readScaleLine(whole.substr(0, cut));
      if (head.mass && head.unit != "lb") {
        EXPECT_DOUBLE_EQ(head.mass->grams(), readScaleLine(whole).mass->grams()) << whole.substr(0, cut);
      }
    }
}

// What any rubbish is taken for carries a unit and a finite weight, or nothing.
TEST(ScaleLine, RubbishIsReadOrLeft) {
  std::mt19937 random(7);
  const std::string letters = "STUSGN+-., 0123456789kglboz?:\x02\xff";
  for (int round = 0; round < 20000; ++round) {
    std::string line;
    for (unsigned length = random() % 30; length > 0; --length)
      line += letters[random() % letters.size()];
    const auto read = readScaleLine(line);
    EXPECT_EQ(read.mass.has_value(), read.status == ScaleStatus::Weight);
    if (read.mass) {
      EXPECT_TRUE(std::isfinite(read.mass->grams())) << line;
      EXPECT_FALSE(read.unit.empty()) << line;
    }
  }
  EXPECT_EQ(readScaleLine(std::string(1'000'000, '1') + " g").status, ScaleStatus::Nothing);
}

TEST(ScaleLine, NumbersAreClearOrNone) {
  EXPECT_EQ(clearNumber("1234.5"), 1234.5);
  EXPECT_EQ(clearNumber(".5"), 0.5);
  EXPECT_EQ(clearNumber("12."), 12);
  EXPECT_EQ(clearNumber("1,234,567"), 1234567);
  EXPECT_FALSE(clearNumber("1,234"));
  EXPECT_FALSE(clearNumber("1,23,456"));
  EXPECT_FALSE(clearNumber("1.234,5"));
  EXPECT_FALSE(clearNumber("."));
}

} // namespace
} // namespace butte::devices
