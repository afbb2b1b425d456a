// Tanks day by day, against scipy's solve_ivp (tests/data/truth/README.md).
#include "truth_table.h"

using namespace butte::test;

TEST(TruthBalance, LitresElementsAndAlkalinityOfEveryTank) {
  int compared = 0;
  for (const auto& row : truthLines("balance.jsonl")) {
    const auto days = answerTo("balance", row["input"])["days"];
    for (const auto& wanted : row["days"]) {
      const auto& got = days[wanted["day"].get<std::size_t>()];
      EXPECT_NEAR(got["volume_l"], wanted["volume_l"].get<double>(), 1e-4 * wanted["volume_l"].get<double>());
      EXPECT_NEAR(got["alkalinity_meq_per_l"], wanted["alkalinity_meq_per_l"].get<double>(), 0.01);
      for (const auto& [key, value] : wanted["elements_mg_per_l"].items()) {
        EXPECT_NEAR(got["elements_mg_per_l"][key], value.get<double>(),
                    std::max(0.002 * value.get<double>(), 0.02))
            << key << " on day " << wanted["day"];
        ++compared;
      }
    }
  }
  EXPECT_GT(compared, 300);
}
