#include "script_input.h"
#include "words.h"

#include <gtest/gtest.h>
#include <random>

using namespace butte;

TEST(ScriptInput, DefaultsAreThoseOfTheReference) {
  const auto input = exchange::readScriptInput(
      R"({"target_mg_per_l": {"K": 100}, "products": [{"id": "k", "formula": "KNO3"}]})");
  ASSERT_TRUE(input);
  const auto& given = input->given;
  EXPECT_EQ(given.request.volume.litres(), 1);
  EXPECT_EQ(given.request.rows.at(0).tolerancePercent, 5);
  EXPECT_EQ(given.request.rows.at(0).weight, 1);
  EXPECT_EQ(given.stock.factor, 100);
  EXPECT_EQ(given.stock.temperature.celsius(), 20);
  EXPECT_FALSE(given.request.alkalinityLeftMeqPerL);
}

TEST(ScriptInput, AnElementsOwnToleranceWinsWhateverTheOrder) {
  const auto input = exchange::readScriptInput(
      R"({"target_mg_per_l": {"K": 100, "N": 90}, "tolerance_percent": {"K": 20, "default": 3}, "products": []})");
  ASSERT_TRUE(input);
  EXPECT_EQ(input->given.request.rows[0].tolerancePercent, 20);
  EXPECT_EQ(input->given.request.rows[1].tolerancePercent, 3);
}

/// Cut short or scrambled anywhere, the text is refused in words and never crashes.
TEST(ScriptInput, DamagedTextIsRefusedInWords) {
  const std::string good =
      R"({"water": {"analysis_mg_per_l": {"Ca": 52}}, "target_mg_per_l": {"K": 100}, "products":
    [{"id": "k", "formula": "KNO3", "tank": {"A": 1}}], "weights_g": {"k": 1}, "locked": ["k"], "stock": {"factor": 50}})";
  for (std::size_t n = 0; n < good.size(); ++n)
    EXPECT_FALSE(exchange::readScriptInput(good.substr(0, n))) << n;
  std::mt19937 random(3);
  for (int i = 0; i < 3000; ++i) {
    auto text = good;
    for (int k = 0; k < 3; ++k)
      text[random() % text.size()] = static_cast<char>(random() % 256);
    const auto input = exchange::readScriptInput(text);
    if (!input) {
      EXPECT_FALSE(words::problemLine(input.problem()).empty());
    }
  }
}
