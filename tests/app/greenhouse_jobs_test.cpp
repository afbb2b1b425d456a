// What a greenhouse comes to do, walked from a fresh formula by typing and pressing alone; every figure is
// reckoned here by hand.
#include "job_walk.h"
#include "print/stage_card.h"

#include <QAbstractButton>
#include <QLabel>

namespace butte::app {
namespace {

using core::Nutrient;
using ::testing::HasSubstr;

class GreenhouseJobs : public JobWalk {
protected:
  core::Volume tank(std::size_t t) { return editor().answer().stock.tanks.at(t).tank.volume; }
};

// Two tanks of 50 gallons and one of 30 with sulfuric acid, 1:100, a scale in decimal pounds; a normal sheet
// and a boosted one on one card (common practice).
TEST_F(GreenhouseJobs, TomatoOnSingleSaltsNormalAndBoostedOnOneCard) {
  window->showStation(Station::Water);
  QApplication::processEvents();
  fill("water_alkalinity_as_CaCO3", "180");
  window->showStation(Station::Target);
  QApplication::processEvents();
  choose("targetChoice", "Arizona tomato A");
  window->showStation(Station::Formula);
  QApplication::processEvents();
  for (const auto* salt : {"calcium nitrate 15.5 % N", "potassium nitrate", "monopotassium phosphate",
                           "magnesium sulfate", "potassium sulfate", "iron DTPA 11 %", "sulfuric acid 37 %"})
    choose("addProduct", salt);
  window->showStation(Station::Stocks);
  QApplication::processEvents();
  if (editor().document().given.direct) click("wayStocks");
  fill("stockFactor", "100");
  fill("tankVolume0", "50");
  fill("tankVolume1", "50");
  trigger("addTank_acid");
  fill("tankVolume2", "30");
  QApplication::processEvents();
  EXPECT_NEAR(tank(0).usGallons(), 50, 1e-6);
  EXPECT_NEAR(tank(2).usGallons(), 30, 1e-6);
  EXPECT_NEAR(editor().answer().stock.feedMade->usGallons(), 5000, 1)
      << "by the salts; acid is refilled sooner";
  click("stockPart2"); // making them
  const auto making = find<QLabel>("makingText")->text().toStdString();
  EXPECT_THAT(making, HasSubstr("in each 10 US gal of the tank"));
  EXPECT_THAT(making, HasSubstr("Never water into acid"));

  window->showStation(Station::Bench);
  QApplication::processEvents();
  choose("scale0_unit", "lb");
  fill("scale0_readability", "0.01");
  fill("scale0_capacity", "60");
  EXPECT_THAT(sheet(), HasSubstr("Tank acid"));
  EXPECT_THAT(sheet(), HasSubstr(" lb"));
  EXPECT_THAT(sheet(), ::testing::Not(HasSubstr(" kg")));

  QStringList names{"normal", "from the second truss"};
  window->prompts().words = [&](const QString&, const QString&, const QString&) { return names.takeFirst(); };
  trigger("addStage");
  window->showStation(Station::Target);
  QApplication::processEvents();
  choose("targetChoice", "Arizona tomato B");
  const auto card = plain(stageCardHtml(editor(), window->units(), "today"));
  for (const auto* part : {"normal", "from the second truss", "50.0 US gal", "sulfuric acid", "lb"})
    EXPECT_THAT(card, HasSubstr(part));
  click("stage0");
  EXPECT_EQ(editor().document().targetName, "Arizona tomato A");
}

// 115 g and 85 g in 100 L stand on the labels; the farm's own way is 115 : 92.5 with 15 g (common practice);
// the ratio of the weights stays while the strength follows the season.
TEST_F(GreenhouseJobs, ALabelsRateIsTypedAndTheSeasonKeepsItsRatio) {
  click("ownProduct");
  for (const auto& [field, text] : {std::pair("productName", "grade 6-11-31"),
                                    {"label_N_NO3", "6"},
                                    {"label_P2O5", "11"},
                                    {"label_K2O", "31"},
                                    {"label_Mg", "1.9"}})
    fill(field, text);
  click("putProduct");
  choose("addProduct", "calcium nitrate 15.5 % N");
  choose("addProduct", "magnesium sulfate");
  trigger("units_g");
  fill("batch", "264.172");
  fill("weight_own_1", "115 g per 100 L");
  fill("weight_can_double", "85 g per 100 L");
  QApplication::processEvents();
  EXPECT_NEAR(grams("own_1"), 1150, 0.1);
  EXPECT_NEAR(grams("can_double"), 850, 0.1);
  fill("weight_can_double", "92.5 g per 100 L");
  fill("weight_epsom", "15 g per 100 L");
  for (const double wanted : {2.0, 1.4}) {
    window->prompts().words = [&](const QString&, const QString&, const QString&) {
      return QString::number(wanted * 500) + " ppm500";
    };
    trigger("strengthToEc");
    QApplication::processEvents();
    EXPECT_NEAR(editor().answer().feed.conductivity.milliSiemensPerCm(), wanted, 0.01);
    EXPECT_NEAR(grams("own_1") / grams("can_double"), 115 / 92.5, 2e-3);
    EXPECT_NEAR(grams("epsom") / grams("own_1"), 15.0 / 115, 2e-3);
  }
}

} // namespace
} // namespace butte::app
