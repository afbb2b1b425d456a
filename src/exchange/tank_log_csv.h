#pragma once
#include "base/result.h"
#include "product/shelf_product.h"
#include "tank/tank_log.h"

#include <string_view>
#include <vector>

namespace butte::exchange {

/// What the lines of a log speak of.
struct TankLogTerms {
  core::FeedContent feed, water;
  std::vector<core::ShelfProduct> shelf; ///< for what was weighed in, by id
};

/// A tank's log as a table (docs/formats/tank_log.md): `day` or `at`, `did`, and what that asks for. In the
/// order of its days. Errors name line and column: "log[3].ph".
core::Result<std::vector<core::TankEntry>> readTankLog(std::string_view csv, const TankLogTerms& terms);

} // namespace butte::exchange
