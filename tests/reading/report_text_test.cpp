// Reports as text: the tables of laboratories and suppliers, lines typed by hand, what is no report at all.
#include "report/report_text.h"
#include "water/water.h"

#include <gmock/gmock.h>

using namespace butte;
using namespace butte::reading;
using ::testing::HasSubstr;

TEST(ReportText, ASecondTablesUnknownNameIsListedToo) {
  for (const auto* text :
       {"Calcium   78   mg/l   Xyzzite   5.1   mg/l\n",
        "Parameter;Result;Unit;Parameter;Result;Unit\nCalcium;78;mg/l;Xyzzite;5.1;mg/l\n"}) {
    const auto found = readReportText(text);
    ASSERT_EQ(found.read.size(), 1u) << text;
    EXPECT_EQ(found.read.front().row, (core::ReportRow{"Ca", 78, "mg/L", false}));
    ASSERT_EQ(found.unplaced.size(), 1u) << text;
    EXPECT_EQ(found.unplaced.front().name + found.unplaced.front().value, "Xyzzite5.1");
  }
}

TEST(ReportText, ASpreadsheetsTableIsRead) {
  const auto found = readReportText(
      "Parameter\tResult\tUnit\nCalcium\t78\tmg/l\nMagnesium\t14,2\tmg/l\nSodium (Na)\t1.0\tmmol/l\n"
      "Nitrate as N\t2.7\tmg/l\nTotal alkalinity\t203\tmg/l CaCO3\nBoron\t<50\t\xC2\xB5g/l\nTotal "
      "hardness\t14\t\xC2\xB0"
      "dH\n"
      "Conductivity\t580\t\xC2\xB5S/cm\npH\t7.8\t\nColiforms\t0\tper 100 ml\n");
  const auto& rows = found.report.rows;
  ASSERT_EQ(rows.size(), 7u);
  EXPECT_EQ(rows[0].key, "Ca");
  EXPECT_DOUBLE_EQ(rows[1].value, 14.2) << "a decimal comma";
  EXPECT_EQ(rows[2].unit, "mmol/L");
  EXPECT_EQ(rows[3].key, "N_NO3");
  EXPECT_EQ(rows[4].key, "alkalinity_as_CaCO3");
  EXPECT_EQ(rows[4].unit, "mg/L");
  EXPECT_TRUE(rows[5].below);
  EXPECT_EQ(rows[5].unit, "ug/L");
  EXPECT_EQ(rows[6].unit, "dH");
  EXPECT_DOUBLE_EQ(*found.report.conductivityMsPerCm, 0.58);
  EXPECT_DOUBLE_EQ(*found.report.ph, 7.8);
  ASSERT_EQ(found.unplaced.size(), 1u) << "what is not known is shown, not lost";
  EXPECT_EQ(found.unplaced[0].name, "Coliforms");
  EXPECT_EQ(found.unplaced[0].place.line, 11);
}

TEST(ReportText, NamesInOneLineAndFiguresBelow) {
  const auto found = readReportText(
      "Ca;Mg;Na;Cl;SO4;HCO3;EC\nmg/l;mg/l;mg/l;mg/l;mg/l;mg/l;mS/cm\n52;9;21;30;28;166;0,52\n");
  ASSERT_EQ(found.report.rows.size(), 6u);
  EXPECT_DOUBLE_EQ(found.report.rows[5].value, 166);
  EXPECT_DOUBLE_EQ(*found.report.conductivityMsPerCm, 0.52);
  EXPECT_TRUE(found.unplaced.empty());
}

TEST(ReportText, LinesTypedWithBlanksAndASecondFigureForOneThing) {
  const auto found = readReportText("Calcium 52 mg/l\nChloride < 5 mg/L\nCa 60\nEC 520\n");
  ASSERT_EQ(found.report.rows.size(), 2u);
  EXPECT_TRUE(found.report.rows[1].below);
  EXPECT_DOUBLE_EQ(*found.report.conductivityMsPerCm, 0.52) << "520 can only be uS/cm";
  ASSERT_EQ(found.unplaced.size(), 1u);
  EXPECT_EQ(found.unplaced[0].value, "60");
}

TEST(ReportText, ACommaBehindANameWithADigitPartsCells) {
  const auto found = readReportText("NO3,12,mg/l\nSO4,41,mg/l\nCalcium,52,5,mg/l\nMg 14,2 mg/l\n");
  const auto& rows = found.report.rows;
  ASSERT_EQ(rows.size(), 4u);
  EXPECT_EQ(rows[0].key, "NO3");
  EXPECT_DOUBLE_EQ(rows[0].value, 12);
  EXPECT_EQ(rows[1].key, "SO4");
  EXPECT_DOUBLE_EQ(rows[2].value, 52.5);
  EXPECT_DOUBLE_EQ(rows[3].value, 14.2);
  EXPECT_TRUE(found.unplaced.empty());
}

TEST(ReportText, FiguresUnderAHeadingPartedByCommas) {
  const auto found = readReportText("Sample,Ca,Mg,Na\nwell,78,14,23\n");
  ASSERT_EQ(found.report.rows.size(), 3u);
  EXPECT_DOUBLE_EQ(found.report.rows[0].value, 78);
  EXPECT_DOUBLE_EQ(found.report.rows[2].value, 23);
}

TEST(ReportText, DecimalMarksMayBeMixed) {
  const auto found = readReportText("Calcium;52,5;mg/l\nMagnesium;14.2;mg/l\n\"Sodium\",\"21,3\",\"mg/l\"\n");
  ASSERT_EQ(found.report.rows.size(), 3u);
  EXPECT_DOUBLE_EQ(found.report.rows[0].value, 52.5);
  EXPECT_DOUBLE_EQ(found.report.rows[1].value, 14.2);
  EXPECT_DOUBLE_EQ(found.report.rows[2].value, 21.3);
}

TEST(ReportText, QuotesHoldACellTogether) {
  const auto found = readReportText("\"Nitrate, as N\",2.7,mg/l\n\"say \"\"iron\"\" here\",3,mg/l\n");
  ASSERT_EQ(found.report.rows.size(), 1u);
  EXPECT_EQ(found.report.rows[0].key, "N_NO3");
  ASSERT_EQ(found.unplaced.size(), 1u);
  EXPECT_EQ(found.unplaced[0].name, "say \"iron\" here");
}

TEST(ReportText, AFormulaIsShownAndNeverTakenForTheNextFigure) {
  // The last column is the limit of the law: it must not become the calcium.
  const auto found =
      readReportText("Calcium,=SUM(A1:A9),mg/l,100\nMagnesium,#REF!,mg/l\nSodium,21,mg/l,200\n");
  ASSERT_EQ(found.report.rows.size(), 1u);
  EXPECT_EQ(found.report.rows[0].key, "Na");
  EXPECT_DOUBLE_EQ(found.report.rows[0].value, 21);
  ASSERT_EQ(found.unplaced.size(), 2u);
  EXPECT_EQ(found.unplaced[0].why, WhyUnplaced::Formula);
  EXPECT_EQ(found.unplaced[0].name, "Calcium");
  EXPECT_EQ(found.unplaced[0].value, "=SUM(A1:A9)");
  EXPECT_EQ(found.unplaced[0].unit, "mg/L");
  EXPECT_EQ(found.unplaced[1].value, "#REF!");
}

TEST(ReportText, UnderAHeadingWhatIsNotKnownIsShownToo) {
  const auto found = readReportText("Sample;Ca;Unobtainium;Mg;Na;K\nwell;52;3;=B2;n.d.;see note\n");
  ASSERT_EQ(found.report.rows.size(), 1u) << "sodium was not measured, which is no fault";
  ASSERT_EQ(found.unplaced.size(), 3u);
  EXPECT_EQ(found.unplaced[0].name, "Unobtainium");
  EXPECT_EQ(found.unplaced[0].why, WhyUnplaced::UnknownName);
  EXPECT_EQ(found.unplaced[1].name, "Mg");
  EXPECT_EQ(found.unplaced[1].why, WhyUnplaced::Formula);
  EXPECT_EQ(found.unplaced[2].name, "K");
  EXPECT_EQ(found.unplaced[2].why, WhyUnplaced::NoFigure);
}

TEST(ReportText, AnUnknownNameBelowAHeadingIsNoFigureOfIt) {
  const auto found = readReportText("Ca;Mg;Na\n52;9;21\nColiforms;0\n");
  ASSERT_EQ(found.report.rows.size(), 3u);
  EXPECT_DOUBLE_EQ(found.report.rows[1].value, 9);
  ASSERT_EQ(found.unplaced.size(), 1u);
  EXPECT_EQ(found.unplaced[0].name, "Coliforms");
  EXPECT_EQ(found.unplaced[0].why, WhyUnplaced::NotNeeded);
  const auto alone = readReportText("Ca;Mg;Na\nColiforms;0\n");
  EXPECT_TRUE(alone.report.rows.empty()) << "the water has no magnesium of 0";
}

TEST(ReportText, AKnownNameWithoutAFigure) {
  const auto found =
      readReportText("Calcium;see page 2;mg/l\nMagnesium;n.d.;mg/l\nSodium;-;mg/l\nPotassium;;mg/l\n");
  EXPECT_TRUE(found.report.rows.empty());
  ASSERT_EQ(found.unplaced.size(), 1u) << "the other three say that nothing was measured";
  EXPECT_EQ(found.unplaced[0].value, "see page 2");
  EXPECT_EQ(found.unplaced[0].why, WhyUnplaced::NoFigure);
}

TEST(ReportText, ManyThousandRowsAreAllAccountedFor) {
  std::string text = "Calcium,78,mg/l\n";
  for (int i = 0; i < 20000; ++i)
    text += "thing" + std::to_string(i) + "," + std::to_string(i % 50) + ",mg/l\n";
  const auto found = readReportText(text);
  ASSERT_EQ(found.report.rows.size(), 1u);
  ASSERT_EQ(found.unplaced.size(), 20000u);
  EXPECT_EQ(found.unplaced[19999].name, "thing19999");
  EXPECT_EQ(found.unplaced[19999].value, "49");
  EXPECT_EQ(found.unplaced[19999].place.line, 20001);
}

TEST(ReportText, OneEndlessLineOfFiguresIsReadToItsEnd) {
  std::string text = "Ca";
  for (int i = 0; i < 40000; ++i)
    text += ",1";
  const auto found = readReportText(text);
  ASSERT_EQ(found.unplaced.size(), 1u) << "no one can say which of them is the calcium";
  EXPECT_EQ(found.unplaced[0].why, WhyUnplaced::WhichFigure);
  EXPECT_LE(found.unplaced[0].couldBe.size(), 12u);
}

TEST(ReportText, TextOfOldSpreadsheetsIsRead) {
  // Windows-1252: 0xE4 is a-umlaut, 0xB0 the degree, 0xB5 micro.
  const auto old = readReportText("Gesamth\xE4rte;14;\xB0"
                                  "dH\nBor;<50;\xB5g/l\n");
  ASSERT_EQ(old.report.rows.size(), 2u);
  EXPECT_EQ(old.report.rows[0].key, "hardness_as_CaCO3");
  EXPECT_EQ(old.report.rows[0].unit, "dH");
  EXPECT_EQ(old.report.rows[1].unit, "ug/L");
  // What a spreadsheet saves as "Unicode text": UTF-16 with its mark.
  std::string wide = "\xFF\xFE";
  for (const char c : std::string("Ca\t52\tmg/l\r\n"))
    wide += {c, '\0'};
  const auto utf16 = readReportText(wide);
  ASSERT_EQ(utf16.report.rows.size(), 1u);
  EXPECT_DOUBLE_EQ(utf16.report.rows[0].value, 52);
}

// Found by a fuzzer.
TEST(ReportText, ABracketThatEndsItsCellIsReadOver) {
  EXPECT_EQ(readReportText("Calcium (\t52\tmg/l\n").report.rows.size(), 1u);
  EXPECT_EQ(readReportText("Calcium (").report.rows.size(), 0u);
}

TEST(ReportText, AnyBytesAreReadToTheEnd) {
  std::string text;
  unsigned state = 1;
  for (int i = 0; i < 20000; ++i) {
    state = state * 1664525 + 1013904223;
    text += static_cast<char>(state >> 24);
    if (state % 97 == 0) text += "Ca\t5\n";
  }
  const auto found = readReportText(text);
  EXPECT_LE(found.report.rows.size(), core::waterKeys().size());
}
