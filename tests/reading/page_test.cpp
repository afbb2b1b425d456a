// Words on a page as lines of text, and several readings of one picture as one.
#include "page/agreed_label.h"
#include "page/agreed_report.h"
#include "page/mended_word.h"
#include "page/page_places.h"

#include <gmock/gmock.h>

namespace butte::reading {
namespace {

using ::testing::HasSubstr;

/// Words where a typewriter would set them, ten dots a letter and twenty a line; `lines`: where on the page
/// each line stands, when not one below the other.
LaidOut asRead(const std::string& text, const std::vector<int>& lines = {}) {
  LaidOut out;
  out.text = text;
  double left = 0;
  std::size_t line = 0;
  for (std::size_t i = 0; i < text.size(); ++i, left += 10) {
    if (text[i] == '\n') ++line, left = -10;
    if (text[i] == ' ' || text[i] == '\n') continue;
    const bool begins = i == 0 || text[i - 1] == ' ' || text[i - 1] == '\n';
    const double top = 20.0 * (line < lines.size() ? lines[line] : static_cast<int>(line));
    if (begins) out.words.push_back({i, i, 0, left, top, left, top + 14});
    out.words.back().to = i + 1;
    out.words.back().right = left + 10;
  }
  return out;
}

/// What a reading of a picture asks about, as "why name value (could be)".
std::string asked(const ReportText& read) {
  std::string out;
  for (const auto& row : read.unplaced) {
    out += row.name + "=" + row.value;
    for (const auto& one : row.couldBe)
      out += " " + one.key;
    out += "; ";
  }
  return out;
}

// Two lines, so wide that the page's lean is more than the way from one line to the next.
TEST(Pages, AFewLongLinesOfALeaningPageAreStillLines) {
  constexpr double lean = 0.03;
  std::vector<PageWord> words;
  for (int line = 0; line < 2; ++line) {
    for (int i = 0; i < 12; ++i) {
      const double left = 100 + 160 * i,
                   top = 200 + 30 * line + lean * left + (i % 3); // letters differ in height
      words.push_back(
          {line == 0 ? "name" + std::to_string(i) : std::to_string(10 + i), left, top, left + 70, top + 18});
    }
  }
  const auto out = laidOut({words});
  ASSERT_EQ(out.strips.size(), 2U) << out.text;
  EXPECT_EQ(out.text.find("name11") < out.text.find('\n'), true) << out.text;
  // An upright page stays as it is.
  for (auto& word : words) {
    word.top -= lean * word.left;
    word.bottom -= lean * word.left;
  }
  EXPECT_EQ(laidOut({words}).strips.size(), 2U);
}

TEST(LaidOutPage, KeepsColumnsApartAndLinesTogether) {
  // Ten dots a letter; the second line leans three dots.
  const std::vector<PageWord> words{{"Calcium", 10, 10, 80, 20}, {"78", 200, 11, 220, 21},
                                    {"mg/l", 300, 12, 340, 22},  {"Nitrate", 10, 40, 80, 50},
                                    {"as", 90, 41, 110, 51},     {"N", 120, 41, 130, 51},
                                    {"2.7", 200, 43, 230, 53},   {"mg/1", 300, 43, 340, 53}};
  const auto page = laidOut({words});
  const auto read = readReportText(page.text);
  ASSERT_EQ(read.read.size(), 2u) << page.text;
  EXPECT_EQ(read.read[1].row, (core::ReportRow{"N_NO3", 2.7, "mg/L", false}));
  EXPECT_EQ(page.strips.size(), 3u) << "an empty line where there is room for one";
  EXPECT_EQ(page.words.size(), words.size());
  for (std::size_t i = 0; i < words.size(); ++i)
    EXPECT_EQ(page.words[i].left, words[i].left);
  EXPECT_THAT(page.text, HasSubstr("mg/l"));
}

TEST(LaidOutPage, OfNothingIsNothing) {
  EXPECT_EQ(laidOut({}).text, "");
  EXPECT_EQ(laidOut({{}, {}}).text, "");
}

TEST(MendedWord, TouchesUnitsAndFormulasAndNeverAFigure) {
  EXPECT_EQ(mendedWord("mg/1"), "mg/l");
  EXPECT_EQ(mendedWord("(mg/I)"), "(mg/l)");
  EXPECT_EQ(mendedWord("pS/cm"), "uS/cm");
  EXPECT_EQ(mendedWord("wmol/|"), "umol/l");
  EXPECT_EQ(mendedWord("Kalium;3,08;mg/1;50"), "Kalium;3,08;mg/l;50");
  EXPECT_EQ(mendedWord("(S04)"), "(SO4)");
  EXPECT_EQ(mendedWord("\u201CBoron,"), "\"Boron,"); // opens as one kind, closes as another
  EXPECT_EQ(mendedWord("dissolved\u201D,0.0595"), "dissolved\",0.0595");
  for (const auto* same : {"504", "1.1", "10", "<0.01", "2320B", "l0", "mg/kg", "1/1"})
    EXPECT_EQ(mendedWord(same), same);
}

TEST(AgreedReport, TakesWhatTwoReadingsHaveAndNoneDenies) {
  const std::vector<LaidOut> readings{
      asRead("Calcium 78 mg/l\nSodium 20 mg/l\nIron 0.5 mg/l\nBoron 41 umol/l\n"),
      asRead("Calcium 78 mg/l\nSodium 26 mg/l\nlr0n 0.5 mg/l\nBoron 41 jjj\n"),
      asRead("Calcium 78 mg/l\nSodium 20 mg/l\n1ron 0.5 mg/l\nBoron 41 umol/l\n")};
  const auto read = agreedReport(readings);
  std::string sure, asks;
  for (const auto& row : read.read)
    sure += row.row.key + " ";
  for (const auto& row : read.unplaced)
    if (row.why == WhyUnplaced::Blurred)
      asks += row.couldBe.front().key + std::to_string(row.couldBe.size()) + " ";
  EXPECT_EQ(sure, "Ca B ") << "a unit that one could not make out says nothing against it";
  EXPECT_EQ(asks, "Na2 Fe1 ") << "one says otherwise; only one has it";
}

TEST(AgreedReport, ANumberThatWasTornIsNeverTakenByHalves) {
  for (const auto* torn : {"Bor; 0, 314; mg/l\n", "Bor;0;314;mg/l\n", "Bor 0. 0487 mg/l\n",
                           "Karbonathärte;8,6 7;°dH\n", "Zink;<0 ,01;mg/l\n", "Zink;<01;mg/l\n"}) {
    const std::string text = std::string(torn) + "Calcium;40,1;mg/l\nNatrium;46,2;mg/l\n";
    const std::vector<LaidOut> all{asRead(text), asRead(text), asRead(text)};
    const auto read = agreedReport(all);
    for (const auto& row : read.read)
      EXPECT_TRUE(row.row.key == "Ca" || row.row.key == "Na") << torn << row.row.key << row.row.value;
  }
}

// A fuzzer found it: places are of the text as it was read, which is longer where bytes are no UTF-8.
TEST(AgreedReport, BytesThatAreNoTextAreSurvived) {
  const std::vector<LaidOut> all(
      3, asRead("Bor\xff\xff\xff\xffon 0.5\xff mg/l\nCalcium 78 mg/l\nSodium\xff 20 mg/l"));
  EXPECT_LE(agreedReport(all).read.size(), 3u);
}

TEST(AgreedReport, ALineThatOnlyAnotherReadingHasIsListed) {
  // The first reader did not see the second line at all, the third could not make out its name either.
  const auto read =
      agreedReport(std::vector<LaidOut>{asRead("Calcium 78 mg/l\nSodium 20 mg/l\n", {0, 2}),
                                        asRead("Calcium 78 mg/l\nS0lfte 34.2 mg/l\nSodium 20 mg/l\n"),
                                        asRead("Calcium 78 mg/l\nSodium 20 mg/l\n", {0, 2})});
  EXPECT_EQ(read.read.size(), 2u);
  ASSERT_EQ(asked(read), "S0lfte=34.2; ");
  const auto& place = read.unplaced.front().place;
  ASSERT_TRUE(place.room);
  EXPECT_EQ(place.room->top, 20) << "its strip of the paper is shown, not a neighbour's";
  EXPECT_EQ(place.line, 1);
}

TEST(AgreedReport, AnUnknownFigureBesideAnAskingOneIsStillListed) {
  const std::string right = "Xyz     5.1    mg/l\n";
  const auto read = agreedReport(std::vector<LaidOut>{asRead("Sodium    20   mg/l       " + right),
                                                      asRead("Sodium    26   mg/l       " + right),
                                                      asRead("Sodium    20   mg/l       " + right)});
  EXPECT_EQ(asked(read), "Sodium=20 Na Na; Xyz=5.1; ");
}

TEST(AgreedReport, OneInkIsListedOnceWithWhatAnyReadingKnows) {
  const auto read = agreedReport(std::vector<LaidOut>{asRead("Calc1m 78 mg/l\nNatrium 3 mg/l\n"),
                                                      asRead("Calcum 78 mg/l\nNatrium 3 mg/l\n"),
                                                      asRead("Calcium 78 mg/l\nNatrium 3 mg/l\n")});
  EXPECT_EQ(asked(read), "Calcium=78 Ca; ") << "named by one, said by that one alone";
  EXPECT_EQ(read.read.size(), 1u);
}

TEST(AgreedReport, ASecondFigureOfOneThingIsNotSettledByTheFirst) {
  const std::string text = "Calcium 78 mg/l\nSodium 20 mg/l\nCalcium 91 mg/l\n";
  const auto read = agreedReport(std::vector<LaidOut>{asRead(text), asRead(text), asRead(text)});
  EXPECT_EQ(read.read.size(), 2u);
  EXPECT_EQ(asked(read), "Calcium=91 Ca; ");
}

TEST(AgreedReport, AFigureThatNoReadingMadeOutLeavesItsNameAsking) {
  for (const auto* line : {"Calcium S.6 mg/l\n", "Calcium     mg/l\n"}) {
    const std::string text = std::string(line) + "Sodium 20 mg/l\nPotassium 3 mg/l\n";
    const auto read = agreedReport(std::vector<LaidOut>{asRead(text), asRead(text), asRead(text)});
    EXPECT_EQ(read.read.size(), 2u) << line;
    ASSERT_EQ(read.unplaced.size(), 1u) << line;
    EXPECT_EQ(read.unplaced.front().name, "Calcium");
    EXPECT_EQ(read.unplaced.front().why, std::string(line).find("S.6") == std::string::npos
                                             ? WhyUnplaced::NoFigure
                                             : WhyUnplaced::Blurred);
  }
}

TEST(PagePlaces, FindTheInkOfAWordsPartAndItsPlaceInAnotherReading) {
  const auto one = asRead("a Kalium;3,08;mg/l\nb 5\n"), other = asRead("x\nb 5\n", {0, 1});
  const auto room = PagePlaces(one).roomOf({1, 9, 13, {}});
  ASSERT_TRUE(room);
  EXPECT_EQ(room->left, 90);
  EXPECT_EQ(room->right, 130);
  EXPECT_FALSE(PagePlaces(one).roomOf({1, 1, 2, {}})) << "a blank";
  const auto place = PagePlaces(other).placeIn(*room);
  EXPECT_EQ(place.line, 1);
  EXPECT_EQ(place.from, place.to);
  const auto figure = PagePlaces(one).roomOf({2, 21, 22, {}});
  ASSERT_TRUE(figure);
  EXPECT_EQ(PagePlaces(other).placeIn(*figure).line, 2);
  EXPECT_EQ(other.text.substr(PagePlaces(other).placeIn(*figure).from, 1), "5");
}

TEST(AgreedReport, ADigitOfTheNameTearsNothing) {
  const std::vector<LaidOut> all{asRead("NO3 54.1 mg/l\nHardness as CaCO3 283 mg/l\n"),
                                 asRead("NO3 54.1 mg/l\nHardness as CaCO3 283 mg/l\n")};
  EXPECT_EQ(agreedReport(all).read.size(), 2u);
}

TEST(AgreedReport, NeverTakesAFigureWithoutItsUnit) {
  const std::vector<LaidOut> readings{asRead("Boron 41 jjj\nCalcium 78 mg/l\n"),
                                      asRead("Boron 41 jjj\nCalcium 78 mg/l\n")};
  const auto read = agreedReport(readings);
  ASSERT_EQ(read.read.size(), 1u);
  EXPECT_EQ(read.read.front().row.key, "Ca");
}

TEST(AgreedLabel, ALineThatOnlyAnotherReadingHasIsListed) {
  const auto withStrips = [](LaidOut out, const std::vector<int>& lines) {
    for (const int line : lines)
      out.strips.push_back({0, 0, 20.0 * line, 300, 20.0 * line + 14});
    return out;
  };
  const std::string potash = "Soluble potash (K2O) 46 %\n", odd = "Qwxz 7.5 %\n",
                    calcium = "Calcium (Ca) 19 %\n";
  const auto read = agreedLabel(std::vector<LaidOut>{withStrips(asRead(potash + calcium), {0, 2}),
                                                     withStrips(asRead(potash + odd + calcium), {0, 1, 2}),
                                                     withStrips(asRead(potash + odd + calcium), {0, 1, 2})});
  EXPECT_EQ(read.label.rows.size(), 2u);
  EXPECT_THAT(read.label.unplaced, ::testing::ElementsAre("Qwxz 7.5 %")) << "once";
}

TEST(AgreedLabel, TakesWhatTwoReadingsHaveAlike) {
  const std::vector<LaidOut> readings{asRead("Soluble potash (K2O) 46 %\nCalcium (Ca) 19 %\n"),
                                      asRead("Soluble potash (K2O) 48 %\nCalcium (Ca) 19 %\n"),
                                      asRead("Soluble potash (K2O) 46 %\nCalcium (Ca) 19 %\n")};
  const auto read = agreedLabel(readings);
  ASSERT_EQ(read.label.rows.size(), 1u);
  EXPECT_EQ(read.label.rows.front(), (core::LabelRow{"Ca", 19}));
  ASSERT_EQ(read.blurred.size(), 1u);
  EXPECT_THAT(read.blurred.front().percent, ::testing::ElementsAre(46, 48));
  const std::vector<LaidOut> torn{asRead("Boron (B) 0. 05 %\n"), asRead("Boron (B) 0. 05 %\n")};
  EXPECT_TRUE(agreedLabel(torn).label.rows.empty());
}

} // namespace
} // namespace butte::reading
