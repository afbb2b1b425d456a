#include "base/csv.h"

#include <gtest/gtest.h>

using namespace butte::core;

TEST(Csv, QuotedFieldsHoldCommasQuotesAndLineBreaks) {
  const CsvTable table("id,text\r\na,\"one, \"\"two\"\"\nthree\"\nb,\n\nc\n");
  ASSERT_EQ(table.rowCount(), 3u);
  EXPECT_EQ(table.cell(0, "text"), "one, \"two\"\nthree");
  EXPECT_EQ(table.cell(1, "text"), "");
  EXPECT_EQ(table.cell(2, "text"), ""); // a short row
  EXPECT_FALSE(table.number(1, "text"));
}

TEST(Csv, AnEmptyTextHasNoRows) {
  EXPECT_EQ(CsvTable("").rowCount(), 0u);
}
