#include "base/decimal.h"
#include "formula/mix.h"
#include "product/catalogue.h"
#include "support/shelf_builder.h"
#include "support/text_table.h"

#include <map>

using namespace butte;
using namespace butte::core;

namespace {

struct Published {
  std::vector<ShelfProduct> shelf;
  std::vector<Mass> grams;
  std::vector<std::vector<std::string>> expected;
};

/// tests/cases/published_solutions.txt: "solution | salt | formula | g/L" and "solution | gives | key | value
/// | %".
std::map<std::string, Published> publishedSolutions() {
  std::map<std::string, Published> out;
  for (const auto& row : test::readTextTable("published_solutions.txt")) {
    auto& solution = out[row[0]];
    if (row[1] == "salt") {
      solution.shelf.push_back(test::salt(row[2]));
      solution.grams.push_back(test::grams(*parseDecimal(row[3])));
    } else {
      solution.expected.push_back(row);
    }
  }
  return out;
}

double figureOf(const MixResult& feed, const std::string& key) {
  if (key == "cations") return feed.ions.cationsMeqPerL();
  if (key == "anions") return feed.ions.anionsMeqPerL();
  for (const auto ion : allIons) {
    if ("meq " + std::string(ionKey(ion)) == key) return feed.ions.of(ion);
  }
  return feed.milligramsPerLitre.of(*nutrientFromKey(key));
}

} // namespace

TEST(Mix, PublishedSolutionsComeFromTheirSalts) {
  const auto solutions = publishedSolutions();
  ASSERT_GE(solutions.size(), 5u);
  for (const auto& [name, solution] : solutions) {
    const auto feed = mix(pureWater(), solution.shelf, solution.grams, test::litres(1));
    for (const auto& row : solution.expected) {
      const double expected = *parseDecimal(row[3]);
      EXPECT_NEAR(figureOf(feed, row[2]), expected, expected * *parseDecimal(row[4]) / 100)
          << name << " " << row[2];
    }
  }
}

TEST(Mix, WaterCountsAndAcidTakesItsAlkalinity) {
  const auto water = test::waterOf({{"Ca", 52}, {"HCO3", 122.032}});
  auto acid = test::salt("HNO3", 60);
  acid.liquid = true;
  // 1 meq/L of nitric acid: 63.013 mg of HNO3, 105.02 mg of 60 % acid.
  const auto feed = mix(water, {acid}, {test::grams(0.0630130 / 0.6)}, test::litres(1));
  EXPECT_NEAR(feed.milligramsPerLitre.of(Nutrient::Ca), 52, 1e-12);
  EXPECT_NEAR(feed.ions.of(Ion::HCO3), 1, 1e-4);
  EXPECT_NEAR(feed.ions.of(Ion::NO3), 1, 1e-4);
  EXPECT_EQ(feed.ions.of(Ion::H), 0);
}

TEST(Mix, AcidBeyondTheAlkalinityStandsAsFreeAcid) {
  const auto feed = mix(pureWater(), {test::salt("H2SO4")}, {test::grams(0.098072)}, test::litres(1));
  EXPECT_NEAR(feed.ions.of(Ion::H), 2, 1e-3);
  EXPECT_NEAR(feed.ions.cationsMeqPerL(), feed.ions.anionsMeqPerL(), 1e-9);
}

/// Every neutral macro salt and every acid and base must keep the ions in balance.
TEST(Mix, FormulasOfTheCatalogueAreElectroneutral) {
  for (const auto& p : catalogue()) {
    if (p.fromLabel || p.composition.role == ProductRole::Chelate) continue;
    if (p.formulaText.find("C6H8O7") == 0 || p.formulaText.find("C2H4O2") == 0) continue; // anion not listed
    double trace = 0;
    for (const auto n : allNutrients)
      trace += isTraceElement(n) ? p.composition.massFraction.of(n) : 0;
    if (trace > 0) continue; // trace elements are left out of the ion list
    ShelfProduct product;
    product.composition = p.composition;
    const auto feed = mix(pureWater(), {product}, {test::grams(1)}, test::litres(1));
    EXPECT_NEAR(feed.ions.cationsMeqPerL(), feed.ions.anionsMeqPerL(), 1e-9) << p.id;
  }
}

TEST(Mix, CostIsUnknownWhereAUsedProductHasNoPrice) {
  auto priced = test::salt("KNO3"), free = test::salt("KCl");
  priced.pricePerKg = 2;
  EXPECT_NEAR(*mix(pureWater(), {priced, free}, {test::grams(500), test::grams(0)}, test::litres(1)).cost, 1,
              1e-12);
  EXPECT_FALSE(mix(pureWater(), {priced, free}, {test::grams(500), test::grams(1)}, test::litres(1)).cost);
}
