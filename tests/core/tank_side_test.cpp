// Which side a tank is hangs on what is in it, never on its letter or a text.
#include "stock/tank_side.h"
#include "stock_words.h"
#include "support/shelf_builder.h"

#include <gtest/gtest.h>

using namespace butte;
using namespace butte::core;

namespace {

TankContent holding(const std::vector<std::string>& formulas, std::vector<ShelfProduct>& shelf) {
  TankContent content;
  shelf.clear();
  for (const auto& formula : formulas) {
    content.items.emplace_back();
    content.items.back().product = shelf.size();
    shelf.push_back(test::salt(formula));
  }
  return content;
}

struct Case {
  std::vector<std::string> formulas;
  TankSide side;
  KeepFrom from;
};

} // namespace

TEST(TankSide, FollowsFromTheSalts) {
  const Case cases[] = {{{}, TankSide::Empty, KeepFrom::Nothing},
                        {{"Ca(NO3)2·4H2O"}, TankSide::Calcium, KeepFrom::SulfateOrPhosphate},
                        {{"Ca(NO3)2·4H2O", "KNO3"}, TankSide::Calcium, KeepFrom::SulfateOrPhosphate},
                        {{"K2SO4"}, TankSide::Sulfate, KeepFrom::Calcium},
                        {{"KH2PO4", "KNO3"}, TankSide::Phosphate, KeepFrom::Calcium},
                        {{"MgSO4·7H2O", "KH2PO4"}, TankSide::SulfateAndPhosphate, KeepFrom::Calcium},
                        {{"Ca(NO3)2·4H2O", "K2SO4"}, TankSide::AllInOne, KeepFrom::AnyOther},
                        {{"KNO3"}, TankSide::Neutral, KeepFrom::AnyOther},
                        {{"HNO3"}, TankSide::Acid, KeepFrom::AnyOther},
                        {{"ZnSO4·7H2O", "H3BO3"}, TankSide::Traces, KeepFrom::AnyOther}};
  for (const auto& c : cases) {
    std::vector<ShelfProduct> shelf;
    const auto content = holding(c.formulas, shelf);
    EXPECT_EQ(tankSide(shelf, content), c.side) << words::tankSideText(shelf, content);
    EXPECT_EQ(keepFrom(tankSide(shelf, content)), c.from) << words::tankSideText(shelf, content);
  }
}
