#pragma once
#include "base/decimal.h"
#include "product/shelf_product.h"
#include "water/water.h"

#include <gtest/gtest.h>

/// Short ways to put a shelf together in tests.
namespace butte::test {

inline core::ShelfProduct salt(const std::string& formula, double purityPercent = 100) {
  core::ShelfProduct p;
  p.id = p.name = formula;
  auto composition = core::compositionFromFormula(formula, purityPercent);
  EXPECT_TRUE(composition) << formula;
  if (composition) p.composition = *composition;
  return p;
}

inline core::ShelfProduct labelled(const std::string& id, const std::vector<core::LabelRow>& label) {
  core::ShelfProduct p;
  p.id = p.name = id;
  auto composition = core::compositionFromLabel(label);
  EXPECT_TRUE(composition) << id;
  if (composition) p.composition = composition->composition;
  return p;
}

inline core::Mass grams(double v) {
  return core::Mass::fromGrams(v);
}
inline core::Volume litres(double v) {
  return core::Volume::fromLitres(v);
}

inline core::Water waterOf(const std::vector<core::WaterRow>& rows) {
  core::WaterReport report;
  report.milligramsPerLitre = rows;
  auto water = core::normaliseWater(report);
  EXPECT_TRUE(water);
  return water ? *water : core::pureWater();
}

} // namespace butte::test
