#include "base/csv.h"
#include "base/decimal.h"
#include "base/embedded.h"
#include "label/label_text.h"
#include "quantity/typed_quantity.h"
#include "report/report_text.h"
#include "table/column_heading.h"
#include "table/dates.h"
#include "words/particles.h"

#include <gtest/gtest.h>
#include <set>

namespace butte::reading {
namespace {

// Small words come from data alone, in every language; each with where it is known from.
TEST(Particles, EveryRowHasAKindALanguageAndASource) {
  const core::CsvTable table(core::embedded::reading_particles());
  const std::set<std::string> languages{"any", "en", "de", "fr", "nl", "es", "it"};
  ASSERT_GT(table.rowCount(), 100U);
  std::size_t listed = 0;
  for (int kind = 0; kind <= static_cast<int>(Particle::Litre); ++kind)
    listed += particlesOf(static_cast<Particle>(kind)).size();
  EXPECT_EQ(listed, table.rowCount());
  for (std::size_t row = 0; row < table.rowCount(); ++row) {
    EXPECT_TRUE(languages.contains(table.cell(row, "language"))) << table.cell(row, "word");
    EXPECT_FALSE(table.cell(row, "source").empty()) << table.cell(row, "word");
  }
}

// A misreading must not be a figure, nor a mend a thing that no reader knows.
TEST(Particles, MisreadWordsAreOfKnownKindsAndNoFigures) {
  const core::CsvTable table(core::embedded::misread_words());
  const std::set<std::string> kinds{"above the stroke", "litre", "centimetre", "formula"};
  for (std::size_t row = 0; row < table.rowCount(); ++row) {
    const auto &kind = table.cell(row, "kind"), &read = table.cell(row, "read");
    EXPECT_TRUE(kinds.contains(kind)) << read;
    EXPECT_FALSE(table.cell(row, "source").empty()) << read;
    EXPECT_FALSE(kind == "formula" && core::parseDecimal(read)) << read;
  }
}

TEST(Particles, ClocksOfSixLanguages) {
  for (const char* text : {"7:15 pm", "7:15 p.m.", "19:15 Uhr", "19h15", "19 h 15", "19:15 uur",
                           "19:15 heures", "19:15 horas", "19:15 ore"})
    EXPECT_EQ(clockIn(text), 19 * 3600 + 15 * 60) << text;
  EXPECT_EQ(clockIn("19:15 lunch"), std::nullopt);
}

TEST(Particles, PricesPerInSixLanguages) {
  for (const char* heading : {"Price per 25 kg (EUR)", "Preis je 25 kg €", "prix par 25 kg EUR",
                              "precio por 25 kg EUR", "prezzo per 25 kg EUR", "prijs per 25 kg €"}) {
    const auto read = columnHeadingOf(heading);
    EXPECT_EQ(read.currency, "EUR") << heading;
    EXPECT_EQ(read.unit, "kg") << heading;
    EXPECT_EQ(read.per, 25) << heading;
  }
}

TEST(Particles, RatesAndRatiosInOtherLanguages) {
  for (const char* text :
       {"115 g per 100 L", "115 g pro 100 L", "115 g je 100 L", "115 g par 100 L", "115 g por 100 L"}) {
    const auto read = typedQuantity(text, "g/L");
    ASSERT_TRUE(read) << text;
    EXPECT_DOUBLE_EQ(read->value, 1.15) << text;
  }
}

TEST(Particles, PercentsOfLabelsInOtherLanguages) {
  for (const char* text :
       {"Gesamtstickstoff 15 Prozent", "azote total 15 pourcent", "nitrógeno total 15 por ciento"}) {
    const auto read = readLabelText(text);
    ASSERT_EQ(read.read.size(), 1U) << text;
    EXPECT_EQ(read.read.front().percent, 15) << text;
  }
}

} // namespace
} // namespace butte::reading
